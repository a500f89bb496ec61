using System.Text.Json;
using Dibujo.Core.Drafts;
using Dibujo.Core.Json;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;
using Dibujo.Store.Accounts;
using Dibujo.Store.Auditing;
using Dibujo.Store.Definitions;
using Dibujo.Store.Listing;
using Dibujo.Store.Records;
using Dibujo.Store.Writing;
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

    /// <summary>Everything that was done to drafts.</summary>
    public DbSet<StoredDraftStep> DraftSteps => Set<StoredDraftStep>();

    /// <summary>Edits of drafts that wait for somebody to choose.</summary>
    public DbSet<StoredCollision> Collisions => Set<StoredCollision>();

    /// <summary>Records as last saved.</summary>
    public DbSet<StoredRecord> Records => Set<StoredRecord>();

    /// <summary>Imports that go on, or were through a short while ago.</summary>
    public DbSet<StoredImport> Imports => Set<StoredImport>();

    /// <summary>What records will be once a publication is through.</summary>
    public DbSet<StagedRecord> Staged => Set<StagedRecord>();

    /// <summary>How people want to see lists.</summary>
    public DbSet<StoredView> Views => Set<StoredView>();

    /// <summary>How many records there are, as the database counts them.</summary>
    public DbSet<RecordCount> RecordCounts => Set<RecordCount>();

    /// <summary>What every save changed.</summary>
    public DbSet<HistoryEntry> History => Set<HistoryEntry>();

    /// <summary>Who is signed in where.</summary>
    public DbSet<StoredSignIn> SignIns => Set<StoredSignIn>();

    /// <summary>Links by which people set their passwords.</summary>
    public DbSet<Invitation> Invitations => Set<Invitation>();

    /// <summary>Where people have signed in before.</summary>
    public DbSet<KnownPlace> KnownPlaces => Set<KnownPlace>();

    /// <summary>Tokens by which programs act for people.</summary>
    public DbSet<ApiToken> ApiTokens => Set<ApiToken>();

    /// <summary>Who did what that may have to be accounted for.</summary>
    public DbSet<AuditEntry> Audit => Set<AuditEntry>();

    /// <summary>The row that <see cref="Heartbeat"/> is about.</summary>
    public DbSet<Heartbeat> Heartbeats => Set<Heartbeat>();

    /// <summary>Stores what is tracked, within a <see cref="UnitOfWork"/>.</summary>
    /// <exception cref="InvalidOperationException">There is none.</exception>
    public override Task<int> SaveChangesAsync(bool acceptAllChangesOnSuccess, CancellationToken cancellationToken = default)
    {
        OnlyInUnits.Demand(this);
        return base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
    }

    /// <inheritdoc cref="SaveChangesAsync(bool, CancellationToken)"/>
    public override int SaveChanges(bool acceptAllChangesOnSuccess)
    {
        OnlyInUnits.Demand(this);
        return base.SaveChanges(acceptAllChangesOnSuccess);
    }

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.Entity<StoredRecordType>(type =>
        {
            type.HasKey(t => t.Key);
            Json(type.Property(t => t.Draft)).UsePropertyAccessMode(PropertyAccessMode.Field);
            type.Property(t => t.DraftVersion).IsConcurrencyToken();
            type.Property(t => t.Revisions).HasConversion(
                revisions => JsonSerializer.Serialize(revisions, DraftJson.Default.ImmutableSortedDictionaryStringRevision),
                json => JsonSerializer.Deserialize(json, DraftJson.Default.ImmutableSortedDictionaryStringRevision)!).HasDefaultValueSql("'{}'");
        });
        builder.Entity<StoredDraftStep>(step =>
        {
            step.HasOne<StoredRecordType>().WithMany().HasForeignKey(s => s.RecordType).OnDelete(DeleteBehavior.Restrict);
            step.HasIndex(s => new { s.RecordType, s.Version });
            Json(step.Property(s => s.Step));
        });
        builder.Entity<StoredCollision>(collision =>
        {
            collision.HasOne<StoredRecordType>().WithMany().HasForeignKey(c => c.RecordType).OnDelete(DeleteBehavior.Restrict);
            Json(collision.Property(c => c.Step));
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
            // The list of records reads nothing but these: sorted, searched and filtered without a look at the values.
            record.HasIndex(r => new { r.RecordType, r.ChangedAt, r.Id, r.Stage, r.Title, r.Workflow, r.ChangedBy });
            record.HasIndex(r => new { r.RecordType, r.Stage, r.ChangedAt, r.Id, r.Title, r.Workflow, r.ChangedBy });
            record.Property(r => r.Version).IsConcurrencyToken();
            Json(record.Property(r => r.Values));
            Json(record.Property(r => r.Standing)).HasDefaultValueSql("'{}'");
        });
        builder.Entity<StoredView>(view =>
        {
            view.HasOne<StoredRecordType>().WithMany().HasForeignKey(v => v.RecordType).OnDelete(DeleteBehavior.Cascade);
            view.HasIndex(v => new { v.RecordType, v.Owner, v.Name }).IsUnique();
        });
        builder.Entity<StoredImport>().HasIndex(i => new { i.By, i.BegunAt });
        builder.Entity<StagedRecord>(staged =>
        {
            staged.Property(s => s.Id).ValueGeneratedNever();
            Json(staged.Property(s => s.Values));
            Json(staged.Property(s => s.Before));
            Json(staged.Property(s => s.After));
        });
        // Triggers on the records keep it; a migration that rebuilds their table has to make them again.
        builder.Entity<RecordCount>().HasKey(c => new { c.RecordType, c.Stage });
        builder.Entity<HistoryEntry>(entry =>
        {
            entry.HasOne(e => e.Record).WithMany().HasForeignKey(e => e.RecordId).OnDelete(DeleteBehavior.Restrict);
            entry.HasIndex(e => new { e.RecordId, e.Version }).IsUnique();
            entry.HasIndex(e => e.Import).HasFilter("\"Import\" IS NOT NULL");
            entry.HasIndex(e => new { e.By, e.Ticket }).IsUnique().HasFilter("\"Ticket\" IS NOT NULL");
            Json(entry.Property(e => e.Before));
            Json(entry.Property(e => e.After));
        });
        builder.Entity<StoredSignIn>(signIn =>
        {
            signIn.ToTable("Sessions");
            signIn.HasOne<Account>().WithMany().HasForeignKey(s => s.AccountId).OnDelete(DeleteBehavior.Cascade);
            signIn.HasIndex(s => s.Hash).IsUnique();
        });
        builder.Entity<Invitation>(invitation =>
        {
            invitation.HasIndex(i => i.Hash).IsUnique();
            invitation.HasOne<Account>().WithMany().HasForeignKey(i => i.AccountId).OnDelete(DeleteBehavior.Cascade);
        });
        builder.Entity<KnownPlace>(place =>
        {
            place.HasKey(p => new { p.Hash, p.AccountId });
            place.HasOne<Account>().WithMany().HasForeignKey(p => p.AccountId).OnDelete(DeleteBehavior.Cascade);
        });
        builder.Entity<ApiToken>(token =>
        {
            token.HasIndex(t => t.Hash).IsUnique();
            token.HasOne<Account>().WithMany().HasForeignKey(t => t.AccountId).OnDelete(DeleteBehavior.Cascade);
        });
        builder.Entity<AuditEntry>(entry =>
        {
            entry.Property(e => e.Event).HasConversion<string>();
            entry.HasIndex(e => new { e.Event, e.Who, e.At });
        });
    }

    /// <inheritdoc/>
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder) =>
        // SQLite keeps no zone; all times here are UTC.
        configurationBuilder.Properties<DateTime>().HaveConversion<UtcTime>();

    private static PropertyBuilder<Definition> Json(PropertyBuilder<Definition> property) => property.HasConversion(
        definition => JsonSerializer.Serialize(definition, CoreJson.Default.Definition),
        json => JsonSerializer.Deserialize(json, CoreJson.Default.Definition)!);

    private static void Json(PropertyBuilder<DraftStep> property) => property.HasConversion(
        step => JsonSerializer.Serialize(step, DraftJson.Default.DraftStep),
        json => JsonSerializer.Deserialize(json, DraftJson.Default.DraftStep)!);

    private static PropertyBuilder<RecordValues> Json(PropertyBuilder<RecordValues> property) => property.HasConversion(
        values => JsonSerializer.Serialize(values.ByField, CoreJson.Default.IReadOnlyDictionaryStringValue),
        json => new(JsonSerializer.Deserialize(json, CoreJson.Default.IReadOnlyDictionaryStringValue)!));

    private sealed class UtcTime() : ValueConverter<DateTime, DateTime>(time => time, time => DateTime.SpecifyKind(time, DateTimeKind.Utc));
}
