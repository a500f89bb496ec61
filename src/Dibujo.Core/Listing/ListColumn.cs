using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Listing;

/// <summary>Something of records by which a list is sorted and filtered: a field, or what is so of the record as a whole.</summary>
/// <param name="Key">A field's key, or one of the names below.</param>
/// <param name="Label">What it is called.</param>
/// <param name="Type">Of which type it is, as though it were a field.</param>
/// <param name="Tests">The tests that can be put to it.</param>
public sealed record ListColumn(string Key, string Label, FieldType Type, ImmutableArray<Test> Tests)
{
    /// <summary>The record's number.</summary>
    public const string Number = "@number";

    /// <summary>The stage that it is in.</summary>
    public const string Stage = "@stage";

    /// <summary>The workflow that it is in.</summary>
    public const string Workflow = "@workflow";

    /// <summary>When it was last saved, in UTC.</summary>
    public const string ChangedAt = "@changedAt";

    /// <summary>Who saved it last.</summary>
    public const string ChangedBy = "@changedBy";

    /// <summary>Whether something is missing for the next move: see <see cref="Standing"/>.</summary>
    public const string Missing = Standing.Missing;

    /// <summary>How far a form is, as choices.</summary>
    private static readonly ChoiceType Progresses = new(
        [new("notRelevant", "does not apply"), new("notBegun", "not begun"), new("begun", "begun"), new("complete", "complete")]);

    /// <summary>The value as the column is compared with it, a moment also with a whole day; null where it cannot be.</summary>
    public Value? Fit(Value value) => Type.Fit(value) ?? (Type is DateTimeType ? new DateType().Fit(value) : null);

    /// <summary>The column of that key; null for none.</summary>
    public static ListColumn? Of(RecordType type, string key) => All(type).FirstOrDefault(column => column.Key == key);

    /// <summary>All columns of the record type: fields in their order, then the rest.</summary>
    public static IEnumerable<ListColumn> All(RecordType type)
    {
        var subjects = new SubjectTypes(type);
        foreach (var field in type.Fields.Where(field => !field.Retired))
        {
            yield return new(field.Key, field.Label, field.Type, Fitting(new FieldSubject(field.Key, Saved: true), field.Type));
        }

        yield return new(Number, "No.", new NumberType(), Fitting(new NewSubject(), new NumberType()));
        yield return new(Stage, "Stage", subjects.Stages, FittingTests.Of(new StageSubject(), subjects.Stages));
        yield return new(Workflow, "Workflow", subjects.Workflows, Fitting(new WorkflowSubject(), subjects.Workflows));
        yield return new(ChangedAt, "Last saved", new DateTimeType(), Fitting(new NowSubject(), new DateTimeType()));
        yield return new(ChangedBy, "Saved by", new PersonType(), Fitting(new PersonSubject(), new PersonType()));
        yield return new(Missing, "Missing for the next move", new YesNoType(), [Test.Is]);
        foreach (var form in type.Forms)
        {
            yield return new(Standing.KeyOf(form.Key), form.Label, Progresses, [Test.Is, Test.IsNot, Test.OneOf, Test.NoneOf]);
        }
    }

    /// <summary>What is wrong with a filter for lists of that record type, as a sentence; null for nothing.</summary>
    public static string? Mistake(RecordType type, Filter filter)
    {
        var columns = All(type).ToDictionary(column => column.Key, StringComparer.Ordinal);
        return filter.Clauses.Select(clause => columns.GetValueOrDefault(clause.Of) is not { } column
            ? $"There is no column “{Excerpt.Of(clause.Of)}”. Filter by one of the record type."
            : !column.Tests.Contains(clause.Test) ? $"{column.Label} cannot be tested like that. Choose a test that fits it."
            : !IsCount(clause) ? $"{column.Label} is compared with the wrong number of values."
            : clause.Values.Any(value => column.Fit(value) is null) ? $"{column.Label} is compared with something that it cannot hold. Give {column.Type.Noun}."
            : null).FirstOrDefault(mistake => mistake is not null);
    }

    private static bool IsCount(FilterClause clause) => clause.Test.Shape() switch
    {
        TestShape.Alone => clause.Values.IsEmpty,
        TestShape.One => clause.Values.Length == 1,
        TestShape.Range => clause.Values.Length == 2,
        _ => clause.Values.Length > 0,
    };

    /// <summary>What has changed since it was saved is not asked of lists.</summary>
    private static ImmutableArray<Test> Fitting(Subject subject, FieldType type) =>
        [.. FittingTests.Of(subject, type).Where(test => test is not (Test.Changed or Test.Unchanged))];
}
