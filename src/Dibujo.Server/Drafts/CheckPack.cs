using System.Collections.Immutable;
using Dibujo.Core.Analysis;
using Dibujo.Core.Checking;
using Dibujo.Core.Packs;
using Dibujo.Server.Accounts;
using Dibujo.Server.Exchange;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace Dibujo.Server.Drafts;

/// <summary>Says of a pack what is wrong with it, and stores nothing: the command line's check over HTTP.</summary>
internal static class CheckPack
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/packs/check", Check).WithName("CheckPack").RequireAuthorization(Policies.Administrators)
            .Accepts<Pack>("application/json").ProducesProblem(StatusCodes.Status400BadRequest)
            .WithMetadata(new RequestSizeLimitAttribute(RequestFile.Largest));

    private static async Task<Results<Ok<PackReport>, ProblemHttpResult>> Check(HttpRequest request, CancellationToken cancellation)
    {
        var (pack, mistake) = PackFile.Read(await RequestFile.ReadAsync(request, cancellation));
        return pack is null
            ? TypedResults.Problem(
                "This is not a pack.",
                statusCode: StatusCodes.Status400BadRequest,
                title: "The pack could not be read.",
                extensions: [KeyValuePair.Create<string, object?>("problems", new[] { mistake })])
            : TypedResults.Ok(new PackReport(pack.RecordType.Label, pack.Rules.Length, PublicationCheck.Of(pack.ToDefinition()).All()));
    }
}

/// <summary>What a pack holds and what is wrong with it.</summary>
internal sealed record PackReport(string RecordType, int Rules, ImmutableArray<Problem> Problems);
