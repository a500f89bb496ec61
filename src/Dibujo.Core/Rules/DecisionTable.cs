using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Dibujo.Core.Conditions;

namespace Dibujo.Core.Rules;

/// <summary>Cases in rows: tests on some drivers on the left, what follows on the right (as in OMG DMN, chapter 8).</summary>
/// <param name="Hit">What it means that several rows match.</param>
/// <param name="Drivers">What the cells on the left look at; a column each.</param>
/// <param name="Outputs">What the cells on the right speak of; a column each.</param>
/// <param name="Rows">From the top.</param>
public sealed record DecisionTable(
    HitPolicy Hit, ImmutableArray<Subject> Drivers, ImmutableArray<Output> Outputs, ImmutableArray<Row> Rows)
{
    /// <summary>
    /// The same as cases: a row each, in the order of the table, so that the first row that matches is in force. Under
    /// "unique" and "any" no other row may say anything else, which <see cref="Checking.TableCheck"/> finds out. Only for
    /// a table whose rows have as many cells as it has columns.
    /// </summary>
    public ImmutableArray<Case> ToCases() => [.. Rows.Select(row => new Case(EffectsOf(row), ConditionOf(row)))];

    private Condition? ConditionOf(Row row)
    {
        Condition[] clauses = [.. row.If.Zip(Drivers).Where(cell => cell.First.Test is not null)
            .Select(cell => new Clause(cell.Second, cell.First.Test!.Value) { Comparands = cell.First.Comparands })];
        return clauses.Length switch
        {
            0 => null,
            1 => clauses[0],
            _ => new Group(Quantifier.AllOf, [.. clauses]),
        };
    }

    private ImmutableArray<Effect> EffectsOf(Row row) => [.. Outputs.Zip(row.Then).SelectMany(cell => cell.First.Effects(cell.Second))];

    /// <inheritdoc/>
    public bool Equals(DecisionTable? other) => other is not null && Hit == other.Hit
        && Drivers.SequenceEqual(other.Drivers) && Outputs.SequenceEqual(other.Outputs) && Rows.SequenceEqual(other.Rows);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Hit, Drivers.Length, Outputs.Length, Rows.Length);
}

/// <summary>What it means that several rows of a table match.</summary>
[JsonConverter(typeof(CamelCaseEnum<HitPolicy>))]
public enum HitPolicy
{
    /// <summary>It cannot be: no two rows may match the same record.</summary>
    Unique,

    /// <summary>The topmost counts.</summary>
    First,

    /// <summary>They must say the same.</summary>
    Any,
}

/// <summary>A row of a <see cref="DecisionTable"/>: as many cells as the table has drivers, as many answers as it has outputs.</summary>
public sealed record Row(ImmutableArray<Cell> If, ImmutableArray<Answer> Then)
{
    /// <inheritdoc/>
    public bool Equals(Row? other) => other is not null && If.SequenceEqual(other.If) && Then.SequenceEqual(other.Then);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(If.Length, Then.Length);
}

/// <summary>A test on the column's driver.</summary>
/// <param name="Test">What is asked; null: anything goes.</param>
public sealed record Cell(Test? Test = null)
{
    /// <summary>As many as the test takes.</summary>
    public ImmutableArray<Comparand> Comparands { get; init => field = value.OrEmpty(); } = [];

    /// <inheritdoc/>
    public bool Equals(Cell? other) => other is not null && Test == other.Test && Comparands.SequenceEqual(other.Comparands);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Test, Comparands.Length);
}
