using Dibujo.Core.Rules;

namespace Dibujo.Core.Drafts;

/// <summary>What one step does to one rule of a draft: it puts it there, changes it, moves it or takes it away.</summary>
/// <param name="Key">Key of the rule.</param>
/// <param name="Base">The draft's version by which the rule was last changed, as far as the editor knew; 0 for a rule new to them.</param>
/// <param name="Rule">What it says from now on; null where that stays, or where it goes.</param>
/// <param name="IsRemoved">Whether it goes.</param>
/// <param name="IsPlaced">Whether it is put after <paramref name="After"/>; a rule that is new in the draft always is.</param>
/// <param name="After">Key of the rule that it stands after; null for the top.</param>
public sealed record RuleEdit(string Key, int Base, Rule? Rule = null, bool IsRemoved = false, bool IsPlaced = false, string? After = null);
