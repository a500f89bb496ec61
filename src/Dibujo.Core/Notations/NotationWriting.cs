using System.Globalization;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Notations;

/// <summary>Writes values as a person does, so that each is read back as it was: see <see cref="NotationReading"/>.</summary>
public static class NotationWriting
{
    /// <summary>The value as it stands in a field, a cell, a file; empty for a blank. Choices by their labels, people and linked records by what they are called, if that is known.</summary>
    public static string Write(this Notation notation, Value value, FieldType type, IKnownNames names) => (value, type) switch
    {
        ({ IsBlank: true }, _) => "",
        (Number { Amount: var amount }, MoneyType { Currency: var currency }) => $"{currency} {notation.Amount(amount, 2, isGrouped: true)}",
        (Number { Amount: var amount }, NumberType number) => notation.Amount(amount, 0, !number.Ungrouped) + (string.IsNullOrEmpty(number.Unit) ? "" : $" {number.Unit}"),
        (YesNo { IsYes: var isYes }, _) => isYes ? "yes" : "no",
        (Date { Day: var day }, _) => notation.Day(day),
        (Moment { At: var at }, _) => notation.Moment(at),
        (Choice choice, IOffersOptions offering) => Called(offering, choice.Key),
        (Choices choices, IOffersOptions offering) => Items.Join(OptionList.InOrder(offering.Options, choices.Keys).Select(key => Called(offering, key))),
        (Link { Record: var number }, LinkType link) => Linked(number, names.TitleOf(link.RecordType, number)),
        (Person { UserName: var account }, _) => PersonCalled(account, names),
        (Compound compound, FullNameType) => FullName(compound),
        (Compound compound, AddressType) => Address(compound),
        (Compound compound, _) => Items.Join(compound.Parts.Values),
        _ => value.Plain,
    };

    /// <summary>A day: 1 Mar 2027.</summary>
    public static string Day(this Notation notation, DateOnly day)
    {
        var (d, m, y) = (day.Day, day.Month, day.Year.ToString("0000", CultureInfo.InvariantCulture));
        return notation.Days.Text
            .Replace("yyyy", "\u0001", StringComparison.Ordinal)
            .Replace("MMM", "\u0002", StringComparison.Ordinal)
            .Replace("MM", m.ToString("00", CultureInfo.InvariantCulture), StringComparison.Ordinal)
            .Replace("M", m.ToString(CultureInfo.InvariantCulture), StringComparison.Ordinal)
            .Replace("dd", d.ToString("00", CultureInfo.InvariantCulture), StringComparison.Ordinal)
            .Replace("d", d.ToString(CultureInfo.InvariantCulture), StringComparison.Ordinal)
            .Replace("\u0001", y, StringComparison.Ordinal)
            .Replace("\u0002", notation.Months[m - 1], StringComparison.Ordinal);
    }

    /// <summary>A day with a time, to the minute, or to the second where it is none of the minute's first.</summary>
    public static string Moment(this Notation notation, DateTime at)
    {
        var seconds = at.Second == 0 ? "" : ":ss";
        return $"{notation.Day(DateOnly.FromDateTime(at))}, {at.ToString(notation.Clock == Clock.Hours12 ? $"h:mm{seconds} tt" : $"HH:mm{seconds}", CultureInfo.InvariantCulture)}";
    }

    /// <summary>A number with all its digits, and with that many after the point at least.</summary>
    public static string Amount(this Notation notation, decimal amount, int leastDigits = 0, bool isGrouped = true)
    {
        var plain = Math.Abs(amount).ToString("0.############################", CultureInfo.InvariantCulture);
        var (whole, fraction) = plain.IndexOf('.', StringComparison.Ordinal) is >= 0 and var point ? (plain[..point], plain[(point + 1)..]) : (plain, "");
        fraction = fraction.PadRight(leastDigits, '0');
        for (var at = whole.Length - 3; isGrouped && at > 0; at -= 3)
        {
            whole = whole.Insert(at, notation.Marks.Group.ToString());
        }

        return $"{(amount < 0 ? "-" : "")}{whole}{(fraction.Length > 0 ? notation.Marks.Point + fraction : "")}";
    }

    /// <summary>What one of several choices is called: its label, or its key where the label is another's as well.</summary>
    internal static string Called(IOffersOptions type, string key)
    {
        if (OptionList.Find(type.Options, key) is not { Label: var label })
        {
            return key;
        }

        var folded = FoldedText.Of(label);
        return type.Options.All(other => other.Key == key || (FoldedText.Of(other.Label) != folded && FoldedText.Of(other.Key) != folded)) ? label : key;
    }

    private static string Linked(int number, string? title) =>
        string.IsNullOrWhiteSpace(title) ? string.Create(CultureInfo.InvariantCulture, $"No. {number}") : string.Create(CultureInfo.InvariantCulture, $"{title} (No. {number})");

    private static string PersonCalled(string account, IKnownNames names) => names.NameOf(account) is not { } name ? account
        : names.PeopleCalled(name) is [var only] && string.Equals(only, account, StringComparison.OrdinalIgnoreCase) ? name
        : $"{name} ({account})";

    /// <summary>Given name and family name where nobody can take one for the other; else the family name, a comma, and the given name.</summary>
    private static string FullName(Compound name)
    {
        var (given, family) = (name["given"].Plain, name["family"].Plain);
        return IsWord(given) && IsWord(family) ? $"{given} {family}"
            : given.Length == 0 && IsWord(family) ? family
            : $"{Items.Write(family)}, {Items.Write(given)}";
    }

    /// <summary>Street, postal code with city, country; with a comma for each part where one is missing, or could be taken for another.</summary>
    private static string Address(Compound address)
    {
        string[] parts = ["street", "postalCode", "city", "country"];
        var all = parts.Select(part => address[part].Plain).ToArray();
        return all is [_, var code, var city, _] && Array.TrueForAll(all, part => part.Length > 0 && Items.Write(part) == part) && IsPostalCode(code) && !char.IsAsciiDigit(city[0])
            ? $"{all[0]}, {code} {city}, {all[3]}"
            : string.Join(", ", all.Select(Items.Write));
    }

    private static bool IsWord(string text) => text.Length > 0 && !text.Any(c => char.IsWhiteSpace(c) || c is ',' or ';' or '"');

    /// <summary>Whether it is one word with a digit in it.</summary>
    internal static bool IsPostalCode(string text) => IsWord(text) && text.Any(char.IsAsciiDigit);
}
