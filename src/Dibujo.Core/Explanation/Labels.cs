using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Explanation;

/// <summary>What people read for what a definition names by key. An unknown key stands for itself, an empty one as "…".</summary>
internal sealed class Labels(RecordType type)
{
    private const string Missing = "…";
    private readonly Dictionary<string, Field> fields = type.Fields.DistinctBy(f => f.Key).ToDictionary(f => f.Key, StringComparer.Ordinal);

    internal string Of(Element element) => element.Kind switch
    {
        ElementKind.Field => Field(element.Key),
        ElementKind.Section => "section " + Or(Sections().FirstOrDefault(s => s.Key == element.Key)?.Label, element.Key),
        _ => "tab " + Or(type.Forms.SelectMany(f => f.Tabs).FirstOrDefault(t => t.Key == element.Key)?.Label, element.Key),
    };

    internal string Of(Subject subject) => subject switch
    {
        FieldSubject field => Field(field.Field),
        StageSubject => "Stage",
        _ => "Role",
    };

    internal string Of(Subject subject, Comparand comparand) => (subject, comparand) switch
    {
        (_, FieldComparand other) => Field(other.Field),
        (_, Literal { Value.IsBlank: true }) => Missing,
        (StageSubject, Literal literal) => Stage(literal.Value.Plain),
        (RoleSubject, Literal literal) => Role(literal.Value.Plain),
        (FieldSubject field, Literal literal) => Value(field.Field, literal.Value),
        _ => Missing,
    };

    internal string Field(string key) => Or(fields.GetValueOrDefault(key)?.Label, key);

    internal string Stage(string key) => type.FindStage(key)?.Label ?? key;

    internal string Role(string key) => type.Roles.FirstOrDefault(r => r.Key == key)?.Label ?? key;

    /// <summary>A value of the field as it stands in a sentence: text in quotation marks.</summary>
    internal string Value(string field, Value value) => fields.GetValueOrDefault(field)?.Type switch
    {
        null => value.Plain,
        TextType or LongTextType => $"“{value.Plain}”",
        var fieldType => fieldType.Display(fieldType.Fit(value) ?? value),
    };

    private IEnumerable<Section> Sections() => type.Forms.SelectMany(f => f.Tabs).SelectMany(t => t.Sections);

    private static string Or(string? label, string key) => label ?? (key.Length == 0 ? Missing : key);
}
