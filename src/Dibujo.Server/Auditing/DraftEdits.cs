using System.Collections.Immutable;
using Dibujo.Core.Drafts;
using Dibujo.Core.Rules;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Auditing;

/// <summary>
/// Notes who edits drafts: once for a person, a record type and an hour, with the rules that were touched in it, since each key that is
/// typed may be an edit. To be called in the unit of work that stores the edit.
/// </summary>
internal sealed class DraftEdits(DibujoDb db, AuditTrail audit, TimeProvider clock)
{
    private const int LongestAbout = 1000;
    private const string More = " and more";

    /// <summary>Notes an edit.</summary>
    /// <param name="http">The request by which it came.</param>
    /// <param name="before">The draft before.</param>
    /// <param name="made">What came of it.</param>
    /// <param name="cancellation">Ends the request.</param>
    internal async Task NoteAsync(HttpContext http, Definition before, Drafting made, CancellationToken cancellation)
    {
        var isTypeChanged = !ReferenceEquals(before.RecordType, made.Definition.RecordType);
        if (made.Changed.IsEmpty && !isTypeChanged)
        {
            return;
        }

        var label = made.Definition.RecordType.Label;
        ImmutableArray<string> touched =
        [
            .. made.Changed.Select(key => made.Definition.Rules.Concat(before.Rules).FirstOrDefault(rule => rule.Key == key)?.Name is { Length: > 0 } name ? $"“{name}”" : $"rule {key}"),
            .. isTypeChanged ? ["the record type"] : Array.Empty<string>(),
        ];
        var (who, hour) = (http.User.Identity!.Name, clock.GetUtcNow().UtcDateTime.AddHours(-1));
        var latest = await db.Audit.Where(e => e.Event == AuditEvent.DraftEdited && e.Who == who && e.At > hour).OrderByDescending(e => e.At).ToListAsync(cancellation);
        if (latest.Find(entry => entry.About!.StartsWith($"{label}: ", StringComparison.Ordinal)) is not { } known)
        {
            audit.Note(http, AuditEvent.DraftEdited, Joined($"{label}: {touched[0]}", touched.Skip(1)));
            return;
        }

        known.About = Joined(known.About!, touched);
    }

    /// <summary>With those that are not in it yet, as far as there is room.</summary>
    private static string Joined(string about, IEnumerable<string> touched) => touched.Aggregate(about, (so, one) =>
        so.EndsWith(More, StringComparison.Ordinal) || so.Contains(one, StringComparison.Ordinal) ? so
        : so.Length + one.Length > LongestAbout ? so + More
        : $"{so}, {one}");
}
