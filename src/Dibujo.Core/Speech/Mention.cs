namespace Dibujo.Core.Speech;

/// <summary>A stretch of what was said that may name something.</summary>
/// <param name="Start">Its first word.</param>
/// <param name="End">The word after its last.</param>
/// <param name="Cost">How far it is from the name: 0 for the very name, more for another form of it, for slips, and for words of it that are left out.</param>
/// <param name="Thing">What it may name.</param>
/// <param name="IsAnswered">Yes where a verb stands between its words, as in "the fee is waived"; no where "not" does; null where neither does.</param>
internal readonly record struct Mention(int Start, int End, double Cost, Thing Thing, bool? IsAnswered);
