using System.Collections.Immutable;
using System.Text;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Sentences;

/// <summary>A rule, or a piece of one, in plain words. Every rule without problems has one sentence, which reads back as the same rule.</summary>
public static class Sentence
{
    /// <summary>The whole rule: <em>While</em> condition, effects; <em>else while</em> …; <em>otherwise</em> ….</summary>
    public static ImmutableArray<SentencePart> Of(Rule rule, RecordType type) => new SentenceWriter(Names.Of(type)).Rule(rule);

    /// <summary>Several rules, in the order in which they come; cheaper than one after another.</summary>
    public static ImmutableArray<ImmutableArray<SentencePart>> OfAll(IEnumerable<Rule> rules, RecordType type) =>
        [.. rules.Select(new SentenceWriter(Names.Of(type)).Rule)];

    /// <summary>One condition, without <em>while</em>.</summary>
    public static ImmutableArray<SentencePart> Of(Condition condition, RecordType type) => new SentenceWriter(Names.Of(type)).Condition(condition);

    /// <summary>One effect.</summary>
    public static ImmutableArray<SentencePart> Of(Effect effect, RecordType type) => new SentenceWriter(Names.Of(type)).Effect(effect);

    /// <summary>The parts as one line of text.</summary>
    public static string Plain(ImmutableArray<SentencePart> parts)
    {
        var text = new StringBuilder();
        foreach (var part in parts)
        {
            if (text.Length > 0 && !part.Glued && text[^1] != '(')
            {
                text.Append(' ');
            }

            text.Append(part.Text);
        }

        return text.ToString();
    }
}
