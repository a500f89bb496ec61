using System.Security.Claims;
using Dibujo.Server.Hosting;
using Dibujo.Server.Live;
using Dibujo.Store;
using Dibujo.Store.Accounts;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Accounts;

/// <summary>
/// Sign-ins in the store: a cookie holds nothing but a key. A sign-in ends when it is deleted, when the account's stamp
/// changes or the account is locked, after some hours without use, and after some days in any case; what the person may
/// do is read anew at every request.
/// </summary>
internal sealed class SignInStore(TimeProvider clock, IServiceScopeFactory scopes, LiveConnections live) : ITicketStore
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
        await scope.ServiceProvider.GetRequiredService<UnitOfWork>().RunAsync(
            async () =>
            {
                await Over(db.SignIns).ExecuteDeleteAsync();
                db.SignIns.Add(new StoredSignIn
                {
                    Hash = Secrets.Hash(key),
                    AccountId = ticket.Principal.AccountId(),
                    Stamp = ticket.Principal.FindFirstValue(Principals.StampClaim)!,
                    BegunAt = Now,
                    UsedAt = Now,
                });
            },
            default);
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
        if (signIn is null || await PersonAsync(db, signIn, clock.GetUtcNow(), default) is not { } person)
        {
            return null;
        }

        if (signIn.UsedAt < Now - Grain)
        {
            await NoteUseAsync(scope.ServiceProvider, db, hash);
        }

        // What stays open after the request is closed then, and comes again if it may.
        var end = new[] { signIn.BegunAt + Longest, signIn.UsedAt + LongestIdle }.Min();
        return new(person, new() { ExpiresUtc = new DateTimeOffset(end, TimeSpan.Zero) }, Microsoft.AspNetCore.Identity.IdentityConstants.ApplicationScheme);
    }

    public async Task RemoveAsync(string key)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<DibujoDb>();
        var hash = Secrets.Hash(key);
        var unit = scope.ServiceProvider.GetRequiredService<UnitOfWork>();
        await unit.RunAsync(
            async () =>
            {
                if (await db.SignIns.FirstOrDefaultAsync(s => s.Hash == hash) is { } signIn)
                {
                    db.SignIns.Remove(signIn);
                    unit.Afterwards(() => live.EndSignIn(signIn.Id));
                }
            },
            default);
    }

    /// <summary>Who is signed in by it; null where it is over.</summary>
    internal static async Task<ClaimsPrincipal?> PersonAsync(DibujoDb db, StoredSignIn signIn, DateTimeOffset now, CancellationToken cancellation) =>
        signIn.UsedAt >= now.UtcDateTime - LongestIdle && signIn.BegunAt >= now.UtcDateTime - Longest
            && await Principals.Of(db, signIn.AccountId, CookieAuthenticationDefaults.AuthenticationScheme, now, cancellation) is { } person
            && person.FindFirstValue(Principals.StampClaim) == signIn.Stamp
            ? person.With(Principals.SignInClaim, signIn.Id)
            : null;

    /// <summary>Nobody who reads waits for those who write: it is noted the next time then.</summary>
    private async Task NoteUseAsync(IServiceProvider services, DibujoDb db, string hash)
    {
        var unit = services.GetRequiredService<UnitOfWork>();
        unit.Patience = TimeSpan.Zero;
        try
        {
            await unit.RunAsync(() => db.SignIns.Where(s => s.Hash == hash).ExecuteUpdateAsync(s => s.SetProperty(x => x.UsedAt, Now)), default);
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
