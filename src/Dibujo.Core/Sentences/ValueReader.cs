using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Sentences;

/// <summary>Reads subjects and comparands, as <see cref="ValueWriter"/> writes them. Values come out bare, as from JSON.</summary>
internal sealed partial class ValueReader(SentenceReader reader, Names names)
{
    internal Subject DemandSubject()
    {
        var saved = reader.Take(Names.SavedValue);
        var start = reader.At;
        var setting = saved ? null : reader.TakeBare(names.SettingNames, PartKind.Subject);
        var afterSetting = reader.At;
        reader.At = start;
        var field = reader.TakeName(names.Fields, PartKind.Subject);
        if (setting is not null && (field is null || afterSetting >= reader.At))
        {
            reader.At = afterSetting;
            return Names.Setting(setting);
        }

        return field is null ? throw reader.Fail() : Follow(field, saved);
    }

    /// <summary>Takes the part of a field that is named after it; null where none is.</summary>
    internal string? TakePart(string field) =>
        names.Subjects.Field(field)!.Type is CompoundType compound && reader.Take(Names.Step) ? DemandPart(compound) : null;

    internal string DemandField() => reader.TakeName(names.Fields, PartKind.Target) ?? throw reader.Fail();

    /// <summary>What a subject of that type is compared with, or a field of it is given.</summary>
    internal Comparand DemandComparand(FieldType type)
    {
        // What is fixed is most likely and offered first.
        if (TryLiteral(type) is { } literal)
        {
            return new Literal(literal);
        }

        if (type is DateType or DateTimeType && reader.Take("today", PartKind.Comparand))
        {
            return Day();
        }

        if (reader.Take(Names.ValueOf, PartKind.Comparand))
        {
            return new SubjectComparand(DemandSubject());
        }

        return reader.TakeBraced() is { } expression ? new ExpressionComparand(WithKeys(expression)) : throw reader.Fail();
    }

    /// <summary>A message's text with keys in braces in place of labels.</summary>
    internal string WithKeys(string text, char open, char close)
    {
        var read = new StringBuilder();
        for (var at = 0; at < text.Length; at++)
        {
            if (text[at] == open && text.IndexOf(close, at) is > 0 and var end && Key(text[(at + 1)..end]) is { } key)
            {
                read.Append(open).Append(key).Append(close);
                at = end;
            }
            else
            {
                read.Append(text[at]);
            }
        }

        return read.ToString();

        string? Key(string label) => !names.Fields.Has(label) && names.Fields.Match(label, 0) is var (key, length) && length == label.Length ? key : null;
    }

    internal string DemandMessage(string hint) => WithKeys(reader.DemandText(hint), '{', '}');

    internal ImmutableArray<string> DemandOptions(FieldType type)
    {
        if (reader.Take("nothing"))
        {
            return [];
        }

        var list = names.Options(type);
        return DemandList("or", () => reader.TakeName(list, PartKind.Comparand) ?? throw reader.Fail());
    }

    /// <summary>One item or more: commas between, and a word before the last.</summary>
    internal ImmutableArray<T> DemandList<T>(string last, Func<T> demandItem, Func<bool>? ends = null)
    {
        var items = ImmutableArray.CreateBuilder<T>();
        items.Add(demandItem());
        while (reader.Take(","))
        {
            items.Add(demandItem());
        }

        var before = reader.At;
        if (!reader.Take(last))
        {
            return items.ToImmutable();
        }

        if (ends?.Invoke() ?? false)
        {
            // The word belongs to what comes after the list.
            reader.At = before;
            return items.ToImmutable();
        }

        items.Add(demandItem());
        return items.ToImmutable();
    }

    private Subject Follow(string field, bool saved)
    {
        var type = names.Subjects.Field(field)!.Type;
        if (type is CompoundType compound)
        {
            return new FieldSubject(field, reader.Take(Names.Step) ? DemandPart(compound) : null, saved);
        }

        var via = ImmutableArray.Create(field);
        while (!saved && type is LinkType link && names.Type.FieldsOf(link.RecordType) is { } there && reader.Take(Names.Step))
        {
            var next = reader.TakeName(names.FieldsOf(link.RecordType), PartKind.Subject) ?? throw reader.Fail();
            type = there.First(f => f.Key == next).Type;
            if (type is CompoundType whole)
            {
                return new LinkedSubject(via, next, reader.Take(Names.Step) ? DemandPart(whole) : null);
            }

            if (via.Length == LinkedSubject.MostLinks || type is not LinkType || !reader.IsAhead(Names.Step))
            {
                reader.Expect(Names.Step, PartKind.Keyword);
                return new LinkedSubject(via, next);
            }

            via = via.Add(next);
        }

        return new FieldSubject(field, Saved: saved);
    }

    private string DemandPart(CompoundType compound) => reader.TakeName(Names.Parts(compound), PartKind.Subject) ?? throw reader.Fail();

    private RelativeDay Day()
    {
        var sign = reader.Take("plus") ? 1 : reader.Take("minus") ? -1 : 0;
        if (sign == 0)
        {
            return new(0);
        }

        var number = reader.Take(Whole(), "a whole number") ?? throw reader.Fail();
        var amount = long.Parse(number.Value, CultureInfo.InvariantCulture) * sign;
        DayUnit? unit = reader.Take("days") || reader.Take("day") ? DayUnit.Days
            : reader.Take("months") || reader.Take("month") ? DayUnit.Months
            : reader.Take("years") || reader.Take("year") ? DayUnit.Years
            : null;
        return amount is >= int.MinValue and <= int.MaxValue && unit is { } known ? new((int)amount, known) : throw reader.Fail();
    }

