using Microsoft.AspNetCore.StaticFiles;
using Microsoft.Extensions.FileProviders;

namespace Dibujo.Server.Hosting;

/// <summary>Serves the built front end and browser engine, compressed at build time where the browser takes it.</summary>
internal static class BuiltFiles
{
    /// <summary>Stands in the built page where every answer has a nonce of its own: see vite.config.ts.</summary>
    private const string NoncePlaceholder = "__style-nonce__";

    /// <summary>Stands in the built page where the engine's files are named.</summary>
    private const string EnginePlaceholder = "<!-- engine -->";

    /// <summary>Bytes above which a file is fetched ahead.</summary>
    private const int LargeFile = 200_000;

    private const string Forever = "public, max-age=31536000, immutable";

    internal static void UseBuiltFiles(this WebApplication app)
    {
        var files = app.Environment.WebRootFileProvider;
        app.Use((context, next) =>
        {
            Compress(context, files);
            return next(context);
        });
        var types = new FileExtensionContentTypeProvider();
        types.Mappings[".br"] = "application/octet-stream";
        app.UseStaticFiles(new StaticFileOptions
        {
            ContentTypeProvider = types,
            OnPrepareResponse = response => SetHeaders(response, types),
        });
    }

    /// <summary>Every address that is not the API's is a page of the front end.</summary>
    internal static void MapFrontEnd(this WebApplication app)
    {
        var page = new Lazy<string>(() =>
        {
            using var reader = new StreamReader(app.Environment.WebRootFileProvider.GetFileInfo("index.html").CreateReadStream());
            return reader.ReadToEnd().Replace(EnginePlaceholder, Preloads(app.Environment.WebRootFileProvider), StringComparison.Ordinal);
        });
        app.MapFallback(async http =>
        {
            http.Response.Headers.CacheControl = "no-store";
            http.Response.ContentType = "text/html; charset=utf-8";
            await http.Response.WriteAsync(page.Value.Replace(NoncePlaceholder, http.StyleNonce(), StringComparison.Ordinal), http.RequestAborted);
        }).AllowAnonymous();
    }

    /// <summary>Has browsers fetch the large files of the engine while the page is drawn, so that its worker finds them there.</summary>
    private static string Preloads(IFileProvider files) => string.Concat(files.GetDirectoryContents("engine/_framework")
        .Where(file => file.Name.EndsWith(".wasm", StringComparison.Ordinal) && file.Length > LargeFile)
        .Select(file => $"<link rel=\"prefetch\" as=\"fetch\" crossorigin href=\"/engine/_framework/{file.Name}\" />"));

    private static void Compress(HttpContext context, IFileProvider files)
    {
        var path = context.Request.Path.Value ?? "";
        if (HttpMethods.IsGet(context.Request.Method)
            && (path.StartsWith("/assets/", StringComparison.Ordinal) || path.StartsWith("/engine/", StringComparison.Ordinal))
            && context.Request.Headers.AcceptEncoding.ToString().Contains("br", StringComparison.Ordinal)
            && files.GetFileInfo(path + ".br").Exists)
        {
            context.Request.Path = path + ".br";
        }
    }

    private static void SetHeaders(StaticFileResponseContext response, FileExtensionContentTypeProvider types)
    {
        var headers = response.Context.Response.Headers;
        var name = response.File.Name;
        if (name.EndsWith(".br", StringComparison.Ordinal))
        {
            name = name[..^3];
            headers.ContentEncoding = "br";
            headers.ContentType = types.TryGetContentType(name, out var type) ? type : "application/octet-stream";
        }

        headers.Vary = "Accept-Encoding";
        // The runtime's loader is the one file whose name carries no hash of its contents.
        headers.CacheControl = name == "dotnet.js" || name.EndsWith(".html", StringComparison.Ordinal) ? "no-cache" : Forever;
    }
}
