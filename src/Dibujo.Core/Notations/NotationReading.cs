using System.Globalization;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Notations;

/// <summary>Reads what a person has written into a field, a cell, a filter or a file, in whichever usual way. The only place where text becomes a value.</summary>
public static class NotationReading
{
    /// <summary>What the text is. Limits of the type are not looked at: see <see cref="FieldType.Violation"/>.</summary>
    /// <param name="notation">How its writer writes.</param>
    /// <param name="text">What was written.</param>
    /// <param name="type">What it is to be.</param>
    /// <param name="names">What people and records are called.</param>
    /// <param name="today">The day on which it was written.</param>
    public static Reading Read(this Notation notation, string text, FieldType type, IKnownNames names, DateOnly today)
    {
        var plain = text.Trim();
        return plain.Length == 0 ? Certain(Value.Blank) : type switch
        {
            TextType or LongTextType => Certain(new Text(text)),
            NumberType number => Amount(notation, plain, number.Scale, around => around.Length == 0 || string.Equals(around, number.Unit, StringComparison.OrdinalIgnoreCase), type, names),
            MoneyType money => Amount(notation, plain, 2, around => around.Length == 0 || Currency.Of(around) == money.Currency || string.Equals(around, money.Currency, StringComparison.OrdinalIgnoreCase), type, names),
            YesNoType => (plain switch { "1" => true, "0" => false, _ => Answer.Of(plain) }) is { } isYes ? Certain(new YesNo(isYes)) : new Reading.None($"“{Excerpt.Of(plain)}” is neither yes nor no. Write one of them."),
            DateType => Reading.Among([.. DayReader.Read(plain, notation, today).Select(day => Possible(new Date(day), Unmistakable(day)))], () => NoDay(plain, notation)),
            DateTimeType => Reading.Among([.. MomentReader.Read(plain, notation, today).Select(at => Possible(new Moment(at), $"{Unmistakable(DateOnly.FromDateTime(at))}, {at.ToString("HH:mm", CultureInfo.InvariantCulture)}"))], () => NoMoment(plain, notation)),
            ChoiceType choice => Option(choice, plain) is { } key ? Certain(new Choice(key)) : Unknown(choice, plain),
            ChoicesType choices => Several(choices, plain),
            FullNameType => FullName(plain, notation),
            AddressType => Address(plain, notation),
            LinkType link => Record(plain, link, names),
            PersonType => Person(plain, names),
            _ => type.Fit(new Text(plain)) is { } fitted ? Certain(fitted) : new Reading.None($"“{Excerpt.Of(plain)}” cannot be read. Give {type.Noun}."),
        };
    }

    /// <summary>
    /// What somebody gave for a field, be it a value or what was typed: text is read where the type does not hold it as it is. Names of people are
    /// looked up, as any text would do for one; where nobody is called so it is taken for an account's, for others to doubt.
    /// </summary>
    public static Reading Take(this Notation notation, Value given, FieldType type, IKnownNames names, DateOnly today) =>
        given is Text { Content: var text } && (type is PersonType || type.Fit(given) is null)
            && notation.Read(text, type, names, today) is var reading && !(type is PersonType && reading is Reading.None) ? reading
        : type.Fit(given) is { } fitted ? Certain(fitted)
        : new Reading.None($"This field takes {type.Noun}.");

    private static Reading.Of Certain(Value value) => new(value);

    private static Reading.Choice Possible(Value value, string text) => new(value, text);

    /// <summary>A day with its month in words, whatever the notation.</summary>
    private static string Unmistakable(DateOnly day) => Notation.Plain.Day(day);

    private static string NoDay(string text, Notation notation) =>
        $"“{Excerpt.Of(text)}” is no day. Write one such as {notation.Day(new DateOnly(2027, 3, 31))}, or today.";

    private static string NoMoment(string text, Notation notation) =>
        $"“{Excerpt.Of(text)}” is no day with a time. Write one such as {notation.Moment(new DateTime(2027, 3, 31, 14, 30, 0, DateTimeKind.Unspecified))}.";

    private static Reading Amount(Notation notation, string text, int scale, Func<string, bool> fits, FieldType type, IKnownNames names)
    {
        var found = AmountReader.Read(text, notation, scale);
        return found.Count > 0 && !fits(found[0].Around)
            ? new Reading.None($"“{Excerpt.Of(found[0].Around)}” is not what this field counts. Give {type.Noun}{(type is MoneyType { Currency: var currency } ? $" in {currency}" : type is NumberType { Unit: { Length: > 0 } unit } ? $" of {unit}" : "")}.")
            : Reading.Among([.. found.Select(one => Possible(new Number(one.Amount), notation.Write(new Number(one.Amount), type, names)))], () => $"“{Excerpt.Of(text)}” is no number. Write one such as {notation.Amount(1234.5m)}.");
    }

    /// <summary>Key of the choice that is called so, or has that key; null for none, or for several.</summary>
    private static string? Option(IOffersOptions type, string text)
    {
        var folded = FoldedText.Of(text);
        var called = type.Options.Where(option => FoldedText.Of(option.Label) == folded).ToList();
        return called is [{ Key: var key }] ? key
            : OptionList.Find(type.Options, text.Trim())?.Key
            ?? (called.Count == 0 && type.Options.Where(option => FoldedText.Of(option.Key) == folded).ToList() is [{ Key: var alike }] ? alike
            : text.Contains('"', StringComparison.Ordinal) && Items.Split(text) is [var only] && only != text ? Option(type, only) : null);
    }

