using Dibujo.Server.Accounts;
using Microsoft.AspNetCore.Antiforgery;

namespace Dibujo.Server.Hosting;

/// <summary>Lets a request that changes something through only with the token that <c>GET /api/sign-in</c> gave to this browser.</summary>
internal sealed class AntiforgeryFilter(IAntiforgery antiforgery) : IEndpointFilter
{
    internal const string Header = "X-Dibujo-Token";

    public async ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var http = context.HttpContext;
        // A program sends no cookies, so no other page can make it send anything.
        return HttpMethods.IsGet(http.Request.Method) || TokenSignIn.IsProgram(http.User) || await antiforgery.IsRequestValidAsync(http)
            ? await next(context)
            : TypedResults.Problem(
                $"The header {AntiforgeryFilter.Header} is missing or out of date. Read /api/sign-in and send its token.",
                statusCode: StatusCodes.Status400BadRequest,
                title: "The request was not sent by Dibujo's own pages, or somebody has signed in or out since.",
                extensions: [KeyValuePair.Create<string, object?>("isTokenOutOfDate", true)]);
    }
}
