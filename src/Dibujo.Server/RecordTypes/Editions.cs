using System.Collections.Concurrent;
using Dibujo.Core.Compilation;
using Dibujo.Core.Rules;
using Dibujo.Store;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.RecordTypes;

/// <summary>A published definition with its program.</summary>
internal sealed record Edition(int Number, RuleProgram Program)
{
    internal Definition Definition => Program.Definition;
}

/// <summary>Published editions, compiled once each and shared by all requests.</summary>
internal sealed class Editions
{
    private readonly ConcurrentDictionary<(string RecordType, int Number), Edition> compiled = new();

    /// <summary>The edition in force, or null where the record type is unknown or has none yet.</summary>
    internal async Task<Edition?> CurrentAsync(DibujoDb db, string recordType, CancellationToken cancellation)
    {
        var published = await db.RecordTypes.Where(t => t.Key == recordType).Select(t => t.Published).FirstOrDefaultAsync(cancellation);
        if (published is not { } number)
        {
            return null;
        }

        if (compiled.TryGetValue((recordType, number), out var known))
        {
            return known;
        }

        var definition = await db.Editions.Where(e => e.RecordType == recordType && e.Number == number)
            .Select(e => e.Definition).SingleAsync(cancellation);
        var (program, _) = RuleProgram.Compile(definition);
        return compiled.GetOrAdd(
            (recordType, number),
            new Edition(number, program ?? throw new InvalidOperationException($"Edition {number} of {recordType} does not compile.")));
    }
}
