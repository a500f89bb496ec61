using System.Collections.Immutable;

namespace Dibujo.Core.Logic;

/// <summary>A statement put together from atoms of some kind, simplified as it is put together.</summary>
/// <typeparam name="TAtom">What is true or false by itself.</typeparam>
internal abstract record Formula<TAtom>
    where TAtom : notnull
{
    internal static readonly Formula<TAtom> True = new Constant(true);
    internal static readonly Formula<TAtom> False = new Constant(false);

    internal static Formula<TAtom> Of(bool holds) => holds ? True : False;

    internal static Formula<TAtom> Of(TAtom atom) => new Atom(atom);

    internal static Formula<TAtom> Not(Formula<TAtom> formula) => formula switch
    {
        Constant constant => Of(!constant.Holds),
        Negation negation => negation.Inner,
        _ => new Negation(formula),
    };

    internal static Formula<TAtom> And(params ImmutableArray<Formula<TAtom>> members) => Join(members, neutral: true);

    internal static Formula<TAtom> Or(params ImmutableArray<Formula<TAtom>> members) => Join(members, neutral: false);

    private static Formula<TAtom> Join(ImmutableArray<Formula<TAtom>> members, bool neutral)
    {
        var kept = members.Where(m => m != Of(neutral)).ToImmutableArray();
        return kept.Contains(Of(!neutral)) ? Of(!neutral) : kept.Length switch
        {
            0 => Of(neutral),
            1 => kept[0],
            _ => new Several(neutral, kept),
        };
    }

    internal sealed record Constant(bool Holds) : Formula<TAtom>;

    internal sealed record Atom(TAtom Statement) : Formula<TAtom>;

    internal sealed record Negation(Formula<TAtom> Inner) : Formula<TAtom>;

    internal sealed record Several(bool IsAll, ImmutableArray<Formula<TAtom>> Members) : Formula<TAtom>;
}
