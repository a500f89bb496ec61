using Dibujo.Server.Accounts;
using Dibujo.Store;
using Dibujo.Store.Accounts;
using Dibujo.Store.Auditing;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Hosting;

/// <summary>Links by which somebody becomes an administrator, printed for whoever runs the server: where there is none yet, or none who can sign in.</summary>
internal static class PrintedLinks
{
    /// <summary>Where nobody has an account yet, whoever sees what the process prints may make the first one.</summary>
    internal static async Task InviteFirstAsync(this WebApplication app, IServiceProvider services)
    {
        var db = services.GetRequiredService<DibujoDb>();
        if (await db.Users.AnyAsync())
        {
            return;
        }

        var invitation = await services.GetRequiredService<UnitOfWork>().RunAsync(() => services.GetRequiredService<Invitations>().MakeAsync(null, default), default);
        await PrintAsync(app, "Nobody has an account yet. Open this address to make the first administrator's:", invitation, "another start prints another one in its place");
    }

    /// <summary>
    /// For when no administrator can sign in any more: makes that account one, begins it where it is not there, opens it where it is shut, and
    /// prints a link to set its password by. Whoever may read the data folder may do it.
    /// </summary>
    internal static async Task RescueAsync(this WebApplication app, string name)
    {
        await using var scope = app.Services.CreateAsyncScope();
        var services = scope.ServiceProvider;
        var (accounts, db) = (services.GetRequiredService<UserManager<Account>>(), services.GetRequiredService<DibujoDb>());
        var key = await services.GetRequiredService<UnitOfWork>().RunAsync(
            async () =>
            {
                var account = await accounts.FindByNameAsync(name);
                if (account is null)
                {
                    account = new Account { UserName = name, DisplayName = name };
                    if (AccountNames.Problem(account) is { } mistake)
                    {
                        throw new CannotStart(mistake, CannotStart.Folder);
                    }

                    await accounts.CreateAsync(account);
                }

                account.LockoutEnd = null;
                await AccountRoles.SetAsync(accounts, services.GetRequiredService<RoleManager<IdentityRole>>(), account, [.. await accounts.GetRolesAsync(account), Policies.AdministratorRole]);
                await accounts.UpdateAsync(account);
                db.Audit.Add(new() { At = app.Services.GetRequiredService<TimeProvider>().GetUtcNow().UtcDateTime, Event = AuditEvent.PasswordLinkMade, About = $"{account.DisplayName} ({account.UserName}), on the command line" });
                return await services.GetRequiredService<Invitations>().MakeAsync(account.Id, default);
            },
            default);
        await PrintAsync(app, $"Open this address to set the password of “{name}”, who is an administrator now:", key, "another call prints another one in its place");
    }

    private static Task PrintAsync(WebApplication app, string what, InvitationKey key, string replaced) => Console.Out.WriteLineAsync(
        $"""

          {what}

            {(app.Configuration["DIBUJO_URLS"] ?? DibujoServer.DefaultAddress).Split(';')[0]}/welcome#{key.Key}

          It is good once, until {key.ExpiresAt:yyyy-MM-dd HH:mm} UTC; {replaced}.

        """);
}
