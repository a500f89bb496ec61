using System.Security.Claims;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Server.Writing;
using Dibujo.Store;
using Dibujo.Store.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Records;

/// <summary>A record as one of its saves left it, to be read: under the edition of that time, as the person who asks would see it there.</summary>
internal static class ReadFormerRecord
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/records/{id:int}/versions/{version:int}", Read).WithName("ReadFormerRecord").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);

    private static async Task<Results<Ok<RecordView>, ProblemHttpResult>> Read(
        int id, int version, string? form, DibujoDb db, Editions editions, Circumstances circumstances, RecordLookup lookup, ClaimsPrincipal user,
        CancellationToken cancellation)
    {
        var save = await db.History.AsNoTracking().SingleOrDefaultAsync(e => e.RecordId == id && e.Version == version, cancellation);
        if (save is null || await db.Records.AsNoTracking().SingleOrDefaultAsync(r => r.Id == id, cancellation) is not { } record
            || await editions.NumberedAsync(db, record.RecordType, save.Edition, cancellation) is not { } edition)
        {
            return TypedResults.Problem($"There is no save {version} of a record {id}.", statusCode: StatusCodes.Status404NotFound);
        }

        var later = db.History.AsNoTracking().Where(e => e.RecordId == id && e.Version > version).OrderByDescending(e => e.Version).AsAsyncEnumerable();
        var values = record.Values;
        await foreach (var entry in later.WithCancellation(cancellation))
        {
            values = Undone(values, entry);
        }

        var then = new StoredRecord
        {
            Id = id,
            RecordType = record.RecordType,
            Workflow = record.Workflow,
            Stage = save.ToStage,
            Title = values[edition.Definition.RecordType.TitleField].Plain,
            Values = values,
            Version = version,
            ChangedAt = save.At,
            ChangedBy = save.By,
        };
        var setting = circumstances.Of(then, Author.Of(user)) with { Use = Use.Reading };
        return FormAtHand.Open(edition, values.FittedTo(edition.Definition.RecordType), setting, form, lookup) is { } open
            ? TypedResults.Ok(RecordView.Of(then, edition, open, lookup))
            : FormAtHand.NoSuchForm(edition, form);
    }

    /// <summary>The values before that save.</summary>
    private static RecordValues Undone(RecordValues values, HistoryEntry entry) =>
        entry.Before.ByField.Keys.Union(entry.After.ByField.Keys, StringComparer.Ordinal).Aggregate(values, (before, field) => before.With(field, entry.Before[field]));
}
