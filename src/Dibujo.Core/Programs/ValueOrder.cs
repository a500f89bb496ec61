namespace Dibujo.Core.Programs;

/// <summary>The order in which the values of fields are settled, and what makes it necessary to settle them again.</summary>
internal sealed class ValueOrder
{
    /// <summary>The cycles in the order in which their values are settled.</summary>
    internal required Cycle[] Cycles { get; init; }

    /// <summary>For each cycle, whether some rule may give a field in it another value than the saved one, though nobody changed it.</summary>
    internal required bool[] IsGivenValues { get; init; }

    /// <summary>For each field, its place in <see cref="Cycles"/>.</summary>
    internal required int[] CycleOfField { get; init; }

    /// <summary>For each variant, the true cycle that it belongs to; -1 for none.</summary>
    internal required int[] CycleOfVariant { get; init; }

    /// <summary>For each clause, the true cycles in which it takes part. Where such a cycle ends may depend on where it began.</summary>
    internal required Adjacency CyclesOfClause { get; init; }

    /// <summary>For each variant, the true cycles over whose fields it decides, from within or from outside.</summary>
    internal required Adjacency CyclesUnderVariant { get; init; }
}
