using System.Collections.Immutable;
using System.Security.Claims;
using Dibujo.Server.Auditing;
using Dibujo.Store;
using Dibujo.Store.Accounts;
using Dibujo.Store.Auditing;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;

namespace Dibujo.Server.Accounts;

/// <summary>Who is signed in on this browser.</summary>
internal static class SignIns
{
    private const int LongestName = 256;
    private const int LargestBody = 4096;

    /// <summary>Under which the framework keeps the key of a stored ticket in the cookie.</summary>
    private const string SessionClaim = "Microsoft.AspNetCore.Authentication.Cookies-SessionId";

    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/sign-in", Read).WithName("ReadSignIn").AllowAnonymous();
        api.MapPost("/sign-in", Start).WithName("SignIn").AllowAnonymous().WithMetadata(new RequestSizeLimitAttribute(LargestBody))
            .ProducesProblem(StatusCodes.Status401Unauthorized).ProducesProblem(StatusCodes.Status429TooManyRequests);
        api.MapDelete("/sign-in", End).WithName("SignOut").RequireAuthorization(Policies.InPerson);
    }

    private static async Task<Ok<SignInView>> Read(HttpContext http, DibujoDb db, IAntiforgery antiforgery, TimeProvider clock, CancellationToken cancellation)
    {
        var token = antiforgery.GetAndStoreTokens(http).RequestToken!;
        var name = http.User.Identity?.IsAuthenticated == true
            ? await db.Users.Where(u => u.Id == http.User.AccountId()).Select(u => u.DisplayName).FirstOrDefaultAsync(cancellation)
            : null;
        return TypedResults.Ok(new SignInView(
            name is null ? null : new PersonView(http.User.Identity!.Name!, name, http.User.RoleKeys(), http.User.IsInRole(Policies.AdministratorRole)),
            token,
            SiteTime.NameOf(clock.LocalTimeZone),
            NotationView.Of(http.Notation())));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Start(
        Credentials credentials, HttpContext http, DibujoDb db, UnitOfWork unit, UserManager<Account> accounts, KnownPlaces places, SignInThrottle throttle,
        PasswordCheck passwords, AuditTrail audit, TimeProvider clock, CancellationToken cancellation)
    {
        var name = credentials.UserName.Trim();
        var account = name.Length <= LongestName ? await accounts.FindByNameAsync(name) : null;
        var place = await places.FindAsync(http.Request, account?.Id, cancellation);
        if (throttle.Begin(name.Length <= LongestName ? accounts.NormalizeName(name) : "", http.Connection.RemoteIpAddress?.ToString() ?? "", place) is not { } attempt)
        {
            // Told once while it lasts, however many attempts there are.
            if (throttle.IsNews(account?.UserName ?? $"from {http.Connection.RemoteIpAddress}"))
            {
                audit.Note(http, AuditEvent.SignInSlowedDown, who: account?.UserName ?? "");
                await unit.SaveAsync(cancellation);
            }

            http.Response.Headers.RetryAfter = "300";
            return TypedResults.Problem(
                "Wait five minutes and try again. On a browser on which you have signed in before you need not wait for others.",
                statusCode: StatusCodes.Status429TooManyRequests,
                title: "There were too many wrong passwords.");
        }

        var isRight = false;
        try
        {
            var result = await passwords.OfAsync(account, credentials.Password, cancellation);
            isRight = account is not null && result != PasswordVerificationResult.Failed && !account.IsLocked(clock.GetUtcNow());
            if (!isRight)
            {
                audit.Note(http, AuditEvent.SignInFailed, account is null ? "unknown name" : null, account?.UserName ?? "");
                await unit.SaveAsync(cancellation);
                return TypedResults.Problem(
                    "Name and password do not belong together. Check both and try again.",
                    statusCode: StatusCodes.Status401Unauthorized,
                    title: "You are not signed in.");
            }

            if (result == PasswordVerificationResult.SuccessRehashNeeded)
            {
                account!.PasswordHash = accounts.PasswordHasher.HashPassword(account, credentials.Password);
            }

            await places.AddAsync(http, account!.Id, cancellation);
            audit.Note(http, AuditEvent.SignedIn, null, account.UserName);
            await unit.SaveAsync(cancellation);
        }
        finally
        {
            if (isRight)
            {
                attempt.Succeed();
            }
            else
            {
                attempt.Fail();
            }
        }

        // Whoever was signed in on this browser before is so no longer.
        await http.SignOutAsync(IdentityConstants.ApplicationScheme);
        await BeginAsync(http, (await Principals.Of(db, account.Id, IdentityConstants.ApplicationScheme, clock.GetUtcNow(), cancellation))!, clock.GetUtcNow());
        return TypedResults.NoContent();
    }

    /// <summary>
    /// Begins a sign-in, under a key of its own. Where the request came by another one, the framework would go on with that one's key, which is over: here the
    /// cookie is written as the framework does it.
    /// </summary>
    private static async Task BeginAsync(HttpContext http, ClaimsPrincipal person, DateTimeOffset now)
    {
        var scheme = IdentityConstants.ApplicationScheme;
        if (http.User.Identity?.IsAuthenticated != true)
        {
            await http.SignInAsync(scheme, person);
            return;
        }

        var options = http.RequestServices.GetRequiredService<IOptionsMonitor<CookieAuthenticationOptions>>().Get(scheme);
        var times = new AuthenticationProperties { IssuedUtc = now, ExpiresUtc = now + options.ExpireTimeSpan };
        var key = await options.SessionStore!.StoreAsync(new(person, times, scheme));
        var reference = new ClaimsPrincipal(new ClaimsIdentity([new(SessionClaim, key, ClaimValueTypes.String, options.ClaimsIssuer)], scheme));
        options.CookieManager.AppendResponseCookie(http, options.Cookie.Name!, options.TicketDataFormat.Protect(new(reference, times, scheme)), options.Cookie.Build(http));
    }

    private static async Task<NoContent> End(HttpContext http, DibujoDb db, UnitOfWork unit, AuditTrail audit, CancellationToken cancellation)
    {
        audit.Note(http, AuditEvent.SignedOut);
        await unit.SaveAsync(cancellation);
        await http.SignOutAsync(IdentityConstants.ApplicationScheme);
        return TypedResults.NoContent();
    }
}

/// <summary>What a person signs in with.</summary>
internal sealed record Credentials(string UserName, string Password);

/// <summary>The sign-in of this browser.</summary>
/// <param name="Person">Who is signed in; null for nobody.</param>
/// <param name="Token">To be sent back with every request that changes something.</param>
/// <param name="TimeZone">The site's time, by its name in the IANA database: days and moments are meant in it.</param>
/// <param name="Notation">How the person writes dates and numbers.</param>
internal sealed record SignInView(PersonView? Person, string Token, string TimeZone, NotationView Notation);

/// <summary>The person who is signed in.</summary>
internal sealed record PersonView(string UserName, string DisplayName, ImmutableArray<string> Roles, bool IsAdministrator);
