using System.Collections.Immutable;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Records;

namespace Dibujo.Core.Saving;

/// <summary>What would come of a move, were it made now with what is typed: the same reasons as after trying.</summary>
/// <param name="Move">Key of the move.</param>
/// <param name="Refusals">All reasons against it; none: it can be made.</param>
public sealed record Outlook(string Move, ImmutableArray<Refusal> Refusals)
{
    /// <summary>For each move that leads away from here and is this person's to make.</summary>
    /// <param name="session">The record as it is open on a form.</param>
    /// <param name="records">Where linked records are found; by default nowhere, and nobody is doubted.</param>
    public static ImmutableArray<Outlook> Of(Session session, IRecordLookup? records = null)
    {
        var (program, setting) = (session.Program, session.Setting);
        var judge = new Judge(program, records);
        var changes = session.Changes().ToImmutableDictionary();
        return
        [
            .. program.Definition.RecordType.FindWorkflow(setting.Workflow)?.From(setting.Stage).Where(move => move.IsOpenTo(setting.Roles))
                .Select(move => new Outlook(move.Key, judge.Decide(session.Saved, setting with { Move = null }, new(changes, move.Key)).Refusals)) ?? [],
        ];
    }
}
