using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Checking;

/// <summary>Whether effects name what exists and say what can be done to it.</summary>
internal sealed class EffectCheck(RecordType type, SubjectTypes subjects, ComparandCheck comparands, ProblemList problems)
{
    private const int MostText = 1000;

    private readonly HashSet<Element> elements = [.. type.Elements()];

    /// <summary>The effects of one case, which may say one thing only of each facet of an element.</summary>
    internal void Check(string place, ImmutableArray<Effect> effects)
    {
        if (effects.IsEmpty)
        {
            problems.Add(place, "Nothing happens in this case.", "Say what to show, hide, require or lock.");
        }

        var said = new HashSet<(Facet, Element)>();
        foreach (var (i, effect) in effects.Index())
        {
            Check($"{place}/{i}", effect, said);
        }
    }

    /// <summary>Whether there are such elements, with a problem for each that there is not.</summary>
    internal void CheckTargets(string place, ImmutableArray<Element> targets)
    {
        if (targets.IsEmpty)
        {
            problems.Add(place, "The effect names no field, section or tab.", "Choose at least one.");
        }

        foreach (var (t, target) in targets.Index())
        {
            CheckTarget($"{place}/{t}", target);
        }
    }

    /// <summary>The field of that key; null, with a problem, where there is none.</summary>
    internal Field? CheckField(string place, string key)
    {
        if (subjects.Field(key) is { } field)
        {
            return field;
        }

        problems.Add(place, key.Length == 0 ? "The effect does not say on which field." : $"There is no field “{Excerpt.Of(key)}”.",
            "Choose a field of this record type.");
        return null;
    }

    /// <summary>Whether a field with choices has all of these.</summary>
    internal void CheckOptions(string place, string key, ImmutableArray<string> options)
    {
        if (CheckField($"{place}/field", key) is not { } field)
        {
            return;
        }

        if (field.Type is not IOffersOptions { Options: var offered })
        {
            problems.Add($"{place}/field", $"{field.Label} offers no choices.", "Choose a field with choices.");
            return;
        }

        foreach (var (i, option) in options.Index().Where(o => OptionList.Find(offered, o.Item) is null))
        {
            problems.Add($"{place}/options/{i}", $"{field.Label} has no choice “{Excerpt.Of(option)}”.",
                $"Choose among: {string.Join(", ", offered.Select(o => o.Key))}.");
        }
    }

    /// <summary>Whether the field can be given that.</summary>
    internal void CheckValue(string place, string key, string valuePlace, Comparand value)
    {
        if (CheckField($"{place}/field", key) is { } field)
        {
            comparands.Check(valuePlace, field.Label, field.Type, value);
        }
    }

    /// <summary>Whether the text says something, and not too much.</summary>
    internal void CheckText(string place, string? text)
    {
        if (text is null || BlankText.IsBlank(text) || text.Length > MostText)
        {
            problems.Add(place, text is null || BlankText.IsBlank(text) ? "There is no text." : "The text is too long.", $"Write 1 to {MostText} characters.");
        }
    }

