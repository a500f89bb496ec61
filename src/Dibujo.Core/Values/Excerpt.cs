namespace Dibujo.Core.Values;

/// <summary>Text that somebody gave, as a message quotes it: short, so that the message stays one.</summary>
internal static class Excerpt
{
    private const int Longest = 40;

    /// <summary>The text itself, or its beginning with an ellipsis.</summary>
    internal static string Of(string text) => text.Length <= Longest ? text : text[..Longest] + "…";
}
