using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;

namespace Dibujo.Core.Speech;

/// <summary>Something of a record type that has a name.</summary>
internal abstract record Thing
{
    internal sealed record Field(Records.Field Of, Subject Subject, Element? Element) : Thing;

    /// <summary>Fields whose names differ only in small words: "humidity" is where it begins and where it ends.</summary>
    internal sealed record Fields(ImmutableArray<Subject> Subjects) : Thing;

    /// <summary>A section, a tab or a form, which is called with its kind wherever a field could be meant.</summary>
    internal sealed record Place(Element Element) : Thing;

    internal sealed record Choice(Records.Field Of, string Key) : Thing;

    /// <summary>A stage, move, role, workflow or form, as something that a condition looks at.</summary>
    internal sealed record Setting(Subject Of, string Key) : Thing;
}
