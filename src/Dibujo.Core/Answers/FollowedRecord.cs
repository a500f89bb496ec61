using System.Collections.Immutable;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Notations;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Answers;

/// <summary>An open record as somebody follows it from afar: each change is answered with all that is different now, and nothing else.</summary>
/// <remarks>
/// An answer is an object. Always there: <c>changed</c>, how many changes count; <c>setAside</c>, keys of the fields whose
/// changes wait; <c>isSettled</c>. There where a value could not be held, <c>refused</c>, its field, and where it may be read in several ways, <c>choices</c>, each with value and text; where text was read, <c>read</c>, what it says. There where something in them differs: <c>elements</c>, number and state bits in turn;
/// <c>values</c>, field and value; <c>violations</c>, field and the limit that its value breaks, as a sentence or empty;
/// <c>offers</c>, field and the keys of the choices left to it, or null for all; <c>cases</c>, rule and case in force, -1 for
/// none; and whole, <c>messages</c>, <c>suggestions</c> and <c>forms</c>, the keys of the forms that apply.
/// </remarks>
public sealed class FollowedRecord
{
    private readonly IRecordLookup records;
    private readonly bool followsForms;
    private readonly AnswerWriter answers = new();
    private readonly AnswerWriter parts = new();
    private readonly int?[] bits;
    private readonly Value?[] values;
    private readonly Dictionary<int, string> violations = [];
    private readonly Dictionary<int, ImmutableArray<string>?> offers = [];
    private WholeRecord whole;
    private int[] narrowed;
    private int?[] cases;
    private int? refused;
    private ImmutableArray<Reading.Choice>? choices;
    private Value? read;
    private bool isFirst;
    private string messages = "";
    private string suggestions = "";
    private string forms = "";

    /// <summary>Opens a record.</summary>
    /// <param name="program">The rules.</param>
    /// <param name="saved">The values as they are stored.</param>
    /// <param name="setting">Stage, roles, the form at hand and so on.</param>
    /// <param name="records">Where linked records are found.</param>
    /// <param name="followsForms">Whether it is told which forms apply, for which the record is looked at through each of them.</param>
    public FollowedRecord(RuleProgram program, RecordValues saved, Setting setting, IRecordLookup records, bool followsForms)
    {
        (this.records, this.followsForms) = (records, followsForms);
        whole = new(new Session(program, saved.FittedTo(program.Definition.RecordType), setting, records));
        bits = new int?[program.ElementCount];
        values = new Value?[program.Fields.Count];
        (narrowed, cases) = ([], []);
        LookAt(program);
    }

    /// <summary>The record.</summary>
    public WholeRecord Whole => whole;

    private Session AtHand => whole.AtHand;

    /// <summary>
    /// Everything, for the first drawing. Whoever has the record from the server knows which forms apply: they are told only
    /// where something has been changed.
    /// </summary>
    public string All()
    {
        Array.Clear(bits);
        Array.Clear(values);
        Array.Clear(cases);
        violations.Clear();
        offers.Clear();
        (messages, suggestions, forms) = ("", "", "");
        isFirst = AtHand.Changes().Count == 0;
        return Tell(Range(bits.Length), Range(values.Length), Range(cases.Length));
    }

    /// <summary>Changes a field. A value that it cannot hold changes nothing and is told as a violation.</summary>
    public string Change(int field, Value value)
    {
        var type = AtHand.Program.Fields[field].Type;
        return type.Fit(value) is { } fitted ? Take(field, fitted) : Refuse(field, $"This field takes {type.Noun}.");
    }

    /// <summary>
    /// Changes a field to what somebody typed. What cannot be read, and what may be read in several ways, changes nothing and is told as a violation.
    /// </summary>
    /// <param name="field">Its number.</param>
    /// <param name="typed">The text.</param>
    /// <param name="notation">How its writer writes.</param>
    /// <param name="names">What people and records are called.</param>
    /// <param name="isPartial">Whether more may come: then nothing is said of what cannot be read yet.</param>
    public string Type(int field, Text typed, Notation notation, IKnownNames names, bool isPartial)
    {
        var type = AtHand.Program.Fields[field].Type;
        if (isPartial && type is DateType or DateTimeType && !HasYear(typed.Content))
        {
            return Refuse(field, "");
        }

        switch (notation.Take(typed, type, names, DateOnly.FromDateTime(AtHand.Setting.Now)))
        {
            case Reading.Of { Value: var value }:
                read = value.Equals(typed) ? null : value;
                return Take(field, value);
            case Reading.Open open when !isPartial:
                choices = open.Choices;
                return Refuse(field, open.Question(Excerpt.Of(typed.Content)));
            case Reading.None none when !isPartial:
                return Refuse(field, none.Reason);
            default:
                return Refuse(field, "");
        }
    }

