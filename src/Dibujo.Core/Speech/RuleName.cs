using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;

namespace Dibujo.Core.Speech;

/// <summary>A name for a rule that nobody has named, from what it does and what it looks at.</summary>
public static class RuleName
{
    private const int Longest = 60;

    /// <summary>Such as "Require Second valuation by Insured value and Stage". Never blank.</summary>
    public static string For(Rule rule, RecordType type)
    {
        var labels = new Labels(type);
        var cases = rule.AllCases();
        var effect = cases.SelectMany(@case => @case.Effects).FirstOrDefault();
        var does = effect switch
        {
            _ when rule.Table is { Outputs: var outputs } => outputs.IsEmpty ? "New table" : Joined(outputs.Select(output => Speaks(output, labels))),
            null => "New rule",
            StateEffect { Targets.IsEmpty: true } => "New rule",
            StateEffect state => $"{Wording.Verb(effect)} {Joined(state.Targets.Select(labels.Of))}",
            FieldEffect { Field: var field } => $"{Wording.Verb(effect)} {labels.Field(field)}",
            Message { At: { } at } => $"message at {labels.Of(at)}",
            Message => "message",
            Suggest suggest => $"suggest {labels.Field(suggest.Field)}",
            JumpAhead jump => $"jump ahead to {labels.Of(jump.To)}",
            _ => "end the form",
        };
        var by = cases.Select(@case => @case.While).OfType<Condition>().SelectMany(Subjects).Select(labels.Of).Where(label => label != "…").Distinct(StringComparer.Ordinal).ToList();
        var name = char.ToUpperInvariant(does[0]) + does[1..] + (by.Count == 0 ? "" : $" by {Joined(by)}");
        return name.Length <= Longest ? name : name[..(Longest - 1)].TrimEnd() + "…";
    }

    private static string Speaks(Output output, Labels labels) => output switch
    {
        StateOutput { Targets: var targets } => Joined(targets.Select(labels.Of)),
        ValueOutput { Field: var field } => labels.Field(field),
        ChoicesOutput { Field: var field } => $"choices of {labels.Field(field)}",
        _ => "message",
    };

    private static IEnumerable<Subject> Subjects(Condition condition) =>
        condition is Group group ? group.Members.SelectMany(Subjects) : [((Clause)condition).Subject];

    private static string Joined(IEnumerable<string> all)
    {
        var list = all.ToImmutableArray();
        return list.Length < 2 ? string.Concat(list) : $"{string.Join(", ", list[..^1])} and {list[^1]}";
    }
}
