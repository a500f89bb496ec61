using System.Globalization;
using System.Text;
using Dibujo.Core.Conditions;
using Dibujo.Core.Expressions;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Sentences;

/// <summary>Writes subjects, values and expressions as they stand in a sentence.</summary>
internal sealed class ValueWriter(Names names)
{
    internal string Subject(Subject subject) => subject switch
    {
        FieldSubject field => (field.Saved ? Names.SavedValue + " " : "") + names.Fields.Write(field.Field) + Part(names.Subjects.Field(field.Field)?.Type, field.Part),
        LinkedSubject linked => Linked(linked),
        _ => Names.SettingName(subject) ?? "…",
    };

    internal string Of(Comparand comparand, FieldType? type) => comparand switch
    {
        Literal { Value.IsBlank: true } => "…",
        Literal { Value: Choices { Keys: [var only] } } when type is ChoicesType => $"{Names.Just} {names.Options(type).Write(only)}",
        Literal { Value: var value } => type is null ? value.Plain : Literal(type.Fit(value) ?? value, type),
        SubjectComparand { Subject: var subject } => $"{Names.ValueOf} {Subject(subject)}",
        RelativeDay { Amount: 0, Unit: DayUnit.Days } => "today",
        RelativeDay day => string.Create(CultureInfo.InvariantCulture,
            $"today {(day.Amount < 0 ? "minus" : "plus")} {Math.Abs((long)day.Amount)} {Unit(day)}"),
        ExpressionComparand { Expression: var expression } => $"{{{WithLabelsInExpression(expression)}}}",
        _ => throw new ArgumentOutOfRangeException(nameof(comparand)),
    };

    /// <summary>A message's text with labels in braces in place of keys.</summary>
    internal string WithLabels(string text)
    {
        var written = new StringBuilder();
        for (var at = 0; at < text.Length; at++)
        {
            if (text[at] == '{' && text.IndexOf('}', at) is > 0 and var end && Braced(text[(at + 1)..end]) is { } label)
            {
                written.Append('{').Append(label).Append('}');
                at = end;
            }
            else
            {
                written.Append(text[at]);
            }
        }

        return written.ToString();
    }

    /// <summary>The label that stands for a key in a message; the key itself where its label would be read otherwise.</summary>
    private string? Braced(string key) => names.Subjects.Field(key) is not { } field ? null
        : names.Fields.Write(key) == field.Label && !names.Fields.Has(field.Label) ? field.Label
        : key;

    internal static string Unit(RelativeDay day) => (Math.Abs((long)day.Amount) == 1, day.Unit) switch
    {
        (true, DayUnit.Days) => "day",
        (true, DayUnit.Months) => "month",
        (true, DayUnit.Years) => "year",
        (_, DayUnit.Days) => "days",
        (_, DayUnit.Months) => "months",
        _ => "years",
    };

    private string Literal(Value value, FieldType type) => (value, type) switch
    {
        (Choice choice, IOffersOptions) => names.Options(type).Write(choice.Key),
        (Choices choices, IOffersOptions) => string.Join(" + ", choices.Keys.Select(names.Options(type).Write)),
        (Link link, _) => $"No. {link.Plain}",
        (Text or Person, _) => NameList.Quote(value.Plain),
        (Compound compound, CompoundType whole) =>
            $"({string.Join(", ", compound.Parts.Select(p => $"{whole.FindPart(p.Key)?.Label ?? p.Key} {NameList.Quote(p.Value)}"))})",
        _ => type.Display(value),
    };

    private string Linked(LinkedSubject linked)
    {
        if (names.Subjects.Path(linked) is not { } path)
        {
            return string.Join($" {Names.Step} ", [.. linked.Via, linked.Field]);
        }

        var written = new StringBuilder(names.Fields.Write(path[0].Key));
        for (var i = 1; i < path.Length; i++)
        {
            written.Append($" {Names.Step} ").Append(names.FieldsOf(((LinkType)path[i - 1].Type).RecordType).Write(path[i].Key));
        }

        return written + Part(path[^1].Type, linked.Part);
    }

    private static string Part(FieldType? whole, string? part) => part is null ? ""
        : $" {Names.Step} {(whole is CompoundType compound ? Names.Parts(compound).Write(part) : part)}";

    /// <summary>The expression with «labels» in place of names.</summary>
    private string WithLabelsInExpression(string text)
    {
        if (Expression.Parse(text).Problem is not null)
        {
            return text;
        }

        var tokens = Lexer.Cut(text);
        var written = new StringBuilder();
        var at = 0;
        for (var i = 0; i < tokens.Count; i++)
        {
            if (tokens[i].Kind != TokenKind.Word || (i > 0 && tokens[i - 1] is { Kind: TokenKind.Mark, Content: "." }))
            {
                continue;
            }

            var end = tokens[i].Place + tokens[i].Content.Length;
            var name = tokens[i].Content;
            var last = i;
            while (last + 2 < tokens.Count && tokens[last + 1] is { Content: ".", Kind: TokenKind.Mark } point && point.Place == end
                && tokens[last + 2] is { Kind: TokenKind.Word } word && word.Place == end + 1
                && NameResolution.Resolve($"{name}.{word.Content}", names.Subjects) is not null)
            {
                name = $"{name}.{word.Content}";
                end = word.Place + word.Content.Length;
                last += 2;
            }

            if (NameResolution.Resolve(name, names.Subjects) is { } subject && InExpression(subject) is { } label)
            {
                written.Append(text, at, tokens[i].Place - at).Append('«').Append(label).Append('»');
                at = end;
                i = last;
            }
        }

        return written.Append(text, at, text.Length - at).ToString();
    }

    /// <summary>The subject as it stands between «»; null where a label would not be read back.</summary>
    private string? InExpression(Subject subject)
    {
        var label = Subject(subject);
        return label.AsSpan().ContainsAny("«»“#") ? null : label;
    }
}
