using System.Globalization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Speech;

/// <summary>Makes a clause of a subject and of what is said of it, as far as the two fit together.</summary>
internal sealed class Comparison(SubjectTypes types)
{
    /// <summary>How many of a smaller unit a larger one is.</summary>
    private static readonly Dictionary<(string Said, string Meant), decimal> Units = new()
    {
        [("m", "cm")] = 100,
        [("mm", "cm")] = 0.1m,
        [("cm", "m")] = 0.01m,
        [("m", "mm")] = 1000,
        [("cm", "mm")] = 10,
        [("weeks", "days")] = 7,
        [("months", "days")] = 30,
        [("years", "days")] = 365,
        [("days", "weeks")] = 1m / 7,
        [("months", "weeks")] = 4,
        [("t", "kg")] = 1000,
        [("g", "kg")] = 0.001m,
        [("kg", "g")] = 1000,
        [("hours", "days")] = 1m / 24,
        [("days", "hours")] = 24,
        [("hours", "minutes")] = 60,
    };

    /// <summary>The clause; null where that cannot be asked of the subject.</summary>
    internal Condition? Of(Subject subject, Node.Tail tail)
    {
        if (types.Of(subject) is not { } type)
        {
            return null;
        }

        var test = tail.Test;
        if (type is DateType or DateTimeType)
        {
            test = OfDays(test, tail.With is [Node.Other { IsAgo: true }]);
        }

        if (type is NumberType or MoneyType)
        {
            test = test switch { Test.After => Test.MoreThan, Test.Before => Test.LessThan, Test.OnOrBefore => Test.AtMost, Test.FromOn => Test.AtLeast, _ => test };
        }

        if (type is ChoicesType)
        {
            test = test is Test.Is ? Test.IncludesAny : test is Test.IsNot ? Test.IncludesNone : test;
        }

        if (!FittingTests.Of(subject, type).Contains(test))
        {
            return null;
        }

        var compared = tail.With.Select(one => Value(one, FittingTests.Compared(test, type), subject)).ToList();
        if (compared.Exists(one => one is null))
        {
            return null;
        }

        if (test is Test.Is && compared.Count > 1)
        {
            test = Test.OneOf;
        }

        var clause = new Clause(subject, test) { Comparands = [.. compared.Select(one => one!)] };
        if (test.Shape() is TestShape.Alone != compared.Count is 0 || (test.Shape() is TestShape.Range && compared.Count != 2))
        {
            return null;
        }

        return tail.IsNegated ? Negated(clause) : clause;
    }

    /// <summary>"Not more than" is "at most" wherever there is something to compare.</summary>
    private static Condition Negated(Clause clause) => clause.Test switch
    {
        Test.MoreThan => clause with { Test = Test.AtMost },
        Test.LessThan => clause with { Test = Test.AtLeast },
        Test.AtLeast => clause with { Test = Test.LessThan },
        Test.AtMost => clause with { Test = Test.MoreThan },
        Test.Before => clause with { Test = Test.FromOn },
        Test.After => clause with { Test = Test.OnOrBefore },
        Test.FromOn => clause with { Test = Test.Before },
        Test.OnOrBefore => clause with { Test = Test.After },
        _ => Negation.Of(clause),
    };

    /// <summary>Of a bound that has to be kept: what breaks it.</summary>
    internal static Condition Broken(Condition condition) => condition is Clause clause ? Negated(clause) : Negation.Of(condition);

    private static Test OfDays(Test test, bool isAgo) => test switch
    {
        Test.MoreThan => isAgo ? Test.Before : Test.After,
        Test.LessThan => isAgo ? Test.After : Test.Before,
        Test.AtLeast => isAgo ? Test.OnOrBefore : Test.FromOn,
        Test.AtMost => isAgo ? Test.FromOn : Test.OnOrBefore,
        _ => test,
    };