    private static Reading.None Unknown(IOffersOptions type, string text) =>
        new($"“{Excerpt.Of(text)}” is none of the choices: {string.Join(", ", type.Options.Where(option => !option.Retired).Select(option => option.Label).Take(20))}.");

    /// <summary>Choices one after the other; a label with a comma in it may stand without quotation marks.</summary>
    private static Reading Several(ChoicesType type, string text)
    {
        if (Option(type, text) is { } single)
        {
            return Certain(new Choices([single]));
        }

        var items = Items.Split(text).Where(item => item.Length > 0).ToList();
        var keys = new List<string>();
        for (var at = 0; at < items.Count;)
        {
            var length = items.Count - at;
            string? key = null;
            while (length > 0 && (key = Option(type, string.Join(", ", items.Skip(at).Take(length)))) is null)
            {
                length--;
            }

            if (key is null)
            {
                return Unknown(type, items[at]);
            }

            keys.Add(key);
            at += length;
        }

        return Certain(new Choices([.. keys.Distinct(StringComparer.Ordinal)]));
    }

    /// <summary>With a comma, the family name stands before it. Of three words or more nobody knows where one ends and the other begins.</summary>
    private static Reading FullName(string text, Notation notation)
    {
        var parts = Items.Split(text);
        if (parts.Count == 2)
        {
            return Certain(Parted(("given", parts[1]), ("family", parts[0])));
        }

        string[] words = text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries);
        if (parts.Count > 2 || text.Contains('"', StringComparison.Ordinal))
        {
            return new Reading.None($"“{Excerpt.Of(text)}” has more than one comma. Write a family name, a comma, and a given name.");
        }

        // The one with the shortest family name first: so it is where nobody is asked.
        List<Reading.Choice> possible = words.Length == 1
            ? [NameOf("", words[0])]
            : [.. Enumerable.Range(1, words.Length - 1).Reverse().Select(cut => NameOf(string.Join(' ', words[..cut]), string.Join(' ', words[cut..])))];
        return notation.IsDecided ? Certain(possible[0].Value) : Reading.Among(possible, () => "");
    }

    private static Reading.Choice NameOf(string given, string family) => new(Parted(("given", given), ("family", family)), $"{family}, {given}");

    /// <summary>Four parts with commas between, or three with the postal code before the city; what stands alone is the street.</summary>
    private static Reading Address(string text, Notation notation)
    {
        var parts = Items.Split(text);
        switch (parts.Count)
        {
            case 1:
                return Certain(Parted(("street", parts[0])));
            case 2:
                var (code, city) = Town(parts[1]);
                List<Reading.Choice> possible = code.Length > 0
                    ? [new(Parted(("street", parts[0]), ("postalCode", code), ("city", city)), $"{parts[0]}, {code}, {city}, ")]
                    : [new(Parted(("street", parts[0]), ("city", city)), $"{parts[0]}, , {city}, "), new(Parted(("street", parts[0]), ("country", city)), $"{parts[0]}, , , {city}")];
                return notation.IsDecided ? Certain(possible[0].Value) : Reading.Among(possible, () => "");
            case 3:
                var town = Town(parts[1]);
                return Certain(Parted(("street", parts[0]), ("postalCode", town.Code), ("city", town.City), ("country", parts[2])));
            case 4:
                return Certain(Parted(("street", parts[0]), ("postalCode", parts[1]), ("city", parts[2]), ("country", parts[3])));
            default:
                return new Reading.None($"“{Excerpt.Of(text)}” has more than four parts. Write street, postal code, city and country with commas between; one with a comma in it in quotation marks.");
        }
    }

    private static (string Code, string City) Town(string text) =>
        text.Split(' ', 2) is [var first, var rest] && NotationWriting.IsPostalCode(first) ? (first, rest.Trim())
        : NotationWriting.IsPostalCode(text) ? (text, "") : ("", text);

    private static Compound Parted(params (string Part, string Text)[] parts) =>
        parts.Aggregate(Compound.Empty, (value, part) => value.With(part.Part, new Text(part.Text)));

    /// <summary>By its number, which stands alone, behind "No." or at the end in brackets; or by what it is called.</summary>
    private static Reading Record(string text, LinkType type, IKnownNames names)
    {
        var bare = text.EndsWith(')') && text.LastIndexOf("(No. ", StringComparison.OrdinalIgnoreCase) is >= 0 and var at ? text[(at + 5)..^1]
            : text.StartsWith("No. ", StringComparison.OrdinalIgnoreCase) ? text[4..] : text;
        if (int.TryParse(bare.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var number) && number > 0)
        {
            return Certain(new Link(number));
        }

        return Reading.Among(
            [.. names.RecordsCalled(type.RecordType, text).Select(found => Possible(new Link(found), string.Create(CultureInfo.InvariantCulture, $"No. {found}")))],
            () => $"No record is called “{Excerpt.Of(text)}”. Give its number, such as No. 12.");
    }

    private static Reading Person(string text, IKnownNames names)
    {
        var account = text.EndsWith(')') && text.LastIndexOf(" (", StringComparison.Ordinal) is > 0 and var at ? text[(at + 2)..^1] : text;
        if (account != text && names.PeopleCalled(account) is [var known])
        {
            return Certain(new Person(known));
        }

        return Reading.Among([.. names.PeopleCalled(text).Select(found => Possible(new Person(found), $"{names.NameOf(found)} ({found})"))], () => $"Nobody is called “{Excerpt.Of(text)}”. Give the name of a person who signs in here.");
    }
}
