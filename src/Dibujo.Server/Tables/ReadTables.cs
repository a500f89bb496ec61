using System.Collections.Immutable;
using Dibujo.Core.Inference;
using Microsoft.Extensions.Caching.Memory;

namespace Dibujo.Server.Tables;

/// <summary>Tables that somebody looks at before making something of them; kept for a while, and no more of them than there is room for.</summary>
internal sealed class ReadTables : IDisposable
{
    private const long MostCells = 6_000_000;

    /// <summary>As many cells a title takes that is known for a table.</summary>
    private const int TitleWeight = 4;

    private static readonly TimeSpan Patience = TimeSpan.FromMinutes(30);

    private readonly MemoryCache tables = new(new MemoryCacheOptions { SizeLimit = MostCells });

    /// <summary>Keeps a table, under a number that nobody can guess; null where there is no room.</summary>
    internal KeptTable? Keep(SourceTable table, ImmutableArray<string> sheets, StoredLookup lookup)
    {
        var kept = new KeptTable(Guid.NewGuid(), table, sheets, lookup);
        tables.Set(kept.Id, kept, new MemoryCacheEntryOptions { SlidingExpiration = Patience, Size = ((long)table.Headers.Length * (table.Rows.Count + 1)) + (TitleWeight * lookup.Size) });
        return Find(kept.Id);
    }

    /// <summary>The table of that number; null where it has been dropped since.</summary>
    internal KeptTable? Find(Guid id) => tables.TryGetValue(id, out KeptTable? kept) ? kept : null;

    public void Dispose() => tables.Dispose();
}

/// <summary>A table that is looked at, with what was known of records and people when it came.</summary>
internal sealed record KeptTable(Guid Id, SourceTable Table, ImmutableArray<string> Sheets, ICellLookup Lookup);
