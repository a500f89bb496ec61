using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Reshaping;

/// <summary>Goes through everything that rules and examples say, so that a change of the record type can be followed everywhere. What it leaves alone stays the same object.</summary>
internal abstract class Rewriting
{
    internal Rule Of(Rule rule)
    {
        var then = rule with { Table = rule.Table is { } table ? Of(table) : null, Cases = [.. rule.Cases.Select(Of)] };
        return then.Equals(rule) ? rule : then;
    }

    internal Example Of(Example example) => example with
    {
        Values = Values(example.Values),
        Changes = Values(example.Changes),
        Linked = [.. example.Linked.Select(given => IsOwn(given.RecordType) ? given with { Values = Values(given.Values) } : given)],
        Expect = [.. example.Expect.Select(expected => expected with
        {
            Element = Element(expected.Element),
            Value = expected is { Value: { } value, Element.Kind: ElementKind.Field } ? Value(expected.Element.Key, value) : expected.Value,
        })],
    };

    /// <summary>Whether records of that type are of the one that changes.</summary>
    protected abstract bool IsOwn(string recordType);

    /// <summary>Key of a field of this record type, as it is from now on.</summary>
    protected virtual string Field(string key) => key;

    protected virtual Element Element(Element element) => element;

    protected virtual Subject Subject(Subject subject) => subject;

    /// <summary>A text in which keys of fields in braces stand for values.</summary>
    protected virtual string Text(string text) => text;

    protected virtual string Expression(string text) => text;

    /// <summary>A fixed value of a field, by the key that the field had.</summary>
    protected virtual Value Value(string field, Value value) => value;

    /// <summary>Keys of choices of a field, by the key that the field had.</summary>
    protected virtual ImmutableArray<string> Choices(string field, ImmutableArray<string> keys) => keys;

    /// <summary>Key of the field of this record type at which a subject ends; null where it is none.</summary>
    protected abstract string? FieldOf(Subject subject);

    private ImmutableDictionary<string, Value> Values(ImmutableDictionary<string, Value> values) =>
        values.ToImmutableDictionary(value => Field(value.Key), value => Value(value.Key, value.Value), StringComparer.Ordinal);

    private Case Of(Case one) => new([.. one.Effects.Select(Of)], one.While is { } condition ? Of(condition) : null);

    private Condition Of(Condition condition) => condition switch
    {
        Group group => group with { Members = [.. group.Members.Select(Of)] },
        Clause clause => clause with { Subject = Subject(clause.Subject), Comparands = Of(clause.Comparands, FieldOf(clause.Subject)) },
        _ => condition,
    };

    /// <summary>Comparands that are compared with a field; two that have become the same are one.</summary>
    private ImmutableArray<Comparand> Of(ImmutableArray<Comparand> comparands, string? field)
    {
        ImmutableArray<Comparand> then = [.. comparands.Select(one => Of(one, field))];
        return then.SequenceEqual(comparands) || comparands.Distinct().Count() < comparands.Length ? then : [.. then.Distinct()];
    }

    private Comparand Of(Comparand comparand, string? field) => comparand switch
    {
        Literal literal when field is not null => new Literal(Value(field, literal.Value)),
        SubjectComparand other => new SubjectComparand(Subject(other.Subject)),
        ExpressionComparand formula => new ExpressionComparand(Expression(formula.Expression)),
        _ => comparand,
    };

    private Effect Of(Effect effect) => effect switch
    {
        Require require => require with { Targets = Elements(require.Targets), Message = require.Message is { } text ? Text(text) : null },
        StateEffect state => state with { Targets = Elements(state.Targets) },
        SetValue set => new SetValue(Field(set.Field), Of(set.To, set.Field)),
        Calculate calculate => new Calculate(Field(calculate.Field), Of(calculate.From, calculate.Field)),
        Narrow narrow => new Narrow(Field(narrow.Field), Choices(narrow.Field, narrow.Options)),
        FieldEffect other => other with { Field = Field(other.Field) },
        Message message => message with { Text = Text(message.Text), At = message.At is { } at ? Element(at) : null },
        Suggest suggest => new Suggest(Field(suggest.Field), Of(suggest.Value, suggest.Field), Text(suggest.Reason)),
        JumpAhead jump => new JumpAhead(Element(jump.To)),
        EndForm end => new EndForm(Text(end.Note)),
        _ => effect,
    };

    private ImmutableArray<Element> Elements(ImmutableArray<Element> elements) => [.. elements.Select(Element)];

    private DecisionTable Of(DecisionTable table) => new(
        table.Hit,
        [.. table.Drivers.Select(Subject)],
        [.. table.Outputs.Select(Of)],
        [.. table.Rows.Select(row => new Row(
            [.. row.If.Select((cell, i) => cell with { Comparands = Of(cell.Comparands, i < table.Drivers.Length ? FieldOf(table.Drivers[i]) : null) })],
            [.. row.Then.Select((answer, i) => i < table.Outputs.Length ? Of(answer, table.Outputs[i]) : answer)]))]);

    private Output Of(Output output) => output switch
    {
        StateOutput states => new StateOutput(Elements(states.Targets)),
        ValueOutput value => value with { Field = Field(value.Field) },
        ChoicesOutput choices => new ChoicesOutput(Field(choices.Field)),
        MessageOutput { At: { } at } message => message with { At = Element(at) },
        _ => output,
    };

    private Answer Of(Answer answer, Output output) => (answer, output) switch
    {
        (ValueAnswer value, ValueOutput of) => new ValueAnswer(Of(value.Value, of.Field)),
        (ChoicesAnswer choices, ChoicesOutput of) => new ChoicesAnswer(Choices(of.Field, choices.Options)),
        (TextAnswer text, _) => new TextAnswer(Text(text.Text)),
        _ => answer,
    };
}
