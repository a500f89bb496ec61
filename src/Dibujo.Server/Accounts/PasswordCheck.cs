using Dibujo.Store.Accounts;
using Microsoft.AspNetCore.Identity;

namespace Dibujo.Server.Accounts;

/// <summary>
/// Compares a password with the one that is stored, taking as long where there is no such account. One at a time: it is
/// made to be slow, and nobody else should wait for it.
/// </summary>
internal sealed class PasswordCheck(Microsoft.Extensions.Options.IOptions<PasswordHasherOptions> options) : IDisposable
{
    private const int LongestPassword = 128;

    private static readonly Account Nobody = new() { DisplayName = "" };

    private readonly PasswordHasher<Account> hasher = new(options);
    private readonly SemaphoreSlim turn = new(1, 1);
    private string? unknown;

    internal async Task<PasswordVerificationResult> OfAsync(Account? account, string password, CancellationToken cancellation)
    {
        await turn.WaitAsync(cancellation);
        try
        {
            return await Task.Run(() => Verify(account, password), CancellationToken.None);
        }
        finally
        {
            turn.Release();
        }
    }

    public void Dispose() => turn.Dispose();

    private PasswordVerificationResult Verify(Account? account, string password)
    {
        var fits = password.Length <= LongestPassword;
        unknown ??= hasher.HashPassword(Nobody, Secrets.New());
        var result = hasher.VerifyHashedPassword(Nobody, account?.PasswordHash ?? unknown, fits ? password : "");
        return account?.PasswordHash is not null && fits ? result : PasswordVerificationResult.Failed;
    }
}
