namespace Dibujo.Core.Records;

/// <summary>
/// A word that people here use for something that has another name: "ours" for the choice Us. It names exactly one thing; a
/// stage or a role by its key, a choice by the keys of its field and of itself. What has such words keeps its own name on all
/// screens; they are only understood where a rule is said.
/// </summary>
/// <param name="Said">What people say, one word or a few.</param>
/// <param name="Field">Key of the field that is meant, or whose choice is.</param>
/// <param name="Choice">Key of the choice that is meant.</param>
/// <param name="Stage">Key of the stage that is meant.</param>
/// <param name="Role">Key of the role that is meant.</param>
public sealed record OtherWord(string Said, string? Field = null, string? Choice = null, string? Stage = null, string? Role = null)
{
    /// <summary>Whether the record type has what is meant, and exactly one thing is.</summary>
    public bool IsIn(RecordType type) => (Field, Choice, Stage, Role) switch
    {
        ({ } field, null, null, null) => type.Find(field) is not null,
        ({ } field, { } choice, null, null) => type.Find(field)?.Type is IOffersOptions { Options: var options } && options.Any(option => option.Key == choice),
        (null, null, { } stage, null) => type.FindStage(stage) is not null,
        (null, null, null, { } role) => type.Roles.Any(one => one.Key == role),
        _ => false,
    };
}
