using System.Runtime.InteropServices;
using Dibujo.Core.Values;

namespace Dibujo.Core.Bulk;

/// <summary>The values of one field in many records: each distinct value once, and which of them each record has.</summary>
internal sealed class Column
{
    private readonly Dictionary<Value, int> known = new(ByContent.Instance);
    private readonly List<Value> distinct = [];
    private readonly List<int> codes = [];

    /// <summary>The distinct values, in the order in which they were first met.</summary>
    internal IReadOnlyList<Value> Distinct => distinct;

    /// <summary>For each record, the place of its value among <see cref="Distinct"/>.</summary>
    internal ReadOnlySpan<int> Codes => CollectionsMarshal.AsSpan(codes);

    /// <summary>The value of the record at that place.</summary>
    internal Value this[int record] => distinct[codes[record]];

    /// <summary>Makes every record up to that many have a value: blank, where none was added.</summary>
    internal void FillUpTo(int count)
    {
        while (codes.Count < count)
        {
            Add(Value.Blank);
        }
    }

    internal void Add(Value value)
    {
        var filled = value.IsBlank ? Value.Blank : value;
        if (!known.TryGetValue(filled, out var code))
        {
            code = distinct.Count;
            known.Add(filled, code);
            distinct.Add(filled);
        }

        codes.Add(code);
    }

    /// <summary>The same equality as the values' own, without a detour for the types of which there are many.</summary>
    private sealed class ByContent : IEqualityComparer<Value>
    {
        internal static readonly ByContent Instance = new();

        public bool Equals(Value? one, Value? other) => ReferenceEquals(one, other) || (one, other) switch
        {
            (Number a, Number b) => a.Amount == b.Amount,
            (Text a, Text b) => a.Content == b.Content,
            (Choice a, Choice b) => a.Key == b.Key,
            (YesNo a, YesNo b) => a.IsYes == b.IsYes,
            _ => one is not null && one.Equals(other),
        };

        public int GetHashCode(Value value) => value switch
        {
            Number number => number.Amount.GetHashCode(),
            Text text => text.Content.GetHashCode(StringComparison.Ordinal),
            Choice choice => choice.Key.GetHashCode(StringComparison.Ordinal),
            YesNo answer => answer.IsYes ? 1 : 0,
            _ => value.GetHashCode(),
        };
    }
}
