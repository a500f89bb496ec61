namespace Dibujo.Browser;

/// <summary>Objects that JavaScript holds by number until it closes them.</summary>
internal sealed class Handles<T>
    where T : class
{
    private readonly Dictionary<int, T> held = [];
    private int last;

    internal T this[int handle] => held[handle];

    internal int Add(T item)
    {
        held[++last] = item;
        return last;
    }

    internal void Remove(int handle) => held.Remove(handle);
}
