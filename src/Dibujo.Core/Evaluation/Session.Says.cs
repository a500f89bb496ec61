using System.Text;
using System.Text.Json.Serialization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;
using Dibujo.Core.Values;

namespace Dibujo.Core.Evaluation;

/// <summary>A message that is said now.</summary>
/// <param name="Rule">The place in the list of the rule that says it.</param>
/// <param name="Severity">What it keeps from happening.</param>
/// <param name="Text">The text, with the values of fields in it.</param>
/// <param name="At">The element beside which it stands; null: above the form.</param>
/// <param name="Form">Key of the form on which it is said.</param>
/// <param name="EndsForm">Whether it says why the form ends here.</param>
public sealed record SaidMessage(int Rule, Severity Severity, string Text, Element? At, string Form, bool EndsForm = false)
{
    /// <summary>Whether it keeps something from happening.</summary>
    [JsonIgnore]
    public bool Stops => Severity is Severity.StopsMoving or Severity.StopsSaving;
}

/// <summary>A value that is advised now; it differs from the one that the field has, and the field can be changed.</summary>
/// <param name="Rule">The place in the list of the rule that advises it.</param>
/// <param name="Field">Key of the field.</param>
/// <param name="Value">The value.</param>
/// <param name="Reason">Why.</param>
public sealed record Suggestion(int Rule, string Field, Value Value, string Reason);

/// <content>What rules in force say without contesting anything: messages and suggestions.</content>
public sealed partial class Session
{
    /// <summary>The messages of all cases in force, highest rule first; none beside an element that is not seen.</summary>
    public IEnumerable<SaidMessage> Messages() =>
        from rule in Program.Speaking
        where CaseInForce(rule) >= 0
        from effect in Program.Cases[rule][CaseInForce(rule)].Effects
        let said = effect switch
        {
            Message { At: { } at } when !IsSeen(at) => null,
            Message message => new SaidMessage(rule, message.Severity, Filled(message.Text), message.At, Form.Key),
            EndForm end => new SaidMessage(rule, Severity.Note, Filled(end.Note), null, Form.Key, EndsForm: true),
            JumpAhead jump when NumberOf(jump.To) >= 0 => Skipping(rule, jump.To),
            _ => null,
        }
        where said is not null
        select said;

    /// <summary>The suggestions of all cases in force, highest rule first.</summary>
    public IEnumerable<Suggestion> Suggestions() =>
        from advice in Program.Advice
        where CaseInForce(advice.Rule) == advice.Case && IsOpen(advice.Field)
        let value = Found(advice.Value, advice.Field)
        where !value.IsBlank && !value.Equals(values[advice.Field])
        select new Suggestion(advice.Rule, Program.Fields[advice.Field].Key, value, Filled(advice.Reason));

    /// <summary>Nobody is to wonder where half the form has gone: it is said beside the field whose answer decided that.</summary>
    private SaidMessage? Skipping(int rule, Element to)
    {
        var drivers = Drivers.Of(Program.Cases[rule][CaseInForce(rule)].While).Select(key => Program.Fields[key]).Where(door.Has).ToList();
        return drivers.Count == 0 ? null : new(rule, Severity.Note,
            $"What follows, up to the {new Labels(Program.Definition.RecordType).Of(to)}, does not apply now ({Program.Definition.Rules[rule].Name}).",
            Element.Field(Program.Fields[drivers.MaxBy(door.Place)].Key), Form.Key);
    }

    private bool IsSeen(Element element) => NumberOf(element) is >= 0 and var number && StateOf(number).IsVisible;

    /// <summary>The value as people read it; without its unit where the text goes on with that.</summary>
    private string Shown(int field, ReadOnlySpan<char> after)
    {
        var (value, type) = (values[field], Program.Fields.Type(field));
        return value.IsBlank ? "blank"
            : type is NumberType { Unit: { Length: > 0 } unit } number && after.TrimStart().StartsWith(unit, StringComparison.OrdinalIgnoreCase)
                ? (number with { Unit = null }).Display(value)
            : type.Display(value);
    }

    /// <summary>The text with every field's key in braces replaced by the field's value, as people read it.</summary>
    private string Filled(string text)
    {
        var filled = new StringBuilder();
        var at = 0;
        while (at < text.Length)
        {
            if (text[at] == '{' && text.IndexOf('}', at) is >= 0 and var end && Program.Fields.Find(text[(at + 1)..end]) is >= 0 and var field)
            {
                filled.Append(Shown(field, text.AsSpan(end + 1)));
                at = end + 1;
            }
            else
            {
                filled.Append(text[at++]);
            }
        }

        return filled.ToString();
    }
}
