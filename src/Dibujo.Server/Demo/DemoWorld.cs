using Dibujo.Core.Packs;
using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Server.Writing;
using Dibujo.Store;
using Dibujo.Store.Accounts;
using Dibujo.Store.Definitions;
using Dibujo.Store.Records;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Demo;

/// <summary>Quillhaven Museums, which do not exist: their loans desk, its people and its records.</summary>
internal sealed class DemoWorld(DibujoDb db, UnitOfWork unit, UserManager<Account> accounts, RoleManager<IdentityRole> roles, TimeProvider clock, IConfiguration configuration)
{
    /// <summary>The password of every demo account.</summary>
    internal const string Password = "quillhaven";

    private const int ObjectCount = 60;
    private const int LoanCount = 400;
    private const int WorksCount = 24;
    private const int ChunkSize = 2000;

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

        // Made once, since it is made to be slow: they all have the same password.
        var hash = accounts.PasswordHasher.HashPassword(new() { DisplayName = "" }, Password);
        await unit.RunAsync(() => SeedAsync(hash), default);
    }

    private async Task SeedAsync(string hash)
    {
        foreach (var (name, displayName, roleKeys) in People)
        {
            var account = new Account { UserName = name, DisplayName = displayName, PasswordHash = hash };
            Demand(await accounts.CreateAsync(account));
            foreach (var role in roleKeys)
            {
                Demand(await roles.CreateAsync(new(role)));
                Demand(await accounts.AddToRoleAsync(account, role));
            }
        }

        var now = clock.GetLocalNow().DateTime;
        var objects = await AddAsync("collection-object", ObjectCount, now, []);
        var held = objects.ToDictionary(o => o.Id, o => o.Values);
        await AddAsync("object-loan", configuration.GetValue("demo-records", LoanCount), now, held);
        await AddAsync("gallery-works", WorksCount, now, held);
    }

    private async Task<List<StoredRecord>> AddAsync(string name, int count, DateTime now, Dictionary<int, RecordValues> objects)
    {
        var pack = ReadPack($"{name}.pack.json");
        var at = clock.GetUtcNow().UtcDateTime;
        db.RecordTypes.Add(new StoredRecordType { Key = pack.RecordType.Key, Draft = pack.ToDefinition(), Published = 1 });
        db.Editions.Add(new StoredEdition
        {
            RecordType = pack.RecordType.Key,
            Number = 1,
            Definition = pack.ToDefinition(),
            Note = "First edition",
            By = "ada",
            At = at,
        });
        await unit.SaveAsync(default);
        var records = new DemoRecords(pack.ToDefinition(), now, objects).Take(count).ToList();
        foreach (var some in records.Chunk(ChunkSize))
        {
            db.Records.AddRange(some);
            await unit.SaveAsync(default);
            db.History.AddRange(some.Select(record => RecordChange.Entry(record, 1, null, record.Stage)!));
            await unit.SaveAsync(default);
            db.ChangeTracker.Clear();
        }

        return records;
    }

    private static Pack ReadPack(string name)
    {
        using var stream = typeof(DemoWorld).Assembly.GetManifestResourceStream(name)!;
        using var bytes = new MemoryStream();
        stream.CopyTo(bytes);
        var (pack, problem) = PackFile.Read(bytes.ToArray());
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
