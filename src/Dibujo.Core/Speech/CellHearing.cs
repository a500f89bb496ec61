using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;
using Notation = Dibujo.Core.Notations.Notation;

namespace Dibujo.Core.Speech;

/// <summary>Hears what is typed into a cell of a decision table, or pasted into it from a spreadsheet.</summary>
public static class CellHearing
{
    private static readonly string[] Anything = ["", "-", "–", "—", "any", "anything", "*"];

    /// <summary>A test on that driver, such as "Air", "&gt;= 50,000" or "is one of Air or Sea"; null for what cannot be heard as one.</summary>
    public static Cell? Cell(string said, Subject driver, RecordType type, Notation? notation = null)
    {
        if (Anything.Contains(said.Trim().ToLowerInvariant(), StringComparer.Ordinal))
        {
            return new();
        }

        var lexicon = Lexicon.Of(type);
        return lexicon.Names.Subjects.Of(driver) is not { } subject ? null
            : (Test(said, driver, subject, lexicon, notation) ?? Test($"is {said}", driver, subject, lexicon, notation)) is { } clause
                ? new(clause.Test) { Comparands = clause.Comparands }
                : null;
    }

    /// <summary>An answer of that output: states, a value, choices or a text; null for what cannot be heard as one.</summary>
    public static Answer? Answer(string said, Output output, RecordType type, Notation? notation = null)
    {
        var text = said.Trim();
        if (Anything.Contains(text.ToLowerInvariant(), StringComparer.Ordinal))
        {
            return new NoAnswer();
        }

        var lexicon = Lexicon.Of(type);
        var listener = new Listener(text, notation ?? Notation.Plain);
        var names = new NameListener(listener, lexicon);
        var values = new ValueListener(listener, lexicon, names);
        Answer? heard = output switch
        {
            StateOutput => States(text),
            ValueOutput { Field: var field } => type.Find(field) is { } known && values.Comparand(known.Type) is { } value && listener.IsAtEnd ? new ValueAnswer(value) : null,
            ChoicesOutput { Field: var field } => type.Find(field) is { Type: (ChoiceType or ChoicesType) and var choices } && values.Choices(choices) is { } left && listener.IsAtEnd
                ? new ChoicesAnswer([.. left.Select(one => ((Literal)one).Value.Plain)])
                : null,
            _ => new TextAnswer(text.Trim('“', '”', '"')),
        };
        return heard;
    }

    private static Clause? Test(string said, Subject driver, FieldType subject, Lexicon lexicon, Notation? notation)
    {
        var listener = new Listener(said, notation ?? Notation.Plain);
        var names = new NameListener(listener, lexicon);
        var heard = new TestListener(listener, lexicon, names, new(listener, lexicon, names)).On(driver, subject) as Clause;
        return listener.IsAtEnd && listener.Questions.IsEmpty ? heard : null;
    }

    private static StateAnswer? States(string said)
    {
        var states = ImmutableArray.CreateBuilder<State>();
        foreach (var word in said.Split([',', '+', ';'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            var found = Enum.GetValues<State>().Where(state => Wording.Of(state).Equals(word, StringComparison.OrdinalIgnoreCase)).ToList();
            if (found.Count == 0 && word.Equals("required", StringComparison.OrdinalIgnoreCase))
            {
                found.Add(State.RequiredToMoveOn);
            }

            if (found.Count == 0)
            {
                return null;
            }

            states.Add(found[0]);
        }

        return states.Count == 0 ? null : new(states.ToImmutable());
    }
}
