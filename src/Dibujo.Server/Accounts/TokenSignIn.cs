using System.Security.Claims;
using System.Text.Encodings.Web;
using Dibujo.Store;
using Microsoft.AspNetCore.Authentication;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;

namespace Dibujo.Server.Accounts;

/// <summary>Lets a program in by a person's token (<c>Authorization: Bearer …</c>, RFC 6750). What it sends comes through the channel API.</summary>
internal sealed class TokenSignIn(
    IOptionsMonitor<AuthenticationSchemeOptions> options, ILoggerFactory logger, UrlEncoder encoder, DibujoDb db, TimeProvider clock)
    : AuthenticationHandler<AuthenticationSchemeOptions>(options, logger, encoder)
{
    internal new const string Scheme = "token";

    private const string Prefix = "Bearer ";

    internal static bool IsTried(HttpRequest request) => request.Headers.Authorization.ToString().StartsWith(Prefix, StringComparison.Ordinal);

    /// <summary>Whether it is a program that acts for the person.</summary>
    internal static bool IsProgram(ClaimsPrincipal user) => user.Identity?.AuthenticationType == Scheme;

    protected override async Task<AuthenticateResult> HandleAuthenticateAsync()
    {
        var hash = Secrets.Hash(Request.Headers.Authorization.ToString()[Prefix.Length..]);
        var now = clock.GetUtcNow();
        var token = await db.ApiTokens.Where(t => t.Hash == hash && t.ExpiresAt > now.UtcDateTime).Select(t => new { t.Id, t.AccountId, t.ExpiresAt }).FirstOrDefaultAsync(Context.RequestAborted);
        return token is not null && await Principals.Of(db, token.AccountId, Scheme, now, Context.RequestAborted) is { } person
            ? AuthenticateResult.Success(new(person.With(Principals.TokenClaim, token.Id), new() { ExpiresUtc = new DateTimeOffset(token.ExpiresAt, TimeSpan.Zero) }, Scheme))
            : AuthenticateResult.Fail("No such token.");
    }
}
