using Dibujo.Core.Bulk;
using Dibujo.Core.Compilation;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Server.Records;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Drafts;

/// <summary>In how many of the records that there are a rule of the draft would be in force now, as they are saved. Changes nothing.</summary>
internal static class CountInForce
{
    /// <summary>So many records are looked at; who asks has just opened a rule, and does not wait for more.</summary>
    private const int Most = 20_000;

    /// <summary>So many are held at once.</summary>
    private const int Piece = 2000;

    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/record-types/{key}/draft/rules/{rule}/in-force", Run).WithName("CountInForce").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status404NotFound);

    private static async Task<Results<Ok<InForceCount>, ProblemHttpResult>> Run(
        string key, string rule, DibujoDb db, RecordLookup lookup, TimeProvider clock, CancellationToken cancellation)
    {
        if (await db.RecordTypes.AsNoTracking().SingleOrDefaultAsync(t => t.Key == key, cancellation) is not { } type)
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        var place = type.Draft.Rules.Select(one => one.Key).ToList().IndexOf(rule);
        if (place < 0)
        {
            return TypedResults.Problem("The draft has no such rule.", statusCode: StatusCodes.Status404NotFound);
        }

        var total = await db.RecordCounts.Where(c => c.RecordType == key).SumAsync(c => c.Records, cancellation);
        if (ProgramCompiler.CheckAndCompile(type.Draft, await PersonNames.AccountsAsync(db, cancellation)).Program is not { } program)
        {
            return TypedResults.Ok(new InForceCount(0, 0, total));
        }

        var now = clock.GetLocalNow().DateTime;
        var (looked, inForce) = (0, 0);
        var waiting = new Dictionary<(string Workflow, string Stage), List<RecordValues>>();
        await foreach (var record in db.Records.AsNoTracking().Where(r => r.RecordType == key).OrderBy(r => r.Id).Take(Most)
            .Select(r => new { r.Values, r.Workflow, r.Stage }).AsAsyncEnumerable().WithCancellation(cancellation))
        {
            var where = (record.Workflow, record.Stage);
            if (!waiting.TryGetValue(where, out var some))
            {
                waiting[where] = some = [];
            }

            some.Add(record.Values);
            looked++;
            if (some.Count == Piece)
            {
                inForce += Count(program, place, where, some, now, lookup);
                some.Clear();
            }
        }

        return TypedResults.Ok(new InForceCount(inForce + waiting.Sum(group => Count(program, place, group.Key, group.Value, now, lookup)), looked, total));
    }

    private static int Count(RuleProgram program, int rule, (string Workflow, string Stage) where, List<RecordValues> records, DateTime now, RecordLookup lookup)
    {
        var type = program.Definition.RecordType;
        var evaluation = new BulkEvaluation(
            program, new RecordColumns(type, records.Select(values => values.FittedTo(type))), new Setting(where.Workflow, where.Stage, Now: now), lookup);
        var cases = program.Definition.Rules[rule].AllCases();
        // What holds otherwise holds for all the rest: that says nothing of the rule.
        return Enumerable.Range(0, evaluation.CasesOf(rule)).Where(@case => @case == 0 || cases[@case].While is not null).Sum(@case => evaluation.CountOf(rule, @case));
    }
}

/// <summary>In how many records a rule is in force.</summary>
/// <param name="InForce">Those in which one of its cases is.</param>
/// <param name="Looked">How many were looked at: the first ones, where there are very many; none while the draft has problems.</param>
/// <param name="Records">How many there are.</param>
internal sealed record InForceCount(int InForce, int Looked, int Records);
