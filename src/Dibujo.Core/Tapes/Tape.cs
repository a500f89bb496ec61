namespace Dibujo.Core.Tapes;

/// <summary>
/// A JSON document as the browser hands it over: parsed by JavaScript, and laid out as one array of integers and one text,
/// so that reading it here costs no parser and no metadata of types.
/// </summary>
/// <remarks>
/// A node begins with its <see cref="TapeKind"/>. An integer is followed by itself; text and other numbers by the place
/// of their text; a list by its length and the place of each item; an object by its size, and for each member the place of
/// its name among the texts and the place of its value. Inner nodes stand before those that hold them; the last integer
/// says where the outermost begins. Places count from the first node. Writer: src/web/src/engine/tape.ts.
/// </remarks>
public sealed class Tape
{
    private readonly int[] items;
    private readonly string[] texts;

    private Tape(int[] items, string[] texts) => (this.items, this.texts) = (items, texts);

    /// <summary>The outermost node.</summary>
    /// <param name="items">The layout. It begins with the number of texts and the length of each.</param>
    /// <param name="text">All texts, one after another.</param>
    public static TapeNode Read(int[] items, string text)
    {
        var pieces = new string[items[0]];
        var at = 0;
        for (var i = 0; i < pieces.Length; i++)
        {
            pieces[i] = text.Substring(at, items[i + 1]);
            at += items[i + 1];
        }

        return new(new(items[(pieces.Length + 1)..], pieces), items[^1]);
    }

    internal TapeKind KindAt(int place) => (TapeKind)items[place];

    internal int Item(int place) => items[place];

    internal string TextAt(int place) => texts[items[place + 1]];

    internal string NameAt(int place) => texts[items[place]];

    /// <summary>The place of the member's value; -1 where the object has no such member.</summary>
    internal int Member(int place, string name)
    {
        var end = place + 2 + (2 * items[place + 1]);
        for (var at = place + 2; at < end; at += 2)
        {
            if (texts[items[at]] == name)
            {
                return items[at + 1];
            }
        }

        return -1;
    }
}
