using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Dibujo.Core.Conditions;

/// <summary>What a clause looks at.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(FieldSubject), "field")]
[JsonDerivedType(typeof(LinkedSubject), "linked")]
[JsonDerivedType(typeof(StageSubject), "stage")]
[JsonDerivedType(typeof(WorkflowSubject), "workflow")]
[JsonDerivedType(typeof(MoveSubject), "move")]
[JsonDerivedType(typeof(RoleSubject), "role")]
[JsonDerivedType(typeof(PersonSubject), "person")]
[JsonDerivedType(typeof(NewSubject), "new")]
[JsonDerivedType(typeof(FormSubject), "form")]
[JsonDerivedType(typeof(ChannelSubject), "channel")]
[JsonDerivedType(typeof(UseSubject), "use")]
[JsonDerivedType(typeof(TodaySubject), "today")]
[JsonDerivedType(typeof(NowSubject), "now")]
public abstract record Subject;

/// <summary>A value of this record.</summary>
/// <param name="Field">Key of the field.</param>
/// <param name="Part">Key of a part of its value; null for the whole.</param>
/// <param name="Saved">Whether the value is looked at as it was last saved; else as it stands on the form, unsaved changes included.</param>
public sealed record FieldSubject(string Field, string? Part = null, bool Saved = false) : Subject;

/// <summary>A value, as saved, of the record that a link leads to.</summary>
/// <param name="Via">Keys of the link fields to follow, the first on this record; one to three.</param>
/// <param name="Field">Key of a field of the record in which they end.</param>
/// <param name="Part">Key of a part of its value; null for the whole.</param>
public sealed record LinkedSubject(ImmutableArray<string> Via, string Field, string? Part = null) : Subject
{
    /// <summary>The most links that are followed.</summary>
    public const int MostLinks = 3;

    /// <inheritdoc/>
    public bool Equals(LinkedSubject? other) =>
        other is not null && Field == other.Field && Part == other.Part && Via.SequenceEqual(other.Via, StringComparer.Ordinal);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(string.Join('/', Via), Field, Part);
}

/// <summary>The stage that the record is in, in the order of its workflow.</summary>
public sealed record StageSubject : Subject;

/// <summary>The workflow that the record is in.</summary>
public sealed record WorkflowSubject : Subject;

/// <summary>The move that is being attempted; blank while none is.</summary>
public sealed record MoveSubject : Subject;

/// <summary>The roles of the person who looks at the record.</summary>
public sealed record RoleSubject : Subject;

/// <summary>The person who looks at the record.</summary>
public sealed record PersonSubject : Subject;

/// <summary>Whether the record has never been saved: yes or no, never blank.</summary>
public sealed record NewSubject : Subject;

/// <summary>The form on which the record is seen.</summary>
public sealed record FormSubject : Subject;

/// <summary>The way by which values come in: a form, the list, an import, the interface for programs.</summary>
public sealed record ChannelSubject : Subject;

/// <summary>Whether the record is being filled in or read.</summary>
public sealed record UseSubject : Subject;

/// <summary>The site's date.</summary>
public sealed record TodaySubject : Subject;

/// <summary>The site's date and time.</summary>
public sealed record NowSubject : Subject;
