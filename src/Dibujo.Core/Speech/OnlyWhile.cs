using System.Collections.Immutable;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Speech;

/// <summary>What <em>only while</em> adds to a case: the opposite, otherwise.</summary>
internal static class OnlyWhile
{
    /// <summary>The effects that hold otherwise; none where coming undone is enough.</summary>
    internal static ImmutableArray<Effect> Otherwise(ImmutableArray<Effect> effects) => [.. effects.Select(effect => effect switch
    {
        Show show => (Effect?)new Hide(show.Targets),
        Require require => new MakeOptional(require.Targets),
        Unlock unlock => new Lock(unlock.Targets),
        _ => null,
    }).OfType<Effect>()];
}
