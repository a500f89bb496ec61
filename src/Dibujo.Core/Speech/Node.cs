using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Speech;

/// <summary>What a stretch of the words may say: a name, a cue, or something made of several of these.</summary>
internal abstract record Node
{
    /// <summary>How unlikely it is that its parts make this, besides what each of them costs.</summary>
    internal double Cost { get; init; }

    internal sealed record Said(Cue Cue) : Node;

    /// <summary>Something with a word before it that joins it to what comes before.</summary>
    internal sealed record Joined(Cue By, Node Of) : Node;

    /// <summary>Elements that an effect acts on.</summary>
    /// <param name="Of">The elements.</param>
    /// <param name="IsNegated">Whether it is none of them.</param>
    /// <param name="IsListed">Whether an "and" or "or" ended the list, as it does in "A, B and C".</param>
    internal sealed record Targets(ImmutableArray<Element> Of, bool IsNegated = false, bool IsListed = false) : Node;

    /// <summary>What a condition looks at: several where the same is said of each.</summary>
    internal sealed record Subjects(ImmutableArray<Subject> Of, bool IsAny = false, bool IsNegated = false) : Node;

    /// <param name="Field">Whose they are.</param>
    /// <param name="Keys">Which.</param>
    /// <param name="IsNegated">Whether it is none of them.</param>
    /// <param name="IsAll">Whether "and" joins them: where there may be several, all of them at once.</param>
    internal sealed record Choices(Field Field, ImmutableArray<string> Keys, bool IsNegated = false, bool IsAll = false) : Node;

    /// <summary>Stages, moves, roles, people, workflows or forms.</summary>
    internal sealed record Settings(Subject Subject, ImmutableArray<string> Keys, bool IsNegated = false) : Node;

    /// <summary>A number, with the unit or the stretch of time that it counts.</summary>
    internal sealed record Amount(decimal Number, string? Unit) : Node;

    internal sealed record Range(Amount From, Amount To) : Node;

    internal sealed record Quoted(string Text) : Node;

    /// <summary>Something to compare with that is no plain value: a day, another field, a result.</summary>
    internal sealed record Other(Comparand Comparand, bool IsAgo = false) : Node;

    /// <summary>A test with what it compares with, whatever it will be asked of.</summary>
    internal sealed record Tail(Test Test, ImmutableArray<Node> With, bool IsNegated = false) : Node;

    /// <summary>What is asked of a number, by the word for its size: "heavier than".</summary>
    internal sealed record Measured(Subject Subject, Test Test) : Node;

    /// <summary>The record to which that field leads, as where something comes from.</summary>
    internal sealed record Linked(string Link) : Node;

    /// <summary>A stretch of days around one: "in the two weeks before the visit".</summary>
    internal sealed record During(Condition Condition) : Node;

    /// <summary>Something that may be so; whether the subject is still to be found in what is acted on ("if it is blank").</summary>
    internal sealed record Holds(Condition Condition) : Node;

    /// <summary>A condition with its "if".</summary>
    /// <param name="Condition">The condition.</param>
    /// <param name="IsOnly">Whether it is so only then.</param>
    /// <param name="IsElse">Whether it is another case: "else if".</param>
    /// <param name="IsEither">Whether it is two of them, with "or" between: what follows belongs to the second.</param>
    internal sealed record When(Condition Condition, bool IsOnly = false, bool IsElse = false, bool IsEither = false) : Node;

    /// <summary>Elements of which something will be said, in a case that stands between: "the fee for museums".</summary>
    internal sealed record Qualified(Targets Of, When In) : Node;

    /// <summary>What becomes of elements, said behind them.</summary>
    internal sealed record State(ImmutableArray<Doing> Of, bool IsOnly = false) : Node;

    /// <summary>Several things that are done to the same elements, said before them.</summary>
    internal sealed record Verbs(ImmutableArray<Doing> Of) : Node;

    /// <summary>What is done to elements, said before them.</summary>
    internal sealed record Verb(Doing Of) : Node;

    /// <summary>Effects; those on "it" have no targets yet. Where they need a condition of their own, with it.</summary>
    internal sealed record Does(ImmutableArray<Effect> Effects, Condition? If = null, bool IsOnly = false) : Node;

    /// <summary>The field that is given a value which comes later.</summary>
    internal sealed record Given(string Field, Doing How) : Node
    {
        /// <summary>When it is, where that was said with the field; null otherwise.</summary>
        internal Condition? If { get; init; }
    }

    /// <summary>The value that is given to a field which comes later.</summary>
    internal sealed record Giving(Node Value, Doing How) : Node;

    /// <summary>A subject of which it is said what it has to be, or must not be.</summary>
    internal sealed record Bound(Subject Subject, bool IsForbidden) : Node;

    /// <summary>The moves for which something is needed.</summary>
    internal sealed record For(ImmutableArray<string> Moves) : Node;

    /// <summary>Moves that are not to be made without something.</summary>
    internal sealed record Stopped(ImmutableArray<string> Moves) : Node;

    internal sealed record Words(string Text) : Node;

    internal sealed record Without(ImmutableArray<Element> Of) : Node;

    /// <summary>Another value for another case: "and 12 for a plinth".</summary>
    internal sealed record Another(Node Value, Condition Condition) : Node;

    /// <summary>Something that is said with emphasis and changes nothing: "not even the director".</summary>
    internal sealed record Aside : Node;

    /// <summary>What is so in all other cases; none for the opposite.</summary>
    internal sealed record Else(ImmutableArray<Effect> Effects) : Node;

    /// <summary>A whole rule.</summary>
    /// <param name="Cases">Its cases.</param>
    /// <param name="IsOnly">Whether it is so only then.</param>
    /// <param name="IsElse">Whether it was said to be another case of what was said before.</param>
    internal sealed record Whole(ImmutableArray<Case> Cases, bool IsOnly = false, bool IsElse = false) : Node;
}