    private void Check(string place, Effect effect, HashSet<(Facet, Element)> said)
    {
        switch (effect)
        {
            case StateEffect { Targets: var targets }:
                CheckTargets($"{place}/targets", targets);
                foreach (var (t, target) in targets.Index().Where(t => elements.Contains(t.Item)))
                {
                    Once($"{place}/targets/{t}", effect, target, said);
                }

                if (effect is Show or Hide && targets.Contains(Element.Record))
                {
                    problems.Add($"{place}/targets", "The record as a whole cannot be hidden: nobody could open it again.", "Hide its forms, or lock the record.");
                }

                CheckRequire(place, effect as Require);
                break;
            case SetValue set:
                CheckValue(place, set.Field, $"{place}/to", set.To);
                Once($"{place}/field", effect, Element.Field(set.Field), said);
                break;
            case ClearValue or ResetValue:
                var emptied = ((FieldEffect)effect).Field;
                CheckField($"{place}/field", emptied);
                Once($"{place}/field", effect, Element.Field(emptied), said);
                break;
            case Calculate calculate:
                CheckValue(place, calculate.Field, $"{place}/from", calculate.From);
                if (LooksAt(calculate.From, calculate.Field))
                {
                    problems.Add($"{place}/from", "A field cannot be calculated from itself: it would be another after every save.",
                        "Calculate it from other fields, or set it when the case comes into force.");
                }

                Once($"{place}/field", effect, Element.Field(calculate.Field), said);
                break;
            case Narrow narrow:
                CheckOptions(place, narrow.Field, narrow.Options);
                Once($"{place}/field", effect, Element.Field(narrow.Field), said);
                break;
            case Message message:
                CheckText($"{place}/text", message.Text);
                if (message.At is { Kind: ElementKind.Record })
                {
                    problems.Add($"{place}/at", "A message does not stand beside the record.", "Choose a field, section, tab or form; without one it stands above the form.");
                }
                else if (message.At is { } at)
                {
                    CheckTarget($"{place}/at", at);
                }

                break;
            case Suggest suggest:
                CheckValue(place, suggest.Field, $"{place}/value", suggest.Value);
                CheckText($"{place}/reason", suggest.Reason);
                break;
            case JumpAhead jump:
                CheckTarget($"{place}/to", jump.To);
                if (jump.To.Kind is not (ElementKind.Field or ElementKind.Section or ElementKind.Tab))
                {
                    problems.Add($"{place}/to", "One can only jump ahead to a field, section or tab.", "Choose one that comes later on the form.");
                }

                break;
            case EndForm end:
                CheckText($"{place}/note", end.Note);
                break;
            default:
                throw new ArgumentOutOfRangeException(nameof(effect));
        }
    }

    private static bool LooksAt(Comparand from, string field) => from switch
    {
        SubjectComparand { Subject: FieldSubject { Saved: false } subject } => subject.Field == field,
        SubjectComparand { Subject: LinkedSubject subject } => subject.Via.Contains(field),
        ExpressionComparand { Expression: var text } =>
            Expressions.Expression.Parse(text).Expression is { } expression && expression.Names.Any(name => name.Split('.')[0] == field),
        _ => false,
    };

    private void CheckTarget(string place, Element target)
    {
        if (!elements.Contains(target))
        {
            problems.Add(place,
                target.Key is { Length: > 0 }
                    ? $"There is no {target.Kind.ToString().ToLowerInvariant()} “{Excerpt.Of(target.Key)}”."
                    : "The effect does not say on what.",
                "Choose a field, section, tab or form of this record type, or the record.");
        }
    }

    private void CheckRequire(string place, Require? require)
    {
        if (require is null)
        {
            return;
        }

        if (require.Level == Requirement.Optional)
        {
            problems.Add($"{place}/level", "To require at the level “optional” asks for nothing.",
                "Choose “to save” or “to move on”, or make the element optional.");
        }

        if (require.Message is not null)
        {
            CheckText($"{place}/message", require.Message);
        }

        if (require is { Level: Requirement.ToSave, Moves.IsEmpty: false })
        {
            problems.Add($"{place}/moves", "What is needed to save is needed for every move.", "Delete the moves, or require it to move on.");
        }

        foreach (var (i, move) in require.Moves.Index().Where(m => type.FindMove(m.Item) is null))
        {
            problems.Add($"{place}/moves/{i}", $"There is no move “{Excerpt.Of(move)}”.", "Name a move of one of the workflows.");
        }
    }

    private void Once(string place, Effect effect, Element target, HashSet<(Facet, Element)> said)
    {
        if (Facets.Of(effect) is { } facet && !said.Add((facet, target)))
        {
            problems.Add(place,
                $"This case says two things about {facet.ToString().ToLowerInvariant()} of the same {target.Kind.ToString().ToLowerInvariant()}.",
                "Keep one of the two.");
        }
    }
}
