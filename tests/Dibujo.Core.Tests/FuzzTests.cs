using System.Text;
using CsCheck;
using Dibujo.Core.Compilation;
using Dibujo.Core.Csv;
using Dibujo.Core.Dmn;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Expressions;
using Dibujo.Core.Packs;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests;

/// <summary>Mutated inputs for everything that reads: no exception, and an answer or a message. DIBUJO_FUZZ sets how many for each reader.</summary>
public class FuzzTests
{
    private static readonly int Each = Tries.Of("DIBUJO_FUZZ", 3000);

    private static readonly string[] Sentences =
    [
        "While Stage is from Terms on and (Insured value is at least EUR 50,000 or Material is one of Work on paper or Textile), show section Crate and lock tab Transport; otherwise hide Remarks and clear.",
        "By unique table on Material | Crate needed for Gross weight | value of Crate length: is Textile | is yes → shown, required to save | 12 cm; is not Textile | any → hidden | —.",
        "While Start date is before today minus 15 years, warn with “Is {Title} right?” at Start date and calculate Gross weight as {«Crate length» * 2}.",
    ];

    private static readonly string[] Expressions =
        ["if b then substring(t, 2, 3) else string(n / 3)", "x in [1..3) or not(a = @\"P1Y\")", "date(\"2026-01-31\") + duration(\"P1M\") < today()"];

    private static readonly byte[] Pack = PackFile.Write(Core.Packs.Pack.Of(Under(While(Field("title", Core.Conditions.Test.FilledIn), Hide("remarks")))));

    private const string Csv = "id,title,Crate needed,grossWeight,material\n1,\"a, \"\"b\"\"\",yes,\"1,200.5\",paper\n,x,,,\n";

    private static readonly string Dmn = DmnWriter.Write(new(Loan, [SentenceReading.Of(Sentences[1], Loan, new Rule("t", "T")).Rule!])).Document.ToString();

    private static readonly string[] Nasty =
    [
        new('(', 5000), new('[', 5000), new('{', 5000), "\uD800", "\0", "“”\"'", "99999999999999999999999999999999", "1e999999", "-0.0000000000000000000000000001",
        "<!DOCTYPE x [<!ENTITY a \"&a;&a;\">]>", "aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa!", "\uFEFF", "}]}]}]", "not(not(not(", "«»«", "9999-12-31", "P99999999Y", "→|;→",
    ];

    [Fact]
    public void No_sentence_makes_the_parser_throw() => Mutate(Sentences, text =>
    {
        var (rule, problem) = SentenceReading.Of(text, Loan, new Rule("r", "R"));
        Assert.True(rule is null != problem is null);
        SentenceReading.Complete(text, text.Length / 2, Loan);
        if (rule is not null)
        {
            Open(new(Loan, [rule]));
        }
    });

    [Fact]
    public void No_expression_makes_the_parser_or_the_evaluation_throw() => Mutate(Expressions, text =>
    {
        var (expression, problem) = Expression.Parse(text);
        Assert.True(expression is null != problem is null);
        expression?.Check(_ => FeelType.Any, _ => { });
        expression?.Evaluate(_ => new FeelNumber(2));
    });

    [Fact]
    public void No_pack_makes_the_reader_or_the_compiler_throw() => Mutate([Encoding.UTF8.GetString(Pack)], text =>
    {
        // Half of the inputs are no Unicode at all.
        var bytes = Encoding.UTF8.GetBytes(text);
        if (text.Length % 2 == 0 && bytes.Length > 3)
        {
            bytes[bytes.Length / 2] = 0xC3;
        }

        var (pack, problem) = PackFile.Read(bytes);
        Assert.True(pack is null != problem is null);
        if (pack is not null)
        {
            Open(pack.ToDefinition());
        }
    });

    [Fact]
    public void No_table_of_records_makes_the_reader_throw() => Mutate([Csv], text =>
    {
        var (rows, mistake) = RecordTable.Read(Loan, text);
        Assert.True(mistake is null || rows.IsEmpty);
    });

    [Fact]
    public void No_DMN_makes_the_reader_throw() => Mutate([Dmn], text =>
    {
        var (rules, problems) = DmnReader.Read(new MemoryStream(Encoding.UTF8.GetBytes(text)), Loan);
        Assert.True(!rules.IsEmpty || !problems.IsEmpty);
        Open(Merge.Rules(NoRules(), rules));
    });

    private static void Open(Definition definition)
    {
        if (ProgramCompiler.Compile(definition).Program is { } program)
        {
            var session = new Session(program, Core.Values.RecordValues.Empty, AtEnquiry);
            foreach (var field in program.Definition.RecordType.Fields.Where(f => f.Type is YesNoType))
            {
                session.Change(field.Key, Yes);
            }
        }
    }

    private static void Mutate(string[] seeds, Action<string> read) => Gen.UInt.Sample(seed =>
    {
        var random = new Random((int)seed);
        var text = new StringBuilder(seeds[random.Next(seeds.Length)]);
        for (var left = random.Next(1, 5); left > 0; left--)
        {
            var at = random.Next(text.Length + 1);
            switch (random.Next(5))
            {
                case 0:
                    text.Remove(at, Math.Min(random.Next(1, 12), text.Length - at));
                    break;
                case 1:
                    text.Insert(at, (char)random.Next(1, 0x300));
                    break;
                case 2:
                    text.Insert(at, Nasty[random.Next(Nasty.Length)]);
                    break;
                case 3:
                    // A piece from elsewhere.
                    var from = random.Next(text.Length + 1);
                    text.Insert(at, text.ToString(from, Math.Min(random.Next(1, 40), text.Length - from)));
                    break;
                default:
                    text.Length = at;
                    break;
            }
        }

        read(text.ToString());
    }, iter: Each);
}