    /// <summary>What is said as a value of that type; null where it is none.</summary>
    internal Comparand? Value(Node said, FieldType type, Subject? of = null) => (said, type) switch
    {
        (Node.Amount amount, NumberType number) => InUnit(amount, number.Unit) is { } fitting ? new Literal(new Number(fitting)) : null,
        (Node.Amount { Unit: null or "money" } amount, MoneyType) => new Literal(new Number(amount.Number)),
        (Node.Other { Comparand: SubjectComparand { Subject: var subject } } other, _) => subject != of && types.Of(subject) is { } its && FittingTests.AreComparable(type, its) ? other.Comparand : null,
        (Node.Other { Comparand: RelativeDay } other, DateType or DateTimeType) => other.Comparand,
        (Node.Other { Comparand: ExpressionComparand } other, DateType or DateTimeType or NumberType or MoneyType) => other.Comparand,
        (Node.Other { Comparand: Literal { Value: Text } } other, DateType) => other.Comparand,
        (Node.Quoted { Text: var text }, TextType or LongTextType) => new Literal(new Text(text)),
        (Node.Choices { Keys: [var key], Field.Type: var its }, IOffersOptions offering) when ReferenceEquals(its, offering) => new Literal(new Text(key)),
        (Node.Settings { Subject: PersonSubject, Keys: [var account] }, PersonType) => new Literal(new Text(account)),
        (Node.Said { Cue: Cue.Yes }, YesNoType) => new Literal(new YesNo(true)),
        (Node.Said { Cue: Cue.NoAnswer or Cue.No }, YesNoType) => new Literal(new YesNo(false)),
        _ => null,
    };

    private static decimal? InUnit(Node.Amount amount, string? unit)
    {
        var meant = Unit(unit ?? "");
        return amount.Unit is null || amount.Unit == meant ? amount.Number
            : Units.TryGetValue((amount.Unit, meant), out var times) ? amount.Number * times
            : null;
    }

    /// <summary>A unit as it is known here, however it was written.</summary>
    internal static string Unit(string said) => said.ToLowerInvariant() switch
    {
        "day" or "days" or "d" => "days",
        "week" or "weeks" => "weeks",
        "month" or "months" => "months",
        "year" or "years" => "years",
        "hour" or "hours" or "h" => "hours",
        "metre" or "metres" or "meter" or "meters" or "m" => "m",
        "centimetre" or "centimetres" or "centimeter" or "centimeters" or "cm" => "cm",
        "millimetre" or "millimetres" or "mm" => "mm",
        "kg" or "kilo" or "kilos" or "kilogram" or "kilograms" => "kg",
        "ton" or "tons" or "tonne" or "tonnes" => "t",
        "gram" or "grams" => "g",
        "percent" or "%" or "pct" => "%",
        "eur" or "euro" or "euros" or "€" or "chf" or "usd" or "dollars" or "gbp" or "pounds" or "$" or "£" => "money",
        var other => other,
    };

    /// <summary>A day counted from today, where that is what the amount counts.</summary>
    internal static RelativeDay? FromToday(Node.Amount amount, int sign) => amount.Number == Math.Truncate(amount.Number) && Math.Abs(amount.Number) < 100_000
        ? amount.Unit switch
        {
            "days" => new((int)amount.Number * sign),
            "weeks" => new((int)amount.Number * 7 * sign),
            "months" => new((int)amount.Number * sign, DayUnit.Months),
            "years" => new((int)amount.Number * sign, DayUnit.Years),
            _ => null,
        }
        : null;

    /// <summary>So long after a day that a field holds, as an expression.</summary>
    internal static ExpressionComparand? After(Node.Amount amount, Subject subject, char sign) => (FromToday(amount, 1), subject) switch
    {
        ({ } count, FieldSubject { Part: null, Saved: false, Field: var key }) =>
            new(string.Create(CultureInfo.InvariantCulture, $"{key} {sign} duration(\"P{count.Amount}{count.Unit.ToString()[0]}\")")),
        _ => null,
    };
}
