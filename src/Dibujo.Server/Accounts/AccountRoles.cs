using System.Text.Json;
using Dibujo.Core.Json;
using Dibujo.Store;
using Dibujo.Store.Accounts;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Accounts;

/// <summary>The roles that people may have: the platform's own, and those of all record types. A key means the same role in all of them.</summary>
internal static class AccountRoles
{
    private static readonly Core.Records.Role Administrator = new(Policies.AdministratorRole, "Platform administrator");

    /// <summary>Every role that there is, the platform's own first. Of the drafts nothing else is read.</summary>
    internal static async Task<List<Core.Records.Role>> AllAsync(DibujoDb db, CancellationToken cancellation) =>
        [.. (await db.Database.SqlQuery<string>($"""SELECT ifnull(json_extract("Draft", '$.recordType.roles'), '[]') AS "Value" FROM "RecordTypes" ORDER BY "Key" """).ToListAsync(cancellation))
            .SelectMany(json => JsonSerializer.Deserialize(json, CoreJson.Default.ImmutableArrayRole)).Prepend(Administrator).DistinctBy(role => role.Key)];

    /// <summary>Gives the account these roles and no others.</summary>
    internal static async Task SetAsync(UserManager<Account> accounts, RoleManager<IdentityRole> roles, Account account, IReadOnlyCollection<string> keys)
    {
        var had = await accounts.GetRolesAsync(account);
        foreach (var key in keys.Except(had, StringComparer.Ordinal))
        {
            if (!await roles.RoleExistsAsync(key))
            {
                await roles.CreateAsync(new(key));
            }

            await accounts.AddToRoleAsync(account, key);
        }

        await accounts.RemoveFromRolesAsync(account, had.Except(keys, StringComparer.Ordinal));
    }
}
