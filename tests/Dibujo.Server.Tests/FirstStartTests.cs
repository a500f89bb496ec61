using System.Net;
using System.Text.RegularExpressions;

namespace Dibujo.Server.Tests;

/// <summary>An installation without the demo: its first administrator, and copies of its data.</summary>
public sealed class FirstStartTests
{
    [Fact]
    public async Task Whoever_sees_what_the_first_start_prints_makes_the_first_administrator_once()
    {
        var data = ServerProcess.NewDataFolder();
        await using var server = await ServerProcess.Start(data, null, "--demo=false");
        var key = KeyIn(server.Said);
        Assert.NotEmpty(key);
        var nobody = await CallerAt(server);

        using var unnamed = await nobody.Post("/api/welcome", new { key, password = "a good long one" });
        Assert.Equal(HttpStatusCode.BadRequest, unnamed.StatusCode);
        using var made = await nobody.Post("/api/welcome", new { key, userName = "vera", displayName = "Vera Lindqvist", password = "a good long one" });
        Assert.Equal(HttpStatusCode.NoContent, made.StatusCode);
        using var again = await nobody.Post("/api/welcome", new { key, userName = "mallory", displayName = "Mallory", password = "a good long one" });
        Assert.Equal(HttpStatusCode.NotFound, again.StatusCode);

        using var signedIn = await nobody.Try("vera", "a good long one");
        await nobody.FetchToken();
        Assert.True((await nobody.Read("/api/sign-in"))["person"]!["isAdministrator"]!.GetValue<bool>());
        using var begun = await nobody.Post("/api/record-types", new { key = "frame", label = "Frame" });
        using var published = await nobody.Post("/api/record-types/frame/editions", new { version = 1, note = "As it was begun." });
        Assert.Equal(HttpStatusCode.OK, published.StatusCode);

        var copy = Path.Combine(data, "copy");
        Assert.Equal(0, await ServerProcess.BackUp(data, copy));
        Assert.Equal(3, await ServerProcess.BackUp(data, copy));
        Assert.True(OperatingSystem.IsWindows() || OfOwnerOnly(copy));
        await using var restored = await ServerProcess.Start(copy, null, "--demo=false");
        Assert.DoesNotContain("/welcome#", restored.Said, StringComparison.Ordinal);
        var vera = await CallerAt(restored);
        using var there = await vera.Try("vera", "a good long one");
        Assert.Equal(HttpStatusCode.NoContent, there.StatusCode);
    }

    [Fact]
    public async Task Another_start_prints_another_link_in_the_place_of_the_first()
    {
        var data = ServerProcess.NewDataFolder();
        string first;
        await using (var server = await ServerProcess.Start(data, null, "--demo=false"))
        {
            first = KeyIn(server.Said);
        }

        await using var later = await ServerProcess.Start(data, null, "--demo=false");
        var nobody = await CallerAt(later);
        using var old = await nobody.Post("/api/welcome/look", new { key = first });
        Assert.Equal(HttpStatusCode.NotFound, old.StatusCode);
        Assert.Contains("/welcome#", later.Said, StringComparison.Ordinal);
    }

    [Fact]
    public async Task Where_no_administrator_is_left_the_command_line_makes_a_link()
    {
        var data = ServerProcess.NewDataFolder();
        await using (await ServerProcess.Start(data))
        {
            // The demo's people.
        }

        var key = KeyIn(await ServerProcess.Rescue(data, "rosa"));

        Assert.NotEmpty(key);
        await using var server = await ServerProcess.Start(data);
        var rosa = await CallerAt(server);
        using var set = await rosa.Post("/api/welcome", new { key, password = "a good long one" });
        Assert.Equal(HttpStatusCode.NoContent, set.StatusCode);
        using var signedIn = await rosa.Try("rosa", "a good long one");
        await rosa.FetchToken();
        var person = (await rosa.Read("/api/sign-in"))["person"]!;
        Assert.True(person["isAdministrator"]!.GetValue<bool>());
        Assert.Contains("registrar", person["roles"]!.ToJsonString(), StringComparison.Ordinal);
    }

    [System.Runtime.Versioning.UnsupportedOSPlatform("windows")]
    private static bool OfOwnerOnly(string folder) => Directory.EnumerateFileSystemEntries(folder, "*", SearchOption.AllDirectories).Append(folder)
        .All(one => (File.GetUnixFileMode(one) & ~(UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute)) == UnixFileMode.None);

    /// <summary>What follows # in the link that was printed; empty where none was.</summary>
    private static string KeyIn(string said) => Regex.Match(said, "(?<=/welcome#)[0-9A-F]{64}", RegexOptions.None, TimeSpan.FromSeconds(1)).Value;

    private static async Task<Caller> CallerAt(ServerProcess server)
    {
        var caller = new Caller(new HttpClient { BaseAddress = server.Address });
        await caller.FetchToken();
        return caller;
    }
}
