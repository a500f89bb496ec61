using System.Net;
using Microsoft.AspNetCore.HttpOverrides;

namespace Dibujo.Server.Hosting;

/// <summary>Under which names the server is reached, and through which proxies: by configuration, and nothing else is believed.</summary>
internal static class Reach
{
    /// <summary>
    /// DIBUJO_HOSTS: names by which it is reached, with semicolons between; by default those of DIBUJO_URLS and the machine
    /// itself. DIBUJO_PROXIES: addresses of proxies whose forwarded headers count; by default none.
    /// </summary>
    internal static void LimitReach(this WebApplicationBuilder builder)
    {
        var configured = builder.Configuration["DIBUJO_HOSTS"];
        builder.Configuration["AllowedHosts"] = string.IsNullOrWhiteSpace(configured)
            ? string.Join(';', Urls(builder).Select(url => url.Host).Append("localhost").Append("127.0.0.1").Append("[::1]").Distinct(StringComparer.OrdinalIgnoreCase))
            : configured;
        builder.WebHost.ConfigureKestrel(options =>
        {
            options.AddServerHeader = false;
            options.Limits.MaxRequestBodySize = 1024 * 1024;
        });
        builder.Services.Configure<ForwardedHeadersOptions>(options =>
        {
            options.ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto;
            options.KnownIPNetworks.Clear();
            options.KnownProxies.Clear();
            foreach (var proxy in Proxies(builder.Configuration))
            {
                options.KnownProxies.Add(proxy);
            }
        });
    }

    internal static void UseReach(this WebApplication app)
    {
        if (Proxies(app.Configuration).Any())
        {
            app.UseForwardedHeaders();
        }
    }

    /// <summary>
    /// Refuses what a page from elsewhere sends: browsers say from where, and for a WebSocket nothing else asks. A proxy has to hand
    /// on host and port as the browser named them.
    /// </summary>
    internal static void UseOwnOrigin(this WebApplication app) => app.Use((http, next) => IsOwn(http.Request) ? next(http) : TypedResults.Problem(
        "It was sent by a page from elsewhere. Open Dibujo itself.", statusCode: StatusCodes.Status403Forbidden, title: "The request was not sent by Dibujo's own pages.").ExecuteAsync(http));

    private static bool IsOwn(HttpRequest request) => request.Headers.Origin is not [{ } said, ..]
        || (Uri.TryCreate(said, UriKind.Absolute, out var origin) && origin.Scheme is "http" or "https"
            && string.Equals(origin.Host, request.Host.Host, StringComparison.OrdinalIgnoreCase)
            && (request.Host.Port is { } port ? port == origin.Port : origin.IsDefaultPort));

    private static IEnumerable<Uri> Urls(WebApplicationBuilder builder) => (builder.Configuration["DIBUJO_URLS"] ?? "").Split(';', StringSplitOptions.RemoveEmptyEntries)
        .Select(url => Uri.TryCreate(url, UriKind.Absolute, out var known) ? known : null).OfType<Uri>();

    private static IEnumerable<IPAddress> Proxies(IConfiguration configuration) =>
        (configuration["DIBUJO_PROXIES"] ?? "").Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).Select(IPAddress.Parse);
}
