using Dibujo.Core.Records;

namespace Dibujo.Core.Inference;

/// <summary>A column of a table as somebody decided to take it.</summary>
/// <param name="Column">Its place in the table, from 0.</param>
/// <param name="Label">What its field is called.</param>
/// <param name="Key">The field's key.</param>
/// <param name="Type">The field's type.</param>
/// <param name="Format">How it writes dates and numbers.</param>
public sealed record TakenColumn(int Column, string Label, string Key, FieldType Type, CellFormat Format);
