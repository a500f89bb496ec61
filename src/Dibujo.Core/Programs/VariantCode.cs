namespace Dibujo.Core.Programs;

/// <summary>A rule as it is evaluated: once for the record at large, and again wherever it decides with other eyes.</summary>
/// <param name="Rule">Its place in the list of rules, which is its rank.</param>
/// <param name="OwnField">The field to whose lock, hiding and value this variant applies, by its saved value; -1 for the record at large.</param>
/// <param name="CaseStart">Its first case.</param>
/// <param name="CaseCount">How many cases it has.</param>
internal readonly record struct VariantCode(int Rule, int OwnField, int CaseStart, int CaseCount);
