using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Dibujo.Core.Records;

/// <summary>Everything that a condition may look at beside the values.</summary>
/// <param name="Workflow">Key of the workflow that the record is in.</param>
/// <param name="Stage">Key of the stage that it is in.</param>
/// <param name="IsNew">Whether the record has never been saved.</param>
/// <param name="Move">Key of the move that is being attempted; null where none is.</param>
/// <param name="Person">The name with which the person who looks at the record signed in; null for nobody.</param>
/// <param name="Channel">The way by which values come in.</param>
/// <param name="Now">The moment by the site's clock; its day is today.</param>
public sealed record Setting(
    string Workflow,
    string Stage,
    bool IsNew = false,
    string? Move = null,
    string? Person = null,
    Channel Channel = Channel.Form,
    [property: JsonConverter(typeof(SiteTimeConverter))] DateTime Now = default)
{
    /// <summary>Keys of the roles of the person who looks at the record.</summary>
    public ImmutableArray<string> Roles { get; init => field = value.OrEmpty(); } = [];

    /// <summary>Key of the form at hand; null for the main form.</summary>
    public string? Form { get; init; }

    /// <summary>Whether the record is filled in or read.</summary>
    public Use Use { get; init; }

    /// <summary>What in it the record type does not know: each with the name of the member, and as a sentence.</summary>
    public IEnumerable<(string Member, string What)> Mistakes(RecordType type)
    {
        if (type.FindWorkflow(Workflow) is not { } workflow)
        {
            yield return ("workflow", $"There is no workflow “{Workflow}”. Name one of the record type.");
            yield break;
        }

        if (workflow.Position(Stage) < 0)
        {
            yield return ("stage", $"{workflow.Label} has no stage “{Stage}”. Name one of its stages.");
        }
        else if (Move is not null && !workflow.From(Stage).Any(move => move.Key == Move))
        {
            yield return ("move", $"The stage {type.FindStage(Stage)!.Label} has no move “{Move}”. Name one that leads away from it.");
        }

        foreach (var role in Roles.Where(role => !type.Roles.Any(known => known.Key == role)))
        {
            yield return ("roles", $"There is no role “{role}”. Name one of the record type.");
        }

        if (Form is not null && !type.Forms.Any(form => form.Key == Form))
        {
            yield return ("form", $"There is no form “{Form}”. Name one of the record type.");
        }
    }

    /// <summary>The same at that moment of the site's clock, to the second, which is as fine as a moment gets.</summary>
    public Setting At(DateTime now) => this with { Now = new(now.Ticks - (now.Ticks % TimeSpan.TicksPerSecond), DateTimeKind.Unspecified) };
}
