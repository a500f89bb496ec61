using Dibujo.Core.Operands;

namespace Dibujo.Core.Programs;

/// <summary>Decides at once all clauses that compare one slot with fixed comparands.</summary>
/// <remarks>
/// To most of them all numbers between two neighbouring comparands are alike, and so is all text that none of them names.
/// What they say of each of these classes of values is worked out beforehand, so that a value costs one search, however
/// many clauses look at it. Only those that search within text have to look at each text anew.
/// </remarks>
internal sealed class Dispatch
{
    private const int BlankClass = 0;
    private const int MaxTruths = 1 << 20;
    private const int FewThresholds = 24;
    private const int FewTexts = 8;

    /// <summary>Numbers that are nearer to each other than this, in proportion, are compared as decimals.</summary>
    private const double Precision = 1e-14;

    private readonly decimal[] thresholds;
    private readonly double[] nearThresholds;
    private readonly string[] texts;
    private readonly ulong[] lettersOfTexts;

    /// <summary>The place of each among the texts, where they are more than a few.</summary>
    private readonly Dictionary<string, int> placeOfText = new(StringComparer.Ordinal);

    /// <summary>For each class, what each clause says that does not search.</summary>
    private readonly bool[] truths;
    private readonly ClauseOp[] searches;
    private readonly string[] parts;

    /// <summary>The letters of each part, side by side, since most searches end with them.</summary>
    private readonly ulong[] letters;

    private Dispatch(List<FixedClause> plain, List<FixedClause> searching)
    {
        PlainCount = plain.Count;
        searches = [.. searching.Select(c => c.Op)];
        parts = [.. searching.Select(c => c.Comparands[0].Text)];
        letters = [.. searching.Select(c => c.Comparands[0].Letters)];
        var operands = plain.SelectMany(c => c.Comparands).ToList();
        thresholds = [.. operands.Where(o => o.Kind == OperandKind.Number).Select(o => o.Number).Distinct().Order()];
        nearThresholds = [.. thresholds.Select(t => (double)t)];
        var named = operands.Where(o => o.Kind == OperandKind.Text).DistinctBy(o => o.Text, StringComparer.Ordinal).ToList();
        texts = [.. named.Select(o => o.Text)];
        lettersOfTexts = [.. named.Select(o => o.Letters)];
        if (texts.Length > FewTexts)
        {
            placeOfText = texts.Index().ToDictionary(text => text.Item, text => text.Index, StringComparer.Ordinal);
        }

        truths = TruthCount <= MaxTruths ? new bool[TruthCount] : [];
        for (var clause = 0; truths.Length > 0 && clause < PlainCount; clause++)
        {
            WorkOut(clause, plain[clause]);
        }
    }

    internal int Count => PlainCount + searches.Length;

    private int PlainCount { get; }

    /// <summary>The class of numbers below the first threshold is 1, that of the threshold itself 2, and so on.</summary>
    private int OtherClass => (2 * thresholds.Length) + 2;

    private long TruthCount => (OtherClass + 1L + texts.Length) * PlainCount;

    /// <summary>
    /// Takes over those of the clauses that it can, in the order in which they come back. Null where there are none, or so
    /// many classes of values that the clauses are better decided one by one.
    /// </summary>
    /// <param name="clauses">All that compare one slot with fixed comparands.</param>
    internal static (Dispatch Dispatch, int[] Clauses)? Of(IReadOnlyCollection<FixedClause> clauses)
    {
        var plain = clauses.Where(c => IsPlain(c.Op) && Array.TrueForAll(c.Comparands, o => o.Kind <= OperandKind.Text)).ToList();
        var searching = clauses.Where(c => c is { Op: ClauseOp.Contains or ClauseOp.StartsWith, Comparands: [{ Kind: OperandKind.Text }] }).ToList();
        var made = new Dispatch(plain, searching);
        return made.Count == 0 || made.TruthCount > MaxTruths ? null : (made, [.. plain.Concat(searching).Select(c => c.Number)]);
    }

    /// <summary>Writes the truth of each clause for that value, in the order of their numbers.</summary>
    internal void Decide(in Operand operand, Span<bool> into)
    {
        if (PlainCount > 0)
        {
            truths.AsSpan(ClassOf(in operand) * PlainCount, PlainCount).CopyTo(into);
        }

        if (letters.Length > 0)
        {
            Search(in operand, into[PlainCount..]);
        }
    }