    private string Take(int field, Value value)
    {
        var (key, type) = (AtHand.Program.Fields[field].Key, AtHand.Program.Fields[field].Type);
        return Tell(AtHand.Change(key, value), (field, type.Violation(AtHand.ValueOf(field), AtHand.Saved[key]) ?? ""));
    }

    /// <summary>Whether a year stands in it that nobody takes for another number.</summary>
    private static bool HasYear(string text)
    {
        var digits = 0;
        return text.Any(c => (digits = char.IsAsciiDigit(c) ? digits + 1 : 0) == 4);
    }

    /// <summary>Tells that what was typed into a field cannot be taken for a value at all.</summary>
    public string Refuse(int field, string why)
    {
        refused = field;
        return Tell([], [], [], (field, why));
    }

    /// <summary>Puts the record into another setting.</summary>
    public string Enter(Setting setting) => Tell(AtHand.Enter(setting));

    /// <summary>Looks linked records up again.</summary>
    public string LookUpAgain()
    {
        whole.LookUpAgain();
        return Tell(AtHand.LookUpAgain());
    }

    /// <summary>Carries the record over to other rules of the same record type: what was typed stays, and what is alike is not told again.</summary>
    public string Rebase(RuleProgram program)
    {
        whole = new(AtHand.On(program));
        LookAt(program);
        return Tell(Range(bits.Length), Range(values.Length), Range(cases.Length));
    }

    /// <summary>The changes to be sent to the server, and those that are set aside, by field key.</summary>
    public string Changes() => AnswerWriter.Write(to => to.Object(() =>
    {
        to.Json.WritePropertyName("changes");
        to.Object(() => WriteValues(to, AtHand.Changes()));
        to.Json.WritePropertyName("setAside");
        to.Object(() => WriteValues(to, AtHand.SetAside()));
    }));

    /// <summary>What would come of each move that is this person's to make, and how far each form is filled in with what is typed.</summary>
    public string Outlook() => AnswerWriter.Write(to => to.Write(Saving.Outlook.Of(AtHand, records), FormProgress.Of(whole)));

    private static int[] Range(int count) => [.. Enumerable.Range(0, count)];

    private static void WriteValues(AnswerWriter to, IReadOnlyDictionary<string, Value> values)
    {
        foreach (var (field, value) in values)
        {
            to.Value(field, value);
        }
    }

    private void LookAt(RuleProgram program)
    {
        narrowed = [.. Range(program.Fields.Count).Where(field => program.Claims.On(field, Facet.Choices).Count > 0 || offers.ContainsKey(field))];
        cases = new int?[program.Definition.Rules.Length];
    }

    private string Tell(Delta delta, (int Field, string Violation)? checkedNow = null) => Tell(delta.Elements, delta.Values, delta.Rules, checkedNow);

