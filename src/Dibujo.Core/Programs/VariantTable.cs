using Dibujo.Core.Conditions;

namespace Dibujo.Core.Programs;

/// <summary>The rules of a program in flat form, with the index from conditions to those that look at them.</summary>
/// <remarks>
/// A <em>variant</em> is a rule as it decides over something: for the record at large, for one field's own value (which it
/// then sees as it was saved), or at one form alone (as jumping ahead does).
/// </remarks>
internal sealed class VariantTable
{
    private readonly Condition?[] limits;
    private readonly int[][] mentioned;

    /// <summary>Lays out the index.</summary>
    /// <param name="codes">The variants, those of one rule together.</param>
    /// <param name="cases">See <see cref="Cases"/>.</param>
    /// <param name="limits">For each variant what must hold before any of its cases is looked at; null for nothing.</param>
    /// <param name="mentioned">For each rule by rank, the fields at whose live values it looks, ascending.</param>
    /// <param name="conditionCount">How many clauses and groups there are.</param>
    internal VariantTable(VariantCode[] codes, int[] cases, Condition?[] limits, int[][] mentioned, int conditionCount)
    {
        (Codes, Cases, this.limits, this.mentioned) = (codes, cases, limits, mentioned);
        var readers = new Adjacency.Pairs(conditionCount);
        for (var variant = 0; variant < codes.Length; variant++)
        {
            foreach (var condition in cases.AsSpan(codes[variant].CaseStart, codes[variant].CaseCount))
            {
                readers.Add(condition < 0 ? ~condition : condition, variant);
            }
        }

        OfCondition = readers.ToAdjacency();
    }

    internal VariantCode[] Codes { get; }

    /// <summary>For each case, the number of its condition: see <see cref="GroupTable"/>.</summary>
    internal int[] Cases { get; }

    /// <summary>For each clause and group, the variants that have it for the condition of a case.</summary>
    internal Adjacency OfCondition { get; }

    internal int Count => Codes.Length;

    /// <summary>What must hold before any case of the variant is looked at; null for nothing.</summary>
    internal Condition? LimitOf(int variant) => limits[variant];

    /// <summary>The fields at whose live values the variant looks.</summary>
    internal IEnumerable<int> FieldsOf(int variant) => mentioned[Codes[variant].Rule].Where(field => field != Codes[variant].OwnField);

    /// <summary>The rule's place in the list, of which this is a variant.</summary>
    internal int RankOf(int variant) => Codes[variant].Rule;

    /// <summary>The conditions of the variant's cases.</summary>
    internal IEnumerable<int> ConditionsOf(int variant) => Cases.Skip(Codes[variant].CaseStart).Take(Codes[variant].CaseCount);
}
