using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Expressions;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;

namespace Dibujo.Core.Compilation;

/// <summary>The slots that rules of a record type have looked at so far; a number once given stays.</summary>
internal sealed class SlotPool(FieldIndex fields, SubjectTypes subjects)
{
    private readonly List<DerivedSlot> derived = [];
    private readonly Dictionary<object, int> known = [];

    /// <summary>The number of the first derived slot; those below are the same in every program.</summary>
    internal int FirstDerived { get; } = SlotTable.First(fields.Count);

    /// <summary>How many derived slots there are.</summary>
    internal int DerivedCount => derived.Count;

    /// <summary>The derived slot, counted from 0; what it follows from is numbered as here.</summary>
    internal DerivedSlot this[int index] => derived[index];

    internal int Saved(int field) => fields.Count + field;

    /// <summary>The subject's slot; of a subject that exists.</summary>
    /// <param name="subject">What is looked at.</param>
    /// <param name="ownField">The field whose saved value is looked at in place of its live one; -1 for none.</param>
    internal int Of(Subject subject, int ownField) => SubjectSlots.Of(subject, ownField, fields, subjects, Derive);

    /// <summary>The slot of a comparand that is no literal.</summary>
    /// <param name="comparand">One without problems.</param>
    /// <param name="as">The type that an expression's result has to fit.</param>
    /// <param name="ownField">See <see cref="Of(Subject, int)"/>.</param>
    internal int Of(Comparand comparand, FieldType @as, int ownField) => comparand switch
    {
        SubjectComparand { Subject: var subject } => Of(subject, ownField),
        RelativeDay day => Derive(new RelativeDaySlot(Of(new TodaySubject(), ownField), day)),
        ExpressionComparand { Expression: var text } => OfExpression(text, @as, ownField),
        _ => throw new ArgumentOutOfRangeException(nameof(comparand)),
    };

    /// <summary>Takes in the fields whose live values the slot follows from.</summary>
    internal void AddFieldsOf(int slot, SortedSet<int> to)
    {
        if (slot < fields.Count)
        {
            to.Add(slot);
        }
        else if (slot >= FirstDerived)
        {
            foreach (var input in derived[slot - FirstDerived].Inputs)
            {
                AddFieldsOf(input, to);
            }
        }
    }

    private int OfExpression(string text, FieldType @as, int ownField)
    {
        var expression = Expression.Parse(text).Expression!;
        ImmutableArray<int> names = [.. expression.Names.Select(name => Of(NameResolution.Resolve(name, subjects)!, ownField))];
        return Derive(new ExpressionSlot(expression, names, @as));
    }

    private int Derive(DerivedSlot slot)
    {
        object key = slot switch
        {
            PartSlot part => (part.Whole, part.Part),
            LinkedSlot linked => ("link", linked.Link, linked.Field.Key),
            RelativeDaySlot relative => relative.Day,
            ExpressionSlot expression => ("=", expression.Expression.Text, string.Join(',', expression.Names), expression.Type),
            _ => throw new ArgumentOutOfRangeException(nameof(slot)),
        };
        if (!known.TryGetValue(key, out var number))
        {
            number = FirstDerived + derived.Count;
            derived.Add(slot);
            known.Add(key, number);
        }

        return number;
    }
}
