using System.Collections.Immutable;
using Dibujo.Core.Listing;
using Dibujo.Core.Records;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Listing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Records;

/// <summary>How many records hold something in each field, each choice, and stand at each stage: what has to be thought of before one of them goes.</summary>
internal static class CountHoldings
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/record-types/{key}/holdings", Read).WithName("CountHoldings").RequireAuthorization(Policies.Administrators);

    private static async Task<Ok<HoldingsView>> Read(string key, DibujoDb db, Editions editions, CancellationToken cancellation)
    {
        // Choices that only the draft has, or only the edition in force, are asked about alike.
        var draft = (await db.RecordTypes.AsNoTracking().SingleOrDefaultAsync(t => t.Key == key, cancellation))?.Draft.RecordType;
        var current = (await editions.CurrentAsync(db, key, cancellation))?.Definition.RecordType;
        var options = new[] { draft, current }.OfType<RecordType>().SelectMany(type => type.Fields).Where(field => Options(field.Type) is not null)
            .GroupBy(field => field.Key, StringComparer.Ordinal)
            .ToDictionary(field => field.Key, field => field.SelectMany(one => Options(one.Type)!.Value).DistinctBy(option => ListKey.Folded(option.Key)).ToDictionary(option => ListKey.Folded(option.Key), option => option.Key, StringComparer.Ordinal), StringComparer.Ordinal);
        var held = await Holdings.CountAsync(db, key, options.Keys.ToHashSet(StringComparer.Ordinal), cancellation);
        var view = new HoldingsView(new(held.Fields, StringComparer.Ordinal), new(StringComparer.Ordinal), new(StringComparer.Ordinal));
        foreach (var (field, keys) in held.Keys)
        {
            foreach (var (choices, records) in keys)
            {
                foreach (var choice in ListKey.ChoicesIn(choices))
                {
                    Count(view.Choices, field, options[field].GetValueOrDefault(choice, choice), records);
                }
            }
        }

        foreach (var ((workflow, stage), records) in held.Stages)
        {
            Count(view.Stages, workflow, stage, records);
        }

        return TypedResults.Ok(view);
    }

    private static ImmutableArray<Option>? Options(FieldType type) => type switch
    {
        ChoiceType choice => choice.Options,
        ChoicesType several => several.Options,
        _ => null,
    };

    private static void Count(Dictionary<string, Dictionary<string, int>> counts, string of, string what, int records)
    {
        if (!counts.TryGetValue(of, out var inner))
        {
            counts[of] = inner = new(StringComparer.Ordinal);
        }

        inner[what] = inner.GetValueOrDefault(what) + records;
    }
}

/// <summary>How many records hold what.</summary>
/// <param name="Fields">By key of the field: how many hold a value of it.</param>
/// <param name="Choices">By key of the field and of the choice; one that neither draft nor edition have stands by its folded key.</param>
/// <param name="Stages">By key of the workflow and of the stage: how many stand there.</param>
internal sealed record HoldingsView(
    Dictionary<string, int> Fields, Dictionary<string, Dictionary<string, int>> Choices, Dictionary<string, Dictionary<string, int>> Stages);
