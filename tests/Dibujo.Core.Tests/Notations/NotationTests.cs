using CsCheck;
using Dibujo.Core.Notations;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Notations;

/// <summary>Values as people write and read them.</summary>
public sealed class NotationTests
{
    private static readonly DateOnly Today = new(2026, 12, 1);

    private static readonly ChoiceType Material = new([new("glass", "Glass, clear"), new("metal", "Metal"), new("iron", "metal"), new("q", "\"quoted\""), new("semi", "a; b"), new("lead", " lead "), new("comma", "clear")]);

    private static readonly FieldType[] Types =
    [
        new TextType(), new LongTextType(), new NumberType(3, Unit: "kg"), new NumberType(0, Ungrouped: true), new NumberType(28), new MoneyType("EUR", null), new MoneyType("CHF", null), new YesNoType(), new DateType(), new DateTimeType(),
        Material, new ChoicesType(Material.Options), new FullNameType(), new AddressType(), new LinkType("object"), new PersonType(),
    ];

    /// <summary>Languages, and each of them with every way of writing days and numbers.</summary>
    private static readonly Gen<Notation> Ways = Gen.OneOf(
        Any("en-US", "en-GB", "de-DE", "es-ES", "fr-CH", "ja-JP").Select(tag => Notation.Of(tag)),
        Gen.Select(Any<Notation>([.. Languages.All]), Any<DayPattern>([.. DayPattern.All]), Any<NumberMarks>([.. NumberMarks.All]), (known, day, marks) => Notation.Of(known.Language, day.Text, marks.Sample)));

    private static readonly Gen<string> Words = Gen.OneOf(
        Any("Hugo", "Brandt Ferring", "O’Neil, jr.", "de la \"Cruz\"", "20457", "Hamburg", "1 Bis", "a;b", "Straße 5", "12 a", " x ", "Łódź", "\"", "x, \"y\"", "No. 3", "(rosa)", "St. John’s"),
        Gen.String[1, 12].Where(text => !text.Any(char.IsControl) && !BlankText.IsBlank(text)));

    private static Gen<Value> ValuesOf(FieldType type) => type switch
    {
        TextType or LongTextType => Words.Select(text => (Value)new Text(text)),
        NumberType { Scale: var scale } => Gen.Select(Gen.Long[-99_999_999_999, 99_999_999_999], Gen.Int[0, scale], (digits, after) => (Value)new Number(digits / (decimal)Math.Pow(10, Math.Min(after, 8)))),
        MoneyType => Gen.Int.Select(cents => (Value)new Number(cents / 100m)),
        YesNoType => Gen.Bool.Select(isYes => (Value)new YesNo(isYes)),
        DateType => Gen.Int[DateOnly.MinValue.DayNumber, DateOnly.MaxValue.DayNumber].Select(day => (Value)new Date(DateOnly.FromDayNumber(day))),
        DateTimeType => Gen.Select(Gen.Int[0, 3_000_000], Gen.Int[0, 86_399], (day, second) => (Value)new Moment(DateTime.UnixEpoch.AddDays(day / 400).AddSeconds(second % 7 == 0 ? second : second / 60 * 60))),
        ChoiceType choice => Any<Option>([.. choice.Options]).Select(option => (Value)new Choice(option.Key)),
        ChoicesType choices => Gen.Int[1, (1 << choices.Options.Length) - 1].Select(bits => (Value)new Choices([.. choices.Options.Where((_, i) => (bits >> i & 1) == 1).Select(option => option.Key)])),
        CompoundType compound => Gen.Select(Words.Array[compound.Parts.Length], Gen.Int[1, (1 << compound.Parts.Length) - 1], (words, bits) =>
            (Value)compound.Parts.Select((part, i) => (part, i)).Where(p => (bits >> p.i & 1) == 1).Aggregate(Compound.Empty, (value, p) => value.With(p.part.Key, new Text(words[p.i].Trim())))),
        LinkType => Gen.Int[1, 9].Select(number => (Value)new Link(number)),
        _ => Any("rosa", "conrad", "rosa2").Select(account => (Value)new Person(account)),
    };

    [Fact]
    public void What_is_written_is_read_back_as_the_same_value_whatever_the_type_and_the_way() => Gen.Select(Any(Types), Ways)
        .SelectMany((type, way) => ValuesOf(type).Select(value => (type, way, value)))
        .Sample(
            (type, way, value) =>
            {
                var text = way.Write(value, type, new Museum());
                var reading = way.Read(text, type, new Museum(), Today);
                Assert.True(reading.Certain?.Equals(value) == true, $"{type.Noun} in {way.Language} {way.Days.Text} {way.Marks.Sample}: {value} is written “{text}” and read as {reading}");
            },
            iter: Tries.Of("DIBUJO_FUZZ", 5000));

