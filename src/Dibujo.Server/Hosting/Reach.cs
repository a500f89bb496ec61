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

    private static IEnumerable<Uri> Urls(WebApplicationBuilder builder) => (builder.Configuration["DIBUJO_URLS"] ?? "").Split(';', StringSplitOptions.RemoveEmptyEntries)
        .Select(url => Uri.TryCreate(url, UriKind.Absolute, out var known) ? known : null).OfType<Uri>();

    private static IEnumerable<IPAddress> Proxies(IConfiguration configuration) =>
        (configuration["DIBUJO_PROXIES"] ?? "").Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).Select(IPAddress.Parse);
}
