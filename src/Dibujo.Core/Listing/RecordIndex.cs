using Dibujo.Core.Values;

namespace Dibujo.Core.Listing;

/// <summary>
/// What an index of records holds of each, so that lists are sorted, filtered and searched without evaluating any: worked out here and
/// nowhere else, whatever the database that keeps it.
/// </summary>
public static class RecordIndex
{
    /// <summary>For each field that holds something, and for all that is kept of how the record stands, the key by which it is found.</summary>
    /// <param name="values">The record's values, bare or fitted to their fields.</param>
    /// <param name="standing">How it stands: see <see cref="Standing"/>.</param>
    public static IEnumerable<(string Field, byte[] Key)> Rows(RecordValues values, RecordValues standing) =>
        from of in values.ByField.Concat(standing.ByField)
        let key = Key(of.Value)
        where key is not null
        select (of.Key, key);

    /// <summary>The key of one value; null for a blank one, which is in no index.</summary>
    public static byte[]? Key(Value value) => ListKey.Of(value);

    /// <summary>All text in a record, folded, one value a line: what a search looks at first.</summary>
    public static string Text(RecordValues values) => string.Join('\n', values.ByField.Values.SelectMany(Texts).Select(ListKey.Folded));

    private static IEnumerable<string> Texts(Value value) => value switch
    {
        Text text => [text.Content],
        Compound compound => compound.Parts.Values,
        _ => [],
    };
}