    [Theory]
    [InlineData("en-US", "1.3.2027", "1 Mar 2027")]
    [InlineData("en-US", "3.14.2027", "14 Mar 2027")]
    [InlineData("en-US", "3/1/2027", "1 Mar 2027")]
    [InlineData("en-GB", "3/1/2027", "3 Jan 2027")]
    [InlineData("de-DE", "1.3.2027", "1 Mar 2027")]
    [InlineData("ja-JP", "3/1/2027", "3 Jan 2027|1 Mar 2027")]
    [InlineData("ja-JP", "27/3/1", "1 Mar 2027")]
    [InlineData("ja-JP", "2027年3月1日", "1 Mar 2027")]
    [InlineData("en-US", "25/3/2027", "25 Mar 2027")]
    [InlineData("de-DE", "Mar 1, 2027", "1 Mar 2027")]
    [InlineData("de-DE", "1. März 2027", "1 Mar 2027")]
    [InlineData("es-ES", "1 de marzo de 2027", "1 Mar 2027")]
    [InlineData("fr-CH", "1er août 2027", "1 Aug 2027")]
    [InlineData("en-US", "March 1st, 2027", "1 Mar 2027")]
    [InlineData("en-GB", "2027-03-01", "1 Mar 2027")]
    [InlineData("en-GB", "01032027", "1 Mar 2027")]
    [InlineData("ja-JP", "20270301", "1 Mar 2027")]
    [InlineData("en-GB", "9 mar", "9 Mar 2026")]
    [InlineData("en-GB", "9.3.", "9 Mar 2026")]
    [InlineData("en-GB", "9.3.26", "9 Mar 2026")]
    [InlineData("en-GB", "tomorrow", "2 Dec 2026")]
    [InlineData("en-GB", "+14", "15 Dec 2026")]
    [InlineData("en-GB", "31.2.2026", "")]
    [InlineData("en-GB", "2026-13-01", "")]
    [InlineData("en-GB", "soon", "")]
    [InlineData("en-GB", "12", "")]
    [InlineData("en-GB", "1 2 3 4", "")]
    [InlineData("en-GB", "March", "")]
    [InlineData("en-GB", "1 Mar Apr 2027", "")]
    public void A_day_is_read_by_the_persons_own_setting_and_asked_for_where_that_does_not_tell(string language, string text, string days) =>
        Assert.Equal(days, Possible(language, text, new DateType()));

    [Theory]
    [InlineData("en-US", 2, "1,250.50", "1250.50")]
    [InlineData("en-US", 2, "1.250,50", "1250.50")]
    [InlineData("de-DE", 2, "300.000", "300000")]
    [InlineData("en-US", 2, "300.000", "300.000|300000")]
    [InlineData("en-US", 3, "300.125", "300.125")]
    [InlineData("en-US", 0, "300,000", "300000")]
    [InlineData("de-DE", 2, "300,000", "300.000|300000")]
    [InlineData("fr-CH", 2, "1 250,5", "1250.5")]
    [InlineData("de-CH", 2, "1’250.50", "1250.50")]
    [InlineData("de-CH", 2, "1'250.50", "1250.50")]
    [InlineData("de-CH", 2, "1,250", "1250|1.250")]
    [InlineData("en-US", 2, "1,5", "1.5")]
    [InlineData("en-US", 2, "1,234,567", "1234567")]
    [InlineData("en-US", 2, "1.234.567", "1234567")]
    [InlineData("en-US", 2, "−3", "-3")]
    [InlineData("en-US", 2, "12 kg", "12")]
    [InlineData("en-US", 2, "12 lb", "")]
    [InlineData("en-US", 2, ".5", "0.5")]
    [InlineData("en-US", 2, "98,000120000", "")]
    [InlineData("en-US", 2, "1,23,456", "")]
    [InlineData("en-US", 2, "twelve", "")]
    [InlineData("en-US", 2, "1e5", "")]
    [InlineData("en-US", 2, "-", "")]
    public void A_number_is_read_by_the_persons_own_setting_and_asked_for_where_that_does_not_tell(string language, int scale, string text, string numbers) =>
        Assert.Equal(numbers, Possible(language, text, new NumberType(scale, Unit: "kg")));

    [Theory]
    [InlineData("en-GB", "1.3.2027 14:30", "2027-03-01T14:30:00")]
    [InlineData("en-US", "Mar 1, 2027, 2:30 PM", "2027-03-01T14:30:00")]
    [InlineData("en-US", "3/1/2027 at 2:30 p.m.", "2027-03-01T14:30:00")]
    [InlineData("en-GB", "2027-03-01T14:30:05", "2027-03-01T14:30:05")]
    [InlineData("fr-CH", "1 mars 2027 14h30", "2027-03-01T14:30:00")]
    [InlineData("en-GB", "today 9:05", "2026-12-01T09:05:00")]
    [InlineData("en-GB", "1.3.2027", "")]
    [InlineData("en-GB", "1.3.2027 25:00", "")]
    public void A_moment_is_a_day_with_a_time_of_day(string language, string text, string moment) =>
        Assert.Equal(moment, Notation.Of(language).Read(text, new DateTimeType(), new Museum(), Today).Certain?.Plain ?? "");

