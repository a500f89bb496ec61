using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Speech;

/// <summary>Of rules that are about as likely, which speaks of things that belong together: "fee waived? reason" is about the reason of the waiver.</summary>
internal static class Coherence
{
    /// <summary>Those among them whose names have most in common; all where none has anything.</summary>
    internal static IReadOnlyList<T> Closest<T>(ImmutableArray<T> all, Func<T, ImmutableArray<Case>> casesOf, RecordType type)
    {
        if (all.Length < 2)
        {
            return all;
        }

        var common = all.Select(one => Common(casesOf(one), type)).ToList();
        return [.. all.Where((_, at) => common[at] == common.Max())];
    }

    private static int Common(ImmutableArray<Case> cases, RecordType type) => cases.Sum(@case =>
    {
        var acted = @case.Effects.SelectMany(effect => effect switch
        {
            StateEffect state => state.Targets.Where(target => target.Kind == ElementKind.Field).Select(target => target.Key),
            FieldEffect field => [field.Field],
            _ => [],
        }).SelectMany(key => Stems(type.Find(key)?.Label)).ToHashSet(StringComparer.Ordinal);
        return Looked(@case.While, type).SelectMany(Stems).Distinct(StringComparer.Ordinal).Count(stem => acted.Any(other => stem.Length > 3 && other.Length > 3 && (stem.StartsWith(other[..4], StringComparison.Ordinal))));
    });

    private static IEnumerable<string?> Looked(Condition? condition, RecordType type) => condition switch
    {
        Group group => group.Members.SelectMany(member => Looked(member, type)),
        Clause { Subject: FieldSubject { Field: var key } } clause => type.Find(key) is { } field
            ? [field.Label, .. field.Type is IOffersOptions offering ? clause.Comparands.OfType<Literal>().Select(one => offering.Options.FirstOrDefault(option => option.Key == one.Value.Plain)?.Label) : []]
            : [],
        _ => [],
    };

    private static IEnumerable<string> Stems(string? label) => label is null ? [] : Words.Of(label).Select(word => Stem.Of(word.Text.ToLowerInvariant()));
}
