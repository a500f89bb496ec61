using System.Collections.Immutable;
using System.ComponentModel.DataAnnotations;
using System.Security.Claims;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Listing;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Server.Writing;
using Dibujo.Store;
using Dibujo.Store.Listing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Records;

/// <summary>Records of a type in the order of any column, with chosen columns, each as its own rules show it to the person who asks.</summary>
internal static class ListRows
{
    private const int MostRows = 200;
    private const int LongestSearch = 200;
    private const int LongestPlace = 4000;
    private const int MostColumns = 400;
    private const int LongestKey = 200;
    private const int MostClauses = 30;
    private const int MostParts = 100;
    private const int MostForms = 20;

    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapPost("/record-types/{key}/rows", Read).WithName("ListRows").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound);
        api.MapPost("/record-types/{key}/rows/count", Count).WithName("CountRows").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound);
    }

    /// <summary>What is wanted, as the store is asked for it; null and a problem where that makes no sense.</summary>
    internal static (RecordQuery? Query, ProblemHttpResult? Problem) Query(RecordType type, ListRequest request, TimeZoneInfo zone)
    {
        var mistake = request.Search?.Length > LongestSearch ? $"Search for at most {LongestSearch} characters."
            : request.Columns.Length > MostColumns || request.Columns.Any(column => column.Length > LongestKey) ? $"Show at most {MostColumns} columns, each by its key."
            : request.After?.Length > LongestPlace ? "Give “after” as the page before said it."
            : request.Filter?.Clauses.Take(MostClauses + 1).Count() > MostClauses ? $"Filter by at most {MostClauses} tests."
            : request.Filter?.Parts > MostParts ? $"Filter by at most {MostParts} tests and groups of tests."
            : request.Filter?.Clauses.Sum(clause => clause.Values.Length) > FilterClause.MostValues ? $"Compare with at most {FilterClause.MostValues} values. Put what belongs together into fewer lists, or compare with a range."
            : request.SortBy is { } by && ListColumn.Of(type, by) is null ? $"There is no column “{by}”. Sort by one of the record type."
            : request.Filter is { } filter ? ListColumn.Mistake(type, filter) : null;
        return mistake is null
            ? (new(type, request.Filter, request.Search, request.SortBy ?? ListColumn.ChangedAt, request.SortBy is null || request.Descending) { Zone = zone }, null)
            : (null, TypedResults.Problem(mistake, statusCode: StatusCodes.Status400BadRequest, title: "The list cannot be shown like that."));
    }

    private static async Task<Results<Ok<ListPage>, ProblemHttpResult>> Read(
        string key, ListRequest request, DibujoDb db, Editions editions, Circumstances circumstances, RecordLookup lookup, ClaimsPrincipal user, TimeProvider clock,
        CancellationToken cancellation)
    {
        if (await editions.CurrentAsync(db, key, cancellation) is not { } edition)
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        var (query, problem) = Query(edition.Definition.RecordType, request, clock.LocalTimeZone);
        if (query is null)
        {
            return problem!;
        }

        QueriedRecords found;
        try
        {
            found = await new RecordList(db).TakeAsync(query, request.After, Math.Clamp(request.Take, 1, MostRows), cancellation);
        }
        catch (FormatException)
        {
            return TypedResults.Problem("Give “after” as the page before said it.", statusCode: StatusCodes.Status400BadRequest);
        }

        int[] ids = [.. found.Ids];
        var records = await db.Records.AsNoTracking().Where(r => ids.Contains(r.Id)).ToDictionaryAsync(r => r.Id, cancellation);
        await lookup.FetchAsync(edition.Definition.RecordType, records.Values.Select(record => record.Values), cancellation);
        var author = Author.Of(user, inList: true);
        var rows = new RowReader(edition, request.Columns, lookup);
        return TypedResults.Ok(new ListPage(
            edition.Number,
            [.. ids.Where(records.ContainsKey).Select(id => rows.Of(records[id], circumstances.Of(records[id], author)))],
            found.Next));
    }

    private static async Task<Results<Ok<ListCount>, ProblemHttpResult>> Count(
        string key, ListRequest request, DibujoDb db, Editions editions, TimeProvider clock, CancellationToken cancellation)
    {
        if (await editions.CurrentAsync(db, key, cancellation) is not { Definition.RecordType: var type })
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        var (query, problem) = Query(type, request, clock.LocalTimeZone);
        if (query is null)
        {
            return problem!;
        }

        var forms = request.Columns.Where(column => column.StartsWith("@form:", StringComparison.Ordinal)).Take(MostForms);
        var counts = await new RecordList(db).CountAsync(query, forms, cancellation);
        return TypedResults.Ok(new ListCount(counts.Records, counts.Tallies));
    }
}

/// <summary>What of a list is wanted.</summary>
/// <param name="Columns">Keys of the columns: fields, and others by their names with an @.</param>
/// <param name="Filter">Which records; null for all.</param>
/// <param name="Search">What one of their texts contains; null for anything.</param>
/// <param name="SortBy">Key of the column by which they are sorted; null for the latest saved first.</param>
/// <param name="Descending">Whether the last comes first.</param>
/// <param name="After">Where the page before ended, as it said; null for the first.</param>
/// <param name="Take">How many at most.</param>
internal sealed record ListRequest(
    [property: MaxLength(400)] ImmutableArray<string> Columns, Filter? Filter = null, [property: MaxLength(200)] string? Search = null, [property: MaxLength(200)] string? SortBy = null,
    bool Descending = false, [property: MaxLength(4000)] string? After = null, [property: Range(1, 200)] int Take = 60);

/// <summary>Some rows of a list.</summary>
/// <param name="Edition">Number of the edition under which they are shown.</param>
/// <param name="Rows">The rows.</param>
/// <param name="Next">To be sent as “after” for the next; null where these are the last.</param>
internal sealed record ListPage(int Edition, ImmutableArray<ListRow> Rows, string? Next);

/// <summary>A record in a list.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Version">To be sent back with a change.</param>
/// <param name="Title">What it is called.</param>
/// <param name="Workflow">Key of its workflow.</param>
/// <param name="Stage">Key of its stage.</param>
/// <param name="ChangedAt">When it was last saved, in UTC.</param>
/// <param name="ChangedBy">Account name of who saved it.</param>
/// <param name="Values">Its values in the columns.</param>
/// <param name="Cells">How its rules show it, for each column that is a field.</param>
/// <param name="Standing">How far its forms are, where a column asks for that.</param>
/// <param name="Links">What linked records are called, by record type and number.</param>
internal sealed record ListRow(
    int Id, int Version, string Title, string Workflow, string Stage, DateTime ChangedAt, string ChangedBy,
    IReadOnlyDictionary<string, Value> Values, ImmutableArray<CellView> Cells, IReadOnlyDictionary<string, Value> Standing, IReadOnlyDictionary<string, string> Links);

/// <summary>A field of a record in a list.</summary>
/// <param name="Field">Its key.</param>
/// <param name="Bits">Its state: see <see cref="ElementState.Bits"/>.</param>
internal sealed record CellView(string Field, int Bits);

/// <summary>How many records a list has.</summary>
/// <param name="Records">How many.</param>
/// <param name="Tallies">For each column about a form, how many are how far, as of when each was last saved or an edition published.</param>
internal sealed record ListCount(int Records, ImmutableDictionary<string, ImmutableDictionary<string, int>> Tallies);
