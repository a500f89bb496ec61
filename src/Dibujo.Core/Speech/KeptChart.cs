using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Dibujo.Core.Notations;
using Dibujo.Core.Records;

namespace Dibujo.Core.Speech;

/// <summary>The chart of what was said last of a record type: at each key all but the last words are as they were.</summary>
internal sealed class KeptChart
{
    /// <summary>How far what a word is may depend on those behind it, and how far where free words end.</summary>
    private const int Ahead = 2;
    private const int FarAhead = 8;

    private static readonly ConditionalWeakTable<RecordType, KeptChart> Kept = [];

    private Said? last;

    private sealed record Said(ImmutableArray<Word> Words, Notation Notation, IKnownNames Known, Chart Chart);

    /// <summary>The chart of those words, made of the one before and of how many of its first words are as they were.</summary>
    internal static Chart Next(RecordType type, ImmutableArray<Word> words, Notation notation, IKnownNames known, Func<Chart?, int, Chart> make)
    {
        var kept = Kept.GetOrCreateValue(type);
        var before = kept.last is { } was && was.Notation == notation && ReferenceEquals(was.Known, known) ? was : null;
        var chart = make(before?.Chart, before is null ? 0 : Same(before.Words, words));
        kept.last = new(words, notation, known, chart);
        return chart;
    }

    /// <summary>How many of the first words say what they said, whatever came after them.</summary>
    private static int Same(ImmutableArray<Word> before, ImmutableArray<Word> now)
    {
        var same = 0;
        while (same < before.Length && same < now.Length && before[same] == now[same])
        {
            same++;
        }

        return Math.Max(0, same - (Seeds.HasFree(now) || Seeds.HasFree(before) ? FarAhead : Ahead));
    }
}