    private void Search(in Operand operand, Span<bool> into)
    {
        var missing = operand.Kind == OperandKind.Blank ? ulong.MaxValue : ~operand.Letters;
        for (var i = 0; i < letters.Length; i++)
        {
            into[i] = (letters[i] & missing) == 0 && (searches[i] == ClauseOp.Contains
                ? operand.Text.AsSpan().IndexOf(parts[i]) >= 0
                : operand.Text.StartsWith(parts[i], StringComparison.Ordinal));
        }
    }

    private static bool IsPlain(ClauseOp op) =>
        op is ClauseOp.Equal or ClauseOp.OneOf or ClauseOp.FilledIn or (>= ClauseOp.Less and <= ClauseOp.Between);

    private int ClassOf(in Operand operand) => operand.Kind switch
    {
        OperandKind.Blank => BlankClass,
        OperandKind.Number => ClassOfNumber(in operand),
        OperandKind.Text => OtherClass + 1 + PlaceOf(in operand),
        _ => OtherClass,
    };

    /// <summary>The place of a text among those that are named; -1 for any other.</summary>
    private int PlaceOf(in Operand operand)
    {
        if (texts.Length > FewTexts)
        {
            return placeOfText.GetValueOrDefault(operand.Text, -1);
        }

        for (var i = 0; i < lettersOfTexts.Length; i++)
        {
            if (lettersOfTexts[i] == operand.Letters && string.Equals(texts[i], operand.Text, StringComparison.Ordinal))
            {
                return i;
            }
        }

        return -1;
    }

    private int ClassOfNumber(in Operand operand)
    {
        var below = About(operand.Near);
        var slack = Math.Abs(operand.Near) * Precision;
        while (below > 0 && nearThresholds[below - 1] >= operand.Near - slack && thresholds[below - 1] >= operand.Number)
        {
            below--;
        }

        while (below < thresholds.Length && nearThresholds[below] <= operand.Near + slack)
        {
            var order = decimal.Compare(thresholds[below], operand.Number);
            if (order >= 0)
            {
                return (2 * below) + (order == 0 ? 2 : 1);
            }

            below++;
        }

        return (2 * below) + 1;
    }

    /// <summary>About how many thresholds lie below a number.</summary>
    private int About(double near)
    {
        if (nearThresholds.Length > FewThresholds)
        {
            var found = nearThresholds.AsSpan().BinarySearch(near);
            return found < 0 ? ~found : found;
        }

        // Comparing with each takes no more time than branching between a few.
        var below = 0;
        foreach (var threshold in nearThresholds)
        {
            below += threshold < near ? 1 : 0;
        }

        return below;
    }

    /// <summary>Writes down for which classes the clause holds; none of them is positive for a blank.</summary>
    private void WorkOut(int clause, FixedClause code)
    {
        var lastNumber = OtherClass - 1;
        switch (code.Op)
        {
            case ClauseOp.FilledIn:
                Mark(clause, 1, OtherClass + texts.Length);
                break;
            case ClauseOp.Between:
                Mark(clause, Place(code.Comparands[0]), code.Comparands[1].Kind == OperandKind.Number ? Place(code.Comparands[1]) : BlankClass);
                break;
            default:
                foreach (var comparand in code.Comparands.Where(c => c.Kind != OperandKind.Blank))
                {
                    var place = Place(comparand);
                    var (from, to) = code.Op switch
                    {
                        ClauseOp.Less => (1, place - 1),
                        ClauseOp.AtMost => (1, place),
                        ClauseOp.AtLeast => (place, lastNumber),
                        ClauseOp.More => (place + 1, lastNumber),
                        _ => (place, place),
                    };
                    Mark(clause, from, to);
                }

                break;
        }

        int Place(Operand comparand) => comparand.Kind == OperandKind.Blank ? OtherClass : ClassOf(in comparand);
    }

    private void Mark(int clause, int from, int to)
    {
        for (var of = from; of <= to; of++)
        {
            truths[(of * PlainCount) + clause] = true;
        }
    }
}

/// <summary>A clause with fixed comparands.</summary>
/// <param name="Number">Its number as it was added.</param>
/// <param name="Op">What it asks.</param>
/// <param name="Comparands">With what it compares.</param>
internal sealed record FixedClause(int Number, ClauseOp Op, Operand[] Comparands);
