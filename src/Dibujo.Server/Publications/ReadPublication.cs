using Dibujo.Server.Accounts;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Dibujo.Server.Publications;

/// <summary>How far the publication of a record type is, or what came of the last one since the server was started.</summary>
internal static class ReadPublication
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/record-types/{key}/publication", Read).WithName("ReadPublication").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status404NotFound);

    private static Results<Ok<PublicationView>, ProblemHttpResult> Read(string key, Publisher publisher) => publisher.Of(key) is { } publication
        ? TypedResults.Ok(PublicationView.Of(publication))
        : TypedResults.Problem(
            "The server was started anew since: what had not been published by then is still the draft. Publish it again.",
            statusCode: StatusCodes.Status404NotFound, title: "Nothing is being published.");
}
