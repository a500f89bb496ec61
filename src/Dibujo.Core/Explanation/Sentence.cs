using System.Collections.Immutable;
using System.Text;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Explanation;

/// <summary>A rule, or a piece of one, in plain words.</summary>
public sealed class Sentence
{
    private readonly Labels labels;
    private readonly ImmutableArray<SentencePart>.Builder parts = ImmutableArray.CreateBuilder<SentencePart>();

    private Sentence(Labels labels) => this.labels = labels;

    /// <summary>The whole rule: <em>While</em> condition, effects; <em>else while</em> …; <em>otherwise</em> ….</summary>
    public static ImmutableArray<SentencePart> Of(Rule rule, RecordType type) => Of(rule, new Labels(type));

    /// <summary>All rules of a definition, in list order.</summary>
    public static ImmutableArray<ImmutableArray<SentencePart>> OfRules(Definition definition)
    {
        var shared = new Labels(definition.RecordType);
        return [.. definition.Rules.Select(rule => Of(rule, shared))];
    }

    private static ImmutableArray<SentencePart> Of(Rule rule, Labels labels)
    {
        var sentence = new Sentence(labels);
        foreach (var (i, @case) in rule.Cases.Index())
        {
            sentence.WriteCase(i, @case);
        }

        sentence.Mark(".");
        return sentence.parts.ToImmutable();
    }

    /// <summary>One condition, without <em>while</em>.</summary>
    public static ImmutableArray<SentencePart> Of(Condition condition, RecordType type)
    {
        var sentence = new Sentence(new Labels(type));
        sentence.WriteCondition("", condition, isOutermost: true);
        return sentence.parts.ToImmutable();
    }

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

    private void WriteCase(int i, Case @case)
    {
        if (i > 0)
        {
            Mark(";");
        }

        if (@case.While is null)
        {
            Word(i == 0 ? "Always" : "otherwise");
        }
        else
        {
            Word(i == 0 ? "While" : "else while");
            WriteCondition($"/cases/{i}/while", @case.While, isOutermost: true);
            Mark(",");
        }

        foreach (var (e, effect) in @case.Effects.Index())
        {
            if (e > 0)
            {
                Word("and");
            }

            WriteEffect($"/cases/{i}/effects/{e}", effect);
        }
    }

    private void WriteEffect(string place, Effect effect)
    {
        parts.Add(new(PartKind.Verb, Wording.Verb(effect), place));
        WriteList("and", effect.Targets.Length,
            t => parts.Add(new(PartKind.Target, labels.Of(effect.Targets[t]), $"{place}/targets/{t}")));
        if (Wording.Detail(effect) is { } detail)
        {
            parts.Add(new(PartKind.Detail, detail, place));
        }
    }

    private void WriteCondition(string place, Condition condition, bool isOutermost)
    {
        if (condition is Clause clause)
        {
            WriteClause(place, clause);
            return;
        }

        var group = (Group)condition;
        if (group.Quantifier == Quantifier.NoneOf)
        {
            Word(Wording.Of(group.Quantifier));
        }

        var bracketed = !isOutermost || group.Quantifier == Quantifier.NoneOf;
        if (bracketed)
        {
            Word("(");
        }

        foreach (var (i, member) in group.Members.Index())
        {
            if (i > 0)
            {
                Word(group.Quantifier == Quantifier.AllOf ? "and" : "or");
            }

            WriteCondition($"{place}/members/{i}", member, isOutermost: false);
        }

        if (bracketed)
        {
            Mark(")");
        }
    }

    private void WriteClause(string place, Clause clause)
    {
        parts.Add(new(PartKind.Subject, labels.Of(clause.Subject), $"{place}/subject"));
        var words = Wording.Of(clause.Test).Split(" … ");
        parts.Add(new(PartKind.Test, words[0], $"{place}/test"));
        WriteList(clause.Test.Shape() == TestShape.Range ? "and" : "or", clause.Comparands.Length,
            i => parts.Add(new(PartKind.Comparand, labels.Of(clause.Subject, clause.Comparands[i]), $"{place}/comparands/{i}")));
        if (words.Length > 1)
        {
            Word(words[1]);
        }
    }

    private void WriteList(string last, int count, Action<int> write)
    {
        for (var i = 0; i < count; i++)
        {
            if (i > 0 && i == count - 1)
            {
                Word(last);
            }
            else if (i > 0)
            {
                Mark(",");
            }

            write(i);
        }
    }

    private void Word(string word) => parts.Add(new(PartKind.Keyword, word));

    private void Mark(string mark) => parts.Add(new(PartKind.Keyword, mark, Glued: true));
}
