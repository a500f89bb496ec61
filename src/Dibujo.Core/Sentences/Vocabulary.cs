using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;

namespace Dibujo.Core.Sentences;

/// <summary>What may be put into the blanks of a rule's sentence for one record type.</summary>
/// <param name="Subjects">Everything that a clause can look at.</param>
/// <param name="Targets">Everything that an effect can act on.</param>
public sealed record Vocabulary(ImmutableArray<SubjectOffer> Subjects, ImmutableArray<TargetOffer> Targets)
{
    /// <summary>The vocabulary of that record type, in the order of its forms.</summary>
    public static Vocabulary Of(RecordType type)
    {
        var labels = new Labels(type);
        var subjects = new SubjectTypes(type);
        return new(
            [.. SubjectsOf(type).Select(subject => Offer(type, subjects, labels, subject))],
            [.. type.Elements().Select(element => new TargetOffer(element, labels.Of(element)))]);
    }

    /// <summary>Fields with their parts and what their links lead to, then the setting.</summary>
    private static IEnumerable<Subject> SubjectsOf(RecordType type) =>
        type.Fields.SelectMany(field => Around(type, field)).Concat(SettingSubject.All.Select(setting => setting.Subject));

    private static IEnumerable<Subject> Around(RecordType type, Field field) => field.Type switch
    {
        CompoundType compound => compound.Parts.Select(part => (Subject)new FieldSubject(field.Key, part.Key)).Prepend(new FieldSubject(field.Key)),
        LinkType link => Behind(type, link, [field.Key]).Prepend(new FieldSubject(field.Key)),
        _ => [new FieldSubject(field.Key)],
    };

    /// <summary>What the record holds to which a link leads, and what the links on it lead to in turn; no record type twice on the way.</summary>
    private static IEnumerable<Subject> Behind(RecordType type, LinkType link, ImmutableArray<string> via)
    {
        foreach (var field in type.FieldsOf(link.RecordType) ?? [])
        {
            yield return new LinkedSubject(via, field.Key);
            if (field.Type is CompoundType compound)
            {
                foreach (var part in compound.Parts)
                {
                    yield return new LinkedSubject(via, field.Key, part.Key);
                }
            }

            if (field.Type is LinkType further && via.Length < LinkedSubject.MostLinks && further.RecordType != link.RecordType && further.RecordType != type.Key)
            {
                foreach (var subject in Behind(type, further, via.Add(field.Key)))
                {
                    yield return subject;
                }
            }
        }
    }

    private static SubjectOffer Offer(RecordType type, SubjectTypes subjects, Labels labels, Subject subject)
    {
        var subjectType = subjects.Of(subject)!;
        return new(subject, labels.Of(subject), Offers(FittingTests.Of(subject, subjectType)),
            subjectType switch
            {
                YesNoType => ValueInput.YesNo,
                IOffersOptions => ValueInput.List,
                NumberType or MoneyType => ValueInput.Number,
                LinkType => ValueInput.Record,
                PersonType => ValueInput.Person,
                DateType => ValueInput.Date,
                DateTimeType => ValueInput.DateTime,
                _ => ValueInput.Text,
            },
            subjectType is IOffersOptions { Options: var options } ? [.. options.Select(o => new ValueOffer(o.Key, o.Label) { Retired = o.Retired })] : [],
            subject is StageSubject or RoleSubject
                ? []
                : [.. type.Fields.Where(other => subject is not FieldSubject { Field: var own } || own != other.Key)
                    .Where(other => !other.Retired && FittingTests.AreComparable(subjectType, other.Type)).Select(f => f.Key)])
        {
            Unit = subjectType switch { MoneyType money => money.Currency, NumberType number => number.Unit, _ => null },
            RecordType = (subjectType as LinkType)?.RecordType,
            Retired = subject switch
            {
                FieldSubject { Field: var key } => type.Find(key)!.Retired,
                LinkedSubject linked => subjects.Path(linked)!.Value.Any(field => field.Retired),
                _ => false,
            },
        };
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
    ImmutableArray<string> Fields)
{
    /// <summary>The currency of an amount, or what a number counts; null where neither is.</summary>
    public string? Unit { get; init; }

    /// <summary>Whether rules that look at it go on doing so, and none begins to: its field is retired, here or where it lies behind a link.</summary>
    public bool Retired { get; init; }

    /// <summary>Key of the record type to which a link leads; null for anything else.</summary>
    public string? RecordType { get; init; }
}

/// <summary>A test with its words and the number of its comparands.</summary>
public sealed record TestOffer(Test Test, string Words, TestShape Shape);

/// <summary>A value by key and label.</summary>
public sealed record ValueOffer(string Key, string Label)
{
    /// <summary>Whether rules that have it keep it, and none gets it anew.</summary>
    public bool Retired { get; init; }
}

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

    /// <summary>By picking a day and a time.</summary>
    DateTime,

    /// <summary>By finding a record.</summary>
    Record,

    /// <summary>By finding a person.</summary>
    Person,

    /// <summary>By saying yes or no.</summary>
    YesNo,

    /// <summary>By choosing from a list.</summary>
    List,
}
