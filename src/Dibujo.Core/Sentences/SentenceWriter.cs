using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Sentences;

/// <summary>Writes rules part by part; <see cref="SentenceParser"/> reads the same language.</summary>
internal sealed class SentenceWriter(Names names)
{
    private readonly ValueWriter values = new(names);
    private readonly ImmutableArray<SentencePart>.Builder parts = ImmutableArray.CreateBuilder<SentencePart>();

    internal ImmutableArray<SentencePart> Rule(Rule rule)
    {
        WriteScope(rule.Where);
        if (rule.Table is { } table)
        {
            new TableWriter(this, names).Write(table);
        }

        foreach (var (i, @case) in rule.Cases.Index())
        {
            WriteCase(i, @case, isFirst: i == 0 && rule.Where is null);
        }

        Mark(".");
        return Take();
    }

    internal ImmutableArray<SentencePart> Condition(Condition condition)
    {
        WriteCondition("", condition, isOutermost: true);
        return Take();
    }

    internal ImmutableArray<SentencePart> Effect(Effect effect)
    {
        WriteEffect("", effect);
        return Take();
    }

    internal void Word(string word) => parts.Add(new(PartKind.Keyword, word));

    internal void Mark(string mark) => parts.Add(new(PartKind.Keyword, mark, Glued: true));

    internal void Add(PartKind kind, string text, string place) => parts.Add(new(kind, text, place));

    internal void WriteTargets(string place, ImmutableArray<Element> targets) =>
        WriteList("and", targets.Length, t => Add(PartKind.Target, Target(targets[t]), $"{place}/{t}"));

    /// <summary>The test with what it compares with.</summary>
    internal void WriteTest(string place, Subject subject, Test test, ImmutableArray<Comparand> comparands)
    {
        var words = Wording.Of(test).Split(" … ");
        Add(PartKind.Test, words[0], $"{place}/test");
        var isMany = test.Shape() == TestShape.Many;
        if (isMany && comparands.Length == 1)
        {
            Word("only");
        }

        var type = names.Subjects.Of(subject);
        WriteList(Wording.Between(test), comparands.Length,
            i => Add(PartKind.Comparand, values.Of(comparands[i], type), $"{place}/comparands/{i}"));
        if (words.Length > 1)
        {
            Word(words[1]);
        }
    }

    internal void WriteOptions(string field, ImmutableArray<string> options, string place)
    {
        if (options.IsEmpty)
        {
            Word("nothing");
        }

        WriteList("or", options.Length, i => Add(PartKind.Comparand,
            names.Subjects.Field(field)?.Type is IOffersOptions and { } type ? names.Options((FieldType)type).Write(options[i]) : options[i], $"{place}/{i}"));
    }

    internal string Value(string field, Comparand value) => values.Of(value, names.Subjects.Field(field)?.Type);

    internal string Text(string text) => NameList.Quote(values.WithLabels(text));

    internal string Target(Element element)
    {
        var point = element.Key.IndexOf('.', StringComparison.Ordinal);
        return element.Kind switch
        {
            ElementKind.Field => names.Fields.Write(element.Key),
            ElementKind.Part when point > 0 => values.Subject(new FieldSubject(element.Key[..point], element.Key[(point + 1)..])),
            ElementKind.Section => "section " + names.Sections.Write(element.Key),
            ElementKind.Tab => "tab " + names.Tabs.Write(element.Key),
            ElementKind.Record => Names.Record,
            _ => "form " + names.Forms.Write(element.Key),
        };
    }

    internal string Subject(Subject subject) => values.Subject(subject);

    internal void WriteList(string last, int count, Action<int> write)
    {
        for (var i = 0; i < count; i++)
        {
            if (i > 0 && i == count - 1)
            {
                Word(last);
            }
            else if (i > 0)
            {
                Mark(",");
            }

            write(i);
        }
    }

    private ImmutableArray<SentencePart> Take()
    {
        var all = parts.ToImmutable();
        parts.Clear();
        return all;
    }

    private void WriteScope(Scope? where)
    {
        if (where is null)
        {
            return;
        }

        Word("Only");
        if (!where.Forms.IsEmpty)
        {
            Word("on");
            WriteList("or", where.Forms.Length, i => Add(PartKind.Detail, names.Forms.Write(where.Forms[i]), $"/where/forms/{i}"));
        }

        if (!where.Channels.IsEmpty)
        {
            Word("through");
            WriteList("or", where.Channels.Length, i => Add(
                PartKind.Detail, names.Options(SubjectTypes.Channels).Write(SubjectTypes.KeyOf(where.Channels[i])), $"/where/channels/{i}"));
        }

        Mark(":");
    }

