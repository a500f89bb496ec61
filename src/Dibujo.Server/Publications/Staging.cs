using Dibujo.Core.Notations;
using Dibujo.Server.Writing;
using Dibujo.Store;
using Dibujo.Store.Records;
using Dibujo.Store.Writing;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Publications;

/// <summary>Works out what becomes of each record and puts it beside them, some at a time, while others read and save.</summary>
internal sealed class Staging(DibujoDb db, UnitOfWork unit, Publication publication, IKnownNames names)
{
    private const int ChunkSize = 500;

    /// <summary>The last entry of any history that has been taken into account: whoever saves leaves a later one.</summary>
    private int mark;

    private IQueryable<StagedRecord> Own => db.Staged.Where(s => s.RecordType == publication.RecordType);

    /// <summary>Looks at every record once.</summary>
    internal async Task RunAsync(CancellationToken cancellation)
    {
        await unit.RunAsync(() => Own.ExecuteDeleteAsync(cancellation), cancellation);
        publication.Records = await db.RecordCounts.Where(c => c.RecordType == publication.RecordType).SumAsync(c => c.Records, cancellation);
        mark = await db.History.MaxAsync(e => (int?)e.Id, cancellation) ?? 0;
        for (var last = 0; ;)
        {
            var records = await db.Records.AsNoTracking().Where(r => r.RecordType == publication.RecordType && r.Id > last).OrderBy(r => r.Id).Take(ChunkSize).ToListAsync(cancellation);
            if (records.Count == 0)
            {
                return;
            }

            records.ForEach(Stage);
            await unit.SaveAsync(cancellation);
            db.ChangeTracker.Clear();
            publication.Look(records.Count);
            last = records[^1].Id;
        }
    }

    /// <summary>Puts what was worked out in the place of the records, with an entry in the history of each. Within one transaction.</summary>
    /// <param name="edition">Number of the edition that comes into force.</param>
    /// <param name="at">When, in UTC.</param>
    /// <param name="cancellation">Ends it.</param>
    internal async Task ApplyAsync(int edition, DateTime at, CancellationToken cancellation)
    {
        // Those that somebody saved or began in the meantime.
        var late = await db.Records.AsNoTracking()
            .Where(r => r.RecordType == publication.RecordType && db.History.Where(e => e.Id > mark).Select(e => e.RecordId).Contains(r.Id)).ToListAsync(cancellation);
        foreach (var ids in late.Select(r => r.Id).Chunk(ChunkSize))
        {
            await Own.Where(s => ids.Contains(s.Id)).ExecuteDeleteAsync(cancellation);
        }

        late.ForEach(Stage);
        await unit.SaveAsync(cancellation);
        publication.Changed = await Own.CountAsync(s => s.IsChange, cancellation);
        await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO "History" ("RecordId", "Version", "By", "At", "Edition", "Before", "After", "FromStage", "ToStage")
            SELECT r."Id", r."Version" + 1, {publication.Entry.Who}, {at}, {edition}, s."Before", s."After", r."Stage", s."Stage"
            FROM "Staged" AS s JOIN "Records" AS r ON r."Id" = s."Id" WHERE s."RecordType" = {publication.RecordType} AND s."IsChange"
            """,
            cancellation);
        // When and by whom a record was last saved stays: who looks for what people did today is not to find all of them.
        await db.Database.ExecuteSqlAsync(
            $"""
            UPDATE "Records" SET "Stage" = s."Stage", "Title" = s."Title", "Values" = s."Values", "Version" = "Version" + s."IsChange"
            FROM "Staged" AS s WHERE s."RecordType" = {publication.RecordType} AND s."Id" = "Records"."Id"
            """,
            cancellation);
        await Own.ExecuteDeleteAsync(cancellation);
    }

    private void Stage(StoredRecord record)
    {
        var (values, stage) = publication.Reshaping!.Of(record.Values, record.Workflow, record.Stage, names);
        var title = publication.Definition.RecordType.Find(publication.Reshaping.TitleField)!.Type.Fit(values[publication.Reshaping.TitleField])?.Plain ?? "";
        var changed = RecordChange.Different(record.Values, values);
        var isChange = !changed.IsEmpty || stage != record.Stage;
        if (isChange || title != record.Title)
        {
            publication.Changed += isChange ? 1 : 0;
            db.Staged.Add(new StagedRecord
            {
                Id = record.Id,
                RecordType = record.RecordType,
                Stage = stage,
                Title = title,
                Values = values,
                Before = RecordChange.Only(record.Values, changed),
                After = RecordChange.Only(values, changed),
                IsChange = isChange,
            });
        }
    }
}
