using System.Collections.Immutable;
using System.Text;
using Dibujo.Core.Conditions;
using Dibujo.Core.Expressions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Reshaping;

/// <summary>Gives a field another key, wherever it is named.</summary>
internal sealed class FieldRenaming(RecordType type, string from, string to) : Rewriting
{
    internal Definition Of(Definition definition) => new(
        type with
        {
            TitleField = Field(type.TitleField),
            OtherWords = [.. type.OtherWords.Select(word => word.Field == from ? word with { Field = to } : word)],
            Fields = [.. type.Fields.Select(field => field.Key == from ? field with { Key = to } : field)],
            Forms = [.. type.Forms.Select(form => form with
            {
                Tabs = [.. form.Tabs.Select(tab => tab with
                {
                    Sections = [.. tab.Sections.Select(section => section with
                    {
                        Fields = [.. section.Fields.Select(Field)],
                        Widths = section.Widths.ToImmutableSortedDictionary(width => Field(width.Key), width => width.Value),
                    })],
                })],
            })],
        },
        [.. definition.Rules.Select(Of)])
    {
        Examples = [.. definition.Examples.Select(Of)],
    };

    protected override bool IsOwn(string recordType) => recordType == type.Key;

    protected override string Field(string key) => key == from ? to : key;

    protected override Element Element(Element element) => element.Kind switch
    {
        ElementKind.Field => Forms.Element.Field(Field(element.Key)),
        ElementKind.Part when element.Key.StartsWith(from + ".", StringComparison.Ordinal) => Forms.Element.Part(to, element.Key[(from.Length + 1)..]),
        _ => element,
    };

    protected override Subject Subject(Subject subject)
    {
        switch (subject)
        {
            case FieldSubject field:
                return field with { Field = Field(field.Field) };
            case LinkedSubject linked:
                var path = Path([.. linked.Via, linked.Field]);
                return linked with { Via = path[..^1], Field = path[^1] };
            default:
                return subject;
        }
    }

    protected override string Text(string text) => text.Replace($"{{{from}}}", $"{{{to}}}", StringComparison.Ordinal);

    /// <summary>The expression with nothing but that name replaced; a text that is none stays as it is.</summary>
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
            if (tokens[i].Kind != TokenKind.Word || IsMark(i + 1, "(") || IsMark(i - 1, "."))
            {
                continue;
            }

            var words = new List<Token> { tokens[i] };
            for (var at = i + 1; IsMark(at, ".") && tokens[at + 1].Kind == TokenKind.Word; at += 2)
            {
                words.Add(tokens[at + 1]);
            }

            foreach (var (word, key) in words.Zip(Path([.. words.Select(word => word.Content)])))
            {
                written.Append(text, end, word.Place - end).Append(key);
                end = word.Place + word.Content.Length;
            }
        }

        return written.Append(text, end, text.Length - end).ToString();

        bool IsMark(int at, string mark) => at >= 0 && at < tokens.Count && tokens[at].Kind == TokenKind.Mark && tokens[at].Content == mark;
    }

    protected override string? FieldOf(Subject subject) => null;

    /// <summary>Keys of fields of which each leads on to the next: only those that are of this record type change.</summary>
    private ImmutableArray<string> Path(ImmutableArray<string> keys)
    {
        var path = keys.ToBuilder();
        var at = type.Key;
        for (var i = 0; i < keys.Length && at is not null; i++)
        {
            path[i] = at == type.Key ? Field(keys[i]) : keys[i];
            at = (type.FieldsOf(at)?.FirstOrDefault(field => field.Key == keys[i])?.Type as LinkType)?.RecordType;
        }

        return path.ToImmutable();
    }
}
