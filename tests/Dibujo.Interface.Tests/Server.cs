namespace Dibujo.Interface.Tests;

/// <summary>One server with a demo database of its own for a class of tests.</summary>
public sealed class Server : IAsyncLifetime
{
    private readonly string data = ServerProcess.NewDataFolder();
    private ServerProcess? process;

    internal Uri Address => process!.Address;

    public async Task InitializeAsync() => process = await ServerProcess.Start(data);

    public async Task DisposeAsync()
    {
        await process!.DisposeAsync();
        Directory.Delete(data, recursive: true);
    }
}
