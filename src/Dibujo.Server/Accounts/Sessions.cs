using System.Collections.Immutable;
using System.Security.Claims;
using Dibujo.Store.Accounts;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;

namespace Dibujo.Server.Accounts;

/// <summary>Who is signed in on this browser.</summary>
internal static class Sessions
{
    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/session", Read).WithName("ReadSession").AllowAnonymous();
        api.MapPost("/session", Start).WithName("SignIn").AllowAnonymous().ProducesProblem(StatusCodes.Status401Unauthorized);
        api.MapDelete("/session", End).WithName("SignOut").RequireAuthorization(Policies.Members);
    }

    /// <summary>Keys of the roles that the signed-in person has.</summary>
    internal static ImmutableArray<string> RoleKeys(this ClaimsPrincipal user) =>
        [.. user.FindAll(ClaimTypes.Role).Select(claim => claim.Value).Order(StringComparer.Ordinal)];

    private static async Task<Ok<SessionView>> Read(HttpContext http, UserManager<Account> accounts, IAntiforgery antiforgery)
    {
        var token = antiforgery.GetAndStoreTokens(http).RequestToken!;
        var account = await accounts.GetUserAsync(http.User);
        return TypedResults.Ok(new SessionView(
            account is null
                ? null
                : new PersonView(account.UserName!, account.DisplayName, http.User.RoleKeys(), http.User.IsInRole(Policies.AdministratorRole)),
            token));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Start(
        Credentials credentials, SignInManager<Account> signIn)
    {
        var result = await signIn.PasswordSignInAsync(credentials.UserName, credentials.Password, isPersistent: false, lockoutOnFailure: true);
        return result.Succeeded
            ? TypedResults.NoContent()
            : TypedResults.Problem(
                result.IsLockedOut
                    ? "There were too many wrong passwords. Wait five minutes and try again."
                    : "Name and password do not belong together. Check both and try again.",
                statusCode: StatusCodes.Status401Unauthorized,
                title: "You are not signed in.");
    }

    private static async Task<NoContent> End(SignInManager<Account> signIn)
    {
        await signIn.SignOutAsync();
        return TypedResults.NoContent();
    }
}

/// <summary>What a person signs in with.</summary>
internal sealed record Credentials(string UserName, string Password);

/// <summary>The session of this browser.</summary>
/// <param name="Person">Who is signed in; null for nobody.</param>
/// <param name="Token">To be sent back with every request that changes something.</param>
internal sealed record SessionView(PersonView? Person, string Token);

/// <summary>The person who is signed in.</summary>
internal sealed record PersonView(string UserName, string DisplayName, ImmutableArray<string> Roles, bool IsAdministrator);
