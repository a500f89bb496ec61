using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Records;

/// <summary>How many records hold something in each field, each choice, and stand at each stage: what has to be thought of before one of them goes.</summary>
internal static class CountHoldings
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/record-types/{key}/holdings", Read).WithName("CountHoldings").RequireAuthorization(Policies.Administrators);

    private static async Task<Ok<HoldingsView>> Read(string key, DibujoDb db, CancellationToken cancellation)
    {
        var view = new HoldingsView(new(StringComparer.Ordinal), new(StringComparer.Ordinal), new(StringComparer.Ordinal));
        await foreach (var record in db.Records.AsNoTracking().Where(r => r.RecordType == key)
            .Select(r => new { r.Values, r.Workflow, r.Stage }).AsAsyncEnumerable().WithCancellation(cancellation))
        {
            Count(view.Stages, record.Workflow, record.Stage);
            foreach (var (field, value) in record.Values.ByField)
            {
                if (value.IsBlank)
                {
                    continue;
                }

                view.Fields[field] = view.Fields.GetValueOrDefault(field) + 1;
                foreach (var choice in value is Choices several ? several.Keys : value is Text { Content.Length: <= 64 } text ? [text.Content] : [])
                {
                    Count(view.Choices, field, choice);
                }
            }
        }

        return TypedResults.Ok(view);
    }

    private static void Count(Dictionary<string, Dictionary<string, int>> counts, string of, string what)
    {
        if (!counts.TryGetValue(of, out var inner))
        {
            counts[of] = inner = new(StringComparer.Ordinal);
        }

        inner[what] = inner.GetValueOrDefault(what) + 1;
    }
}

/// <summary>How many records hold what.</summary>
/// <param name="Fields">By key of the field: how many hold a value of it.</param>
/// <param name="Choices">By key of the field and of the choice. Short texts of other fields are among them.</param>
/// <param name="Stages">By key of the workflow and of the stage: how many stand there.</param>
internal sealed record HoldingsView(
    Dictionary<string, int> Fields, Dictionary<string, Dictionary<string, int>> Choices, Dictionary<string, Dictionary<string, int>> Stages);
