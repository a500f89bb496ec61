using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Compilation;
using Dibujo.Core.Conditions;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests;

/// <summary>A small object loan for single cases, and short words to write rules with.</summary>
internal static class Small
{
    internal static readonly Value Yes = new YesNo(true);
    internal static readonly Value No = new YesNo(false);

    internal static RecordType Loan { get; } = new(
        "loan", "Loan", "title",
        [
            new("title", "Title", new TextType()),
            new("remarks", "Remarks", new LongTextType()),
            new("crateNeeded", "Crate needed", new YesNoType()),
            new("crateLength", "Crate length", new NumberType(Scale: 1, Min: 0, Unit: "cm")),
            new("grossWeight", "Gross weight", new NumberType(Scale: 1, Min: 0, Max: 5000, Unit: "kg")),
            new("insuredValue", "Insured value", new MoneyType()),
            new("certificate", "Certificate", new TextType(MaxLength: 12)),
            new("material", "Material", new ChoiceType([new("paper", "Work on paper"), new("textile", "Textile"), new("wax", "Wax", Retired: true)])),
            new("startDate", "Start date", new DateType()),
            new("endDate", "End date", new DateType()),
        ],
        [
            new("file", "Loan file",
            [
                new("request", "Request", [new("what", "What", ["title", "remarks", "material", "startDate", "endDate"])]),
                new("transport", "Transport",
                [
                    new("crate", "Crate", ["crateNeeded", "crateLength", "grossWeight"]),
                    new("insurance", "Insurance", ["insuredValue", "certificate"]),
                ]),
            ]),
            new("quick", "Quick enquiry", [new("request", "Request", [new("what", "What", ["title"])])]),
        ],
        [
            new("standard", "Standard",
                [new("enquiry", "Enquiry"), new("terms", "Terms"), new("approval", "Approval"), new("returned", "Returned")],
                [new("assess", "Draw up terms", "enquiry", "terms"), new("approve", "Approve", "terms", "approval") { Roles = ["director"] }]),
            new("short", "Short",
                [new("enquiry", "Enquiry"), new("approval", "Approval")],
                [new("approve", "Approve", "enquiry", "approval")]),
        ])
    {
        Roles = [new("director", "Director"), new("registrar", "Registrar")],
    };

    internal static Setting AtEnquiry { get; } = new("standard", "enquiry");

    internal static RecordValues Record(params (string Field, object Value)[] values) =>
        values.Aggregate(RecordValues.Empty, (record, v) => record.With(v.Field, Loan.Find(v.Field)!.Type.Fit(ValueOf(v.Value))!));

    internal static Value ValueOf(object value) => value switch
    {
        Value already => already,
        bool answer => new YesNo(answer),
        string text => new Text(text),
        int number => new Number(number),
        decimal number => new Number(number),
        _ => throw new ArgumentException(value.ToString(), nameof(value)),
    };

    internal static Clause Field(string field, Test test, params object[] comparands) =>
        new(new FieldSubject(field), test) { Comparands = [.. comparands.Select(Comparand)] };

    internal static Clause Stage(Test test, params string[] stages) =>
        new(new StageSubject(), test) { Comparands = [.. stages.Select(Comparand)] };

    internal static Clause Role(Test test, params string[] roles) => new(new RoleSubject(), test) { Comparands = [.. roles.Select(Comparand)] };

    internal static SubjectComparand Of(string field) => new(new FieldSubject(field));

    internal static Group All(params Condition[] members) => new(Quantifier.AllOf, [.. members]);

    internal static Group Any(params Condition[] members) => new(Quantifier.AnyOf, [.. members]);

    internal static Group None(params Condition[] members) => new(Quantifier.NoneOf, [.. members]);

    internal static Case While(Condition condition, params Effect[] effects) => new([.. effects], condition);

    internal static Case Otherwise(params Effect[] effects) => new([.. effects]);

    internal static Hide Hide(params string[] targets) => new(Elements(targets));

    internal static Hide HideAndClear(params string[] targets) => new(Elements(targets), HiddenValue.Clear);

    internal static Show Show(params string[] targets) => new(Elements(targets));

    internal static Core.Rules.Lock Lock(params string[] targets) => new(Elements(targets));

    internal static Unlock Unlock(params string[] targets) => new(Elements(targets));

    internal static Require Require(params string[] targets) => new(Elements(targets));

    internal static Require RequireToSave(params string[] targets) => new(Elements(targets), Requirement.ToSave);

    internal static MakeOptional Optional(params string[] targets) => new(Elements(targets));

    internal static Definition NoRules() => new(Loan, []);

    internal static Definition Under(params Case[] oneCaseEach) => Under([.. oneCaseEach.Select(c => new[] { c })]);

    internal static Definition Under(params Case[][] rules) => new(Loan, [.. rules.Select((cases, i) =>
        new Rule(string.Create(CultureInfo.InvariantCulture, $"r{i}"), string.Create(CultureInfo.InvariantCulture, $"Rule {i}")) { Cases = [.. cases] })]);

    internal static RuleProgram Compiled(this Definition definition)
    {
        var (program, problems) = ProgramCompiler.Compile(definition);
        Assert.Empty(problems);
        return program!;
    }

    internal static Session Open(this Definition definition, RecordValues? saved = null, Setting? setting = null) =>
        new(definition.Compiled(), saved ?? RecordValues.Empty, setting ?? AtEnquiry);

    internal static Delta Type(this Session session, string field, object? value) =>
        session.Change(field, value is null ? Value.Blank : Loan.Find(field)!.Type.Fit(ValueOf(value))!);

    internal static ElementState State(this Session session, string name) => session.StateOf(Element(name));

    /// <summary>"tab transport", "section crate", or a field's key.</summary>
    internal static Element Element(string name) => name.Split(' ') switch
    {
        ["tab", var key] => Forms.Element.Tab(key),
        ["section", var key] => Forms.Element.Section(key),
        _ => Forms.Element.Field(name),
    };

    private static ImmutableArray<Element> Elements(string[] names) => [.. names.Select(Element)];

    private static Comparand Comparand(object value) => value as Comparand ?? new Literal(ValueOf(value));
}
