namespace Dibujo.Core.Compilation;

/// <summary>Distinct sequences of integers, each with a number that it keeps for good.</summary>
internal sealed class SequencePool
{
    private int[] items = new int[256];
    private int[] ends = new int[64];
    private int[] next = new int[64];
    private int[] buckets = new int[128];

    /// <summary>How many there are.</summary>
    internal int Count { get; private set; }

    /// <summary>The sequence of that number.</summary>
    internal ReadOnlySpan<int> this[int number]
    {
        get
        {
            var start = number == 0 ? 0 : ends[number - 1];
            return items.AsSpan(start, ends[number] - start);
        }
    }

    /// <summary>The number of that sequence, a new one if it was not there.</summary>
    internal int Add(ReadOnlySpan<int> sequence)
    {
        var hash = HashOf(sequence);
        for (var found = buckets[hash & (buckets.Length - 1)] - 1; found >= 0; found = next[found] - 1)
        {
            if (this[found].SequenceEqual(sequence))
            {
                return found;
            }
        }

        return Append(sequence, hash);
    }

    private int Append(ReadOnlySpan<int> sequence, int hash)
    {
        var start = Count == 0 ? 0 : ends[Count - 1];
        if (start + sequence.Length > items.Length)
        {
            Array.Resize(ref items, Math.Max(2 * items.Length, start + sequence.Length));
        }

        if (Count == ends.Length)
        {
            Array.Resize(ref ends, 2 * Count);
            Array.Resize(ref next, 2 * Count);
            Spread();
        }

        sequence.CopyTo(items.AsSpan(start));
        ends[Count] = start + sequence.Length;
        Link(Count, hash);
        return Count++;
    }

    private void Spread()
    {
        buckets = new int[2 * ends.Length];
        for (var number = 0; number < Count; number++)
        {
            Link(number, HashOf(this[number]));
        }
    }

    private void Link(int number, int hash)
    {
        ref var bucket = ref buckets[hash & (buckets.Length - 1)];
        next[number] = bucket;
        bucket = number + 1;
    }

    /// <summary>FNV-1a over whole integers, with the high bits mixed into the low ones that choose a bucket.</summary>
    private static int HashOf(ReadOnlySpan<int> sequence)
    {
        var hash = 2166136261u;
        foreach (var item in sequence)
        {
            hash = (hash ^ (uint)item) * 16777619u;
        }

        return (int)(hash ^ (hash >> 15));
    }
}
