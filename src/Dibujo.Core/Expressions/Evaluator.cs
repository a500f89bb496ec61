using System.Collections.Immutable;

namespace Dibujo.Core.Expressions;

/// <summary>Computes an expression. It always ends and never throws: what has no result is null.</summary>
internal sealed class Evaluator(Func<string, FeelValue> lookUp)
{
    internal FeelValue Evaluate(Syntax syntax) => syntax switch
    {
        LiteralSyntax literal => literal.Value,
        NameSyntax name => lookUp(name.Name),
        PathSyntax path => Path(path),
        NegationSyntax negation => Arithmetic.Negate(Evaluate(negation.Of)),
        OperationSyntax operation => Operate(operation),
        BetweenSyntax between => Between(Evaluate(between.Subject), Evaluate(between.Low), Evaluate(between.High)),
        InSyntax isIn => In(Evaluate(isIn.Subject), isIn.Tests),
        IfSyntax choice => Evaluate(choice.Condition) is FeelBoolean { Holds: true } ? Evaluate(choice.Then) : Evaluate(choice.Else),
        ListSyntax list => new FeelList([.. list.Items.Select(Evaluate)]),
        RangeSyntax range => new FeelRange(Evaluate(range.Low), range.IncludesLow, Evaluate(range.High), range.IncludesHigh),
        IndexSyntax index => Item(Evaluate(index.List), Evaluate(index.Index)),
        CallSyntax call => call.Function.Answer([.. call.Arguments.Select(Evaluate)]),
        _ => throw new ArgumentOutOfRangeException(nameof(syntax)),
    };

    /// <summary>Whether the value passes a test of a decision table's cell or of <c>in</c>; null where that cannot be said.</summary>
    internal static bool? Passes(FeelValue value, FeelValue test) => test switch
    {
        FeelRange range => IsWithin(value, range),
        FeelList list when value is not FeelList => Any(list.Items.Select(item => Passes(value, item))),
        _ => Arithmetic.AreEqual(value, test),
    };

    private FeelValue Path(PathSyntax path) =>
        Dotted(path) is { } name ? lookUp(name) : Property(Evaluate(path.Of), path.Property);

    /// <summary>Names with points between, as one name: they lead to parts and over links.</summary>
    internal static string? Dotted(Syntax syntax) => syntax switch
    {
        NameSyntax name => name.Name,
        PathSyntax path when Dotted(path.Of) is { } before && !Properties.Contains(path.Property) => $"{before}.{path.Property}",
        _ => null,
    };

    /// <summary>What can be asked of dates, moments and durations after a point; no part of a field is called so.</summary>
    internal static readonly ImmutableArray<string> Properties =
        ["year", "month", "day", "weekday", "hour", "minute", "second", "years", "months", "days", "hours", "minutes", "seconds"];

    private static FeelValue Property(FeelValue of, string property) => (of, property) switch
    {
        (FeelDate d, _) => OfMoment(d.Day.ToDateTime(TimeOnly.MinValue), property, hasTime: false),
        (FeelDateTime m, _) => OfMoment(m.At, property, hasTime: true),
        (FeelMonthsDuration m, "years") => new FeelNumber(m.Months / 12),
        (FeelMonthsDuration m, "months") => new FeelNumber(m.Months % 12),
        (FeelDaysDuration d, "days") => new FeelNumber(decimal.Truncate(d.Seconds / 86_400)),
        (FeelDaysDuration d, "hours") => new FeelNumber(decimal.Truncate(d.Seconds % 86_400 / 3600)),
        (FeelDaysDuration d, "minutes") => new FeelNumber(decimal.Truncate(d.Seconds % 3600 / 60)),
        (FeelDaysDuration d, "seconds") => new FeelNumber(d.Seconds % 60),
        _ => FeelValue.Null,
    };

