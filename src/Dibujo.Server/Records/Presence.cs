using System.Collections.Concurrent;
using System.Collections.Immutable;

namespace Dibujo.Server.Records;

/// <summary>Who has which record open, by the connections over which they are told of it.</summary>
internal sealed class Presence
{
    private readonly ConcurrentDictionary<string, (int Record, string Person)> here = new(StringComparer.Ordinal);

    /// <summary>Account names of the people at that record, each once, in the order of the alphabet.</summary>
    internal ImmutableArray<string> At(int record) =>
        [.. here.Values.Where(one => one.Record == record).Select(one => one.Person).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal)];

    internal void Come(string connection, int record, string person) => here[connection] = (record, person);

    /// <summary>The record that was left; null where the connection was at none.</summary>
    internal int? Leave(string connection) => here.TryRemove(connection, out var left) ? left.Record : null;
}
