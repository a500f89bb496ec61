namespace Dibujo.Core.Speech;

/// <summary>Some words of what was said, with the part of the rule for which they stand. Words that stand for nothing, such as "please", have none.</summary>
/// <param name="Start">Where they begin in what was typed.</param>
/// <param name="End">Where they end there.</param>
/// <param name="Part">The part of the rule, as people read it.</param>
public sealed record Alignment(int Start, int End, string Part);
