using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Saving;

/// <summary>Whether a submission may be saved, and what is to be stored if so.</summary>
/// <param name="Refusals">All reasons against it; none: accepted.</param>
/// <param name="Values">The values to store, with what rules do to them; only when accepted.</param>
/// <param name="Stage">The stage in which the record is then.</param>
public sealed record Verdict(ImmutableArray<Refusal> Refusals, RecordValues Values, string Stage)
{
    /// <summary>Whether nothing speaks against it.</summary>
    public bool IsAccepted => Refusals.IsEmpty;
}

/// <summary>One reason why a submission is refused.</summary>
/// <param name="Reason">Of which kind.</param>
/// <param name="Field">Key of the field; null where the whole record is meant.</param>
/// <param name="Message">What is wrong and what to do about it.</param>
/// <param name="Rule">Key of the rule behind it; null where no rule is.</param>
/// <param name="Form">Key of the form on which it is so; null for the one through which the submission came.</param>
public sealed record Refusal(RefusalReason Reason, string? Field, string Message, string? Rule = null, string? Form = null)
{
    /// <summary>The message with the labels of form and field before it, for where it does not stand beside the field.</summary>
    public string Sentence(RecordType type)
    {
        var form = Form is null || Field is null ? "" : $"{type.Forms.FirstOrDefault(f => f.Key == Form)?.Label ?? Form}, ";
        return Field is null ? Message : $"{form}{type.Find(Field)?.Label ?? Field}: {Message}";
    }
}

/// <summary>Why something cannot be saved.</summary>
[JsonConverter(typeof(CamelCaseEnum<RefusalReason>))]
public enum RefusalReason
{
    /// <summary>The form has no such field.</summary>
    UnknownField,

    /// <summary>The value is not one that the field holds.</summary>
    WrongType,

    /// <summary>The value breaks a limit of the field.</summary>
    Limit,

    /// <summary>The field is hidden, or the whole form is.</summary>
    Hidden,

    /// <summary>The field is locked for this person.</summary>
    Locked,

    /// <summary>The field is open in the end, but no form could have come there from the saved record.</summary>
    Unreachable,

    /// <summary>A field that is needed to save is blank.</summary>
    NeededToSave,

    /// <summary>A field that is needed to move on is blank.</summary>
    NeededToMoveOn,

    /// <summary>The value is not among the choices that a rule leaves.</summary>
    NotOffered,

    /// <summary>A link leads to no record, or there is no such person.</summary>
    LeadsNowhere,

    /// <summary>A rule's message stops it.</summary>
    Stopped,

    /// <summary>The stage has no such move.</summary>
    NoSuchMove,

    /// <summary>The move is not for this person.</summary>
    MoveNotAllowed,
}
