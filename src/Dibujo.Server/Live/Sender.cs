using Dibujo.Server.Accounts;

namespace Dibujo.Server.Live;

/// <summary>The connections of the page from which a request comes: what it does itself it knows by the answer, and is not told.</summary>
internal sealed class Sender(IHttpContextAccessor accessor)
{
    internal const string Header = "X-Dibujo-Connections";

    private const int Most = 8;

    /// <summary>Whether that connection is the sender's. Nobody can name another person's.</summary>
    internal bool Has(LiveConnection connection) => Ids.Contains(connection.Id, StringComparer.Ordinal) && connection.AccountId == accessor.HttpContext!.User.AccountId();

    private string[] Ids => accessor.HttpContext?.Request.Headers[Header].ToString().Split(',', Most, StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries) ?? [];
}
