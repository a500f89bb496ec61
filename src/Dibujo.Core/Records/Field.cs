using Dibujo.Core.Forms;

namespace Dibujo.Core.Records;

/// <summary>One thing a record can hold.</summary>
/// <param name="Key">Short name in files and in the store; another one is a <see cref="FieldRenamed"/>.</param>
/// <param name="Label">What people read.</param>
/// <param name="Type">What it may hold, with limits.</param>
/// <param name="Help">A line for the person who fills it in.</param>
/// <param name="Rest">Its state when no rule speaks.</param>
/// <param name="Default">What it holds on a new record, and after hiding that resets it; null for nothing.</param>
/// <param name="Retired">Kept in the records that have it, and in their history; offered nowhere new.</param>
public sealed record Field(
    string Key, string Label, FieldType Type, string? Help = null, Rest? Rest = null, DefaultValue? Default = null, bool Retired = false);
