using Dibujo.Server.Hosting;
using Dibujo.Store;
using Dibujo.Store.Accounts;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Identity;

namespace Dibujo.Server.Accounts;

/// <summary>Sign-in of persons by cookie, of programs by token; who is signed in is read from the store at every request.</summary>
internal static class SignIn
{
    /// <summary>OWASP, Password Storage Cheat Sheet: PBKDF2 with HMAC-SHA-512, as Identity has it.</summary>
    private const int Iterations = 210_000;

    private const string CookieOrToken = "cookie-or-token";

    internal static void AddSignIn(this IServiceCollection services)
    {
        services.AddIdentityCore<Account>(options =>
            {
                options.Password.RequiredLength = 10;
                options.Password.RequireNonAlphanumeric = false;
                options.Password.RequireUppercase = false;
                options.Password.RequireDigit = false;
                options.Password.RequireLowercase = false;
            })
            .AddRoles<IdentityRole>()
            .AddEntityFrameworkStores<DibujoDb>();
        services.Configure<PasswordHasherOptions>(options => options.IterationCount = Iterations);
        services.AddSingleton<SignInStore>();
        services.AddSingleton<SignInThrottle>();
        services.AddSingleton<PasswordCheck>();
        services.AddScoped<KnownPlaces>();
        services.AddAuthentication(CookieOrToken)
            .AddPolicyScheme(CookieOrToken, null, options => options.ForwardDefaultSelector = http =>
                TokenSignIn.IsTried(http.Request) ? TokenSignIn.Scheme : IdentityConstants.ApplicationScheme)
            .AddScheme<AuthenticationSchemeOptions, TokenSignIn>(TokenSignIn.Scheme, null)
            .AddCookie(IdentityConstants.ApplicationScheme, options =>
            {
                options.Cookie.Name = "dibujo";
                options.Cookie.HttpOnly = true;
                options.Cookie.SameSite = SameSiteMode.Strict;
                options.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
                options.ExpireTimeSpan = SignInStore.Longest;
                options.SlidingExpiration = false;
                options.Events.OnRedirectToLogin = context => Answer(context.Response, StatusCodes.Status401Unauthorized);
                options.Events.OnRedirectToAccessDenied = context => Answer(context.Response, StatusCodes.Status403Forbidden);
            });
        services.AddOptions<Microsoft.AspNetCore.Authentication.Cookies.CookieAuthenticationOptions>(IdentityConstants.ApplicationScheme)
            .Configure<SignInStore>((options, signIns) => options.SessionStore = signIns);
        services.AddAntiforgery(options =>
        {
            options.HeaderName = AntiforgeryFilter.Header;
            options.Cookie.Name = "dibujo-token";
            options.Cookie.SameSite = SameSiteMode.Strict;
            options.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
        });
        services.AddAuthorizationBuilder()
            .AddPolicy(Policies.Members, policy => policy.RequireAuthenticatedUser())
            .AddPolicy(Policies.InPerson, policy => policy.RequireAuthenticatedUser().RequireAssertion(context => !TokenSignIn.IsProgram(context.User)))
            .AddPolicy(Policies.Administrators, policy => policy.RequireRole(Policies.AdministratorRole))
            .SetFallbackPolicy(new AuthorizationPolicyBuilder().RequireAuthenticatedUser().Build());
    }

    private static Task Answer(HttpResponse response, int status)
    {
        response.StatusCode = status;
        return Task.CompletedTask;
    }
}
