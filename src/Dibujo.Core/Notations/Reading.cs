using System.Collections.Immutable;
using Dibujo.Core.Values;

namespace Dibujo.Core.Notations;

/// <summary>What a written text is as a value.</summary>
public abstract record Reading
{
    private Reading()
    {
    }

    /// <summary>It is that value, blank for nothing.</summary>
    public sealed record Of(Value Value) : Reading;

    /// <summary>It may be one of several: whoever wrote it has to say which, in the words that stand beside each.</summary>
    public sealed record Open(ImmutableArray<Choice> Choices) : Reading
    {
        /// <summary>A question in a sentence, and how to answer it.</summary>
        public string Question(string text) => $"“{text}” may be {string.Join(" or ", Choices.Select(choice => choice.Text))}. Write it so that only one is meant.";
    }

    /// <summary>It is none, for a reason that says how to mend it.</summary>
    public sealed record None(string Reason) : Reading;

    /// <summary>One of several values, and how it is written so that nothing else can be meant.</summary>
    public sealed record Choice(Value Value, string Text);

    /// <summary>The value where it is certain; null otherwise.</summary>
    public Value? Certain => (this as Of)?.Value;

    /// <summary>What is possible: nothing, one value, or several that have to be chosen from.</summary>
    internal static Reading Among(IReadOnlyList<Choice> possible, Func<string> reason) => possible.DistinctBy(one => one.Value).ToList() switch
    {
        [] => new None(reason()),
        [var only] => new Of(only.Value),
        var several => new Open([.. several]),
    };
}
