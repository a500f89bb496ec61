using System.Security.Claims;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Server.Accounts;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.RecordTypes;

/// <summary>Which record types there are, and the edition in force of one.</summary>
internal static class ReadRecordTypes
{
    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/record-types", List).WithName("ListRecordTypes").RequireAuthorization(Policies.Members);
        api.MapGet("/record-types/{key}", Read).WithName("ReadEdition").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);
        api.MapGet("/record-types/{key}/type", ReadType).WithName("ReadRecordType").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);
        api.MapGet("/record-types/{key}/editions/{number:int}", ReadEdition).WithName("ReadNumberedEdition").RequireAuthorization(Policies.Members)
            .Produces<EditionView>()
            .ProducesProblem(StatusCodes.Status404NotFound);
    }

    /// <summary>Members see those that they can fill in; administrators also those that were only begun.</summary>
    private static async Task<Ok<List<RecordTypeView>>> List(DibujoDb db, ClaimsPrincipal user, CancellationToken cancellation)
    {
        var isAdministrator = user.IsInRole(Policies.AdministratorRole);
        var types = await db.RecordTypes.Where(t => isAdministrator || t.Published != null).OrderBy(t => t.Key)
            .Select(t => new RecordTypeView(t.Key, t.Label, t.Published, t.RuleCount, db.RecordCounts.Where(c => c.RecordType == t.Key).Sum(c => c.Records), null))
            .ToListAsync(cancellation);
        if (!isAdministrator)
        {
            return TypedResults.Ok(types);
        }

        var touched = await db.DraftSteps
            .Where(step => step.Version == db.DraftSteps.Where(other => other.RecordType == step.RecordType).Max(other => other.Version)
                && !db.Editions.Any(edition => edition.RecordType == step.RecordType && edition.At >= step.At))
            .Select(step => new { step.RecordType, step.By, step.At }).ToDictionaryAsync(step => step.RecordType, step => new DraftTouch(step.By, step.At), cancellation);
        return TypedResults.Ok(types.ConvertAll(type => type with { Unpublished = touched.GetValueOrDefault(type.Key) }));
    }

    private static async Task<Results<Ok<EditionView>, ProblemHttpResult>> Read(
        string key, DibujoDb db, Editions editions, CancellationToken cancellation) =>
        await editions.CurrentAsync(db, key, cancellation) is { } edition
            ? TypedResults.Ok(new EditionView(edition.Number, edition.Definition))
            : NoSuchRecordType(key);

    /// <summary>What a page needs to draw a form, whatever the rules are; of the edition in force unless a number is given.</summary>
    private static async Task<Results<Ok<RecordTypeOfEdition>, ProblemHttpResult>> ReadType(
        string key, int? edition, DibujoDb db, Editions editions, CancellationToken cancellation) =>
        await (edition is { } number ? editions.NumberedAsync(db, key, number, cancellation) : editions.CurrentAsync(db, key, cancellation)) is { } found
            ? TypedResults.Ok(new RecordTypeOfEdition(found.Number, found.Definition.RecordType))
            : NoSuchRecordType(key);

    /// <summary>What the browser's engine compiles: an edition never changes, so it is written once and sent as it is.</summary>
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> ReadEdition(
        string key, int number, HttpContext http, DibujoDb db, Editions editions, CancellationToken cancellation)
    {
        if (await editions.NumberedAsync(db, key, number, cancellation) is not { } edition)
        {
            return NoSuchRecordType(key);
        }

        http.Response.Headers.Vary = "Accept-Encoding";
        if (!http.Request.Headers.AcceptEncoding.ToString().Contains("br", StringComparison.Ordinal))
        {
            return TypedResults.Bytes(edition.Document, "application/json");
        }

        http.Response.Headers.ContentEncoding = "br";
        return TypedResults.Bytes(edition.CompressedDocument, "application/json");
    }

    internal static ProblemHttpResult NoSuchRecordType(string key) => TypedResults.Problem(
        $"There is no published record type “{key}”.", statusCode: StatusCodes.Status404NotFound);
}

/// <summary>A record type in the list.</summary>
/// <param name="Key">Its key.</param>
/// <param name="Label">What people call it.</param>
/// <param name="Edition">Number of the edition in force; null before the first.</param>
/// <param name="Rules">How many rules its draft has.</param>
/// <param name="Records">How many records there are.</param>
/// <param name="Unpublished">The last change of the draft since the last edition; null for none, and for members.</param>
internal sealed record RecordTypeView(string Key, string Label, int? Edition, int Rules, int Records, DraftTouch? Unpublished);

/// <summary>When a draft was changed, and by whom.</summary>
internal sealed record DraftTouch(string By, DateTime At);

/// <summary>A record type as an edition has it, without its rules.</summary>
internal sealed record RecordTypeOfEdition(int Number, RecordType RecordType);

/// <summary>A published definition.</summary>
internal sealed record EditionView(int Number, Definition Definition);
