using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;

namespace Dibujo.Core.Sentences;

/// <summary>What people read for what a definition names by key, outside of sentences. An unknown key stands for itself.</summary>
internal sealed class Labels(RecordType type)
{
    private readonly SubjectTypes subjects = new(type);

    internal string Of(Element element) => element.Kind switch
    {
        ElementKind.Field => Field(element.Key),
        ElementKind.Part => Part(element.Key),
        ElementKind.Section => "section " + (type.Forms.SelectMany(f => f.Tabs).SelectMany(t => t.Sections).FirstOrDefault(s => s.Key == element.Key)?.Label ?? element.Key),
        ElementKind.Tab => "tab " + (type.Forms.SelectMany(f => f.Tabs).FirstOrDefault(t => t.Key == element.Key)?.Label ?? element.Key),
        ElementKind.Record => Names.Record,
        _ => "form " + (type.Forms.FirstOrDefault(f => f.Key == element.Key)?.Label ?? element.Key),
    };

    internal string Of(Subject subject) => subject switch
    {
        FieldSubject field => WithPart(Field(field.Field), subjects.Field(field.Field)?.Type, field.Part),
        LinkedSubject linked => string.Join(' ', (subjects.Path(linked) is { } path ? path.Select(f => f.Label) : [.. linked.Via, linked.Field])
            .SelectMany(label => new[] { Names.Step, label }).Skip(1)),
        _ => Names.SettingName(subject) ?? "…",
    };

    internal string Field(string key) => subjects.Field(key)?.Label ?? (key.Length == 0 ? "…" : key);

    private string Part(string key)
    {
        var point = key.IndexOf('.', StringComparison.Ordinal);
        return point < 0 ? key : WithPart(Field(key[..point]), subjects.Field(key[..point])?.Type, key[(point + 1)..]);
    }

    private static string WithPart(string label, FieldType? whole, string? part) =>
        part is null ? label : $"{label} {Names.Step} {(whole as CompoundType)?.FindPart(part)?.Label ?? part}";
}
