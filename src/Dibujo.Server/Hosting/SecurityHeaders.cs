using System.Security.Cryptography;

namespace Dibujo.Server.Hosting;

/// <summary>What browsers are told to keep from happening on our pages (OWASP Secure Headers).</summary>
internal static class SecurityHeaders
{
    private const string NonceItem = "csp-nonce";

    internal static void UseSecurityHeaders(this WebApplication app) => app.Use((http, next) =>
    {
        var nonce = Convert.ToBase64String(RandomNumberGenerator.GetBytes(18));
        http.Items[NonceItem] = nonce;
        // When the answer begins, since what goes wrong on the way takes earlier headers off.
        http.Response.OnStarting(() =>
        {
            Set(http, nonce);
            return Task.CompletedTask;
        });
        return next(http);
    });

    /// <summary>What styles of this answer's page carry, so that no others are applied.</summary>
    internal static string StyleNonce(this HttpContext http) => (string)http.Items[NonceItem]!;

    private static void Set(HttpContext http, string nonce)
    {
        var headers = http.Response.Headers;
        // The engine is WebAssembly; Mantine puts its styles into elements of its own.
        headers.ContentSecurityPolicy =
            $"default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; style-src 'self' 'nonce-{nonce}'; img-src 'self' data:; font-src 'self'; "
            + "connect-src 'self'; worker-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'; object-src 'none'";
        headers.XContentTypeOptions = "nosniff";
        headers.XFrameOptions = "DENY";
        headers["Referrer-Policy"] = "same-origin";
        headers["Permissions-Policy"] = "camera=(), microphone=(), geolocation=(), payment=(), usb=(), display-capture=(), browsing-topics=()";
        headers["Cross-Origin-Opener-Policy"] = "same-origin";
        headers["Cross-Origin-Resource-Policy"] = "same-origin";
        if (http.Request.IsHttps)
        {
            headers.StrictTransportSecurity = "max-age=31536000";
        }

        if (http.Request.Path.StartsWithSegments("/api", StringComparison.Ordinal) || http.Request.Path.StartsWithSegments("/openapi", StringComparison.Ordinal))
        {
            // Whatever is personal stays out of every cache.
            headers.CacheControl = "no-store";
        }
    }
}
