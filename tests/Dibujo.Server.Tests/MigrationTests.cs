using Dibujo.Store;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Dibujo.Server.Tests;

/// <summary>A store of an earlier version is brought up to date and keeps what is in it.</summary>
public class MigrationTests
{
    [Fact]
    public async Task Record_types_records_and_history_of_the_first_version_are_kept()
    {
        const string address = "Data Source=migrated;Mode=Memory;Cache=Shared";
        // It lasts for as long as somebody has it open.
        await using var connection = new SqliteConnection(address);
        await connection.OpenAsync();
        await using var db = new DibujoDb(new DbContextOptionsBuilder<DibujoDb>().UseSqlite(address).AddInterceptors(new Durability()).Options);
        var migrator = db.GetService<IMigrator>();
        await migrator.MigrateAsync("20261124035300_Start");
        await db.Database.ExecuteSqlRawAsync(
            """
            INSERT INTO RecordTypes ("Key", Draft, DraftVersion, Published) VALUES ('loan', '{{"recordType":{{"key":"loan","label":"Loan","titleField":"title","fields":[],"forms":[],"workflows":[]}},"rules":[{{"key":"a","name":"A"}},{{"key":"b","name":"B"}}]}}', 3, 1);
            INSERT INTO Records (Id, RecordType, Workflow, Stage, Title, "Values", Version, ChangedAt, ChangedBy) VALUES (5, 'loan', 'w', 's', 'Kite', '{{"title":"Kite"}}', 1, '2026-11-24 09:00:00', 'lorenz');
            INSERT INTO History (RecordId, Version, "By", At, Edition, Before, After, FromStage, ToStage) VALUES (5, 1, 'lorenz', '2026-11-24 09:00:00', 1, '{{}}', '{{"title":"Kite"}}', 's', 's');
            """);

        await migrator.MigrateAsync();

        var type = await db.RecordTypes.SingleAsync();
        Assert.Equal(("Loan", 2, 3, 2), (type.Label, type.RuleCount, type.DraftVersion, type.Draft.Rules.Length));
        Assert.Equal(1, (await db.RecordCounts.SingleAsync()).Records);
        Assert.Equal("Kite", (await db.Records.SingleAsync()).Values["title"].Plain);
        Assert.Equal(5, (await db.History.SingleAsync()).RecordId);
        // What was there before the index of values is in it.
        Assert.Equal(5, await db.Database.SqlQueryRaw<int>("""SELECT v.Record AS "Value" FROM IndexedValues AS v JOIN IndexedFields AS f ON f.Id = v.Field WHERE f.Field = 'title'""").SingleAsync());
        Assert.Equal("KITE", await db.Database.SqlQueryRaw<string>("""SELECT "Text" AS "Value" FROM RecordTexts WHERE RecordTexts MATCH '"KIT"'""").SingleAsync());
    }
}
