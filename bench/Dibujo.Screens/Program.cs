using System.Globalization;
using Dibujo.Endurance;
using Dibujo.Screens;

// Usage: [--json] [--tries N] [--demo-only | --drafting-only | --keys-only]. Build with scripts/build first.
var asJson = args.Contains("--json", StringComparer.Ordinal);
var at = Array.IndexOf(args, "--tries");
var tries = at >= 0 ? int.Parse(args[at + 1], CultureInfo.InvariantCulture) : 20;
var data = BuiltServer.NewFolder();
var (server, _) = await BuiltServer.StartAsync(data);
await using (server)
{
    using var administrator = await Client.SignInAsync(server.Address, "ada");
    var screens = new ScreenTimes(server.Address, administrator, tries);
    if (!asJson)
    {
        Console.WriteLine(Figures.Head);
    }

    await foreach (var figures in args.Contains("--drafting-only", StringComparer.Ordinal)
        ? screens.MeasureDraftingAsync()
        : args.Contains("--keys-only", StringComparer.Ordinal) ? screens.MeasureKeysAsync()
        : screens.MeasureAsync(args.Contains("--demo-only", StringComparer.Ordinal)))
    {
        Console.WriteLine(asJson ? figures.Json() : figures.Row());
    }
}

Directory.Delete(data, recursive: true);
