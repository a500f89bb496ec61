using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Mvc;

namespace Dibujo.Server.Hosting;

/// <summary>Turns what went wrong on the server into a problem document: what was typed is still on the page, and nothing of it was stored.</summary>
internal sealed class Faults(IProblemDetailsService problems, ILogger<Faults> log) : IExceptionHandler
{
    private const string NothingSaved = "Nothing was saved; what you typed is still here.";

    public ValueTask<bool> TryHandleAsync(HttpContext httpContext, Exception exception, CancellationToken cancellationToken)
    {
        if (exception is OperationCanceledException && httpContext.RequestAborted.IsCancellationRequested)
        {
            // Nobody waits for the answer any more.
            httpContext.Response.StatusCode = StatusCodes.Status499ClientClosedRequest;
            return ValueTask.FromResult(true);
        }

        var fault = StoreFaults.Of(exception);
        if (fault is null)
        {
            log.LogError(exception, "{Method} {Path} failed", httpContext.Request.Method, httpContext.Request.Path);
        }
        else
        {
            // The stack says nothing about a full disk.
            log.LogError("{Method} {Path} failed: {Fault}", httpContext.Request.Method, httpContext.Request.Path, fault.Detail);
            httpContext.Response.Headers.RetryAfter = fault.IsPassing ? "2" : "60";
        }

        var status = fault is null ? StatusCodes.Status500InternalServerError : StatusCodes.Status503ServiceUnavailable;
        httpContext.Response.StatusCode = status;
        return problems.TryWriteAsync(new()
        {
            HttpContext = httpContext,
            ProblemDetails = new ProblemDetails
            {
                Status = status,
                Title = fault is null ? "The server made a mistake." : "The server cannot store anything at the moment.",
                Detail = $"{NothingSaved} {(fault is null ? "Try again; if it happens again, tell whoever runs the server." : $"Tell whoever runs the server: {fault.Detail}")}",
            },
        });
    }
}
