using System.Globalization;
using Dibujo.Core.Values;

namespace Dibujo.Core.Csv;

/// <summary>Cells of which a spreadsheet runs nothing: one that begins like a formula gets an apostrophe before it.</summary>
public static class HarmlessCell
{
    /// <summary>The text as it is written into a file. A negative number stays what it is.</summary>
    public static string Of(string cell) =>
        LooksLikeFormula(cell) && !(cell[0] == '-' && ExactDecimal.TryParse(cell, out _)) ? "'" + cell : cell;

    /// <summary>What a cell says that may have been written so.</summary>
    public static string Read(string cell) => cell is ['\'', ..] && LooksLikeFormula(cell) ? cell[1..] : cell;

    /// <summary>
    /// Whether it begins like a formula: apostrophes before it are not counted, nor what a spreadsheet passes over (spaces of any kind, and
    /// characters that nobody sees). Wide forms of the signs count as well.
    /// </summary>
    private static bool LooksLikeFormula(string cell)
    {
        var rest = cell.AsSpan().TrimStart('\'');
        if (rest is ['\t' or '\r', ..])
        {
            return true;
        }

        while (rest is [var first, ..] && (char.IsWhiteSpace(first) || char.GetUnicodeCategory(first) is UnicodeCategory.Format or UnicodeCategory.Control))
        {
            rest = rest[1..];
        }

        return rest is ['=' or '+' or '-' or '@' or '\uFF1D' or '\uFF0B' or '\uFF0D' or '\uFF20', ..];
    }
}
