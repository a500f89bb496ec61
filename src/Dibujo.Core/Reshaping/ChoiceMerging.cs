using System.Collections.Immutable;
using System.Text;
using Dibujo.Core.Conditions;
using Dibujo.Core.Expressions;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Reshaping;

/// <summary>Puts one choice of a field in the place of another, wherever it is named.</summary>
internal sealed class ChoiceMerging(RecordType type, ChoiceMerged merged) : Rewriting
{
    internal Definition Of(Definition definition) => new(
        type with
        {
            Fields = [.. type.Fields.Select(field => field.Key == merged.Field ? Of(field) : field)],
            OtherWords = [.. type.OtherWords.Select(word => word.Field == merged.Field && word.Choice == merged.From ? word with { Choice = merged.To } : word)],
        },
        [.. definition.Rules.Select(Of)])
    {
        Examples = [.. definition.Examples.Select(Of)],
    };

    /// <summary>The value of the field with the choice in the other's place.</summary>
    internal static Value Of(Value value, string from, string to) => value switch
    {
        Text { Content: var key } when key == from => new Text(to),
        Choice { Key: var key } when key == from => new Choice(to),
        Choices { Keys: var keys } when keys.Contains(from, StringComparer.Ordinal) => new Choices(Of(keys, from, to)),
        _ => value,
    };

    protected override bool IsOwn(string recordType) => recordType == type.Key;

    protected override Value Value(string field, Value value) => field == merged.Field ? Of(value, merged.From, merged.To) : value;

    protected override ImmutableArray<string> Choices(string field, ImmutableArray<string> keys) =>
        field == merged.Field ? Of(keys, merged.From, merged.To) : keys;

    protected override string? FieldOf(Subject subject) => subject switch
    {
        FieldSubject { Part: null, Field: var key } => key,
        LinkedSubject { Part: null } linked when End(linked) == type.Key => linked.Field,
        _ => null,
    };

    /// <summary>A text beside the field's name, with nothing but a comparison between them, is one of its choices.</summary>
    protected override string Expression(string text)
    {
        if (Expressions.Expression.Parse(text).Expression is null)
        {
            return text;
        }

        var tokens = Lexer.Cut(text);
        var written = new StringBuilder();
        var end = 0;
        for (var i = 0; i < tokens.Count; i++)
        {
            if (tokens[i].Kind == TokenKind.Text && tokens[i].Content == merged.From && (IsCompared(i - 1, i - 2) || IsCompared(i + 1, i + 2)))
            {
                written.Append(text, end, tokens[i].Place - end).Append('"').Append(merged.To).Append('"');
                end = tokens[i].Place + merged.From.Length + 2;
            }
        }

        return written.Append(text, end, text.Length - end).ToString();

        bool IsCompared(int mark, int name) => mark > 0 && Math.Max(mark, name) < tokens.Count && name >= 0
            && tokens[mark] is { Kind: TokenKind.Mark, Content: "=" or "!=" }
            && tokens[name].Kind == TokenKind.Word && tokens[name].Content == merged.Field;
    }

    private static ImmutableArray<string> Of(ImmutableArray<string> keys, string from, string to) =>
        [.. keys.Select(key => key == from ? to : key).Distinct(StringComparer.Ordinal)];

    private Field Of(Field field) => field with
    {
        Type = field.Type switch
        {
            ChoiceType choice => new ChoiceType(Without(choice.Options)),
            ChoicesType choices => new ChoicesType(Without(choices.Options)),
            var other => other,
        },
        Default = field.Default is FixedDefault held ? new FixedDefault(Of(held.Value, merged.From, merged.To)) : field.Default,
    };

    private ImmutableArray<Option> Without(ImmutableArray<Option> options) => [.. options.Where(option => option.Key != merged.From)];

    private string? End(LinkedSubject linked)
    {
        var at = type.Key;
        foreach (var via in linked.Via)
        {
            at = at is null ? null : (type.FieldsOf(at)?.FirstOrDefault(field => field.Key == via)?.Type as LinkType)?.RecordType;
        }

        return at;
    }
}
