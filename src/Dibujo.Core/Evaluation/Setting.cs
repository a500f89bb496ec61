using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Dibujo.Core.Exchange;

namespace Dibujo.Core.Evaluation;

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
    DateTime Now = default)
{
    /// <summary>Keys of the roles of the person who looks at the record.</summary>
    public ImmutableArray<string> Roles { get; init => field = value.OrEmpty(); } = [];

    /// <summary>The same at that moment of the site's clock, to the second, which is as fine as a moment gets.</summary>
    public Setting At(DateTime now) => this with { Now = new(now.Ticks - (now.Ticks % TimeSpan.TicksPerSecond), DateTimeKind.Unspecified) };
}

/// <summary>A way by which values come into a record.</summary>
[JsonConverter(typeof(CamelCaseEnum<Channel>))]
public enum Channel
{
    /// <summary>A person fills in a form.</summary>
    Form,

    /// <summary>A person edits records in a list.</summary>
    List,

    /// <summary>A file is imported.</summary>
    Import,

    /// <summary>Another program calls the interface for programs.</summary>
    Api,
}