    private Value? TryLiteral(FieldType type)
    {
        switch (type)
        {
            case YesNoType:
                return reader.Take("yes", PartKind.Comparand) ? new YesNo(true) : reader.Take("no", PartKind.Comparand) ? new YesNo(false) : null;
            case ChoicesType:
                return TryChoices(names.Options(type));
            case ChoiceType:
                return reader.TakeName(names.Options(type), PartKind.Comparand) is { } key ? new Text(key) : null;
            case NumberType number:
                return TryNumber("a number", null, number.Unit);
            case MoneyType money:
                return TryNumber("an amount", money.Currency, null);
            case LinkType:
                reader.Take("No.");
                return TryNumber("the number of a record", null, null);
            case DateType:
                return TryDate();
            case DateTimeType:
                return TryMoment();
            case CompoundType compound:
                return TryCompound(compound);
            default:
                return reader.TakeText("text in quotation marks") is { } text ? new Text(text) : null;
        }
    }

    private Value? TryChoices(NameList list)
    {
        if (reader.Take(Names.Just, PartKind.Comparand))
        {
            return new Choices([reader.TakeName(list, PartKind.Comparand) ?? throw reader.Fail()]);
        }

        if (reader.TakeName(list, PartKind.Comparand) is not { } first)
        {
            return null;
        }

        var keys = ImmutableArray.Create(first);
        while (reader.Take("+"))
        {
            keys = keys.Add(reader.TakeName(list, PartKind.Comparand) ?? throw reader.Fail());
        }

        return keys.Length == 1 ? new Text(first) : new Choices(keys);
    }

    private Number? TryNumber(string hint, string? before, string? after)
    {
        var start = reader.At;
        if (before is not null)
        {
            reader.Take(before);
        }

        if (reader.Take(Amount(), hint) is not { } match)
        {
            reader.At = start;
            return null;
        }

        if (!ExactDecimal.TryParseGrouped(match.Value, out var amount))
        {
            throw reader.Fail(start);
        }

        if (!string.IsNullOrEmpty(after))
        {
            reader.Take(after);
        }

        return new(amount);
    }

    private Text? TryDate()
    {
        var start = reader.At;
        return reader.Take(DayPattern(), "a date such as 24 Nov 2026") is { } match
            ? DateOnly.TryParseExact(match.Value, ["d MMM yyyy", "yyyy-MM-dd"], CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
                ? new(new Date(day).Plain)
                : throw reader.Fail(start)
            : null;
    }

    private Text? TryMoment()
    {
        var start = reader.At;
        return reader.Take(MomentPattern(), "a date and time such as 24 Nov 2026 09:30") is { } match
            ? DateTime.TryParseExact(match.Value,
                ["d MMM yyyy HH:mm", "d MMM yyyy HH:mm:ss", "yyyy-MM-dd'T'HH:mm", "yyyy-MM-dd'T'HH:mm:ss"], CultureInfo.InvariantCulture, DateTimeStyles.None, out var at)
                ? new(new Moment(at).Plain)
                : throw reader.Fail(start)
            : null;
    }

    private Compound? TryCompound(CompoundType type)
    {
        if (!reader.Take("("))
        {
            return null;
        }

        var compound = Compound.Empty;
        do
        {
            var part = DemandPart(type);
            compound = compound.With(part, new Text(reader.DemandText("text in quotation marks")));
        }
        while (reader.Take(","));
        reader.Demand(")");
        return compound;
    }

    /// <summary>The expression with names in place of «labels».</summary>
    private string WithKeys(string expression)
    {
        var read = new StringBuilder();
        for (var at = 0; at < expression.Length; at++)
        {
            if (expression[at] != '«' || expression.IndexOf('»', at) is not (> 0 and var end))
            {
                read.Append(expression[at]);
                continue;
            }

            var inner = new SentenceReader(expression[(at + 1)..end]);
            read.Append(new ValueReader(inner, names).DemandSubject() switch
            {
                FieldSubject { Saved: false } field => field.Part is null ? field.Field : $"{field.Field}.{field.Part}",
                LinkedSubject linked => string.Join('.', [.. linked.Via, linked.Field, .. linked.Part is null ? Array.Empty<string>() : [linked.Part]]),
                _ => throw reader.Fail(),
            });
            at = end;
        }

        return read.ToString();
    }

    [GeneratedRegex(@"\G\d{1,10}\b", RegexOptions.None, 1000)]
    private static partial Regex Whole();

    [GeneratedRegex(@"\G-?(\d{1,3}(,\d{3})+|\d+)(\.\d+)?(?![\d])", RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex Amount();

    [GeneratedRegex(@"\G(\d{1,2} [A-Za-z]{3} \d{4}|\d{4}-\d{2}-\d{2})\b", RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex DayPattern();

    [GeneratedRegex(@"\G(\d{1,2} [A-Za-z]{3} \d{4} |\d{4}-\d{2}-\d{2}T)\d{2}:\d{2}(:\d{2})?\b", RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex MomentPattern();
}
