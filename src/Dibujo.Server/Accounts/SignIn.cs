using Dibujo.Server.Hosting;
using Dibujo.Store;
using Dibujo.Store.Accounts;
using Microsoft.AspNetCore.Identity;

namespace Dibujo.Server.Accounts;

/// <summary>Who may call what.</summary>
internal static class Policies
{
    /// <summary>Everyone who has signed in.</summary>
    internal const string Members = "members";

    /// <summary>Platform administrators, who draft and publish rules.</summary>
    internal const string Administrators = "administrators";

    /// <summary>The Identity role behind <see cref="Administrators"/>.</summary>
    internal const string AdministratorRole = "administrator";
}

/// <summary>Sign-in by cookie.</summary>
internal static class SignIn
{
    internal static void AddSignIn(this IServiceCollection services)
    {
        services.AddIdentityCore<Account>(options =>
            {
                options.Password.RequiredLength = 10;
                options.Password.RequireNonAlphanumeric = false;
                options.Password.RequireUppercase = false;
                options.Password.RequireDigit = false;
            })
            .AddRoles<IdentityRole>()
            .AddEntityFrameworkStores<DibujoDb>()
            .AddSignInManager();
        services.AddAuthentication(IdentityConstants.ApplicationScheme).AddCookie(IdentityConstants.ApplicationScheme, options =>
        {
            options.Cookie.Name = "dibujo";
            options.Cookie.HttpOnly = true;
            options.Cookie.SameSite = SameSiteMode.Strict;
            options.ExpireTimeSpan = TimeSpan.FromHours(12);
            options.Events.OnRedirectToLogin = context => Answer(context.Response, StatusCodes.Status401Unauthorized);
            options.Events.OnRedirectToAccessDenied = context => Answer(context.Response, StatusCodes.Status403Forbidden);
        });
        services.AddAntiforgery(options =>
        {
            options.HeaderName = AntiforgeryFilter.Header;
            options.Cookie.Name = "dibujo-token";
            options.Cookie.SameSite = SameSiteMode.Strict;
        });
        services.AddAuthorizationBuilder()
            .AddPolicy(Policies.Members, policy => policy.RequireAuthenticatedUser())
            .AddPolicy(Policies.Administrators, policy => policy.RequireRole(Policies.AdministratorRole))
            .SetFallbackPolicy(new Microsoft.AspNetCore.Authorization.AuthorizationPolicyBuilder().RequireAuthenticatedUser().Build());
    }

    private static Task Answer(HttpResponse response, int status)
    {
        response.StatusCode = status;
        return Task.CompletedTask;
    }
}
