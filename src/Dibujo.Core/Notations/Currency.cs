namespace Dibujo.Core.Notations;

/// <summary>Currencies as they stand beside amounts and in headings.</summary>
internal static class Currency
{
    private static readonly Dictionary<string, string> Signs = new(StringComparer.OrdinalIgnoreCase)
    {
        ["€"] = "EUR",
        ["$"] = "USD",
        ["£"] = "GBP",
        ["¥"] = "JPY",
        ["Fr."] = "CHF",
        ["Euro"] = "EUR",
        ["kr"] = "SEK",
        ["zł"] = "PLN",
        ["EUR"] = "EUR",
        ["USD"] = "USD",
        ["GBP"] = "GBP",
        ["CHF"] = "CHF",
        ["JPY"] = "JPY",
        ["SEK"] = "SEK",
        ["NOK"] = "NOK",
        ["DKK"] = "DKK",
        ["PLN"] = "PLN",
        ["CZK"] = "CZK",
        ["HUF"] = "HUF",
        ["CAD"] = "CAD",
        ["AUD"] = "AUD",
    };

    /// <summary>The code of ISO 4217; null for what is no currency that is known here.</summary>
    internal static string? Of(string around) => Signs.GetValueOrDefault(around);

    /// <summary>The currency that a heading names beside other words; null for none.</summary>
    internal static string? In(string heading) =>
        heading.Split([' ', '(', ')', '[', ']', ',', '/', ':'], StringSplitOptions.RemoveEmptyEntries).Select(Of).FirstOrDefault(code => code is not null);
}
