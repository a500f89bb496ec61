namespace Dibujo.Core.Programs;

/// <summary>A list of numbers for each of a row of things, all of them in one array (compressed sparse rows).</summary>
internal sealed class Adjacency
{
    private readonly int[] starts;
    private readonly int[] items;

    private Adjacency(int[] starts, int[] items) => (this.starts, this.items) = (starts, items);

    /// <summary>For how many things there is a list.</summary>
    internal int Count => starts.Length - 1;

    /// <summary>The list of the thing of that number; empty where nothing was added to it.</summary>
    internal ReadOnlySpan<int> this[int thing] => items.AsSpan(starts[thing], starts[thing + 1] - starts[thing]);

    /// <summary>The same list as an array of its own, for those who enumerate at leisure.</summary>
    internal int[] Of(int thing) => this[thing].ToArray();

    /// <summary>The other way round: for each of so many numbers, in whose lists it stands, ascending.</summary>
    internal Adjacency Inverted(int count)
    {
        var pairs = new Pairs(count);
        for (var thing = 0; thing < Count; thing++)
        {
            foreach (var item in this[thing])
            {
                pairs.Add(item, thing);
            }
        }

        return pairs.ToAdjacency();
    }

    /// <summary>Pairs of a thing and a number of its list, as they come.</summary>
    /// <param name="count">How many things there are.</param>
    internal sealed class Pairs(int count)
    {
        private int[] things = new int[64];
        private int[] numbers = new int[64];
        private int length;

        internal void Add(int thing, int number)
        {
            if (length == things.Length)
            {
                Array.Resize(ref things, 2 * length);
                Array.Resize(ref numbers, 2 * length);
            }

            things[length] = thing;
            numbers[length++] = number;
        }

        /// <summary>Each list in the order in which its numbers were added (a counting sort).</summary>
        internal Adjacency ToAdjacency()
        {
            var starts = new int[count + 1];
            for (var i = 0; i < length; i++)
            {
                starts[things[i] + 1]++;
            }

            for (var thing = 0; thing < count; thing++)
            {
                starts[thing + 1] += starts[thing];
            }

            var next = starts.AsSpan(0, count).ToArray();
            var items = new int[length];
            for (var i = 0; i < length; i++)
            {
                items[next[things[i]]++] = numbers[i];
            }

            return new(starts, items);
        }
    }
}
