using System.Text.Json.Serialization;

namespace Dibujo.Core.Conditions;

/// <summary>What a clause asks of its subject.</summary>
/// <remarks>
/// A positive test is false on a blank subject or with a blank comparand. A negative one is exactly the negation of its
/// positive twin, so it is true there. Which tests fit which subject: <see cref="FittingTests"/>.
/// </remarks>
[JsonConverter(typeof(CamelCaseEnum<Test>))]
public enum Test
{
    /// <summary>Equal; for a role: the person has it.</summary>
    Is,

    /// <summary>Negation of <see cref="Is"/>.</summary>
    IsNot,

    /// <summary>Equal to at least one comparand.</summary>
    OneOf,

    /// <summary>Negation of <see cref="OneOf"/>.</summary>
    NoneOf,

    /// <summary>The text has the comparand somewhere in it.</summary>
    Contains,

    /// <summary>Negation of <see cref="Contains"/>.</summary>
    DoesNotContain,

    /// <summary>The text begins with the comparand.</summary>
    StartsWith,

    /// <summary>Negation of <see cref="StartsWith"/>.</summary>
    DoesNotStartWith,

    /// <summary>At least one of the comparands is among the choices.</summary>
    IncludesAny,

    /// <summary>Negation of <see cref="IncludesAny"/>.</summary>
    IncludesNone,

    /// <summary>All of the comparands are among the choices.</summary>
    IncludesAll,

    /// <summary>Negation of <see cref="IncludesAll"/>.</summary>
    DoesNotIncludeAll,

    /// <summary>Less than the comparand.</summary>
    LessThan,

    /// <summary>The comparand or less.</summary>
    AtMost,

    /// <summary>The comparand or more.</summary>
    AtLeast,

    /// <summary>More than the comparand.</summary>
    MoreThan,

    /// <summary>From the first comparand to the second, both included.</summary>
    Between,

    /// <summary>Negation of <see cref="Between"/>.</summary>
    NotBetween,

    /// <summary>An earlier day, moment or stage.</summary>
    Before,

    /// <summary>A later day, moment or stage.</summary>
    After,

    /// <summary>That day or moment, or an earlier one.</summary>
    OnOrBefore,

    /// <summary>That day, moment or stage, or a later one.</summary>
    FromOn,

    /// <summary>No value.</summary>
    Blank,

    /// <summary>Negation of <see cref="Blank"/>.</summary>
    FilledIn,

    /// <summary>All parts that are not optional are filled in.</summary>
    Complete,

    /// <summary>Negation of <see cref="Complete"/>.</summary>
    Incomplete,

    /// <summary>Another value than the saved one, also where one of the two is blank.</summary>
    Changed,

    /// <summary>Negation of <see cref="Changed"/>.</summary>
    Unchanged,
}

/// <summary>How many comparands a test takes.</summary>
[JsonConverter(typeof(CamelCaseEnum<TestShape>))]
public enum TestShape
{
    /// <summary>None.</summary>
    Alone,

    /// <summary>Exactly one.</summary>
    One,

    /// <summary>Exactly two, the lower first.</summary>
    Range,

    /// <summary>One or more.</summary>
    Many,
}
