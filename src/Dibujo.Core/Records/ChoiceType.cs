using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Dibujo.Core.Values;

namespace Dibujo.Core.Records;

/// <summary>A field type whose values are picked from a list of options.</summary>
public interface IOffersOptions
{
    /// <summary>The choices in the order in which they are offered.</summary>
    ImmutableArray<Option> Options { get; }
}

/// <summary>One out of a list of choices.</summary>
/// <param name="Options">The choices in the order in which they are offered.</param>
public sealed record ChoiceType(ImmutableArray<Option> Options) : FieldType, IOffersOptions
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override string Noun => "one of " + OptionList.Named(Options);

    /// <inheritdoc/>
    public override string? Violation(Value value, Value? saved = null) => value is Choice c && !value.Equals(saved) ? OptionList.Retired(Options, [c.Key]) : null;

    /// <inheritdoc/>
    public override string Display(Value value) => value is Choice c ? OptionList.Find(Options, c.Key)?.Label ?? c.Key : value.Plain;

    private protected override Value? FitFilled(Value raw) => raw switch
    {
        Choice choice when OptionList.Find(Options, choice.Key) is not null => choice,
        Text text when OptionList.Find(Options, text.Content) is not null => new Choice(text.Content),
        _ => null,
    };
}

/// <summary>Any number out of a list of choices.</summary>
/// <param name="Options">The choices in the order in which they are offered.</param>
public sealed record ChoicesType(ImmutableArray<Option> Options) : FieldType, IOffersOptions
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override string Noun => "a list of " + OptionList.Named(Options);

    /// <inheritdoc/>
    public override string? Violation(Value value, Value? saved = null) => value is Choices c ? OptionList.Retired(Options, saved is Choices held ? [.. c.Keys.Except(held.Keys, StringComparer.Ordinal)] : c.Keys) : null;

    /// <inheritdoc/>
    public override string Display(Value value) => value switch
    {
        Choices c => string.Join(", ", OptionList.InOrder(Options, c.Keys).Select(key => OptionList.Find(Options, key)?.Label ?? key)),
        _ => OptionList.Find(Options, value.Plain)?.Label ?? value.Plain,
    };

    private protected override Value? FitFilled(Value raw) => raw switch
    {
        Choices choices when choices.Keys.Length <= Options.Length && choices.Keys.All(key => OptionList.Find(Options, key) is not null) => choices,
        Choice { Key: var key } when OptionList.Find(Options, key) is not null => new Choices([key]),
        Text { Content: var key } when OptionList.Find(Options, key) is not null => new Choices([key]),
        _ => null,
    };
}

/// <summary>One choice of a <see cref="ChoiceType"/> or <see cref="ChoicesType"/>.</summary>
/// <param name="Key">What is stored and compared.</param>
/// <param name="Label">What people read.</param>
/// <param name="Retired">Kept for the records that have it; not to be chosen any more.</param>
public sealed record Option(string Key, string Label, bool Retired = false);

internal static class OptionList
{
    internal static Option? Find(ImmutableArray<Option> options, string key)
    {
        foreach (var option in options)
        {
            if (string.Equals(option.Key, key, StringComparison.Ordinal))
            {
                return option;
            }
        }

        return null;
    }

    /// <summary>These keys in the order of the options, and those of no option after them.</summary>
    internal static IEnumerable<string> InOrder(ImmutableArray<Option> options, ImmutableArray<string> keys) => keys.Length < 2 ? keys
        : options.Select(option => option.Key).Where(key => keys.Contains(key, StringComparer.Ordinal)).Concat(keys.Where(key => Find(options, key) is null));

    /// <summary>The choices that can be chosen, for a message: the first of them, where there are many.</summary>
    internal static string Named(ImmutableArray<Option> options)
    {
        const int Most = 20;
        var offered = options.Where(o => !o.Retired).Select(o => o.Label).ToList();
        return string.Join(", ", offered.Take(Most)) + (offered.Count > Most ? $" and {offered.Count - Most} more" : "");
    }

    internal static string? Retired(ImmutableArray<Option> options, ImmutableArray<string> keys) =>
        keys.Select(key => Find(options, key)).FirstOrDefault(o => o is { Retired: true }) is { } option
            ? $"“{option.Label}” is no longer offered. Choose another."
            : null;
}
