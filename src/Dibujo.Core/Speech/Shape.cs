using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Speech;

/// <summary>What cases say without the order in which they say it: two of the same shape mean the same.</summary>
internal static class Shape
{
    internal static string Of(IEnumerable<Case> cases) => string.Join(" / ", cases.Select(@case => $"{Of(@case.While)}: {Sorted(@case.Effects.SelectMany(Of))}"));

    /// <summary>Whether two mean the same, also where one says what is shown and otherwise hidden, and the other what is hidden.</summary>
    internal static bool IsSame(ImmutableArray<Case> one, ImmutableArray<Case> other) => Of(one) == Of(other) || Of(Hiding(one)) == Of(Hiding(other));

    private static ImmutableArray<Case> Hiding(ImmutableArray<Case> cases) =>
        cases is [{ While: { } condition, Effects: [Show show] }, { While: null, Effects: [Hide { Value: HiddenValue.Keep } hide] }] && show.Targets.SequenceEqual(hide.Targets) ? [new([hide], Negation.Of(condition))] : cases;

    private static string Of(Condition? condition) => condition switch
    {
        Group group => $"{group.Quantifier}({Sorted(group.Members.Select(Of))})",
        Clause { Comparands: var compared } clause => $"{Of(clause.Subject)} {clause.Test} {(clause.Test.Shape() == TestShape.Many ? Sorted(compared.Select(Of)) : string.Join(' ', compared.Select(Of)))}",
        _ => "always",
    };

    private static string Of(Subject subject) => subject switch
    {
        FieldSubject field => $"{field.Field}.{field.Part}.{field.Saved}",
        LinkedSubject linked => $"{string.Join('>', linked.Via)}>{linked.Field}.{linked.Part}",
        _ => subject.GetType().Name,
    };

    private static string Of(Comparand comparand) => comparand switch
    {
        Literal { Value: var value } => $"“{value.Plain}”",
        SubjectComparand { Subject: var subject } => Of(subject),
        _ => comparand.ToString(),
    };

    /// <summary>One for each element that an effect acts on.</summary>
    private static IEnumerable<string> Of(Effect effect) => effect switch
    {
        Require require => require.Targets.Select(target => $"require {target} {require.Level} {require.Message} {Sorted(require.Moves)}"),
        Hide hide => hide.Targets.Select(target => $"hide {target} {hide.Value}"),
        StateEffect state => state.Targets.Select(target => $"{state.GetType().Name} {target}"),
        SetValue set => [$"set {set.Field} {Of(set.To)}"],
        Calculate calculate => [$"calculate {calculate.Field} {Of(calculate.From)}"],
        Narrow narrow => [$"narrow {narrow.Field} {Sorted(narrow.Options)}"],
        Suggest suggest => [$"suggest {suggest.Field} {Of(suggest.Value)} {suggest.Reason}"],
        _ => [effect.ToString()],
    };

    private static string Sorted(IEnumerable<string> parts) => string.Join(" & ", parts.Order(StringComparer.Ordinal));
}
