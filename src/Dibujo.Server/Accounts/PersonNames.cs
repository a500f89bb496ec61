using System.Collections.Immutable;
using Dibujo.Store;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Accounts;

/// <summary>What people are called, for sentences that tell of them.</summary>
internal static class PersonNames
{
    /// <summary>The names of all who have an account, by account name.</summary>
    internal static async Task<ImmutableDictionary<string, string>> ReadAsync(DibujoDb db, CancellationToken cancellation) =>
        (await db.Users.AsNoTracking().Select(u => new { u.UserName, u.DisplayName }).ToListAsync(cancellation))
            .ToImmutableDictionary(u => u.UserName!, u => u.DisplayName, StringComparer.OrdinalIgnoreCase);

    /// <summary>The account names of all who have one, as they are written.</summary>
    internal static async Task<ImmutableHashSet<string>> AccountsAsync(DibujoDb db, CancellationToken cancellation) =>
        [.. await db.Users.Select(u => u.UserName!).ToListAsync(cancellation)];

    /// <summary>What one of them is called; the account name itself where there is no such account any more.</summary>
    internal static async Task<string> ReadAsync(DibujoDb db, string userName, CancellationToken cancellation) =>
        await db.Users.Where(u => u.UserName == userName).Select(u => u.DisplayName).FirstOrDefaultAsync(cancellation) ?? userName;

    /// <summary>What somebody is called; the account name itself where there is no such account any more.</summary>
    internal static string NameOf(this ImmutableDictionary<string, string> names, string userName) => names.GetValueOrDefault(userName, userName);
}
