namespace Dibujo.Core.Compilation;

/// <summary>A rule as it is evaluated: once for the form, and once more for each field that it hides or locks by the field's own value.</summary>
/// <param name="Rule">Its place in the list of rules, which is its rank.</param>
/// <param name="OwnField">The field to whose lock and hiding this variant applies, by its saved value; -1 for the form at large.</param>
/// <param name="CaseStart">Its first case.</param>
/// <param name="CaseCount">How many cases it has.</param>
internal readonly record struct RuleCode(int Rule, int OwnField, int CaseStart, int CaseCount);
