using System.Collections.Immutable;
using Dibujo.Core.Forms;

namespace Dibujo.Core.Evaluation;

/// <summary>Something that is asked for and not filled in.</summary>
/// <param name="Field">Key of the field.</param>
/// <param name="Element">The field, or the part of it that is missing where others are there.</param>
/// <param name="Level">How strongly it is asked for.</param>
/// <param name="Moves">Keys of the moves for which it is needed; empty: any.</param>
/// <param name="Message">What is said about it in the administrator's own words; null for ours.</param>
/// <param name="Form">Key of the form on which it is asked for.</param>
public sealed record MissingField(
    string Field, Element Element, Requirement Level, ImmutableArray<string> Moves, string? Message, string Form)
{
    /// <summary>Whether a save with that move (null: without one) has to wait for it.</summary>
    public bool IsNeededFor(string? move) =>
        Level == Requirement.ToSave || (move is not null && (Moves.IsEmpty || Moves.Contains(move, StringComparer.Ordinal)));
}

/// <content>What is asked for and not filled in.</content>
public sealed partial class Session
{
    /// <summary>What is missing now, in the order of the fields; what is suspended is not asked for.</summary>
    public IEnumerable<MissingField> Missing()
    {
        for (var field = 0; field < layout.FieldCount; field++)
        {
            var parts = layout.PartsOfField[field];
            if (parts.Length == 0)
            {
                if (values[field].IsBlank && Asked(field) != Requirement.Optional)
                {
                    yield return Missing(field, field);
                }

                continue;
            }

            // Of a compound value its parts are asked for, each by its own state; where all are missing, the whole.
            var whole = values[field] as Values.Compound;
            foreach (var (part, key) in parts)
            {
                if (Asked(part) != Requirement.Optional && (whole?[key].IsBlank ?? true))
                {
                    yield return Missing(field, part);
                    break;
                }
            }
        }
    }

    /// <summary>Whether the field, or a part of it, is asked for by a save or by any move; not, where only named moves ask for it.</summary>
    internal bool IsAskedFor(int field)
    {
        var parts = layout.PartsOfField[field];
        return parts.Length == 0 ? IsAsked(field) : parts.Any(part => IsAsked(part.Item1));

        bool IsAsked(int element) => Asked(element) != Requirement.Optional && RequirementOn(element).Moves.IsEmpty;
    }

    private MissingField Missing(int field, int element)
    {
        var (_, moves, message) = RequirementOn(element);
        return new(Program.Fields[field].Key, layout[element], Asked(element), moves, message, Form.Key);
    }

    /// <summary>What is asked of the element now. What is needed to save but locked for this person still holds up a move.</summary>
    private Requirement Asked(int element) => StateOf(element) switch
    {
        { IsSuspended: false, Requirement: var asked } => asked,
        { IsVisible: true } => Requirement.ToMoveOn,
        _ => Requirement.Optional,
    };
}
