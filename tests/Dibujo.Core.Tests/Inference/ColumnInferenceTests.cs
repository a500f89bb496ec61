using System.Globalization;
using CsCheck;
using Dibujo.Core.Inference;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Inference;

/// <summary>What columns of tables that people keep are taken for.</summary>
public class ColumnInferenceTests
{
    [Theory]
    [InlineData("yes|no||Yes|x", typeof(YesNoType))]
    [InlineData("2026-11-29|2025-01-31", typeof(DateType))]
    [InlineData("29.11.2026|1.2.26|03.04.2026", typeof(DateType))]
    [InlineData("29 Nov 2026|November 3, 2026|1 may 2025", typeof(DateType))]
    [InlineData("2026-11-29 09:30|2026-11-29T10:00:15", typeof(DateTimeType))]
    [InlineData("11/29/2026 9:30 PM|1/2/2026 10:00 AM", typeof(DateTimeType))]
    [InlineData("12|-3|1,200", typeof(NumberType))]
    [InlineData("12 kg|3.5 kg|", typeof(NumberType))]
    [InlineData("€ 12.50|EUR 1,200|7 €", typeof(MoneyType))]
    [InlineData("Gate lantern|Tide clock|Gate lantern", typeof(LinkType))]
    [InlineData("Rosa Vell|Conrad Ames", typeof(PersonType))]
    [InlineData("oak|pine|Oak|oak|pine|oak", typeof(ChoiceType))]
    [InlineData("oak; pine|pine|oak|pine|oak|oak; pine", typeof(ChoicesType))]
    [InlineData("00123|00124|00129", typeof(TextType))]
    [InlineData("Q-12/3|Q-12/4", typeof(TextType))]
    [InlineData("one\ntwo|three", typeof(LongTextType))]
    [InlineData("", typeof(TextType))]
    public void A_column_is_what_its_cells_say(string cells, Type type) => Assert.IsType(type, Guess("Column", cells).Type);

    [Theory]
    [InlineData("03/04/2026|31/01/2026", "3 Apr 2026", false)]
    [InlineData("03/04/2026|01/31/2026", "4 Mar 2026", false)]
    [InlineData("03/04/2026|05/06/2026", "3 Apr 2026", true)]
    public void Which_comes_first_of_day_and_month_is_told_by_the_column_or_said_to_be_guessed(string cells, string first, bool isGuessed)
    {
        var column = Guess("Due", cells);

        Assert.Equal(first, column.Examples[0].ReadAs);
        Assert.Equal(isGuessed, column.Doubt is not null);
    }

    [Theory]
    [InlineData("1.234,50|2,5", "1,234.5")]
    [InlineData("1,234.50|2.5", "1,234.5")]
    [InlineData("1.234|0,5", "1,234")]
    [InlineData("1 234,5|7", "1,234.5")]
    [InlineData("1’234.50|7", "1,234.5")]
    public void So_is_the_mark_before_a_fraction(string cells, string first) => Assert.Equal(first, Guess("Sum", cells).Examples[0].ReadAs);

    [Fact]
    public void Slips_do_not_keep_a_column_from_its_type_and_are_shown_with_their_rows()
    {
        var column = Guess("Weight", string.Join('|', Enumerable.Range(1, 19).Select(i => $"{i}")) + "|about 20");

        Assert.IsType<NumberType>(column.Type);
        Assert.Equal((20, 1), (column.Filled, column.Misfits));
        Assert.Equal(new ReadCell(21, "about 20", null), column.FirstMisfits[0]);
    }

    [Fact]
    public void Numbers_are_links_where_the_heading_names_a_record_type()
    {
        Assert.IsType<LinkType>(Guess("Object", "1|2|2").Type);
        Assert.IsType<NumberType>(Guess("Count", "1|2|2").Type);
    }

    [Fact]
    public void A_currency_may_stand_in_the_heading() => Assert.Equal("CHF", Assert.IsType<MoneyType>(Guess("Value (CHF)", "12|13.50").Type).Currency);

    [Fact]
    public void Every_date_and_number_is_read_back_as_it_was_written() => Gen.Select(Gen.DateOnly[new(1950, 1, 1), new(2049, 12, 31)], Gen.Decimal[-99999, 99999], Gen.Int[0, 3]).Sample((day, raw, scale) =>
    {
        var number = decimal.Round(raw, scale);
        foreach (var (pattern, order) in new[] { ("yyyy-MM-dd", DateOrder.DayFirst), ("d.M.yyyy", DateOrder.DayFirst), ("dd/MM/yy", DateOrder.DayFirst), ("M/d/yyyy", DateOrder.MonthFirst), ("d MMM yyyy", DateOrder.MonthFirst), ("MMMM d, yyyy", DateOrder.DayFirst) })
        {
            Assert.Equal(new Date(day), Read(new DateType(), new(order), day.ToString(pattern, CultureInfo.InvariantCulture)));
        }

        foreach (var (culture, mark) in new[] { ("en-US", DecimalMark.Point), ("de-DE", DecimalMark.Comma), ("fr-FR", DecimalMark.Comma) })
        {
            var written = number.ToString("N" + scale, CultureInfo.GetCultureInfo(culture));
            Assert.Equal(new Number(number), Read(new NumberType(3, null, null), new(Decimals: mark), written));
        }
    });

    [Fact]
    public void Nothing_that_stands_in_a_cell_breaks_the_guess() => Gen.String[0, 30].List[0, 30].Sample(cells =>
    {
        var column = new ColumnInference(new Known()).Of("Any", "any", cells);
        var reader = new CellReader(column.Type, column.Format, new Known());

        // Whatever somebody says that it is, it is read or told to misfit.
        foreach (var type in (FieldType[])[new NumberType(), new MoneyType(), new ChoiceType([]), new ChoicesType([]), new DateTimeType(), new FullNameType(), new AddressType(), new LinkType("object")])
        {
            Assert.InRange(new ColumnInference(new Known()).As("Any", "any", type, new(), cells).Misfits, 0, cells.Count);
        }

        Assert.Equal(column.Misfits, cells.Count(cell => reader.Read(cell) is null));
        Assert.Equal(column.Filled, cells.Count(cell => reader.Read(cell) is not { IsBlank: true }));
    }, iter: Tries.Of("DIBUJO_FUZZ", 2000));

    private static Value? Read(FieldType type, CellFormat format, string cell) => new CellReader(type, format, new Known()).Read(cell);

    private static InferredColumn Guess(string header, string cells) => new ColumnInference(new Known()).Of(header, "key", cells.Split('|'));

    private sealed class Known : ICellLookup
    {
        public IReadOnlyList<string> RecordTypes => ["object"];

        public string? RecordTypeCalled(string heading) => heading == "Object" ? "object" : null;

        public string? TitleOf(string recordType, int number) => number switch
        {
            1 => "Gate lantern",
            2 => "Tide clock",
            _ => null,
        };

        public string? NameOf(string userName) => userName switch
        {
            "rosa" => "Rosa Vell",
            "conrad" => "Conrad Ames",
            _ => null,
        };

        public IReadOnlyList<int> RecordsCalled(string recordType, string title) => [.. ((int[])[1, 2]).Where(number => TitleOf(recordType, number) == title)];

        public IReadOnlyList<string> PeopleCalled(string name) => [.. ((string[])["rosa", "conrad"]).Where(user => NameOf(user) == name || user == name)];
    }
}
