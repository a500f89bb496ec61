using System.Net;

namespace Dibujo.Server.Tests;

/// <summary>The built server, killed without warning.</summary>
public sealed class DurabilityTests : IDisposable
{
    private readonly string data = ServerProcess.NewDataFolder();

    [Fact]
    public async Task An_answered_save_outlives_the_process()
    {
        int id;
        await using (var first = await ServerProcess.Start(data))
        {
            var lorenz = await SignIn(first, "lorenz");
            id = await lorenz.Begin(new { title = "Tidal Cloak for Oststrand" });
            using var saved = await lorenz.Save(id, new { borrower = "Institute of Oststrand" });
            Assert.Equal(HttpStatusCode.OK, saved.StatusCode);
        }

        await using var second = await ServerProcess.Start(data);
        var record = await (await SignIn(second, "lorenz")).Read($"/api/records/{id}");

        Assert.Equal("Institute of Oststrand", record["values"]!["borrower"]!.GetValue<string>());
        Assert.Equal(2, record["version"]!.GetValue<int>());
    }

    public void Dispose() => Directory.Delete(data, recursive: true);

    private static async Task<Caller> SignIn(ServerProcess server, string person)
    {
        var caller = new Caller(new HttpClient { BaseAddress = server.Address });
        await caller.SignIn(person);
        return caller;
    }
}
