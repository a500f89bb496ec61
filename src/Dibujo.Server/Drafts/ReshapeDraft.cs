using Dibujo.Core.Records;
using Dibujo.Core.Reshaping;
using Dibujo.Core.Rules;
using Dibujo.Server.Accounts;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace Dibujo.Server.Drafts;

/// <summary>Works out what a draft is once rules, examples and forms follow a change of its record type. Stores nothing: it is an edit like others, to be undone like others.</summary>
internal static class ReshapeDraft
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/reshaped", Run).WithName("ReshapeDraft").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity).WithMetadata(new RequestSizeLimitAttribute(Exchange.RequestFile.Largest));

    private static Results<Ok<Definition>, ProblemHttpResult> Run(DraftReshape request)
    {
        var (definition, mistake) = Reshaped.By(request.Draft, request.Reshape);
        return definition is null
            ? TypedResults.Problem(mistake, statusCode: StatusCodes.Status422UnprocessableEntity, title: "That cannot be done.")
            : TypedResults.Ok(definition);
    }
}

/// <summary>A draft, and what is to become of it.</summary>
internal sealed record DraftReshape(Definition Draft, Reshape Reshape);
