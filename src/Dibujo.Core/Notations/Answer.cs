namespace Dibujo.Core.Notations;

/// <summary>Yes and no as people write them into a table.</summary>
internal static class Answer
{
    private static readonly HashSet<string> Yes = new(["yes", "y", "true", "x", "✓", "ja", "oui", "sí", "si"], StringComparer.OrdinalIgnoreCase);
    private static readonly HashSet<string> No = new(["no", "n", "false", "nein", "non"], StringComparer.OrdinalIgnoreCase);

    /// <summary>The answer; null for what is none. A number is none: 1 and 0 may be counted.</summary>
    internal static bool? Of(string text) => Yes.Contains(text) ? true : No.Contains(text) ? false : null;
}
