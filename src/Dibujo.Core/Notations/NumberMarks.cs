using System.Collections.Immutable;

namespace Dibujo.Core.Notations;

/// <summary>What stands in a number.</summary>
/// <param name="Group">Between thousands.</param>
/// <param name="Point">Before the fraction.</param>
public sealed record NumberMarks(char Group, char Point)
{
    /// <summary>All ways that there are.</summary>
    public static readonly ImmutableArray<NumberMarks> All = [new(',', '.'), new('.', ','), new('\u202F', ','), new('\u00A0', ','), new('’', '.'), new('’', ',')];

    /// <summary>By which it is known: 1234.5 written so.</summary>
    public string Sample => $"1{Group}234{Point}5";

    /// <summary>The way that is known so; null for one that there is not.</summary>
    public static NumberMarks? Find(string? sample) => All.FirstOrDefault(marks => marks.Sample == sample);
}
