using System.Collections.Immutable;
using Dibujo.Core.Records;

namespace Dibujo.Core.Inference;

/// <summary>What a column of a table is taken to be.</summary>
/// <param name="Label">Its heading.</param>
/// <param name="Key">A key made from that.</param>
/// <param name="Type">The type of its field.</param>
/// <param name="Format">How it writes dates and numbers.</param>
/// <param name="Filled">How many of its cells say something.</param>
/// <param name="Misfits">How many of those do not fit the type.</param>
public sealed record InferredColumn(string Label, string Key, FieldType Type, CellFormat Format, int Filled, int Misfits)
{
    /// <summary>Some cells that fit, with what they are read as.</summary>
    public ImmutableArray<ReadCell> Examples { get; init => field = value.OrEmpty(); } = [];

    /// <summary>The first of those that do not fit.</summary>
    public ImmutableArray<ReadCell> FirstMisfits { get; init => field = value.OrEmpty(); } = [];

    /// <summary>What was guessed although the cells do not tell, as a sentence; null for nothing.</summary>
    public string? Doubt { get; init; }
}

/// <summary>A cell.</summary>
/// <param name="Line">The row in which it stands, from 1; the line of headings is the first.</param>
/// <param name="Cell">What it says.</param>
/// <param name="ReadAs">How people read its value; null where it fits none.</param>
public sealed record ReadCell(int Line, string Cell, string? ReadAs);
