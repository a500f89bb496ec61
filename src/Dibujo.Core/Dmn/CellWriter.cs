using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Expressions;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Schemas;
using Dibujo.Core.Sentences;
using Dibujo.Core.Values;
using static Dibujo.Core.Conditions.Test;

namespace Dibujo.Core.Dmn;

/// <summary>Writes the cells below one driver as unary tests of FEEL that hold for the same values as here.</summary>
/// <remarks>
/// In FEEL capitals differ from small letters, two blanks are equal, and what is neither true nor false passes where the input is
/// blank. So text is compared in small letters, what may be blank is asked for, and a test that may come to nothing is compared with true.
/// </remarks>
internal sealed class CellWriter(Subject driver, FieldType type, SubjectTypes subjects)
{
    /// <summary>How a text is freed of the space around it: what stands before it and after it.</summary>
    internal const string TrimStart = "replace(";

    /// <summary>See <see cref="TrimStart"/>.</summary>
    internal const string TrimEnd = """, "^[ \t\n\r]+|[ \t\n\r]+$", "")""";

    private bool IsText => type is TextType or LongTextType or PersonType;

    private bool IsList => driver is RoleSubject || type is ChoicesType;

    /// <summary>The test; throws where DMN has none that means the same.</summary>
    internal string Write(Cell cell)
    {
        if (cell.Test is not { } test)
        {
            return "-";
        }

        if (driver is StageSubject && test is Before or After or FromOn)
        {
            throw new UnsayableException("stages have an order that DMN does not know.");
        }

        if (cell.Comparands.Length > 1 && cell.Comparands.Any(c => c is ExpressionComparand))
        {
            throw new UnsayableException("an expression stands in a cell beside other values.");
        }

        return test switch
        {
            Test.Blank => "null",
            FilledIn => "not(null)",
            IsNot or NoneOf => Not(Equal(cell.Comparands)),
            DoesNotContain => Not([Within("contains", "?", cell)]),
            DoesNotStartWith => Not([Within("starts with", Trimmed("?"), cell)]),
            NotBetween => Not([$"({Within(cell.Comparands)}) = true"]),
            IncludesNone => Not(cell.Comparands.SelectMany(Includes)),
            Is or OneOf => string.Join(", ", Equal(cell.Comparands)),
            Contains => Within("contains", "?", cell),
            StartsWith => Within("starts with", Trimmed("?"), cell),
            Between when IsRange(cell.Comparands) => $"[{Side(cell.Comparands[0])}..{Side(cell.Comparands[1])}]",
            Between => $"({Within(cell.Comparands)}) = true",
            IncludesAny => string.Join(", ", cell.Comparands.SelectMany(Includes)),
            LessThan or Before => $"< {Side(cell.Comparands[0])}",
            AtMost or OnOrBefore => $"<= {Side(cell.Comparands[0])}",
            MoreThan or After => $"> {Side(cell.Comparands[0])}",
            AtLeast or FromOn => $">= {Side(cell.Comparands[0])}",
            _ => throw new UnsayableException($"“{Wording.Of(test)}” has no form in a DMN cell."),
        };
    }

    private static string Not(IEnumerable<string> tests) => $"not({string.Join(", ", tests)})";

    private IEnumerable<string> Equal(ImmutableArray<Comparand> comparands) => comparands.SelectMany(comparand => comparand switch
    {
        _ when IsList => Includes(comparand),
        _ when IsText && IsThere(comparand) => [$"lower case({Trimmed("?")}) = lower case({Side(comparand)})"],
        _ when IsText => [$"? != null and lower case({Trimmed("?")}) = lower case({Side(comparand)})"],
        _ when IsThere(comparand) => [Side(comparand)],
        // There "false" and "is not the same" cannot be told apart.
        _ when type is YesNoType => throw new UnsayableException("an answer is compared with something other than yes or no."),
        _ => [$"? != null and ? = {Side(comparand)}"],
    });

    private string Within(string function, string input, Cell cell) => cell.Comparands[0] is ExpressionComparand
        ? throw new UnsayableException("an expression stands in a test of text.")
        : $"{function}(lower case({input}), lower case({Side(cell.Comparands[0])})) = true";

    private string Within(ImmutableArray<Comparand> ends) => $"? >= {Side(ends[0])} and ? <= {Side(ends[1])}";

    /// <summary>Whether two ends make a range of FEEL, which takes the lower for the first whatever is written.</summary>
    private static bool IsRange(ImmutableArray<Comparand> ends) => ends is [Literal { Value: Number low }, Literal { Value: Number high }]
        ? low.Amount <= high.Amount
        : ends is [Literal { Value: Text from }, Literal { Value: Text to }] && string.CompareOrdinal(from.Content, to.Content) <= 0;

    private IEnumerable<string> Includes(Comparand comparand) => comparand switch
    {
        Literal { Value: Choices { Keys: var keys } } => keys.Select(Includes),
        Literal { Value: var one } => [Includes(one.Plain)],
        SubjectComparand { Subject: var other } when subjects.Of(other) is ChoiceType => [$"list contains(?, {Side(comparand)}) = true"],
        _ => throw new UnsayableException("several choices are compared with several others."),
    };

    private static string Includes(string key) => $"list contains(?, {DmnWriter.Quote(key)}) = true";

    /// <summary>Whether the comparand is never blank.</summary>
    private static bool IsThere(Comparand comparand) => comparand is Literal or RelativeDay;

    private string Side(Comparand comparand)
    {
        if (type is DateType or DateTimeType && IsDay(comparand) is { } isDay && isDay != type is DateType)
        {
            throw new UnsayableException("a day stands beside a moment.");
        }

        return comparand switch
        {
            Literal { Value: Text { Content: var text } } when IsText => DmnWriter.Quote(text.Trim()),
            Literal { Value: var value } => type is DateType or DateTimeType ? $"@{DmnWriter.Quote(value.Plain)}" : DmnWriter.Feel(value),
            SubjectComparand { Subject: var subject } => Trimmed(DmnWriter.Name(subject) ?? throw new UnsayableException("it looks at a saved value.")),
            RelativeDay day => DmnWriter.Feel(day),
            ExpressionComparand { Expression: var text } => type switch
            {
                NumberType { Scale: var scale } => Rounded(text, scale),
                MoneyType => Rounded(text, 2),
                _ => Trimmed(text),
            },
            _ => throw new ArgumentOutOfRangeException(nameof(comparand)),
        };
    }

    private string Trimmed(string text) => IsText ? TrimStart + text + TrimEnd : text;

    /// <summary>As the engine has it: to the digits that are kept, halves away from zero.</summary>
    private static string Rounded(string expression, int scale) => string.Create(CultureInfo.InvariantCulture, $"round half up({expression}, {scale})");

    /// <summary>Whether the comparand is a day, and no moment; null where that is not asked.</summary>
    private bool? IsDay(Comparand comparand) => comparand switch
    {
        RelativeDay => true,
        SubjectComparand { Subject: var subject } => subjects.Of(subject) is DateType,
        ExpressionComparand { Expression: var text } => Expression.Parse(text).Expression?.Check(
            name => NameResolution.Resolve(name, subjects) is { } subject ? FeelTypes.Of(subjects.Of(subject)!) : null, _ => { }) == FeelType.Date,
        _ => null,
    };
}
