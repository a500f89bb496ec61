using System.Collections.Immutable;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Programs;

/// <summary>What a program consists of, whatever its rules are called.</summary>
internal sealed class ProgramTables
{
    internal required FieldIndex Fields { get; init; }

    internal required Layout Layout { get; init; }

    internal required SlotTable Slots { get; init; }

    internal required ClauseTable Clauses { get; init; }

    internal required GroupTable Groups { get; init; }

    internal required VariantTable Variants { get; init; }

    internal required ClaimTable Claims { get; init; }

    internal required EffectTable Effects { get; init; }

    /// <summary>In which order values are settled.</summary>
    internal required ValueOrder Order { get; init; }

    /// <summary>For each list position, the rule's cases; none for a rule left out. Where the rule applies is not part of them.</summary>
    internal required ImmutableArray<Case>[] Cases { get; init; }

    /// <summary>List positions of the rules that say messages.</summary>
    internal required int[] Speaking { get; init; }

    /// <summary>The suggestions of all rules, in list order.</summary>
    internal required AdviceCode[] Advice { get; init; }

    /// <summary>For each list position, the number of the rule's variant for the record at large; -1 for a rule left out.</summary>
    internal required int[] VariantOfRule { get; init; }
}

/// <summary>A suggestion: in which case of which rule, for which field, and where its value is found.</summary>
internal sealed record AdviceCode(int Rule, int Case, int Field, ValueCode Value, string Reason);
