using System.Globalization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Screens;

/// <summary>A record type of 300 fields with any number of rules of three clauses each, the same at every run.</summary>
internal static class WideForm
{
    private const int FieldCount = 300;
    private const int FieldsInSection = 6;
    private const int SectionsOnTab = 5;

    /// <summary>The record type under a key that the server knows.</summary>
    /// <param name="key">Its key.</param>
    /// <param name="ruleCount">How many rules.</param>
    /// <param name="isOneTab">Whether all fields stand on one tab; else 30 do.</param>
    internal static Definition With(string key, int ruleCount, bool isOneTab = false)
    {
        var random = new Random(300);
        Section[] sections = [.. Enumerable.Range(0, FieldCount / FieldsInSection)
            .Select(s => new Section($"s{s}", $"Section {s}", [.. Enumerable.Range(s * FieldsInSection, FieldsInSection).Select(Name)]))];
        var type = new RecordType(key, "Wide form", Name(0),
            [.. Enumerable.Range(0, FieldCount).Select(i => new Field(Name(i), $"Field {i}", Type(i)))],
            [
                new("main", "Main", [.. sections.Chunk(isOneTab ? sections.Length : SectionsOnTab).Select((some, t) => new Tab($"t{t}", $"Tab {t}", [.. some]))]),
                new("short", "Short", [new("brief", "Brief", [new("few", "Few", [.. Enumerable.Range(0, 8).Select(Name)])])]),
            ],
            [new("only", "Only", [new("first", "First"), new("second", "Second")], [new("on", "On", "first", "second")])]);
        return new(type, [.. Enumerable.Range(0, ruleCount).Select(i => Rule(random, i))]);
    }

    /// <summary>Values for most fields.</summary>
    internal static Dictionary<string, object> Values(int seed)
    {
        var random = new Random(seed);
        return Enumerable.Range(0, FieldCount).ToDictionary(Name, i => Type(i) switch
        {
            YesNoType => random.Next(2) == 0,
            NumberType => random.Next(100),
            ChoiceType => Name(random.Next(5)),
            _ => (object)$"text {random.Next(50)}",
        });
    }

    internal static string Name(int i) => "f" + i.ToString(CultureInfo.InvariantCulture);

    private static FieldType Type(int i) => (i % 4) switch
    {
        0 => new TextType(),
        1 => new NumberType(),
        2 => new ChoiceType([.. Enumerable.Range(0, 5).Select(o => new Option(Name(o), $"Option {o}"))]),
        _ => new YesNoType(),
    };

    /// <summary>Drivers lie before what they drive. A third of the rules look at the first number, so that a key there does much.</summary>
    private static Rule Rule(Random random, int i)
    {
        if (i == 0)
        {
            // One that is in force whatever the record holds.
            return new("r0", "Rule 0") { Cases = [new([new Require([Element.Field(Name(4))])])] };
        }

        var target = i % 10 == 0 ? random.Next(8, 30) : random.Next(30, FieldCount);
        var fields = i % 3 == 0 ? [1, random.Next(0, target), random.Next(0, target)] : Enumerable.Range(0, 3).Select(_ => random.Next(0, target)).ToArray();
        Effect effect = random.Next(3) switch
        {
            0 => new Core.Rules.Lock([Element.Field(Name(target))]),
            1 => new Require([Element.Field(Name(target))]),
            _ => new Require([Element.Field(Name(target))], Requirement.ToSave),
        };
        var quantifier = random.Next(2) == 0 ? Quantifier.AllOf : Quantifier.AnyOf;
        return new($"r{i}", $"Rule {i}") { Cases = [new([effect], new Group(quantifier, [.. fields.Select(field => (Condition)Clause(random, field))]))] };
    }

    private static Clause Clause(Random random, int field) => Type(field) switch
    {
        NumberType => new(new FieldSubject(Name(field)), Test.AtLeast) { Comparands = [new Literal(new Number(random.Next(100)))] },
        ChoiceType => new(new FieldSubject(Name(field)), Test.Is) { Comparands = [new Literal(new Choice(Name(random.Next(5))))] },
        YesNoType => new(new FieldSubject(Name(field)), Test.Is) { Comparands = [new Literal(new YesNo(random.Next(2) == 0))] },
        _ => new(new FieldSubject(Name(field)), Test.Contains) { Comparands = [new Literal(new Text($"text {random.Next(50)}"))] },
    };
}
