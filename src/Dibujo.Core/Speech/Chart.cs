
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
    /// <param name="Origin">Of what it was made.</param>
    internal readonly record struct Entry(Node Node, double Cost, ulong Unheard, Origin Origin)
    {
        internal uint Kind { get; } = Neighbours.KindOf(Node);

        internal uint After { get; } = Neighbours.AfterOf(Node);
    }

    /// <summary>Of what an entry was made: of two neighbours, of one and a word that was passed over, or of nothing else.</summary>
    /// <param name="From">Where the left one begins.</param>
    /// <param name="Between">Where it ends; none where it was made of nothing else.</param>
    /// <param name="Left">Its place in its cell.</param>
    /// <param name="Right">The place of the right one in its cell, which ends where the entry does; none where there is only one.</param>
    internal readonly record struct Origin(short From, short Between, short Left, short Right)
    {
        internal static Origin Seed => new(0, None, 0, None);

        internal const short None = -1;
    }

    /// <summary>The stretches of which something is made, in their order, with what each was by itself.</summary>
    internal IEnumerable<(int Start, int End, Node Node)> Parts(int from, int to, Entry entry)
    {
        var (start, between, left, right) = entry.Origin;
        return between == Origin.None ? [(from, to, entry.Node)]
            : right == Origin.None ? Parts(start, between, cells[start, between][left])
            : Parts(start, between, cells[start, between][left]).Concat(Parts(between, to, cells[between, to][right]));
    }

    /// <param name="seeds">What stretches are by themselves.</param>
    /// <param name="skips">What it costs to pass over each word.</param>
    /// <param name="combine">What two neighbours make.</param>
    /// <param name="promote">What something may be besides.</param>
    /// <param name="before">What was made of the words before the last of them changed; null for none.</param>
    /// <param name="same">How many of the first words are as they were then, with whatever could tell what they are.</param>
    internal Chart(IEnumerable<(int Start, int End, Node Node, double Cost)> seeds, double[] skips, Func<Node, Node, IEnumerable<Node>> combine, Func<Node, IEnumerable<Node>> promote, Chart? before = null, int same = 0)
    {
        (this.skips, this.combine, this.promote) = (skips, combine, promote);
        polite = Math.Max(1, skips.TakeWhile(skip => skip < 0.5).Count());
        var length = skips.Length;
        cells = new List<Entry>[length + 1, length + 1];
        // What stands before a word that was typed is as it was.
        var kept = before?.polite == polite ? same : 0;
        for (var i = 0; i <= length; i++)
        {
            for (var j = i; j <= length; j++)
            {
                cells[i, j] = j <= kept && before is not null ? before.cells[i, j] : [];
            }
        }

        foreach (var (start, end, node, cost) in seeds.Where(seed => seed.End > kept))
        {
            Add(cells[start, end], new(node, cost, 0, Origin.Seed));
        }

        for (var size = 1; size <= length; size++)
        {
            for (var from = length - size; from >= 0 && from + size > kept; from--)
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
            var (lefts, rights) = (cells[from, between], cells[between, to]);
            for (var l = 0; l < lefts.Count; l++)
            {
                var left = lefts[l];
                for (var r = 0; r < rights.Count; r++)
                {
                    var right = rights[r];
                    if ((left.After & right.Kind) == 0)
                    {
                        continue;
                    }

                    foreach (var made in combine(left.Node, right.Node))
                    {
                        Add(cell, new(made.Cost == 0 ? made : made with { Cost = 0 }, left.Cost + right.Cost + made.Cost, left.Unheard | right.Unheard, new((short)from, (short)between, (short)l, (short)r)));
                    }
                }
            }
        }

        if (to - from > 1)
        {
            foreach (var (at, before) in cells[from, to - 1].Index())
            {
                Add(cell, Passed(before, to - 1, new((short)from, (short)(to - 1), (short)at, Origin.None)));
            }
        }

        // Words of politeness stand before all others.
        if (from < polite && to > from + 1)
        {
            foreach (var (at, behind) in cells[from + 1, to].Index())
            {
                Add(cell, Passed(behind, from, new((short)(from + 1), (short)to, (short)at, Origin.None)));
            }
        }

        Prune(cell);
    }

    private Entry Passed(Entry entry, int word, Origin origin) =>
        entry with { Origin = origin, Cost = entry.Cost + skips[word], Unheard = skips[word] >= Filler.Content ? entry.Unheard | (1UL << Math.Min(word, 63)) : entry.Unheard };

    private void Add(List<Entry> cell, Entry entry)
    {
        cell.Add(entry);
        foreach (var other in promote(entry.Node))
        {
            cell.Add(new(other.Cost == 0 ? other : other with { Cost = 0 }, entry.Cost + other.Cost, entry.Unheard, entry.Origin));
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
        var most = cell[0].Cost + Beam;
        foreach (var entry in cell)
        {
            if (entry.Cost > most || kept.Count >= Most)
            {
                break;
            }

            if (!IsOneTooMany(entry, kept))
            {
                kept.Add(entry);
            }
        }

        cell.Clear();
        cell.AddRange(kept);
    }

    /// <summary>Whether there are enough of its kind, or it is there already.</summary>
    private static bool IsOneTooMany(Entry entry, List<Entry> kept)
    {
        var count = 0;
        foreach (var other in kept)
        {
            if (other.Kind == entry.Kind && IsAlike(entry.Node, other.Node) && (++count >= (entry.Node is Node.Said ? 1 : MostOfAKind) || (other.Unheard == entry.Unheard && other.Node.Equals(entry.Node))))
            {
                return true;
            }
        }

        return false;
    }

    private static bool IsAlike(Node one, Node other) => (one, other) switch
    {
        (Node.Said said, Node.Said again) => said.Cue == again.Cue,
        (Node.Joined joined, Node.Joined again) => joined.By == again.By,
        _ => true,
    };
}