    private string Tell(IReadOnlyList<int> elements, IReadOnlyList<int> fields, IReadOnlyList<int> rules, (int Field, string Violation)? checkedNow = null) =>
        answers.Next(to => to.Object(() =>
        {
            TellStates(to, elements);
            TellValues(to, fields);
            TellCases(to, rules);
            TellViolations(to, fields, checkedNow);
            TellOffers(to);
            if (AtHand.Program.Speaking.Length > 0 || messages.Length > 0)
            {
                TellIfOther(to, "messages", ref messages, part => part.List(AtHand.Messages(), part.Write));
            }

            if (AtHand.Program.Advice.Length > 0 || suggestions.Length > 0)
            {
                TellIfOther(to, "suggestions", ref suggestions, part => part.List(AtHand.Suggestions(), part.Write));
            }

            if (followsForms && !isFirst && AtHand.Program.Layout.Doors.Length > 1)
            {
                TellIfOther(to, "forms", ref forms, part => part.List(whole.RelevantForms().Select(form => form.Key), part.Json.WriteStringValue));
            }

            isFirst = false;
            to.Number("changed", AtHand.Changes().Count);
            to.Texts("setAside", AtHand.SetAside().Keys);
            to.Truth("isSettled", AtHand.IsSettled);
            if (refused is { } field)
            {
                to.Number("refused", field);
                refused = null;
            }

            if (choices is { } possible)
            {
                to.List("choices", possible, choice => to.Object(() =>
                {
                    to.Value("value", choice.Value);
                    to.Text("text", choice.Text);
                }));
                choices = null;
            }

            if (read is { } value)
            {
                to.Value("read", value);
                read = null;
            }
        }));

    private void TellStates(AnswerWriter to, IReadOnlyList<int> elements)
    {
        to.Json.WriteStartArray("elements");
        foreach (var element in elements)
        {
            var now = AtHand.StateOf(element).Bits;
            if (bits[element] != now)
            {
                bits[element] = now;
                to.Json.WriteNumberValue(element);
                to.Json.WriteNumberValue(now);
            }
        }

        to.Json.WriteEndArray();
    }

    private void TellValues(AnswerWriter to, IReadOnlyList<int> fields)
    {
        to.Json.WriteStartArray("values");
        foreach (var field in fields)
        {
            var now = AtHand.ValueOf(field);
            if (!now.Equals(values[field]))
            {
                values[field] = now;
                to.Json.WriteNumberValue(field);
                to.Value(now);
            }
        }

        to.Json.WriteEndArray();
    }

    private void TellCases(AnswerWriter to, IReadOnlyList<int> rules)
    {
        to.Json.WriteStartArray("cases");
        foreach (var rule in rules)
        {
            var now = AtHand.CaseInForce(rule);
            if (cases[rule] != now)
            {
                cases[rule] = now;
                to.Json.WriteNumberValue(rule);
                to.Json.WriteNumberValue(now);
            }
        }

        to.Json.WriteEndArray();
    }

    private void TellViolations(AnswerWriter to, IReadOnlyList<int> fields, (int Field, string Violation)? checkedNow)
    {
        // What was typed is looked at, and what has taken the place of a wrong value; what was saved is as it is.
        var again = fields.Where(field => field != checkedNow?.Field && (violations.GetValueOrDefault(field, "").Length > 0 || AtHand.HasChanged(field)))
            .Select(field => (Field: field, AtHand.Program.Fields.Type(field).Violation(AtHand.ValueOf(field), AtHand.SavedValueOf(field)) ?? ""));
        IEnumerable<(int Field, string Violation)> now = checkedNow is { } known ? again.Prepend(known) : again;
        to.List("violations", now.Where(found => violations.GetValueOrDefault(found.Field, "") != found.Violation).ToList(), found =>
        {
            violations[found.Field] = found.Violation;
            to.Json.WriteNumberValue(found.Field);
            to.Json.WriteStringValue(found.Violation);
        });
    }

    private void TellOffers(AnswerWriter to)
    {
        if (narrowed.Length == 0)
        {
            return;
        }

        to.List("offers", narrowed.Where(field => !Same(offers.GetValueOrDefault(field), AtHand.Offers(field))), field =>
        {
            var now = offers[field] = AtHand.Offers(field);
            to.Json.WriteNumberValue(field);
            if (now is { } keys)
            {
                to.List(keys, to.Json.WriteStringValue);
            }
            else
            {
                to.Json.WriteNullValue();
            }
        });
    }

    private static bool Same(ImmutableArray<string>? one, ImmutableArray<string>? other) =>
        one is { } some && other is { } others ? some.SequenceEqual(others, StringComparer.Ordinal) : one is null == other is null;

    private void TellIfOther(AnswerWriter to, string name, ref string told, Action<AnswerWriter> write)
    {
        var now = parts.Next(write);
        if (now != told)
        {
            told = now;
            to.Json.WritePropertyName(name);
            to.Json.WriteRawValue(now, skipInputValidation: true);
        }
    }
}
