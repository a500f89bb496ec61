using Dibujo.Core.Exchange;
using Dibujo.Server.Accounts;
using Dibujo.Store;
using Dibujo.Store.Accounts;
using Dibujo.Store.Definitions;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Demo;

/// <summary>Quillhaven Museums, which do not exist: their loans desk, its people and its records.</summary>
internal sealed class DemoWorld(DibujoDb db, UserManager<Account> accounts, RoleManager<IdentityRole> roles, TimeProvider clock)
{
    /// <summary>The password of every demo account.</summary>
    internal const string Password = "quillhaven";

    private const int RecordCount = 400;

    private static readonly (string Name, string DisplayName, string[] Roles)[] People =
    [
        ("ada", "Ada Penhallow", [Policies.AdministratorRole]),
        ("lorenz", "Lorenz Vahl", ["loansOfficer"]),
        ("rosa", "Rosa Okkema", ["registrar"]),
        ("conrad", "Conrad Sill", ["conservator"]),
        ("delphine", "Delphine Marrow", ["director"]),
    ];

    /// <summary>Fills an empty store; does nothing to one that has record types already.</summary>
    internal async Task SeedAsync()
    {
        if (await db.RecordTypes.AnyAsync())
        {
            return;
        }

        await using var transaction = await db.Database.BeginTransactionAsync();
        foreach (var (name, displayName, roleKeys) in People)
        {
            var account = new Account { UserName = name, DisplayName = displayName };
            Demand(await accounts.CreateAsync(account, Password));
            foreach (var role in roleKeys)
            {
                Demand(await roles.CreateAsync(new(role)));
                Demand(await accounts.AddToRoleAsync(account, role));
            }
        }

        var pack = ReadPack("object-loan.pack.json");
        var now = clock.GetUtcNow().UtcDateTime;
        db.RecordTypes.Add(new StoredRecordType { Key = pack.RecordType.Key, Draft = pack.ToDefinition(), Published = 1 });
        db.Editions.Add(new StoredEdition
        {
            RecordType = pack.RecordType.Key,
            Number = 1,
            Definition = pack.ToDefinition(),
            Note = "First edition",
            By = "ada",
            At = now,
        });
        await db.SaveChangesAsync();
        var loans = new DemoLoans(pack.ToDefinition(), now).Take(RecordCount).ToList();
        db.Records.AddRange(loans);
        await db.SaveChangesAsync();
        db.History.AddRange(loans.Select(loan => Records.SaveRecord.Entry(loan, 1, Core.Values.RecordValues.Empty, loan.Stage)));
        await db.SaveChangesAsync();
        await transaction.CommitAsync();
    }

    private static Pack ReadPack(string name)
    {
        using var stream = typeof(DemoWorld).Assembly.GetManifestResourceStream(name)!;
        using var bytes = new MemoryStream();
        stream.CopyTo(bytes);
        var (pack, problem) = JsonText.ReadPack(bytes.ToArray());
        return pack ?? throw new InvalidOperationException($"{name}: {problem}");
    }

    private static void Demand(IdentityResult result)
    {
        if (!result.Succeeded)
        {
            throw new InvalidOperationException(string.Join(" ", result.Errors.Select(e => e.Description)));
        }
    }
}
