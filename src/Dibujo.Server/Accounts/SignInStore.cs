using System.Globalization;
using System.Security.Claims;
using Dibujo.Server.Hosting;
using Dibujo.Store;
using Dibujo.Store.Accounts;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Accounts;

/// <summary>
/// Sign-ins in the store: a cookie holds nothing but a key. A sign-in ends when it is deleted, when the account's stamp
/// changes or the account is locked, after some hours without use, and after some days in any case; what the person may
/// do is read anew at every request.
/// </summary>
internal sealed class SignInStore(TimeProvider clock, IServiceScopeFactory scopes) : ITicketStore
{
    /// <summary>How long a sign-in lasts at most.</summary>
    internal static readonly TimeSpan Longest = TimeSpan.FromDays(7);

    private static readonly TimeSpan LongestIdle = TimeSpan.FromHours(12);

    /// <summary>How exactly the last use is noted, so that reading is not writing.</summary>
    private static readonly TimeSpan Grain = TimeSpan.FromMinutes(5);

    private DateTime Now => clock.GetUtcNow().UtcDateTime;

    public async Task<string> StoreAsync(AuthenticationTicket ticket)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<DibujoDb>();
        var key = Secrets.New();
        await Over(db.SignIns).ExecuteDeleteAsync();
        db.SignIns.Add(new StoredSignIn
        {
            Hash = Secrets.Hash(key),
            AccountId = ticket.Principal.AccountId(),
            Stamp = ticket.Principal.FindFirstValue(Principals.StampClaim)!,
            BegunAt = Now,
            UsedAt = Now,
        });
        await db.SaveChangesAsync();
        return key;
    }

    /// <summary>A sign-in is never prolonged: it is over when it is over.</summary>
    public Task RenewAsync(string key, AuthenticationTicket ticket) => Task.CompletedTask;

    public async Task<AuthenticationTicket?> RetrieveAsync(string key)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<DibujoDb>();
        var hash = Secrets.Hash(key);
        var signIn = await db.SignIns.AsNoTracking().FirstOrDefaultAsync(s => s.Hash == hash);
        if (signIn is null || signIn.UsedAt < Now - LongestIdle || signIn.BegunAt < Now - Longest
            || await Principals.Of(db, signIn.AccountId, CookieAuthenticationDefaults.AuthenticationScheme, clock.GetUtcNow(), default) is not { } person
            || person.FindFirstValue(Principals.StampClaim) != signIn.Stamp)
        {
            return null;
        }

        if (signIn.UsedAt < Now - Grain)
        {
            await NoteUseAsync(db, hash);
        }

        ((ClaimsIdentity)person.Identity!).AddClaim(new(Principals.SignInClaim, signIn.Id.ToString(CultureInfo.InvariantCulture)));
        return new(person, new() { ExpiresUtc = new DateTimeOffset(signIn.BegunAt + Longest, TimeSpan.Zero) }, Microsoft.AspNetCore.Identity.IdentityConstants.ApplicationScheme);
    }

    public async Task RemoveAsync(string key)
    {
        await using var scope = scopes.CreateAsyncScope();
        var hash = Secrets.Hash(key);
        await scope.ServiceProvider.GetRequiredService<DibujoDb>().SignIns.Where(s => s.Hash == hash).ExecuteDeleteAsync();
    }

    private async Task NoteUseAsync(DibujoDb db, string hash)
    {
        try
        {
            await db.SignIns.Where(s => s.Hash == hash).ExecuteUpdateAsync(s => s.SetProperty(x => x.UsedAt, Now));
        }
        catch (Exception failure) when (StoreFaults.Of(failure) is not null)
        {
            // On a full disk one can still read.
        }
    }

    private IQueryable<StoredSignIn> Over(IQueryable<StoredSignIn> signIns)
    {
        var (idle, begun) = (Now - LongestIdle, Now - Longest);
        return signIns.Where(s => s.UsedAt < idle || s.BegunAt < begun);
    }
}
