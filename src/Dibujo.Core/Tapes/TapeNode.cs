using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.InteropServices;

namespace Dibujo.Core.Tapes;

/// <summary>A value on a tape.</summary>
public readonly struct TapeNode
{
    private readonly Tape tape;
    private readonly int place;

    internal TapeNode(Tape tape, int place) => (this.tape, this.place) = (tape, place);

    /// <summary>What it is.</summary>
    public TapeKind Kind => place < 0 ? TapeKind.Null : tape.KindAt(place);

    /// <summary>Whether it is null or missing.</summary>
    public bool IsNull => Kind == TapeKind.Null;

    /// <summary>Whether it says true.</summary>
    public bool IsTrue => Kind == TapeKind.True;

    /// <summary>The whole number that it is.</summary>
    public int Integer => Kind == TapeKind.Integer ? tape.Item(place + 1) : throw Misfit();

    /// <summary>The text that it is.</summary>
    public string Text => Kind == TapeKind.Text ? tape.TextAt(place) : throw Misfit();

    /// <summary>The text that it is; null for none.</summary>
    public string? TextOrNull => IsNull ? null : Text;

    /// <summary>How many items a list has, or members an object; 0 for null.</summary>
    public int Count => Kind is TapeKind.List or TapeKind.Object ? tape.Item(place + 1) : IsNull ? 0 : throw Misfit();

    /// <summary>The member of that name; null where there is none.</summary>
    public TapeNode this[string name] => new(tape, Kind == TapeKind.Object ? tape.Member(place, name) : throw Misfit());

    /// <summary>Whether it has a member of that name, be it null.</summary>
    public bool Has(string name) => tape.Member(place, name) >= 0;

    /// <summary>The item of a list.</summary>
    public TapeNode this[int item] => new(tape, tape.Item(place + 2 + item));

    /// <summary>The digits of a number that is no whole one of 32 bits.</summary>
    internal string Digits => Kind == TapeKind.Integer ? Integer.ToString(CultureInfo.InvariantCulture) : tape.TextAt(place);

    /// <summary>The name of an object's member.</summary>
    internal string NameOf(int member) => tape.NameAt(place + 2 + (2 * member));

    /// <summary>The value of an object's member.</summary>
    internal TapeNode ValueOf(int member) => new(tape, tape.Item(place + 3 + (2 * member)));

    /// <summary>The items of a list, each read; empty for null.</summary>
    public ImmutableArray<T> List<T>(Func<TapeNode, T> read)
    {
        var list = new T[Count];
        for (var i = 0; i < list.Length; i++)
        {
            list[i] = read(this[i]);
        }

        return ImmutableCollectionsMarshal.AsImmutableArray(list);
    }

    /// <summary>The texts of a list; empty for null.</summary>
    public ImmutableArray<string> Texts() => List(static node => node.Text);

    private static FormatException Misfit() => new("The tape holds another kind of value here.");
}
