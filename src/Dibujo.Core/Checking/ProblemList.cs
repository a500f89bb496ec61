using System.Collections.Immutable;
using Dibujo.Core.Values;

namespace Dibujo.Core.Checking;

/// <summary>Gathers problems, and the ones of one kind that every list of keys has.</summary>
internal sealed class ProblemList
{
    private const int MaxKeyLength = 64;
    private readonly ImmutableArray<Problem>.Builder problems = ImmutableArray.CreateBuilder<Problem>();

    internal int Count => problems.Count;

    internal bool IsEmpty => problems.Count == 0;

    internal void Add(string place, string what, string mend) => problems.Add(new(place, what, mend));

    internal ImmutableArray<Problem> ToImmutable() => problems.ToImmutable();

    /// <summary>The problems so far; the list is empty after.</summary>
    internal ImmutableArray<Problem> Take()
    {
        var taken = problems.ToImmutable();
        problems.Clear();
        return taken;
    }

    /// <summary>Whether a text can be a key: short and plain.</summary>
    internal static bool IsKey(string key) =>
        key.Length is > 0 and <= MaxKeyLength && key.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '_');

    internal void AddKey(string place, string noun, string key) => Add(
        $"{place}/key", $"“{Excerpt.Of(key)}” cannot be the key of a {noun}.", $"Use 1 to {MaxKeyLength} letters, digits, hyphens or underscores.");

    /// <summary>Keys as in <see cref="CheckKeys"/>, and labels, which name things in sentences.</summary>
    internal void CheckNames(string place, string noun, IEnumerable<(string Key, string Label)> names)
    {
        CheckKeys(place, noun, names.Select(n => n.Key));
        foreach (var (i, (key, _)) in names.Index().Where(n => Values.BlankText.IsBlank(n.Item.Label)))
        {
            Add($"{place}/{i}/label", $"The {noun} “{Excerpt.Of(key)}” has no label.", "Give it the name by which people call it.");
        }
    }

    /// <summary>Keys name things in files and addresses: short, plain, and each used once.</summary>
    internal void CheckKeys(string place, string noun, IEnumerable<string> keys)
    {
        var seen = new HashSet<string>(StringComparer.Ordinal);
        foreach (var (i, key) in keys.Index())
        {
            if (!IsKey(key))
            {
                AddKey($"{place}/{i}", noun, key);
            }
            else if (!seen.Add(key))
            {
                Add($"{place}/{i}/key", $"Two {noun}s have the key “{key}”.", "Give one of them another key.");
            }
        }
    }
}
