using System.Collections.Immutable;
using Dibujo.Core.Records;

namespace Dibujo.Core.Rules;

/// <summary>A record type with its rules: what a draft is of, and what an edition freezes.</summary>
/// <param name="RecordType">Fields, forms, workflows and roles.</param>
/// <param name="Rules">Highest first: where two disagree, the one higher in the list wins.</param>
public sealed record Definition(RecordType RecordType, ImmutableArray<Rule> Rules)
{
    /// <summary>What must hold under these rules.</summary>
    public ImmutableArray<Example> Examples { get; init => field = value.OrEmpty(); } = [];

    /// <summary>A record type as it is begun: one field to call records by, one form to fill it in, two stages, no rule. It can be published as it is.</summary>
    public static Definition Begun(string key, string label) => new(
        new(key, label, "title",
            [new("title", "Title", new TextType())],
            [new("form", label, [new("main", "Main", [new("details", "Details", ["title"])])])],
            [new("standard", "Standard", [new("open", "Open"), new("done", "Done")], [new("finish", "Finish", "open", "done")])]),
        []);
}
