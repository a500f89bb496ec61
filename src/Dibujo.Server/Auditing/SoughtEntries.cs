using Dibujo.Store;
using Dibujo.Store.Auditing;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Auditing;

/// <summary>Which entries of the audit trail.</summary>
/// <param name="Search">What stands in one of them: in what it is about, in the name of who, or in the address; null for anything.</param>
/// <param name="Event">What happened; null for anything.</param>
/// <param name="Who">Account name of who did it; null for anybody.</param>
/// <param name="From">The first day, by the site's time; null for the beginning.</param>
/// <param name="To">The last day; null for today.</param>
internal sealed record SoughtEntries(string? Search, string? Event, string? Who, DateOnly? From, DateOnly? To)
{
    private const int LongestSearch = 200;

    /// <summary>What is wrong with it, as a sentence; null for nothing.</summary>
    internal string? Mistake => Search?.Length > LongestSearch || Search?.Contains('\0', StringComparison.Ordinal) == true ? $"Search for at most {LongestSearch} characters that can be seen."
        : Event is not null && Happened is null ? "There is no such thing in the trail. Name what happened as the trail does."
        : From > To ? "The first day is after the last." : null;

    private AuditEvent? Happened => Enum.TryParse<AuditEvent>(Event, ignoreCase: true, out var happened) && Enum.IsDefined(happened) ? happened : null;

    /// <summary>Those among them.</summary>
    internal IQueryable<AuditEntry> In(IQueryable<AuditEntry> entries, IReadOnlyDictionary<string, string> names, TimeZoneInfo zone)
    {
        if (Happened is { } happened)
        {
            entries = entries.Where(e => e.Event == happened);
        }

        if (!string.IsNullOrWhiteSpace(Who))
        {
            entries = entries.Where(e => e.Who == Who);
        }

        if (From is { } first)
        {
            var from = zone.ToUtc(first);
            entries = entries.Where(e => e.At >= from);
        }

        if (To is { } last && last < DateOnly.MaxValue)
        {
            var to = zone.ToUtc(last.AddDays(1));
            entries = entries.Where(e => e.At < to);
        }

        if (!string.IsNullOrWhiteSpace(Search))
        {
            var (text, people) = (Search.Trim(), names.Where(name => name.Value.Contains(Search.Trim(), StringComparison.OrdinalIgnoreCase)).Select(name => name.Key).ToList());
            var pattern = $"%{text.Replace("\\", "\\\\", StringComparison.Ordinal).Replace("%", "\\%", StringComparison.Ordinal).Replace("_", "\\_", StringComparison.Ordinal)}%";
            entries = entries.Where(e => EF.Functions.Like(e.About!, pattern, "\\") || EF.Functions.Like(e.Who!, pattern, "\\") || EF.Functions.Like(e.Address!, pattern, "\\") || people.Contains(e.Who!));
        }

        return entries;
    }
}
