using System.Globalization;
using System.Text.Json;

namespace Dibujo.Screens;

/// <summary>How long something took, each time that it was tried.</summary>
/// <param name="What">What was measured.</param>
/// <param name="Unit">Of the figures.</param>
/// <param name="Goal">What is aimed at.</param>
/// <param name="All">The figures.</param>
internal sealed record Figures(string What, string Unit, string Goal, IReadOnlyList<double> All)
{
    internal static string Head => "| what | unit | tried | median | 95 % | worst | goal |\n| --- | --- | ---: | ---: | ---: | ---: | ---: |";

    private double[] Sorted => [.. All.Order()];

    private double Median => Sorted[All.Count / 2];

    private double High => Sorted[Math.Min(All.Count - 1, (int)(All.Count * 0.95))];

    internal string Row() => string.Create(CultureInfo.InvariantCulture,
        $"| {What} | {Unit} | {All.Count} | {Digits(Median)} | {Digits(High)} | {Digits(Sorted[^1])} | {Goal} |");

    internal string Json() => JsonSerializer.Serialize(new { what = What, unit = Unit, tried = All.Count, median = Median, p95 = High, worst = Sorted[^1], goal = Goal });

    private static string Digits(double figure) => figure.ToString(figure < 10 ? "0.00" : "0", CultureInfo.InvariantCulture);
}
