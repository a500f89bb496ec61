namespace Dibujo.Server.Exchange;

/// <summary>A file sent as the body of a request.</summary>
internal static class RequestFile
{
    internal const int Largest = 16 * 1024 * 1024;

    internal static async Task<byte[]> ReadAsync(HttpRequest request, CancellationToken cancellation)
    {
        using var body = new MemoryStream();
        await request.Body.CopyToAsync(body, cancellation);
        return body.ToArray();
    }
}
