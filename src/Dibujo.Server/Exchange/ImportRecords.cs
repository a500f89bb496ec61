using System.Collections.Immutable;
using System.Security.Claims;
using Dibujo.Core.Compilation;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Exchange;
using Dibujo.Core.Records;
using Dibujo.Core.Saving;
using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Server.Records;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Exchange;

/// <summary>Takes in records from comma-separated values, each row under its own record's rules; refused rows change nothing.</summary>
internal static class ImportRecords
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/record-types/{key}/records.csv", Run).WithName("ImportRecords").RequireAuthorization(Policies.Members)
            .Accepts<string>("text/csv").ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound)
            .WithMetadata(new RequestSizeLimitAttribute(RequestFile.Largest));

    /// <param name="key">Key of the record type.</param>
    /// <param name="dryRun">Whether to only report what would come of it.</param>
    /// <param name="request">The file.</param>
    /// <param name="db">The store.</param>
    /// <param name="editions">Published editions.</param>
    /// <param name="circumstances">Who asks, and when.</param>
    /// <param name="lookup">Linked records.</param>
    /// <param name="user">Who asks.</param>
    /// <param name="clock">The time of the save.</param>
    /// <param name="cancellation">Ends the request.</param>
    private static async Task<Results<Ok<ImportReport>, ProblemHttpResult>> Run(
        string key, bool? dryRun, HttpRequest request, DibujoDb db, Editions editions, Circumstances circumstances, RecordLookup lookup,
        ClaimsPrincipal user, TimeProvider clock, CancellationToken cancellation)
    {
        if (await editions.CurrentAsync(db, key, cancellation) is not { } edition || edition.For(null) is not { } program)
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        var (rows, mistake) = RecordTable.Read(edition.Definition.RecordType, await RequestFile.ReadAsync(request, cancellation));
        if (mistake is not null)
        {
            return TypedResults.Problem(mistake, statusCode: StatusCodes.Status400BadRequest, title: "The file could not be read; nothing was imported.");
        }

        var import = new Import(db, edition, program, circumstances, lookup, user, clock.GetUtcNow().UtcDateTime);
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        var reports = new List<RowReport>();
        foreach (var row in rows)
        {
            reports.Add(row.Mistakes.IsEmpty ? await import.TakeAsync(row, cancellation) : new(row.Line, row.Id, row.Mistakes));
            // What was taken in need not be watched for changes any more; a long file would be slower with every row.
            db.ChangeTracker.Clear();
        }

        if (dryRun == true)
        {
            // Records that would be begun have no number yet.
            return TypedResults.Ok(ImportReport.Of(reports.Zip(rows, (report, row) => report with { Record = row.Id })));
        }

        await transaction.CommitAsync(cancellation);
        return TypedResults.Ok(ImportReport.Of(reports));
    }

    private sealed class Import(
        DibujoDb db, Edition edition, RuleProgram program, Circumstances circumstances, RecordLookup lookup, ClaimsPrincipal user, DateTime at)
    {
        private RecordType Type => edition.Definition.RecordType;

        internal async Task<RowReport> TakeAsync(ReadRow row, CancellationToken cancellation)
        {
            if (row.Id is { } id)
            {
                return await ChangeAsync(row, id, cancellation);
            }

            if (circumstances.OfNew(Type, row.Workflow, user, Channel.Import) is not { } setting)
            {
                return new(row.Line, null, [$"There is no workflow “{row.Workflow}”. Name one of the record type, or leave it blank."]);
            }

            var verdict = Judge(Type.Defaults(setting), setting, row.Filled);
            if (!verdict.IsAccepted)
            {
                return new(row.Line, null, Reasons(verdict));
            }

            var record = CreateRecord.Record(edition, setting, verdict, at);
            db.Records.Add(record);
            await db.SaveChangesAsync(cancellation);
            db.History.Add(SaveRecord.Entry(record, edition.Number, RecordValues.Empty, setting.Stage));
            await db.SaveChangesAsync(cancellation);
            return new(row.Line, record.Id, []);
        }

        private async Task<RowReport> ChangeAsync(ReadRow row, int id, CancellationToken cancellation)
        {
            if (await db.Records.SingleOrDefaultAsync(r => r.Id == id && r.RecordType == Type.Key, cancellation) is not { } record)
            {
                return new(row.Line, id, [$"There is no {Type.Label.ToLowerInvariant()} {id}. Leave the number blank to begin a record."]);
            }

            // What is as it was is no change: a file may carry locked columns along.
            var saved = record.Values.FittedTo(Type);
            var changes = row.Values.Where(v => !Plain(v.Value).Equals(saved[v.Key])).ToImmutableDictionary();
            var verdict = Judge(saved, circumstances.Of(record, user, Channel.Import), changes);
            if (!verdict.IsAccepted)
            {
                return new(row.Line, id, Reasons(verdict));
            }

            if (!changes.IsEmpty)
            {
                db.History.Add(SaveRecord.Apply(record, edition, verdict, user.Identity!.Name!, at));
                await db.SaveChangesAsync(cancellation);
            }

            return new(row.Line, id, []);
        }

        private Verdict Judge(RecordValues saved, Setting setting, ImmutableDictionary<string, Value> changes) =>
            new Judge(program, lookup).Decide(saved, setting, new(changes));

        private static Value Plain(Value value) => value.IsBlank ? Value.Blank : value;

        private ImmutableArray<string> Reasons(Verdict verdict) => [.. verdict.Refusals.Select(r => r.Sentence(Type))];
    }
}
