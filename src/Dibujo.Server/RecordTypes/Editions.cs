using System.Collections.Concurrent;
using Dibujo.Core.Compilation;
using Dibujo.Core.Programs;
using Dibujo.Core.Rules;
using Dibujo.Store;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.RecordTypes;

/// <summary>A published definition with its program, compiled when first asked for.</summary>
internal sealed class Edition(int number, Definition definition)
{
    private readonly Lazy<RuleProgram> program = new(() => ProgramCompiler.Compile(definition).Program
        ?? throw new InvalidOperationException($"Edition {number} of {definition.RecordType.Key} does not compile."));

    internal int Number => number;

    internal Definition Definition => definition;

    internal RuleProgram Program => program.Value;
}

/// <summary>Published editions, shared by all requests.</summary>
internal sealed class Editions
{
    private readonly ConcurrentDictionary<(string RecordType, int Number), Edition> known = new();

    /// <summary>The edition in force, or null where the record type is unknown or has none yet.</summary>
    internal async Task<Edition?> CurrentAsync(DibujoDb db, string recordType, CancellationToken cancellation)
    {
        var published = await db.RecordTypes.Where(t => t.Key == recordType).Select(t => t.Published).FirstOrDefaultAsync(cancellation);
        if (published is not { } number)
        {
            return null;
        }

        if (known.TryGetValue((recordType, number), out var edition))
        {
            return edition;
        }

        var definition = await db.Editions.Where(e => e.RecordType == recordType && e.Number == number)
            .Select(e => e.Definition).SingleAsync(cancellation);
        return known.GetOrAdd((recordType, number), new Edition(number, definition));
    }
}
