using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Expressions;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Compilation;

/// <summary>A slot whose value follows from other slots: how to compute it.</summary>
/// <param name="Inputs">The slots that it follows from; all of them are numbered lower.</param>
internal abstract record DerivedSlot(ImmutableArray<int> Inputs);

/// <summary>A part of a compound value.</summary>
internal sealed record PartSlot(int Whole, string Part) : DerivedSlot([Whole]);

/// <summary>The day of a moment.</summary>
internal sealed record DaySlot(int Of) : DerivedSlot([Of]);

/// <summary>A value of the record that a link leads to.</summary>
/// <param name="Link">The slot of the link.</param>
/// <param name="RecordType">Key of the linked record's type.</param>
/// <param name="Field">The field there.</param>
internal sealed record LinkedSlot(int Link, string RecordType, Field Field) : DerivedSlot([Link]);

/// <summary>A day counted from today.</summary>
internal sealed record RelativeDaySlot(int Today, RelativeDay Day) : DerivedSlot([Today]);

/// <summary>An expression's result, fitted to a type.</summary>
/// <param name="Expression">What is computed.</param>
/// <param name="Names">The slot of each of its names.</param>
/// <param name="Type">What the result has to be; blank where it is not.</param>
internal sealed record ExpressionSlot(Expression Expression, ImmutableArray<int> Names, FieldType Type) : DerivedSlot(Names)
{
    internal Value Compute(Value[] slots)
    {
        var result = Expression.Evaluate(name => FeelValue.Of(slots[Names[Expression.Names.IndexOf(name)]])).ToValue();
        return Type.FitGiven(result);
    }
}
