using System.Collections.Frozen;

namespace Dibujo.Core.Speech;

/// <summary>Which nodes may make something with which after them: most pairs of neighbours make nothing, and asking the grammars takes long.</summary>
/// <remarks>A line that is added to a grammar for two kinds that are not here is never asked; a test holds the two against each other.</remarks>
internal static class Neighbours
{
    private static readonly Type[] Kinds =
    [
        typeof(Node.Said), typeof(Node.Joined), typeof(Node.Targets), typeof(Node.Subjects), typeof(Node.Choices), typeof(Node.Settings), typeof(Node.Amount), typeof(Node.Range), typeof(Node.Quoted),
        typeof(Node.Other), typeof(Node.Tail), typeof(Node.Holds), typeof(Node.When), typeof(Node.State), typeof(Node.Verbs), typeof(Node.Verb), typeof(Node.Does), typeof(Node.Given), typeof(Node.Giving),
        typeof(Node.Bound), typeof(Node.For), typeof(Node.Stopped), typeof(Node.Words), typeof(Node.Without), typeof(Node.Else), typeof(Node.Another), typeof(Node.Aside), typeof(Node.Whole), typeof(Node.Measured), typeof(Node.During), typeof(Node.Qualified), typeof(Node.Linked),
    ];

    private static readonly FrozenDictionary<Type, uint> Bits = Kinds.Select((kind, place) => (kind, Bit: 1u << place)).ToFrozenDictionary(one => one.kind, one => one.Bit);

    private static readonly FrozenDictionary<Type, uint> After = new Dictionary<Type, uint>
    {
        [typeof(Node.Said)] = uint.MaxValue,
        [typeof(Node.Joined)] = Any(typeof(Node.Quoted)),
        [typeof(Node.Targets)] = Any(typeof(Node.Linked), typeof(Node.Said), typeof(Node.Joined), typeof(Node.State), typeof(Node.When), typeof(Node.Amount), typeof(Node.Choices), typeof(Node.Other), typeof(Node.Quoted)),
        [typeof(Node.Subjects)] = Any(typeof(Node.Measured), typeof(Node.Said), typeof(Node.Joined), typeof(Node.Choices), typeof(Node.Settings), typeof(Node.Tail), typeof(Node.Amount)),
        [typeof(Node.Choices)] = Any(typeof(Node.Said), typeof(Node.Joined), typeof(Node.Subjects), typeof(Node.When)),
        [typeof(Node.Settings)] = Any(typeof(Node.Joined), typeof(Node.Said), typeof(Node.Subjects)),
        [typeof(Node.Amount)] = Any(typeof(Node.Said), typeof(Node.Joined), typeof(Node.Tail), typeof(Node.When)),
        [typeof(Node.Other)] = Any(typeof(Node.When)),
        [typeof(Node.Without)] = Any(typeof(Node.Stopped)),
        [typeof(Node.Tail)] = Any(typeof(Node.Measured), typeof(Node.Subjects)),
        [typeof(Node.Holds)] = Any(typeof(Node.Holds), typeof(Node.Measured), typeof(Node.Said), typeof(Node.Joined), typeof(Node.When), typeof(Node.Does)),
        [typeof(Node.When)] = Any(typeof(Node.Stopped), typeof(Node.Said), typeof(Node.Joined), typeof(Node.When), typeof(Node.Does), typeof(Node.Whole)),
        [typeof(Node.State)] = Any(typeof(Node.Joined)),
        [typeof(Node.Verbs)] = Any(typeof(Node.Targets), typeof(Node.Said)),
        [typeof(Node.Verb)] = Any(typeof(Node.Targets), typeof(Node.Said), typeof(Node.Joined)),
        [typeof(Node.Does)] = Any(typeof(Node.Said), typeof(Node.Joined), typeof(Node.For), typeof(Node.Words), typeof(Node.Quoted), typeof(Node.Does), typeof(Node.When), typeof(Node.Holds), typeof(Node.Aside), typeof(Node.State)),
        [typeof(Node.Given)] = Any(typeof(Node.Subjects), typeof(Node.Joined), typeof(Node.Choices), typeof(Node.Amount), typeof(Node.Other), typeof(Node.Quoted), typeof(Node.Said)),
        [typeof(Node.Giving)] = Any(typeof(Node.Joined)),
        [typeof(Node.Measured)] = Any(typeof(Node.Amount)),
        [typeof(Node.Bound)] = Any(typeof(Node.Holds), typeof(Node.Tail), typeof(Node.Said)),
        [typeof(Node.For)] = Any(typeof(Node.Does), typeof(Node.Joined)),
        [typeof(Node.Qualified)] = Any(typeof(Node.Verb), typeof(Node.State), typeof(Node.Said)),
        [typeof(Node.Stopped)] = Any(typeof(Node.When), typeof(Node.Joined), typeof(Node.Without)),
        [typeof(Node.Whole)] = Any(typeof(Node.For), typeof(Node.When), typeof(Node.Joined), typeof(Node.Words), typeof(Node.Quoted), typeof(Node.Said), typeof(Node.Else), typeof(Node.Whole), typeof(Node.Aside)),
    }.ToFrozenDictionary();

    /// <summary>The kind of a node, as a bit.</summary>
    internal static uint KindOf(Node node) => Bits[node.GetType()];

    /// <summary>The kinds that may make something with it when they stand after it.</summary>
    internal static uint AfterOf(Node node) => After.GetValueOrDefault(node.GetType());

    private static uint Any(params Type[] kinds) => kinds.Aggregate(0u, (all, kind) => all | Bits[kind]);
}
