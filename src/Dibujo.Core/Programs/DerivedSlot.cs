using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Expressions;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Programs;

/// <summary>A slot whose value follows from other slots: how to compute it.</summary>
/// <param name="Inputs">The slots that it follows from; all of them are numbered lower.</param>
internal abstract record DerivedSlot(ImmutableArray<int> Inputs)
{
    /// <summary>The same computation where slots have other numbers.</summary>
    internal abstract DerivedSlot At(Func<int, int> number);

    /// <summary>Whether the other computes the same from the same slots.</summary>
    internal abstract bool IsSame(DerivedSlot other);
}

/// <summary>A part of a compound value.</summary>
internal sealed record PartSlot(int Whole, string Part) : DerivedSlot([Whole])
{
    internal override DerivedSlot At(Func<int, int> number) => new PartSlot(number(Whole), Part);

    internal override bool IsSame(DerivedSlot other) => other is PartSlot part && (part.Whole, part.Part) == (Whole, Part);
}

/// <summary>A value of the record that a link leads to.</summary>
/// <param name="Link">The slot of the link.</param>
/// <param name="RecordType">Key of the linked record's type.</param>
/// <param name="Field">The field there.</param>
internal sealed record LinkedSlot(int Link, string RecordType, Field Field) : DerivedSlot([Link])
{
    internal override DerivedSlot At(Func<int, int> number) => new LinkedSlot(number(Link), RecordType, Field);

    internal override bool IsSame(DerivedSlot other) => other is LinkedSlot linked && linked.Link == Link && linked.Field.Key == Field.Key;
}

/// <summary>A day counted from today.</summary>
internal sealed record RelativeDaySlot(int Today, RelativeDay Day) : DerivedSlot([Today])
{
    internal override DerivedSlot At(Func<int, int> number) => new RelativeDaySlot(number(Today), Day);

    internal override bool IsSame(DerivedSlot other) => other is RelativeDaySlot relative && relative.Day == Day;
}

/// <summary>An expression's result, fitted to a type.</summary>
/// <param name="Expression">What is computed.</param>
/// <param name="Names">The slot of each of its names.</param>
/// <param name="Type">What the result has to be; blank where it is not.</param>
internal sealed record ExpressionSlot(Expression Expression, ImmutableArray<int> Names, FieldType Type) : DerivedSlot(Names)
{
    internal override DerivedSlot At(Func<int, int> number) => new ExpressionSlot(Expression, [.. Names.Select(number)], Type);

    internal override bool IsSame(DerivedSlot other) => other is ExpressionSlot slot
        && slot.Expression.Text == Expression.Text && slot.Names.SequenceEqual(Names) && slot.Type == Type;

    internal Value Compute(Value[] slots)
    {
        var result = Expression.Evaluate(name => FeelValue.Of(slots[Names[Expression.Names.IndexOf(name)]])).ToValue();
        // A day stays one beside a moment: it counts as a whole.
        return Type is DateTimeType && result is Date ? result : Type.FitGiven(result);
    }
}
