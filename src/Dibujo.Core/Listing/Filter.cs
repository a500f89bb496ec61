using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Values;

namespace Dibujo.Core.Listing;

/// <summary>Which records a list shows: tests on its columns, taken together.</summary>
/// <remarks>The tests are those of rules, with what they say of blanks; they are put to records as they are saved.</remarks>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(FilterGroup), "group")]
[JsonDerivedType(typeof(FilterClause), "clause")]
public abstract record Filter
{
    /// <summary>The clauses in it, however deep.</summary>
    [JsonIgnore]
    public abstract IEnumerable<FilterClause> Clauses { get; }

    /// <summary>How many clauses and groups there are in it, itself included.</summary>
    [JsonIgnore]
    public abstract int Parts { get; }
}

/// <summary>Several taken together.</summary>
public sealed record FilterGroup(Quantifier Quantifier, ImmutableArray<Filter> Members) : Filter
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<FilterClause> Clauses => Members.SelectMany(member => member.Clauses);

    /// <inheritdoc/>
    [JsonIgnore]
    public override int Parts => 1 + Members.Sum(member => member.Parts);
}

/// <summary>A test on one column.</summary>
/// <param name="Of">Key of the column: see <see cref="ListColumn"/>.</param>
/// <param name="Test">What is asked of it.</param>
public sealed record FilterClause(string Of, Test Test) : Filter
{
    /// <summary>With how many values the clauses of a filter are compared at most, all together.</summary>
    public const int MostValues = 1000;

    /// <summary>What it is compared with, bare as in JSON; as many as the test takes.</summary>
    public ImmutableArray<Value> Values { get; init => field = value.OrEmpty(); } = [];

    /// <inheritdoc/>
    [JsonIgnore]
    public override IEnumerable<FilterClause> Clauses => [this];

    /// <inheritdoc/>
    [JsonIgnore]
    public override int Parts => 1;
}
