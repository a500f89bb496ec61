using System.Collections.Concurrent;
using Dibujo.Core.Compilation;
using Dibujo.Core.Rules;
using Dibujo.Store;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.RecordTypes;

/// <summary>A published definition with its programs, one for each form, compiled when first asked for.</summary>
internal sealed class Edition(int number, Definition definition)
{
    private readonly ConcurrentDictionary<string, RuleProgram> programs = new(StringComparer.Ordinal);

    internal int Number => number;

    internal Definition Definition => definition;

    /// <summary>The program for the form of that key (null: the main form); null for an unknown form.</summary>
    internal RuleProgram? For(string? form)
    {
        var key = form ?? definition.RecordType.Forms[0].Key;
        return definition.RecordType.Forms.Any(f => f.Key == key)
            ? programs.GetOrAdd(key, k => RuleProgram.Compile(definition, k).Program
                ?? throw new InvalidOperationException($"Edition {number} of {definition.RecordType.Key} does not compile."))
            : null;
    }
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
