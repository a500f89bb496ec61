using System.Collections.Immutable;

namespace Dibujo.Core.Speech;

/// <summary>
/// All that the words may say, put together from what each stretch of them may be: a chart of the likeliest few for each stretch, in which words that
/// say little are passed over cheaply and others at a price.
/// </summary>
internal sealed class Chart
{
    private const int MostOfAKind = 3;
    private const int Most = 12;

    /// <summary>What costs so much more than the likeliest of a stretch is dropped.</summary>
    private const double Beam = 2.8;

    private readonly List<Entry>[,] cells;
    private readonly double[] skips;
    private readonly int polite;
    private readonly Func<Node, Node, IEnumerable<Node>> combine;
    private readonly Func<Node, IEnumerable<Node>> promote;

    /// <summary>What a stretch may say, with what it costs to take it so.</summary>
    /// <param name="Node">What it says.</param>
    /// <param name="Cost">The sum of all that makes it unlikely.</param>
    /// <param name="Unheard">A bit for each word in it that stands for nothing and should.</param>
    internal readonly record struct Entry(Node Node, double Cost, ulong Unheard)
    {
        internal uint Kind { get; } = Neighbours.KindOf(Node);

        internal uint After { get; } = Neighbours.AfterOf(Node);
    }

    /// <param name="seeds">What stretches are by themselves.</param>
    /// <param name="skips">What it costs to pass over each word.</param>
    /// <param name="combine">What two neighbours make.</param>
    /// <param name="promote">What something may be besides.</param>
    internal Chart(IEnumerable<(int Start, int End, Node Node, double Cost)> seeds, double[] skips, Func<Node, Node, IEnumerable<Node>> combine, Func<Node, IEnumerable<Node>> promote)
    {
        (this.skips, this.combine, this.promote) = (skips, combine, promote);
        polite = Math.Max(1, skips.TakeWhile(skip => skip < 0.5).Count());
        var length = skips.Length;
        cells = new List<Entry>[length + 1, length + 1];
        for (var i = 0; i <= length; i++)
        {
            for (var j = i; j <= length; j++)
            {
                cells[i, j] = [];
            }
        }

        foreach (var (start, end, node, cost) in seeds)
        {
            Add(cells[start, end], new(node, cost, 0));
        }

        for (var size = 1; size <= length; size++)
        {
            for (var from = length - size; from >= 0; from--)
            {
                Fill(from, from + size);
            }
        }
    }

    /// <summary>What all of the words may say, the likeliest first.</summary>
    internal IReadOnlyList<Entry> Whole => cells[0, skips.Length];

    private void Fill(int from, int to)
    {
        var cell = cells[from, to];
        for (var between = from + 1; between < to; between++)
        {
            foreach (var left in cells[from, between])
            {
                foreach (var right in cells[between, to])
                {
                    if ((left.After & right.Kind) == 0)
                    {
                        continue;
                    }

                    foreach (var made in combine(left.Node, right.Node))
                    {
                        Add(cell, new(made.Cost == 0 ? made : made with { Cost = 0 }, left.Cost + right.Cost + made.Cost, left.Unheard | right.Unheard));
                    }
                }
            }
        }

        if (to - from > 1)
        {
            foreach (var before in cells[from, to - 1])
            {
                Add(cell, Passed(before, to - 1));
            }
        }

        // Words of politeness stand before all others.
        if (from < polite && to > from + 1)
        {
            foreach (var behind in cells[from + 1, to])
            {
                Add(cell, Passed(behind, from));
            }
        }

        Prune(cell);
    }

    private Entry Passed(Entry entry, int word) =>
        entry with { Cost = entry.Cost + skips[word], Unheard = skips[word] >= Filler.Content ? entry.Unheard | (1UL << Math.Min(word, 63)) : entry.Unheard };

    private void Add(List<Entry> cell, Entry entry)
    {
        cell.Add(entry);
        foreach (var other in promote(entry.Node))
        {
            cell.Add(new(other.Cost == 0 ? other : other with { Cost = 0 }, entry.Cost + other.Cost, entry.Unheard));
        }
    }

    private static void Prune(List<Entry> cell)
    {
        if (cell.Count < 2)
        {
            return;
        }

        cell.Sort((one, other) => one.Cost.CompareTo(other.Cost));
        var kept = new List<Entry>(Most);
        var counts = new Dictionary<(Type, int), int>();
        var most = cell[0].Cost + Beam;
        foreach (var entry in cell)
        {
            if (entry.Cost > most || kept.Count >= Most)
            {
                break;
            }

            var kind = (entry.Node.GetType(), entry.Node is Node.Said said ? (int)said.Cue : entry.Node is Node.Joined joined ? (int)joined.By : 0);
            var count = counts.GetValueOrDefault(kind);
            if (count < (entry.Node is Node.Said ? 1 : MostOfAKind) && !kept.Exists(other => other.Unheard == entry.Unheard && other.Node.Equals(entry.Node)))
            {
                counts[kind] = count + 1;
                kept.Add(entry);
            }
        }

        cell.Clear();
        cell.AddRange(kept);
    }
}
