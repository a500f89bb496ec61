using System.Collections.Immutable;
using Dibujo.Core.Analysis;
using Dibujo.Core.Checking;
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
            ? TypedResults.Ok(DraftView.Of(type))
            : ReadRecordTypes.NoSuchRecordType(key);
}

/// <summary>A draft as it is stored.</summary>
/// <param name="Version">To be sent back with the next save.</param>
/// <param name="Definition">What is worked on.</param>
/// <param name="Problems">What keeps it from being published.</param>
/// <param name="RuleProblems">Those of them that rules have, by rule.</param>
/// <param name="Edition">Number of the edition in force; null before the first.</param>
internal sealed record DraftView(int Version, Definition Definition, ImmutableArray<Problem> Problems, ImmutableArray<RuleProblems> RuleProblems, int? Edition)
{
    internal static DraftView Of(StoredRecordType type) =>
        Of(type, PublicationCheck.Of(type.Draft));

    private static DraftView Of(StoredRecordType type, DefinitionProblems problems) =>
        new(type.DraftVersion, type.Draft, problems.All(), problems.Rules, type.Published);
}