    private void WriteCase(int i, Case @case, bool isFirst)
    {
        if (i > 0)
        {
            Mark(";");
        }

        if (@case.While is null)
        {
            Word(i > 0 ? "otherwise" : isFirst ? "Always" : "always");
        }
        else
        {
            Word(i > 0 ? "else while" : isFirst ? "While" : "while");
            WriteCondition($"/cases/{i}/while", @case.While, isOutermost: true);
            Mark(",");
        }

        foreach (var (e, effect) in @case.Effects.Index())
        {
            if (e > 0)
            {
                Word("and");
            }

            WriteEffect($"/cases/{i}/effects/{e}", effect);
        }
    }

    private void WriteEffect(string place, Effect effect)
    {
        Add(PartKind.Verb, Wording.Verb(effect), place);
        switch (effect)
        {
            case StateEffect state:
                WriteTargets($"{place}/targets", state.Targets);
                WriteDetail(place, state);
                break;
            case SetValue set:
                WriteGiven(place, set.Field, "to", set.To, "to");
                break;
            case ClearValue clear:
                Add(PartKind.Target, names.Fields.Write(clear.Field), $"{place}/field");
                break;
            case ResetValue reset:
                Add(PartKind.Target, names.Fields.Write(reset.Field), $"{place}/field");
                Word("to");
                Word(Names.ItsDefault);
                break;
            case Calculate calculate:
                WriteGiven(place, calculate.Field, "as", calculate.From, "from");
                break;
            case Narrow narrow:
                Add(PartKind.Target, names.Fields.Write(narrow.Field), $"{place}/field");
                Word("to");
                WriteOptions(narrow.Field, narrow.Options, $"{place}/options");
                break;
            case Message message:
                Add(PartKind.Detail, Text(message.Text), $"{place}/text");
                if (message.At is { } at)
                {
                    Word("at");
                    Add(PartKind.Target, Target(at), $"{place}/at");
                }

                break;
            case Suggest suggest:
                WriteGiven(place, suggest.Field, "to", suggest.Value, "value");
                Word("because");
                Add(PartKind.Detail, Text(suggest.Reason), $"{place}/reason");
                break;
            case JumpAhead jump:
                Add(PartKind.Target, Target(jump.To), $"{place}/to");
                break;
            case EndForm end:
                Add(PartKind.Detail, Text(end.Note), $"{place}/note");
                break;
            default:
                throw new ArgumentOutOfRangeException(nameof(effect));
        }
    }

    private void WriteGiven(string place, string field, string word, Comparand value, string valuePlace)
    {
        Add(PartKind.Target, names.Fields.Write(field), $"{place}/field");
        Word(word);
        Add(PartKind.Comparand, Value(field, value), $"{place}/{valuePlace}");
    }

    private void WriteDetail(string place, StateEffect effect)
    {
        if (Wording.Detail(effect) is not { } detail)
        {
            return;
        }

        Add(PartKind.Detail, detail, place);
        if (effect is not Require require)
        {
            return;
        }

        if (require is { Level: Requirement.ToMoveOn, Moves.IsEmpty: false })
        {
            WriteList("or", require.Moves.Length, i => Add(
                PartKind.Detail, names.Options(names.Subjects.Moves).Write(require.Moves[i]), $"{place}/moves/{i}"));
        }

        if (require.Message is { } message)
        {
            Word("saying");
            Add(PartKind.Detail, Text(message), $"{place}/message");
        }
    }

    private void WriteCondition(string place, Condition condition, bool isOutermost)
    {
        if (condition is Clause clause)
        {
            Add(PartKind.Subject, values.Subject(clause.Subject), $"{place}/subject");
            WriteTest(place, clause.Subject, clause.Test, clause.Comparands);
            return;
        }

        var group = (Group)condition;
        var isNamed = group.Quantifier == Quantifier.NoneOf || group.Members.Length < 2;
        if (isNamed)
        {
            Word(Wording.Of(group.Quantifier));
        }

        var isBracketed = !isOutermost || isNamed;
        if (isBracketed)
        {
            Word("(");
        }

        foreach (var (i, member) in group.Members.Index())
        {
            if (i > 0)
            {
                Word(group.Quantifier == Quantifier.AllOf ? "and" : "or");
            }

            WriteCondition($"{place}/members/{i}", member, isOutermost: false);
        }

        if (isBracketed)
        {
            Mark(")");
        }
    }
}
