using Dibujo.Core.Json;
using Microsoft.AspNetCore.Diagnostics;

namespace Dibujo.Server.Hosting;

/// <summary>Turns a request that could not be read into a problem document that says where and how to mend it.</summary>
internal sealed class BadRequests(IProblemDetailsService problems) : IExceptionHandler
{
    public ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        // Only the framework's own complaint about a request: what goes wrong later is not the client's fault.
        if (exception is not BadHttpRequestException { StatusCode: var status })
        {
            return ValueTask.FromResult(false);
        }

        var mistake = exception.InnerException;
        httpContext.Response.StatusCode = status;
        var document = new Microsoft.AspNetCore.Mvc.ProblemDetails
        {
            Status = status,
            Title = "The request could not be read.",
            Detail = status == StatusCodes.Status413PayloadTooLarge ? "It is too large." : "Its form is not what this address expects.",
        };
        if (mistake is not null && JsonText.IsMistake(mistake))
        {
            document.Extensions["problems"] = new[] { JsonText.Describe(mistake) };
        }

        return problems.TryWriteAsync(new() { HttpContext = httpContext, ProblemDetails = document });
    }
}
