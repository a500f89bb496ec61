using Dibujo.Core.Values;

namespace Dibujo.Core.Expressions;

/// <summary>Finds what an expression could never calculate, before any value is known.</summary>
/// <param name="nameType">The type of what a name stands for; null for an unknown name.</param>
/// <param name="report">Takes each problem.</param>
internal sealed class TypeCheck(Func<string, FeelType?> nameType, Action<ExpressionProblem> report)
{
    /// <summary>The result's type; what is wrong inside counts as <see cref="FeelType.Any"/>, so that it is told once.</summary>
    internal FeelType Check(Syntax syntax)
    {
        switch (syntax)
        {
            case LiteralSyntax literal:
                return Of(literal.Value);
            case NameSyntax or PathSyntax:
                return CheckName(syntax);
            case NegationSyntax negation:
                return Demand(negation.Of, Check(negation.Of), FeelType.Number, FeelType.DaysDuration, FeelType.MonthsDuration);
            case OperationSyntax operation:
                return CheckOperation(operation, Check(operation.Left), Check(operation.Right));
            case BetweenSyntax between:
                var subject = Check(between.Subject);
                DemandComparable(between.Place, subject, Check(between.Low));
                DemandComparable(between.Place, subject, Check(between.High));
                return FeelType.Boolean;
            case InSyntax isIn:
                Check(isIn.Subject);
                foreach (var test in isIn.Tests)
                {
                    Check(test);
                }

                return FeelType.Boolean;
            case IfSyntax choice:
                Demand(choice.Condition, Check(choice.Condition), FeelType.Boolean);
                var then = Check(choice.Then);
                var otherwise = Check(choice.Else);
                return then == FeelType.Any ? otherwise : otherwise == FeelType.Any || then == otherwise ? then : FeelType.Any;
            case ListSyntax list:
                foreach (var item in list.Items)
                {
                    Check(item);
                }

                return FeelType.List;
            case RangeSyntax range:
                DemandComparable(range.Place, Check(range.Low), Check(range.High));
                return FeelType.Range;
            case IndexSyntax index:
                Check(index.List);
                Demand(index.Index, Check(index.Index), FeelType.Number);
                return FeelType.Any;
            case CallSyntax call:
                foreach (var (i, argument) in call.Arguments.Index())
                {
                    Demand(argument, Check(argument), call.Function.Type(i));
                }

                return call.Function is { Name: "abs", Gives: FeelType.Any } ? Check(call.Arguments[0]) : call.Function.Gives;
            default:
                throw new ArgumentOutOfRangeException(nameof(syntax));
        }
    }

    private FeelType CheckName(Syntax syntax)
    {
        if (Evaluator.Dotted(syntax) is { } name)
        {
            if (nameType(name) is { } known)
            {
                return known;
            }

            report(new(syntax.Place, $"There is nothing called “{Excerpt.Of(name)}” here.", "Write the key of a field of this record type."));
            return FeelType.Any;
        }

        var path = (PathSyntax)syntax;
        var of = Check(path.Of);
        if (of is FeelType.Number or FeelType.Text or FeelType.Boolean or FeelType.List or FeelType.Range)
        {
            report(new(path.Place, $"“{path.Property}” cannot be asked of {of.Noun()}.", "Ask it of a date or a duration."));
        }

        return FeelType.Number;
    }

    private FeelType CheckOperation(OperationSyntax operation, FeelType left, FeelType right)
    {
        switch (operation.Operator)
        {
            case "and" or "or":
                Demand(operation.Left, left, FeelType.Boolean);
                Demand(operation.Right, right, FeelType.Boolean);
                return FeelType.Boolean;
            case "=" or "!=" or "<" or "<=" or ">" or ">=":
                DemandComparable(operation.Place, left, right);
                return FeelType.Boolean;
            default:
                if (left == FeelType.Any || right == FeelType.Any)
                {
                    return FeelType.Any;
                }

                if (Result(operation.Operator, left, right) is { } result)
                {
                    return result;
                }

                report(new(operation.Place, $"{Capital(left.Noun())} and {right.Noun()} cannot stand around “{operation.Operator}”.",
                    "Use numbers, or a date and a duration; text is joined with “+”."));
                return FeelType.Any;
        }
    }

    private static FeelType? Result(string op, FeelType left, FeelType right) => (op, left, right) switch
    {
        (_, FeelType.Number, FeelType.Number) => FeelType.Number,
        ("+", FeelType.Text, FeelType.Text) => FeelType.Text,
        ("+" or "-", FeelType.Date or FeelType.DateTime, FeelType.DaysDuration or FeelType.MonthsDuration) => left,
        ("+", FeelType.DaysDuration or FeelType.MonthsDuration, FeelType.Date or FeelType.DateTime) => right,
        ("-", FeelType.Date or FeelType.DateTime, FeelType.Date or FeelType.DateTime) => FeelType.DaysDuration,
        ("+" or "-", FeelType.DaysDuration or FeelType.MonthsDuration, _) when left == right => left,
        ("*" or "/", FeelType.DaysDuration or FeelType.MonthsDuration, FeelType.Number) => left,
        ("*", FeelType.Number, FeelType.DaysDuration or FeelType.MonthsDuration) => right,
        ("/", FeelType.DaysDuration or FeelType.MonthsDuration, _) when left == right => FeelType.Number,
        _ => null,
    };

    private FeelType Demand(Syntax at, FeelType found, params ReadOnlySpan<FeelType> fitting)
    {
        if (found == FeelType.Any || fitting.Contains(FeelType.Any) || fitting.Contains(found))
        {
            return found;
        }

        report(new(at.Place, $"This is {found.Noun()}, where {fitting[0].Noun()} is needed.", $"Write {fitting[0].Noun()} here."));
        return FeelType.Any;
    }

    private void DemandComparable(int place, FeelType left, FeelType right)
    {
        if (left != right && left != FeelType.Any && right != FeelType.Any)
        {
            report(new(place, $"{Capital(left.Noun())} and {right.Noun()} cannot be compared with each other.", "Compare values of the same kind."));
        }
    }

    private static FeelType Of(FeelValue value) => value switch
    {
        FeelNumber => FeelType.Number,
        FeelText => FeelType.Text,
        FeelBoolean => FeelType.Boolean,
        FeelDate => FeelType.Date,
        FeelDateTime => FeelType.DateTime,
        FeelDaysDuration => FeelType.DaysDuration,
        FeelMonthsDuration => FeelType.MonthsDuration,
        _ => FeelType.Any,
    };

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];
}
