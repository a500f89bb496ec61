using System.Text.Json;
using Dibujo.Core.Exchange;
using Microsoft.AspNetCore.Diagnostics;

namespace Dibujo.Server.Hosting;

/// <summary>Turns a request that could not be read into a problem document that says where and how to mend it.</summary>
internal sealed class BadRequests(IProblemDetailsService problems) : IExceptionHandler
{
    public ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        if (exception is not BadHttpRequestException bad)
        {
            return ValueTask.FromResult(false);
        }

        httpContext.Response.StatusCode = bad.StatusCode;
        var document = new Microsoft.AspNetCore.Mvc.ProblemDetails
        {
            Status = bad.StatusCode,
            Title = "The request could not be read.",
            Detail = bad.StatusCode == StatusCodes.Status413PayloadTooLarge ? "It is too large." : "Its form is not what this address expects.",
        };
        if (bad.InnerException is JsonException mistake)
        {
            document.Extensions["problems"] = new[] { JsonText.Describe(mistake) };
        }

        return problems.TryWriteAsync(new() { HttpContext = httpContext, ProblemDetails = document });
    }
}
