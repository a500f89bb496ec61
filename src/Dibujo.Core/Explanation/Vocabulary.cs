using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Exchange;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;

namespace Dibujo.Core.Explanation;

/// <summary>What may be put into the blanks of a rule's sentence for one record type.</summary>
/// <param name="Subjects">Everything that a clause can look at.</param>
/// <param name="Targets">Everything that an effect can act on.</param>
public sealed record Vocabulary(ImmutableArray<SubjectOffer> Subjects, ImmutableArray<TargetOffer> Targets)
{
    /// <summary>The vocabulary of that record type, in the order of its forms.</summary>
    public static Vocabulary Of(RecordType type)
    {
        var labels = new Labels(type);
        return new(
            [
                .. type.Fields.Select(field => Offer(type, field)),
                new(new StageSubject(), "Stage", Offers(FittingTests.Stages), ValueInput.List,
                    [.. type.Workflows.SelectMany(w => w.Stages).DistinctBy(s => s.Key).Select(s => new ValueOffer(s.Key, s.Label))], []),
                new(new RoleSubject(), "Role", Offers(FittingTests.Roles), ValueInput.List,
                    [.. type.Roles.Select(r => new ValueOffer(r.Key, r.Label))], []),
            ],
            [
                .. type.Fields.Select(f => Element.Field(f.Key))
                    .Concat(type.Forms.SelectMany(form => form.Tabs).SelectMany(tab =>
                        tab.Sections.Select(s => Element.Section(s.Key)).Prepend(Element.Tab(tab.Key))))
                    .Distinct()
                    .Select(element => new TargetOffer(element, labels.Of(element))),
            ]);
    }

    private static SubjectOffer Offer(RecordType type, Field field)
    {
        var tests = Offers(FittingTests.Of(field.Type));
        return new(new FieldSubject(field.Key), field.Label, tests,
            field.Type switch
            {
                YesNoType => ValueInput.YesNo,
                ChoiceType => ValueInput.List,
                NumberType or MoneyType => ValueInput.Number,
                DateType => ValueInput.Date,
                _ => ValueInput.Text,
            },
            field.Type is ChoiceType choice ? [.. choice.Options.Select(o => new ValueOffer(o.Key, o.Label))] : [],
            [.. type.Fields.Where(other => other != field && FittingTests.AreComparable(field.Type, other.Type)).Select(f => f.Key)]);
    }

    private static ImmutableArray<TestOffer> Offers(ImmutableArray<Test> tests) =>
        [.. tests.Select(test => new TestOffer(test, Wording.Of(test), test.Shape()))];
}

/// <summary>A subject with the tests that fit it and the values it can be compared with.</summary>
/// <param name="Subject">What the clause looks at.</param>
/// <param name="Label">What people read.</param>
/// <param name="Tests">Those that fit, most usual first.</param>
/// <param name="Input">How a value is given.</param>
/// <param name="Values">The values to choose from where <paramref name="Input"/> is a list.</param>
/// <param name="Fields">Keys of the fields it can be compared with.</param>
public sealed record SubjectOffer(
    Subject Subject,
    string Label,
    ImmutableArray<TestOffer> Tests,
    ValueInput Input,
    ImmutableArray<ValueOffer> Values,
    ImmutableArray<string> Fields);

/// <summary>A test with its words and the number of its comparands.</summary>
public sealed record TestOffer(Test Test, string Words, TestShape Shape);

/// <summary>A value by key and label.</summary>
public sealed record ValueOffer(string Key, string Label);

/// <summary>An element that an effect can name.</summary>
public sealed record TargetOffer(Element Element, string Label);

/// <summary>How a person gives a value.</summary>
[JsonConverter(typeof(CamelCaseEnum<ValueInput>))]
public enum ValueInput
{
    /// <summary>By typing text.</summary>
    Text,

    /// <summary>By typing a number.</summary>
    Number,

    /// <summary>By picking a day.</summary>
    Date,

    /// <summary>By saying yes or no.</summary>
    YesNo,

    /// <summary>By choosing from a list.</summary>
    List,
}