    private static FeelValue OfMoment(DateTime at, string property, bool hasTime) => property switch
    {
        "year" => new FeelNumber(at.Year),
        "month" => new FeelNumber(at.Month),
        "day" => new FeelNumber(at.Day),
        "weekday" => new FeelNumber(at.DayOfWeek == DayOfWeek.Sunday ? 7 : (int)at.DayOfWeek),
        "hour" when hasTime => new FeelNumber(at.Hour),
        "minute" when hasTime => new FeelNumber(at.Minute),
        "second" when hasTime => new FeelNumber(at.Second),
        _ => FeelValue.Null,
    };

    private FeelValue Operate(OperationSyntax operation)
    {
        var left = Evaluate(operation.Left);
        return operation.Operator switch
        {
            "and" => And(left, operation.Right),
            "or" => Or(left, operation.Right),
            "=" => FeelValue.Of(Arithmetic.AreEqual(left, Evaluate(operation.Right))),
            "!=" => FeelValue.Of(!Arithmetic.AreEqual(left, Evaluate(operation.Right))),
            "<" => FeelValue.Of(Arithmetic.Compare(left, Evaluate(operation.Right)) < 0, left, Evaluate(operation.Right)),
            "<=" => FeelValue.Of(Arithmetic.Compare(left, Evaluate(operation.Right)) <= 0, left, Evaluate(operation.Right)),
            ">" => FeelValue.Of(Arithmetic.Compare(left, Evaluate(operation.Right)) > 0, left, Evaluate(operation.Right)),
            ">=" => FeelValue.Of(Arithmetic.Compare(left, Evaluate(operation.Right)) >= 0, left, Evaluate(operation.Right)),
            var op => Arithmetic.Apply(op, left, Evaluate(operation.Right)),
        };
    }

    /// <summary>Three-valued: false decides, whatever stands on the other side.</summary>
    private FeelValue And(FeelValue left, Syntax right) => left is FeelBoolean { Holds: false }
        ? FeelValue.False
        : (left, Evaluate(right)) switch
        {
            (_, FeelBoolean { Holds: false }) => FeelValue.False,
            (FeelBoolean, FeelBoolean) => FeelValue.True,
            _ => FeelValue.Null,
        };

    private FeelValue Or(FeelValue left, Syntax right) => left is FeelBoolean { Holds: true }
        ? FeelValue.True
        : (left, Evaluate(right)) switch
        {
            (_, FeelBoolean { Holds: true }) => FeelValue.True,
            (FeelBoolean, FeelBoolean) => FeelValue.False,
            _ => FeelValue.Null,
        };

    private static FeelValue Between(FeelValue subject, FeelValue low, FeelValue high) =>
        FeelValue.Of(IsWithin(subject, new(low, true, high, true)) is { } within && low is not FeelNull && high is not FeelNull ? within : null);

    private FeelValue In(FeelValue subject, ImmutableArray<Syntax> tests) => FeelValue.Of(Any(tests.Select(test => Passes(subject, Evaluate(test)))));

    private static bool? Any(IEnumerable<bool?> answers)
    {
        bool? any = false;
        foreach (var answer in answers)
        {
            if (answer == true)
            {
                return true;
            }

            any = answer is null ? null : any;
        }

        return any;
    }

    private static bool? IsWithin(FeelValue value, FeelRange range)
    {
        var low = range.Low is FeelNull ? true : Side(Arithmetic.Compare(value, range.Low), range.IncludesLow);
        var high = range.High is FeelNull ? true : Side(-Arithmetic.Compare(value, range.High), range.IncludesHigh);
        return low is null || high is null ? null : low.Value && high.Value;

        static bool? Side(int? order, bool included) => order is { } known ? known > 0 || (included && known == 0) : null;
    }

    private static FeelValue Item(FeelValue list, FeelValue index) => (list, index) switch
    {
        (FeelList { Items: var items }, FeelNumber { Amount: var number }) when decimal.Truncate(number) == number =>
            number > 0 && number <= items.Length ? items[(int)number - 1]
            : number < 0 && -number <= items.Length ? items[items.Length + (int)number]
            : FeelValue.Null,
        (FeelNull, _) => FeelValue.Null,
        (_, FeelNumber { Amount: 1 or -1 }) => list,
        _ => FeelValue.Null,
    };
}
