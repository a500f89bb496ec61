using System.Globalization;
using System.Text.Json;
using System.Text.RegularExpressions;
using Dibujo.Core.Checking;
using Dibujo.Core.Values;

namespace Dibujo.Core.Json;

/// <summary>Puts the reader's complaint into words for whoever wrote the file: no type names, a pointer for the place.</summary>
internal static partial class JsonMistake
{
    internal static Problem Describe(Exception mistake)
    {
        var place = Where().Match(mistake.Message);
        var path = mistake is JsonException { Path: { } known } ? known : place.Groups["path"].Value;
        var (what, mend) = Words(mistake.Message, Pointer(path).Split('/')[^1]);
        var line = place.Success
            ? string.Create(CultureInfo.InvariantCulture, $" (line {long.Parse(place.Groups["line"].Value, CultureInfo.InvariantCulture) + 1})")
            : "";
        return new(Pointer(path), $"{what}{line}.", mend);
    }

    private static (string What, string Mend) Words(string message, string last)
    {
        if (Missing().Match(message) is { Success: true } missing)
        {
            return ($"Something is missing here: {missing.Groups["names"].Value.Replace("'", "", StringComparison.Ordinal)}",
                "Add it.");
        }

        if (Unmapped().Match(message) is { Success: true } unmapped)
        {
            return ($"“{Excerpt.Of(unmapped.Groups["name"].Value)}” is not known here", "Check its spelling, or take it out.");
        }

        if (Duplicate().Match(message) is { Success: true } duplicate)
        {
            return ($"“{Excerpt.Of(duplicate.Groups["name"].Value)}” stands here twice", "Take one of them out.");
        }

        if (message.StartsWith("Duplicate properties", StringComparison.Ordinal))
        {
            return ($"“{Excerpt.Of(last)}” stands here twice", "Take one of them out.");
        }

        if (Kind().Match(message) is { Success: true } kind)
        {
            return ($"There is no kind “{Excerpt.Of(kind.Groups["name"].Value)}” here", "Use one of the kinds in the schema.");
        }

        if (message.Contains("maximum configured depth", StringComparison.Ordinal))
        {
            return ("The file is nested too deeply; 64 levels are read", "Split the condition into several rules or cases.");
        }

        if (message.StartsWith("null stands", StringComparison.Ordinal))
        {
            return (NullInList().Match(message).Value, "Take it out.");
        }

        if (message.StartsWith("the kind is not named", StringComparison.Ordinal))
        {
            return ("It is not said of which kind this is", "Add its “kind”.");
        }

        if (message.StartsWith("the part", StringComparison.Ordinal))
        {
            return (TwicePart().Match(message).Value.Replace("the part", "The part", StringComparison.Ordinal), "Take one of them out.");
        }

        if (message.StartsWith("a moment is", StringComparison.Ordinal))
        {
            return ("A moment is by the site's clock, such as 2026-11-24T09:30:00", "Leave the zone out.");
        }

        if (message.StartsWith("this number", StringComparison.Ordinal) || message.StartsWith("a value is", StringComparison.Ordinal))
        {
            return (char.ToUpperInvariant(message[0]) + message[1..], "Give a value that fits.");
        }

        if (message.Contains("could not be converted", StringComparison.Ordinal) || message.Contains("doesn't allow null", StringComparison.Ordinal))
        {
            return ("The value does not fit here: it is of another type, too large, or none of those allowed",
                "Compare it with the schema.");
        }

        return ("The text is not valid JSON here", "Check commas, quotation marks and brackets before this place.");
    }

    /// <summary>From the reader's path ($.rules[2].name) to a JSON Pointer (/rules/2/name).</summary>
    private static string Pointer(string path) => Step().Replace(path, m => "/" + (m.Groups["name"].Success ? m.Groups["name"].Value : m.Groups["index"].Value))
            .TrimStart('$');

    [GeneratedRegex(@"missing required properties including: (?<names>.+?)\.?$|required propert[^:]*: (?<names>.+?)\.?$", RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex Missing();

    [GeneratedRegex("The JSON property '(?<name>[^']*)' could not be mapped", RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex Unmapped();

    [GeneratedRegex("Duplicate property '(?<name>[^']*)'", RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex Duplicate();

    [GeneratedRegex("type dispatch id '(?<name>[^']*)'", RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex Kind();

    [GeneratedRegex("^null stands in the list “[^”]*”", RegexOptions.None, 1000)]
    private static partial Regex NullInList();

    [GeneratedRegex("^the part “[^”]*” stands here twice", RegexOptions.None, 1000)]
    private static partial Regex TwicePart();

    [GeneratedRegex(@"(Path: (?<path>\S+) \| )?LineNumber: (?<line>\d+)", RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex Where();

    [GeneratedRegex(@"\.(?<name>[^.\[\]]+)|\[(?<index>\d+)\]|\['(?<name>[^']*)'\]", RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex Step();
}
