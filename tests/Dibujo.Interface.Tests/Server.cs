namespace Dibujo.Interface.Tests;

/// <summary>One server with a demo database of its own for a class of tests.</summary>
public sealed class Server : IAsyncLifetime
{
    private readonly string data = DemoFolder.New();
    private ServerProcess? process;

    internal Uri Address => process!.Address;

    /// <summary>An administrator's browser with the drafting table of loans open and live.</summary>
    internal Browser DraftingTable()
    {
        var browser = new Browser(Address);
        browser.SignIn("ada", "/types/object-loan/rules");
        browser.SeeLive();
        browser.See("[data-rule]");
        return browser;
    }

    public async Task InitializeAsync() => process = await ServerProcess.Start(data);

    public async Task DisposeAsync()
    {
        await process!.DisposeAsync();
        Directory.Delete(data, recursive: true);
    }
}
