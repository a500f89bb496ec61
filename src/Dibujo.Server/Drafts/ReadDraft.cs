using System.Collections.Immutable;
using Dibujo.Core.Analysis;
using Dibujo.Core.Checking;
using Dibujo.Core.Drafts;
using Dibujo.Core.Rules;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Definitions;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Drafts;

/// <summary>What administrators work on.</summary>
internal static class ReadDraft
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/record-types/{key}/draft", Read).WithName("ReadDraft").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status404NotFound);

    private static async Task<Results<Ok<DraftView>, ProblemHttpResult>> Read(string key, DibujoDb db, CancellationToken cancellation) =>
        await db.RecordTypes.AsNoTracking().SingleOrDefaultAsync(t => t.Key == key, cancellation) is { } type
            ? TypedResults.Ok(DraftView.Of(type, await PersonNames.AccountsAsync(db, cancellation), await CollisionsAsync(db, key, cancellation)))
            : ReadRecordTypes.NoSuchRecordType(key);

    /// <summary>What waits for a choice, the oldest first.</summary>
    internal static async Task<ImmutableArray<CollisionView>> CollisionsAsync(DibujoDb db, string key, CancellationToken cancellation) =>
        [.. (await db.Collisions.AsNoTracking().Where(c => c.RecordType == key).OrderBy(c => c.Id).ToListAsync(cancellation))
            .Select(c => new CollisionView(c.Id, c.Step, c.By, c.At))];
}

/// <summary>A draft as it is stored.</summary>
/// <param name="Version">To be sent back with the next save.</param>
/// <param name="Definition">What is worked on.</param>
/// <param name="Problems">What keeps it from being published.</param>
/// <param name="RuleProblems">Those of them that rules have, by rule.</param>
/// <param name="Edition">Number of the edition in force; null before the first.</param>
/// <param name="Revisions">The last change of each rule, by its key; none for a rule that is as it came with the record type.</param>
/// <param name="TypeRevision">The version by which the record type itself was last changed.</param>
/// <param name="Collisions">Edits that wait for a choice.</param>
internal sealed record DraftView(
    int Version, Definition Definition, ImmutableArray<Problem> Problems, ImmutableArray<RuleProblems> RuleProblems, int? Edition,
    ImmutableSortedDictionary<string, Revision> Revisions, int TypeRevision, ImmutableArray<CollisionView> Collisions)
{
    internal static DraftView Of(StoredRecordType type, IReadOnlySet<string> accounts, ImmutableArray<CollisionView> collisions) =>
        Of(type, PublicationCheck.Of(type.Draft, accounts), collisions);

    private static DraftView Of(StoredRecordType type, DefinitionProblems problems, ImmutableArray<CollisionView> collisions) =>
        new(type.DraftVersion, type.Draft, problems.All(), problems.Rules, type.Published, type.Revisions, type.TypeRevision, collisions);
}

/// <summary>An edit that came too late and waits for a choice: somebody else had changed the rule.</summary>
/// <param name="Id">By which it is settled.</param>
/// <param name="Step">The edit that was not made.</param>
/// <param name="By">Who would have made it.</param>
/// <param name="At">When, in UTC.</param>
internal sealed record CollisionView(int Id, DraftStep Step, string By, DateTime At);
