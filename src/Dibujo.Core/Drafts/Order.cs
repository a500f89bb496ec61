namespace Dibujo.Core.Drafts;

/// <summary>Which of several things stay where they are when others are moved.</summary>
internal static class Order
{
    /// <summary>As many keys as can be that are in both lists and follow each other in both: the longest increasing subsequence of their places.</summary>
    internal static HashSet<string> Staying(IEnumerable<string> before, IEnumerable<string> after)
    {
        var place = before.Index().ToDictionary(one => one.Item, one => one.Index, StringComparer.Ordinal);
        var known = after.Where(place.ContainsKey).ToList();
        // For each length, the end of the sequence of that length that ends earliest; and for each key, what is before it in its own.
        var ends = new List<int>();
        var previous = new int[known.Count];
        for (var i = 0; i < known.Count; i++)
        {
            var length = ends.BinarySearch(i, Comparer<int>.Create((one, other) => place[known[one]].CompareTo(place[known[other]])));
            length = length < 0 ? ~length : length;
            previous[i] = length > 0 ? ends[length - 1] : -1;
            if (length == ends.Count)
            {
                ends.Add(i);
            }
            else
            {
                ends[length] = i;
            }
        }

        var staying = new HashSet<string>(StringComparer.Ordinal);
        for (var at = ends.Count > 0 ? ends[^1] : -1; at >= 0; at = previous[at])
        {
            staying.Add(known[at]);
        }

        return staying;
    }
}
