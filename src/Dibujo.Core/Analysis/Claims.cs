using System.Collections.Immutable;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Analysis;

/// <summary>What the effects of a case say about facets of elements, comparable between rules.</summary>
internal static class Claims
{
    /// <summary>Each element with the facet and what is said of it; of two claims on one facet the first counts.</summary>
    internal static Dictionary<(Facet Facet, Element Element), Effect> Of(IEnumerable<Effect> effects)
    {
        var claims = new Dictionary<(Facet, Element), Effect>();
        foreach (var effect in effects)
        {
            if (Facets.Of(effect) is not { } facet)
            {
                continue;
            }

            var (elements, said) = effect switch
            {
                StateEffect states => (states.Targets, (Effect)(states with { Targets = [] })),
                FieldEffect field => ([new Element(ElementKind.Field, field.Field)], effect),
                _ => (ImmutableArray<Element>.Empty, effect),
            };
            foreach (var element in elements)
            {
                claims.TryAdd((facet, element), said);
            }
        }

        return claims;
    }
}
