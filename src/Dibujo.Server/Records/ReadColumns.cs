using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Listing;
using Dibujo.Core.Records;
using Dibujo.Core.Sentences;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Dibujo.Server.Records;

/// <summary>The columns that lists of a record type can have, by which they are sorted and filtered, each with the tests that fit it.</summary>
internal static class ReadColumns
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/record-types/{key}/columns", Read).WithName("ReadColumns").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);

    private static async Task<Results<Ok<ImmutableArray<ColumnView>>, ProblemHttpResult>> Read(
        string key, DibujoDb db, Editions editions, CancellationToken cancellation) =>
        await editions.CurrentAsync(db, key, cancellation) is not { Definition.RecordType: var type }
            ? ReadRecordTypes.NoSuchRecordType(key)
            : TypedResults.Ok<ImmutableArray<ColumnView>>(
                [.. ListColumn.All(type).Select(column => new ColumnView(column.Key, column.Label, column.Type, [.. column.Tests.Select(test => new TestOffer(test, Wording.Of(test), test.Shape()))]))]);
}

/// <summary>A column that a list can have.</summary>
/// <param name="Key">A field's key, or a name with an @.</param>
/// <param name="Label">What it is called.</param>
/// <param name="Type">Of which type it is, as though it were a field.</param>
/// <param name="Tests">The tests that fit it, in words.</param>
internal sealed record ColumnView(string Key, string Label, FieldType Type, ImmutableArray<TestOffer> Tests);
