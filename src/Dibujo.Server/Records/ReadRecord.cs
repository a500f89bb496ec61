using System.Collections.Immutable;
using System.Security.Claims;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Server.Writing;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Records;

/// <summary>One record, stored or about to be begun.</summary>
internal static class ReadRecord
{
    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/records/{id:int}", Read).WithName("ReadRecord").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);
        api.MapGet("/records/{id:int}/title", Title).WithName("ReadTitle").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);
        api.MapGet("/record-types/{key}/links/{field}/{number:int}", Linked).WithName("ReadLinked").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);
        api.MapGet("/record-types/{key}/new-record", Begin).WithName("BeginRecord").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);
    }

    internal static ProblemHttpResult NoSuchRecord(int id) => TypedResults.Problem(
        $"There is no record {id}.", statusCode: StatusCodes.Status404NotFound);

    private static async Task<Results<Ok<RecordView>, ProblemHttpResult>> Read(
        int id, string? form, bool? reading, bool? inList, DibujoDb db, Editions editions, Circumstances circumstances, RecordLookup lookup, ClaimsPrincipal user, CancellationToken cancellation)
    {
        if (await db.Records.AsNoTracking().SingleOrDefaultAsync(r => r.Id == id, cancellation) is not { } record
            || await editions.CurrentAsync(db, record.RecordType, cancellation) is not { } edition)
        {
            return NoSuchRecord(id);
        }

        var setting = circumstances.Of(record, Author.Of(user, inList == true)) with { Use = reading == true ? Use.Reading : Use.FillingIn };
        return FormAtHand.Open(edition, record.Values.FittedTo(edition.Definition.RecordType), setting, form, lookup) switch
        {
            null => FormAtHand.NoSuchForm(edition, form),
            { AtHand: { IsRelevant: false } session } => FormAtHand.Closed(session),
            var open => TypedResults.Ok(RecordView.Of(record, edition, open, lookup)),
        };
    }

    private static async Task<Results<Ok<RecordView>, ProblemHttpResult>> Begin(
        string key, string? workflow, string? form, DibujoDb db, Editions editions, Circumstances circumstances, RecordLookup lookup,
        ClaimsPrincipal user, CancellationToken cancellation)
    {
        if (await editions.CurrentAsync(db, key, cancellation) is not { } edition
            || circumstances.OfNew(edition.Definition.RecordType, workflow, Author.Of(user)) is not { } setting)
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        return FormAtHand.Open(edition, edition.Definition.RecordType.Defaults(setting), setting, form, lookup) switch
        {
            null => FormAtHand.NoSuchForm(edition, form),
            { AtHand: { IsRelevant: false } session } => FormAtHand.Closed(session),
            var open => TypedResults.Ok(RecordView.New(edition, open, lookup)),
        };
    }

    private static async Task<Results<Ok<RecordTitle>, ProblemHttpResult>> Title(int id, DibujoDb db, CancellationToken cancellation) =>
        await db.Records.Where(r => r.Id == id).Select(r => new RecordTitle(r.Id, r.RecordType, r.Title)).SingleOrDefaultAsync(cancellation) is { } title
            ? TypedResults.Ok(title)
            : NoSuchRecord(id);

    private static async Task<Results<Ok<ImmutableArray<LinkedRecord>>, ProblemHttpResult>> Linked(
        string key, string field, int number, DibujoDb db, Editions editions, RecordLookup lookup, CancellationToken cancellation)
    {
        if (await editions.CurrentAsync(db, key, cancellation) is not { Definition.RecordType: var type } || type.Find(field) is not { Type: LinkType })
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        return TypedResults.Ok(lookup.From(type, RecordValues.Empty.With(field, new Link(number))));
    }
}

/// <summary>What a record is called.</summary>
internal sealed record RecordTitle(int Id, string RecordType, string Title);
