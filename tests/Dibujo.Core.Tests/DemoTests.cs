using Dibujo.Cli;
using Dibujo.Core.Checking;
using Dibujo.Core.Conditions;
using Dibujo.Core.Json;
using Dibujo.Core.Packs;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;

namespace Dibujo.Core.Tests;

/// <summary>What the demo shows is what can be said.</summary>
public class DemoTests
{
    private static readonly string Folder = Checkout.Path("src", "Dibujo.Server", "Demo");
    private static readonly List<Pack> Packs = [.. Directory.GetFiles(Folder, "*.pack.json").Select(path => PackFile.Read(File.ReadAllBytes(path)).Pack!)];
    private static readonly List<Clause> Clauses = [.. Packs.SelectMany(p => p.Rules).SelectMany(r => r.AllCases()).SelectMany(c => All(c.While))];
    private static readonly List<Effect> Effects = [.. Packs.SelectMany(p => p.Rules).SelectMany(r => r.AllCases()).SelectMany(c => c.Effects)];

    [Fact]
    public void Its_packs_have_no_problems() => Assert.All(Packs, pack => Assert.Empty(DefinitionCheck.Of(pack.ToDefinition())));

    [Fact]
    public void Every_kind_of_effect_comes_in_it() => Assert.Empty(Concrete<Effect>().Except(Effects.Select(e => e.GetType())));

    [Fact]
    public void Every_kind_of_subject_comes_in_it() => Assert.Empty(Concrete<Subject>().Except(
        Clauses.SelectMany(c => c.Comparands.OfType<SubjectComparand>().Select(s => s.Subject).Append(c.Subject)).Select(s => s.GetType()).Append(typeof(TodaySubject))));

    [Fact]
    public void Every_kind_of_comparand_comes_in_it() =>
        Assert.Empty(Concrete<Comparand>().Except(Clauses.SelectMany(c => c.Comparands).Select(c => c.GetType())));

    [Fact]
    public void Every_family_of_tests_comes_in_it()
    {
        var used = Clauses.Select(c => c.Test).ToHashSet();
        Test[][] families =
        [
            [Test.Is, Test.IsNot], [Test.OneOf, Test.NoneOf], [Test.Contains], [Test.StartsWith, Test.DoesNotStartWith], [Test.IncludesAny], [Test.IncludesAll],
            [Test.AtLeast, Test.MoreThan], [Test.AtMost, Test.LessThan], [Test.Between], [Test.Before, Test.OnOrBefore], [Test.FromOn, Test.After],
            [Test.Blank], [Test.FilledIn], [Test.Changed],
        ];
        Assert.All(families, family => Assert.True(family.Any(used.Contains), string.Join(", ", family)));
    }

    [Fact]
    public void Every_kind_of_table_output_and_every_severity_comes_in_it()
    {
        Assert.Empty(Concrete<Output>().Except(Packs.SelectMany(p => p.Rules).SelectMany(r => r.Table?.Outputs ?? []).Select(o => o.GetType()).Append(typeof(MessageOutput))));
        Assert.Empty(Enum.GetValues<Severity>().Except(Effects.OfType<Message>().Select(m => m.Severity)));
        Assert.Empty(Enum.GetValues<HiddenValue>().Except(Effects.OfType<Hide>().Select(h => h.Value)));
    }

    [Fact]
    public void Its_sentences_read_back_and_its_examples_hold()
    {
        Assert.All(Packs, pack => Assert.All(pack.Rules, rule =>
        {
            var sentence = Sentence.Plain(Sentence.Of(rule, pack.RecordType));
            Assert.Equal(JsonText.Write(rule), JsonText.Write(SentenceReading.Of(sentence, pack.RecordType, rule).Rule));
        }));
        var output = new StringWriter();
        Assert.Equal(0, TestCommand.Run(Path.Combine(Folder, "object-loan.pack.json"), output));
        Assert.Contains("11 of 11 examples hold", output.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void The_command_line_explains_exports_and_imports_it()
    {
        var pack = Path.Combine(Folder, "gallery-works.pack.json");
        var folder = Directory.CreateTempSubdirectory("dibujo-cli-").FullName;
        var record = Path.Combine(folder, "record.json");
        File.WriteAllText(record, """{"setting":{"workflow":"works","stage":"asked"},"values":{"kind":"plinth"},"changes":{"building":"south"}}""");
        var explained = new StringWriter();
        Assert.Equal(0, ExplainCommand.Run(pack, record, "field:leadDays", asJson: false, explained));
        Assert.Contains("Calculated by rule 3, “Lead time by kind”: because Kind of work is Plinth and Building is South wing.", explained.ToString(), StringComparison.Ordinal);

        var dmn = Path.Combine(folder, "tables.dmn");
        var exported = new StringWriter();
        Assert.Equal(0, ExportCommand.Run(pack, "dmn", null, exported, new StringWriter()));
        File.WriteAllText(dmn, exported.ToString().Replace("Less than", "", StringComparison.Ordinal).Replace(">5<", ">6<", StringComparison.Ordinal));
        var imported = new StringWriter();
        Assert.Equal(0, ImportCommand.Run(pack, dmn, Path.Combine(folder, "result.json"), imported));
        Assert.Contains("Changed: rule Lead time by kind", imported.ToString(), StringComparison.Ordinal);
        Assert.Contains("is Lighting | any → 6 days", imported.ToString(), StringComparison.Ordinal);
        Assert.Equal(0, CheckCommand.Run(Path.Combine(folder, "result.json"), new StringWriter()));

        var csv = Path.Combine(folder, "works.csv");
        File.WriteAllText(csv, "title,kind,building,room\nBench,plinth,north,n1\nBench,plinth,north,s1\n,paint,,\n");
        var records = new StringWriter();
        Assert.Equal(1, ImportCommand.Run(pack, csv, null, records));
        Assert.Contains("1 rows could be imported, 2 not.", records.ToString(), StringComparison.Ordinal);
        Assert.Contains("Room: “South 1” is not offered here.", records.ToString(), StringComparison.Ordinal);
        Directory.Delete(folder, recursive: true);
    }

    private static IEnumerable<Type> Concrete<T>() => typeof(T).Assembly.GetTypes().Where(t => t.IsSubclassOf(typeof(T)) && !t.IsAbstract);

    private static IEnumerable<Clause> All(Condition? condition) => condition switch
    {
        Group group => group.Members.SelectMany(All),
        Clause clause => [clause],
        _ => [],
    };
}
