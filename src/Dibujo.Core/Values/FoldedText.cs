using System.Text;

namespace Dibujo.Core.Values;

/// <summary>Text in the form in which it is compared: without surrounding space, case or Unicode composition.</summary>
/// <remarks>
/// The browser's runtime carries no Unicode tables for composition, so there <c>Normalize</c> changes nothing; whoever
/// calls the engine there hands over text that the browser itself has composed already.
/// </remarks>
internal static class FoldedText
{
    internal static string Of(string text)
    {
        var trimmed = text.Trim();
        // Plain letters have nothing to compose, and most text is that.
        // Some capitals, such as ẞ, are no small letter's capital: they are made small first.
        return (Ascii.IsValid(trimmed) ? trimmed : trimmed.Normalize(NormalizationForm.FormC).ToLowerInvariant()).ToUpperInvariant();
    }
}
