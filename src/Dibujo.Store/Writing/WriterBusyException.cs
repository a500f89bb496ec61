namespace Dibujo.Store.Writing;

/// <summary>Somebody has been writing for longer than anybody should wait. Nothing was stored; it may be tried again.</summary>
/// <param name="holder">What is writing, by the name of its file in the source.</param>
/// <param name="duration">For how long it has been.</param>
public sealed class WriterBusyException(string holder, TimeSpan duration) : Exception($"{holder} has been writing for {duration.TotalSeconds:0.0} s.")
{
    /// <summary>What is writing.</summary>
    public string Holder => holder;

    /// <summary>For how long it has been.</summary>
    public TimeSpan Duration => duration;
}
