using System.Collections.Immutable;
using Dibujo.Core.Checking;
using Dibujo.Core.Records;
using Dibujo.Core.Reshaping;
using Dibujo.Server.Accounts;
using Dibujo.Server.Records;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Publications;

/// <summary>Counts what would become of the records if the record type were as it is sent. Changes nothing.</summary>
internal static class ForeseeConsequences
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/record-types/{key}/consequences", Run).WithName("ForeseeConsequences").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status422UnprocessableEntity)
            .WithMetadata(new RequestSizeLimitAttribute(Exchange.RequestFile.Largest));

    private static async Task<Results<Ok<ConsequencesView>, ProblemHttpResult>> Run(
        string key, RecordType then, DibujoDb db, Editions editions, RecordLookup lookup, CancellationToken cancellation)
    {
        if (!await db.RecordTypes.AnyAsync(t => t.Key == key, cancellation))
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        if (!DefinitionCheck.OfRecordType(then).IsEmpty)
        {
            return TypedResults.Problem(
                "Mend what is wrong with the record type first.", statusCode: StatusCodes.Status422UnprocessableEntity, title: "It cannot be said what becomes of the records.");
        }

        var before = await editions.CurrentAsync(db, key, cancellation);
        if (before is null || !new RecordReshaping(before.Definition.RecordType, then).TellsSomething)
        {
            return TypedResults.Ok(new ConsequencesView(0, []));
        }

        var consequences = new Consequences(before.Definition.RecordType, then, lookup);
        await foreach (var record in db.Records.AsNoTracking().Where(r => r.RecordType == key).OrderBy(r => r.Id)
            .Select(r => new { r.Id, r.Title, r.Values, r.Workflow, r.Stage }).AsAsyncEnumerable().WithCancellation(cancellation))
        {
            consequences.Add(record.Id, record.Title, record.Values, record.Workflow, record.Stage);
        }

        return TypedResults.Ok(new ConsequencesView(consequences.Changed, consequences.All()));
    }
}

/// <summary>What would become of the records.</summary>
/// <param name="Records">How many would not be as they are.</param>
/// <param name="Consequences">What each change does to them.</param>
internal sealed record ConsequencesView(int Records, ImmutableArray<Consequence> Consequences);