    [Theory]
    [InlineData("Hugo Ferring", "given=Hugo family=Ferring")]
    [InlineData("Brandt Ferring, Hugo", "given=Hugo family=Brandt Ferring")]
    [InlineData("Hugo Brandt Ferring", "?")]
    [InlineData("Ferring", "family=Ferring")]
    [InlineData(", Hugo", "given=Hugo")]
    public void A_full_name_keeps_its_parts(string text, string parts) => Assert.Equal(parts, Parts(text, new FullNameType()));

    [Theory]
    [InlineData("Kai 5, 20457 Hamburg, Germany", "street=Kai 5 postalCode=20457 city=Hamburg country=Germany")]
    [InlineData("Kai 5, 20457, Hamburg, Germany", "street=Kai 5 postalCode=20457 city=Hamburg country=Germany")]
    [InlineData("Kai 5, Hamburg, Germany", "street=Kai 5 city=Hamburg country=Germany")]
    [InlineData("Kai 5, , , Germany", "street=Kai 5 country=Germany")]
    [InlineData("Kai 5, Hamburg", "?")]
    [InlineData("\"Kai 5, 2nd floor\", 20457 Hamburg, Germany", "street=Kai 5, 2nd floor postalCode=20457 city=Hamburg country=Germany")]
    public void An_address_keeps_its_parts(string text, string parts) => Assert.Equal(parts, Parts(text, new AddressType()));

    [Theory]
    [InlineData("Glass, clear, Metal", null)]
    [InlineData("Glass, clear", "glass")]
    [InlineData("glass; comma", "glass; comma")]
    [InlineData("Glass, clear, clear", "glass; comma")]
    [InlineData("wood", null)]
    public void Several_choices_are_read_by_label_or_key(string text, string? keys) =>
        Assert.Equal(keys, Notation.Plain.Read(text, new ChoicesType(Material.Options), new Museum(), Today).Certain?.Plain);

    [Fact]
    public void What_cannot_be_read_is_told_with_a_way_to_mend_it()
    {
        Assert.Equal("“wood” is none of the choices: Glass, clear, Metal, metal, \"quoted\", a; b,  lead , clear.", Reason("wood", Material));
        Assert.Equal("“soon” is no day. Write one such as 31.03.2027, or today.", Reason("soon", new DateType()));
        Assert.Equal("Nobody is called “Ina”. Give the name of a person who signs in here.", Reason("Ina", new PersonType()));
        Assert.Equal(["Vell, Rosa Maria", "Maria Vell, Rosa"], ((Reading.Open)Notation.Plain.Read("Rosa Maria Vell", new FullNameType(), new Museum(), Today)).Choices.Select(choice => choice.Text));
        Assert.Equal(["Rosa Vell (rosa)", "Rosa Vell (rosa2)"], ((Reading.Open)Notation.Plain.Read("Rosa Vell", new PersonType(), new Museum(), Today)).Choices.Select(choice => choice.Text));

        static string Reason(string text, FieldType type) => ((Reading.None)Notation.Of("de-DE").Read(text, type, new Museum(), Today)).Reason;
    }

    [Theory]
    [InlineData(null, "de-CH,de;q=0.9,en;q=0.8", "de-CH")]
    [InlineData(null, "xx, fr-BE;q=0.5", "fr-FR")]
    [InlineData(null, null, "en-GB")]
    [InlineData("es-AR", "de", "es-ES")]
    public void The_persons_language_comes_before_the_browsers(string? own, string? accepted, string language) =>
        Assert.Equal(language, Notation.Of(own, accepted: accepted).Language);

    private static Gen<T> Any<T>(params T[] some) => Gen.Int[0, some.Length - 1].Select(at => some[at]);

    private static string Possible(string language, string text, FieldType type) => Notation.Of(language).Read(text, type, new Museum(), Today) switch
    {
        Reading.Of { Value: var value } => Plain(value),
        Reading.Open { Choices: var choices } => string.Join('|', choices.Select(choice => Plain(choice.Value))),
        _ => "",
    };

    private static string Plain(Value value) => value is Date { Day: var day } ? Notation.Plain.Day(day) : value.Plain;

    private static string Parts(string text, CompoundType type) => Notation.Plain.Read(text, type, new Museum(), Today) switch
    {
        Reading.Of { Value: Compound value } => string.Join(' ', type.Parts.Where(part => !value[part.Key].IsBlank).Select(part => $"{part.Key}={value[part.Key].Plain}")),
        Reading.Open => "?",
        _ => "",
    };

    /// <summary>Where two people are called the same.</summary>
    private sealed class Museum : IKnownNames
    {
        public string? TitleOf(string recordType, int number) => number % 3 == 0 ? null : $"Tide clock, {number} (No. 7)";

        public string? NameOf(string userName) => userName switch
        {
            "rosa" or "rosa2" => "Rosa Vell",
            "conrad" => "Conrad Ames",
            _ => null,
        };

        public IReadOnlyList<int> RecordsCalled(string recordType, string title) => [];

        public IReadOnlyList<string> PeopleCalled(string name) =>
            [.. ((string[])["rosa", "rosa2", "conrad"]).Where(account => account == name || string.Equals(NameOf(account), name, StringComparison.OrdinalIgnoreCase))];
    }
}
