using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Explanation;
using Dibujo.Core.Json;
using Dibujo.Core.Packs;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Browser;

/// <summary>Open records, as JavaScript sees them. Changes cross over as small arrays of integers, not as documents.</summary>
/// <remarks>
/// A delta is: the number of elements, then element and state bits for each; the number of values, then a field for each;
/// the number of rules, then rule and case in force (-1: none) for each; 1 if all cycles settled, else 0.
/// Text comes in composed (NFC): the browser does that, as its runtime here cannot.
/// </remarks>
internal static partial class Sessions
{
    private static readonly Handles<WholeRecord> Held = new();

    [JSExport]
    internal static int Open(int program, string valuesJson, string settingJson)
    {
        var compiled = Programs.Of(program);
        var values = JsonSerializer.Deserialize(valuesJson, CoreJson.Default.IReadOnlyDictionaryStringValue)!;
        var setting = JsonSerializer.Deserialize(settingJson, CoreJson.Default.Setting)!;
        return Held.Add(new(new Session(compiled, new RecordValues(values).FittedTo(compiled.Definition.RecordType), setting, KnownRecords.All)));
    }

    [JSExport]
    internal static void Close(int session) => Held.Remove(session);

    /// <summary>Everything as a delta, for the first drawing.</summary>
    [JSExport]
    internal static int[] All(int session)
    {
        var open = Held[session].AtHand;
        var program = open.Program;
        return Write(
            open,
            [.. Enumerable.Range(0, program.ElementCount)],
            [.. Enumerable.Range(0, program.Definition.RecordType.Fields.Length)],
            [.. Enumerable.Range(0, program.Definition.Rules.Length)]);
    }

    /// <summary>Changes one field to a bare JSON value; null where the field cannot hold it, and nothing is changed then.</summary>
    [JSExport]
    internal static int[]? Change(int session, int field, string valueJson)
    {
        var open = Held[session].AtHand;
        var type = open.Program.Definition.RecordType.Fields[field];
        return type.Type.Fit(JsonSerializer.Deserialize(valueJson, CoreJson.Default.Value)!) is { } value
            ? Write(open, open.Change(type.Key, value))
            : null;
    }

    [JSExport]
    internal static int[] Enter(int session, string settingJson)
    {
        var open = Held[session].AtHand;
        return Write(open, open.Enter(JsonSerializer.Deserialize(settingJson, CoreJson.Default.Setting)!));
    }

    /// <summary>The field's value on the form as a bare JSON value.</summary>
    [JSExport]
    internal static string ValueOf(int session, int field) =>
        JsonSerializer.Serialize(Held[session].AtHand.ValueOf(field), CoreJson.Default.Value);

    /// <summary>The limit that the field's value breaks, as a sentence; empty where it keeps them all.</summary>
    [JSExport]
    internal static string Violation(int session, int field)
    {
        var open = Held[session].AtHand;
        var key = open.Program.Definition.RecordType.Fields[field].Key;
        return open.Program.Definition.RecordType.Fields[field].Type.Violation(open.ValueOf(field), open.Saved[key]) ?? "";
    }

    /// <summary>Looks linked records up again, after <see cref="KnownRecords.Know"/>.</summary>
    [JSExport]
    internal static int[] LookUpAgain(int session)
    {
        var open = Held[session].AtHand;
        Held[session].LookUpAgain();
        return Write(open, open.LookUpAgain());
    }

    /// <summary>Keys of the forms that apply to the record now.</summary>
    [JSExport]
    internal static string[] Forms(int session) => [.. Held[session].RelevantForms().Select(form => form.Key)];

    /// <summary>What rules say now on the form at hand: <see cref="SaidMessage"/>s as JSON.</summary>
    [JSExport]
    internal static string Messages(int session) =>
        JsonSerializer.Serialize([.. Held[session].AtHand.Messages()], CoreJson.Default.ImmutableArraySaidMessage);

    /// <summary>What rules advise now: <see cref="Suggestion"/>s as JSON.</summary>
    [JSExport]
    internal static string Suggestions(int session) =>
        JsonSerializer.Serialize([.. Held[session].AtHand.Suggestions()], CoreJson.Default.ImmutableArraySuggestion);

    /// <summary>Keys of the choices that are left to a field; null where all are.</summary>
    [JSExport]
    internal static string[]? Offers(int session, int field) => Held[session].AtHand.Offers(field) is { } offers ? [.. offers] : null;

    /// <summary>The changes that count now, by field key, as JSON.</summary>
    [JSExport]
    internal static string Changes(int session) => JsonSerializer.Serialize(
        Held[session].AtHand.Changes(), CoreJson.Default.IReadOnlyDictionaryStringValue);

    /// <summary>The changes that are set aside, by field key, as JSON.</summary>
    [JSExport]
    internal static string SetAside(int session) => JsonSerializer.Serialize(
        Held[session].AtHand.SetAside(), CoreJson.Default.IReadOnlyDictionaryStringValue);

    /// <summary>What would come of each move that is this person's to make: <see cref="Core.Saving.Outlook"/>s as JSON.</summary>
    [JSExport]
    internal static string Outlook(int session) => JsonSerializer.Serialize(
        Core.Saving.Outlook.Of(Held[session].AtHand, KnownRecords.All), CoreJson.Default.ImmutableArrayOutlook);

    /// <summary>Every clause of a rule with present value and truth, as JSON.</summary>
    [JSExport]
    internal static string Clauses(int session, int rule) =>
        JsonSerializer.Serialize(new Explainer(Held[session].AtHand).Clauses(rule), CoreJson.Default.ImmutableArrayClauseExplanation);

    /// <summary>Why the element of that number is as it is, as JSON.</summary>
    [JSExport]
    internal static string Explain(int session, int element)
    {
        var open = Held[session].AtHand;
        return JsonSerializer.Serialize(
            new Explainer(open).Explain(open.Program.ElementAt(element)), CoreJson.Default.ElementExplanation);
    }

    private static int[] Write(Session session, Delta delta) => Write(session, delta.Elements, delta.Values, delta.Rules);

    private static int[] Write(Session session, IReadOnlyList<int> elements, IReadOnlyList<int> values, IReadOnlyList<int> rules)
    {
        var written = new int[(2 * elements.Count) + values.Count + (2 * rules.Count) + 4];
        var at = 0;
        written[at++] = elements.Count;
        foreach (var element in elements)
        {
            written[at++] = element;
            written[at++] = session.StateOf(element).Bits;
        }

        written[at++] = values.Count;
        foreach (var field in values)
        {
            written[at++] = field;
        }

        written[at++] = rules.Count;
        foreach (var rule in rules)
        {
            written[at++] = rule;
            written[at++] = session.CaseInForce(rule);
        }

        written[at] = session.IsSettled ? 1 : 0;
        return written;
    }
}
