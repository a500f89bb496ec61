using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Packs;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Saving;
using Dibujo.Core.Sentences;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests;

/// <summary>The demo's loan file, with every type of field, under rules that a test gives as sentences.</summary>
internal sealed class LoanFile : IRecordLookup
{
    internal static readonly DateTime Now = new(2026, 11, 24, 9, 30, 0);

    /// <summary>A loan at terms, looked at by the registrar who asked for it.</summary>
    internal static readonly Setting AtTerms = new("standard", "terms", Person: "ina", Now: Now) { Roles = ["registrar"] };

    private static readonly LoanFile Records = new();

    internal static RecordType Type { get; } =
        PackFile.Read(File.ReadAllBytes(Checkout.Path("src", "Dibujo.Server", "Demo", "object-loan.pack.json"))).Pack!.RecordType;

    /// <summary>Object 7 is a sensitive work on paper; there is no other.</summary>
    public RecordValues? Find(string recordType, int number) => (recordType, number) is ("collection-object", 7)
        ? RecordValues.Empty.With("title", new Text("Tide table")).With("material", new Choice("paper"))
            .With("insuredValue", new Number(80_000)).With("sensitivity", new Choice("high"))
        : null;

    public bool HasPerson(string userName) => userName is "ina" or "theo";

    internal static Definition Under(params string[] sentences) => new(Type, [.. sentences.Select((sentence, i) =>
    {
        var (rule, problem) = SentenceReading.Of(sentence, Type, new Rule(string.Create(CultureInfo.InvariantCulture, $"r{i}"), "Rule"));
        Assert.True(rule is not null, problem?.Message);
        return rule;
    })]);

    internal static RecordValues Saved(params (string Field, object? Value)[] values) =>
        new(values.Select(v => KeyValuePair.Create(v.Field, Fitted(v.Field, v.Value))));

    internal static Session Open(Definition definition, RecordValues? saved = null, Setting? setting = null)
    {
        var (program, problems) = Core.Compilation.ProgramCompiler.Compile(definition);
        Assert.Empty(problems);
        return new(program!, saved ?? RecordValues.Empty, setting ?? AtTerms, Records);
    }

    internal static Verdict Decide(
        Definition definition, RecordValues saved, string? move = null, Setting? setting = null, params (string Field, object? Value)[] changes)
    {
        var (program, problems) = Core.Compilation.ProgramCompiler.Compile(definition);
        Assert.Empty(problems);
        return new Judge(program!, Records).Decide(saved, setting ?? AtTerms, new(Saved(changes).ByField.ToImmutableDictionary(), move));
    }

    internal static Value Fitted(string field, object? value) => value is null
        ? Value.Blank
        : Type.Find(field)!.Type.Fit(Bare(value)) ?? throw new ArgumentException($"{field} cannot hold {value}.", nameof(value));

    /// <summary>"given=Ada, family=Vell" stands for parts.</summary>
    private static Value Bare(object value) => value switch
    {
        string text when text.Contains('=', StringComparison.Ordinal) => text.Split(", ").Select(part => part.Split('='))
            .Aggregate(Compound.Empty, (whole, part) => whole.With(part[0], new Text(part[1]))),
        string[] keys => new Choices([.. keys]),
        _ => Small.ValueOf(value),
    };
}
