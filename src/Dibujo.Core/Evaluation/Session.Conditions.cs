using System.Runtime.CompilerServices;
using Dibujo.Core.Programs;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Evaluation;

/// <content>From clauses to groups, from groups to the cases in force, and from those to the claims that win.</content>
public sealed partial class Session
{
    private void DecideGroups()
    {
        var (codes, members, first, truth) = (groups.Codes, groups.Members, groups.First, this.truth);
        for (var i = 0; i < codes.Length; i++)
        {
            ref readonly var code = ref codes[i];
            var count = 0;
            foreach (var member in members.AsSpan(code.MemberStart, code.MemberCount))
            {
                count += Count(truth, member);
            }

            holding[i] = count;
            truth[first + i] = code.Holds(count);
        }
    }

    /// <summary>If a clause or group holds now and did not before, or the other way round, tells the groups around it and queues the variants.</summary>
    private void Note(int condition, bool holds)
    {
        if (holds == truth[condition])
        {
            return;
        }

        truth[condition] = holds;
        if (condition < groups.First)
        {
            foreach (var cycle in Program.Order.CyclesOfClause[condition])
            {
                pending[cycle] = true;
            }
        }

        foreach (var around in groups.Around[condition])
        {
            var group = around < 0 ? ~around : around;
            holding[group] += holds == around >= 0 ? 1 : -1;
            Note(groups.First + group, groups.Codes[group].Holds(holding[group]));
        }

        foreach (var variant in rules.OfCondition[condition])
        {
            if (!isVariantQueued[variant])
            {
                isVariantQueued[variant] = true;
                variantsToTry.Enqueue(variant);
            }
        }
    }

    private void TryVariants()
    {
        while (variantsToTry.TryDequeue(out var variant))
        {
            isVariantQueued[variant] = false;
            if (Program.Order.CycleOfVariant[variant] is >= 0 and var cycle)
            {
                // Where a cycle ends may depend on where it began: it is settled again as a whole.
                pending[cycle] = true;
            }
            else
            {
                PutInForce(variant, FirstCase(variant));
            }
        }
    }

    /// <summary>Makes that case the one in force; true if it was another before.</summary>
    private bool PutInForce(int variant, int @case)
    {
        if (inForce[variant] == @case)
        {
            return false;
        }

        Contest();
        inForce[variant] = @case;
        reporter.TouchRule(variants[variant]);
        foreach (var cycle in Program.Order.CyclesUnderVariant[variant])
        {
            // Also a claim that loses now may win on the way round.
            pending[cycle] = true;
        }

        foreach (var cell in claims.CellsOfVariant[variant])
        {
            var winner = Winner(cell);
            if (winner == winners[cell])
            {
                continue;
            }

            winners[cell] = winner;
            var (element, facet) = Math.DivRem(cell, Facets.Count);
            foreach (var under in layout.ElementsUnder[element])
            {
                reporter.Touch(under);
                if (under < layout.FirstContainer && facet != (int)Facet.Requirement)
                {
                    // What is done to a part may set aside a change to the whole.
                    var field = layout.FieldOf(under);
                    reporter.Touch(field);
                    MarkStale(field);
                }
            }
        }

        return true;
    }

    private int FirstCase(int variant)
    {
        ref readonly var code = ref variants[variant];
        if (code.CaseCount == 1)
        {
            return Count(truth, conditions[code.CaseStart]) - 1;
        }

        for (var i = 0; i < code.CaseCount; i++)
        {
            if (Holds(conditions[code.CaseStart + i]))
            {
                return i;
            }
        }

        return Nobody;
    }

    /// <summary>Whether a clause or group holds; by the complement of its number, whether it does not.</summary>
    internal bool Holds(int condition) => Count(truth, condition) != 0;

    /// <summary>1 where a clause or group holds, else 0; without branches, since what holds cannot be foreseen.</summary>
    private static int Count(bool[] truth, int condition) => Unsafe.BitCast<bool, byte>(truth[condition ^ (condition >> 31)]) ^ (condition >>> 31);

    /// <summary>Lets all claims in force contest every cell, unless that was done since everything was evaluated anew.</summary>
    private void Contest()
    {
        if (isContested)
        {
            return;
        }

        isContested = true;
        Array.Fill(winners, Nobody);
        for (var claim = 0; claim < claims.Claims.Length; claim++)
        {
            ref readonly var code = ref claims.Claims[claim];
            var cell = claims.CellOf[claim];
            if (winners[cell] == Nobody && code.Case == inForce[code.Variant] && HasSay(cell, in code))
            {
                winners[cell] = claim;
            }
        }
    }

    /// <summary>The highest claim in force on a cell, as an index into the claims; -1 where no rule speaks.</summary>
    private int Winner(int cell)
    {
        for (var i = claims.Starts[cell]; i < claims.Starts[cell + 1]; i++)
        {
            ref readonly var claim = ref claims.Claims[i];
            if (inForce[claim.Variant] == claim.Case && HasSay(cell, in claim))
            {
                return i;
            }
        }

        return Nobody;
    }

    /// <summary>False for a claim on a value that is given once, unless its case has come into force since the save.</summary>
    private bool HasSay(int cell, in ClaimCode claim) => cell % Facets.Count != (int)Facet.Value || effects.Values[claim.Says].IsHeld
        || (givesValues && inForceWhenSaved[claim.Variant] != claim.Case);
}
