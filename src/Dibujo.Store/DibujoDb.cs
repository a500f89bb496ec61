using System.Text.Json;
using Dibujo.Core.Exchange;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;
using Dibujo.Store.Accounts;
using Dibujo.Store.Definitions;
using Dibujo.Store.Records;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace Dibujo.Store;

/// <summary>Everything that Dibujo keeps: accounts, record types with drafts and editions, records with their history.</summary>
public sealed class DibujoDb(DbContextOptions<DibujoDb> options) : IdentityDbContext<Account>(options)
{
    /// <summary>Record types with their drafts.</summary>
    public DbSet<StoredRecordType> RecordTypes => Set<StoredRecordType>();

    /// <summary>Published definitions.</summary>
    public DbSet<StoredEdition> Editions => Set<StoredEdition>();

    /// <summary>Records as last saved.</summary>
    public DbSet<StoredRecord> Records => Set<StoredRecord>();

    /// <summary>What every save changed.</summary>
    public DbSet<HistoryEntry> History => Set<HistoryEntry>();

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.Entity<StoredRecordType>(type =>
        {
            type.HasKey(t => t.Key);
            Json(type.Property(t => t.Draft));
            type.Property(t => t.DraftVersion).IsConcurrencyToken();
        });
        builder.Entity<StoredEdition>(edition =>
        {
            edition.HasKey(e => new { e.RecordType, e.Number });
            edition.HasOne<StoredRecordType>().WithMany().HasForeignKey(e => e.RecordType).OnDelete(DeleteBehavior.Restrict);
            Json(edition.Property(e => e.Definition));
        });
        builder.Entity<StoredRecord>(record =>
        {
            record.HasOne<StoredRecordType>().WithMany().HasForeignKey(r => r.RecordType).OnDelete(DeleteBehavior.Restrict);
            record.HasIndex(r => new { r.RecordType, r.Stage });
            record.Property(r => r.Version).IsConcurrencyToken();
            Json(record.Property(r => r.Values));
        });
        builder.Entity<HistoryEntry>(entry =>
        {
            entry.HasOne<StoredRecord>().WithMany().HasForeignKey(e => e.RecordId).OnDelete(DeleteBehavior.Restrict);
            entry.HasIndex(e => new { e.RecordId, e.Version }).IsUnique();
            Json(entry.Property(e => e.Before));
            Json(entry.Property(e => e.After));
        });
    }

    /// <inheritdoc/>
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder) =>
        // SQLite keeps no zone; all times here are UTC.
        configurationBuilder.Properties<DateTime>().HaveConversion<UtcTime>();

    private static void Json(PropertyBuilder<Definition> property) => property.HasConversion(
        definition => JsonSerializer.Serialize(definition, CoreJson.Default.Definition),
        json => JsonSerializer.Deserialize(json, CoreJson.Default.Definition)!);

    private static void Json(PropertyBuilder<RecordValues> property) => property.HasConversion(
        values => JsonSerializer.Serialize(values.ByField, CoreJson.Default.IReadOnlyDictionaryStringValue),
        json => new(JsonSerializer.Deserialize(json, CoreJson.Default.IReadOnlyDictionaryStringValue)!));

    private sealed class UtcTime() : ValueConverter<DateTime, DateTime>(time => time, time => DateTime.SpecifyKind(time, DateTimeKind.Utc));
}
