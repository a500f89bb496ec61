using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Sentences;

namespace Dibujo.Core.Speech;

/// <summary>Everything in a record type that people can name, by what they say for it.</summary>
internal sealed class Lexicon
{
    private static readonly ConditionalWeakTable<RecordType, Lexicon> Made = [];
    private readonly ConcurrentDictionary<FieldType, NameIndex<string>> options = new();

    private readonly ConcurrentDictionary<ElementKind, NameIndex<Element>> ofKind = new();

    /// <summary>Kept, since it is asked for each rule that might be meant.</summary>
    private readonly ConcurrentDictionary<string, string> spokenOf = new(StringComparer.Ordinal);

    private readonly ImmutableHashSet<string> retired;

    private Lexicon(RecordType type)
    {
        (Type, Names) = (type, Names.Of(type));
        var named = type.Fields.Select(field => (Name: Names.Fields.Write(field.Key), field.Retired))
            .Concat(type.Fields.Select(field => field.Type).OfType<IOffersOptions>().SelectMany(one => one.Options).Select(option => (Name: option.Label, option.Retired))).ToList();
        retired = [.. named.Where(one => one.Retired).Select(one => one.Name).Except(named.Where(one => !one.Retired).Select(one => one.Name), StringComparer.Ordinal)];
        Subjects = new([.. type.Fields.SelectMany(SubjectsAround), .. SettingSubject.All.Select(one => new Named<Subject>(one.Subject, one.Name, one.Name))]);
        Targets = new(type.Elements().Select(TargetOf));
        YesNos = [.. Subjects.Names.Where(name => Names.Subjects.Of(name.Thing) is YesNoType && name.Thing is not NewSubject)];
        Stages = Options(Names.Subjects.Stages);
        Roles = Options(Names.Subjects.Roles);
        Moves = Options(Names.Subjects.Moves);
        Forms = Options(Names.Subjects.Forms);
        Values = new(type.Fields.Where(field => field.Type is IOffersOptions)
            .SelectMany(field => Options(field.Type).Names.Select(option => option with { Text = $"{Names.Fields.Write(field.Key)} is {option.Text}" })
                .Select(option => new Named<(Field, string)>((field, option.Thing), option.Text, option.Words))));
    }

    internal RecordType Type { get; }

    internal Names Names { get; }

    /// <summary>Fields, their parts, what their links lead to directly, and the setting.</summary>
    internal NameIndex<Subject> Subjects { get; }

    internal NameIndex<Element> Targets { get; }

    /// <summary>The elements of one kind only.</summary>
    internal NameIndex<Element> TargetsOf(ElementKind kind) => ofKind.GetOrAdd(kind, one => new(Targets.Names.Where(name => name.Thing.Kind == one)));

    /// <summary>The subjects that are answered with yes or no.</summary>
    internal ImmutableArray<Named<Subject>> YesNos { get; }

    internal NameIndex<string> Stages { get; }

    internal NameIndex<string> Roles { get; }

    internal NameIndex<string> Moves { get; }

    internal NameIndex<string> Forms { get; }

    /// <summary>The choices of all fields.</summary>
    internal NameIndex<(Field Field, string Option)> Values { get; }

    /// <summary>Whether a name is only that of something retired: it is understood, and not offered.</summary>
    internal bool IsRetired(string name) => retired.Contains(name);

    /// <summary>How an element rests.</summary>
    internal Rest RestOf(Element element)
    {
        var tabs = Type.Forms.SelectMany(form => form.Tabs);
        return element.Kind switch
        {
            ElementKind.Field => Type.Find(element.Key)?.Rest,
            ElementKind.Section => tabs.SelectMany(tab => tab.Sections).FirstOrDefault(section => section.Key == element.Key)?.Rest,
            ElementKind.Tab => tabs.FirstOrDefault(tab => tab.Key == element.Key)?.Rest,
            ElementKind.Form => Type.Forms.FirstOrDefault(form => form.Key == element.Key)?.Rest,
            _ => null,
        } ?? Rest.Ordinary;
    }

    internal static Lexicon Of(RecordType type) => Made.GetValue(type, made => new(made));

    /// <summary>What "it" is where that field was looked at: "unless the fee is waived it must be filled in" speaks of the fee.</summary>
    internal string SpokenOf(string field) => spokenOf.GetOrAdd(field, key =>
    {
        if (Type.Find(key) is not { Type: YesNoType } asked)
        {
            return key;
        }

        var words = Words.Of(asked.Label).Select(word => word.Text.ToLowerInvariant()).ToHashSet(StringComparer.Ordinal);
        return Type.Fields.Where(other => other != asked && !other.Retired && Words.Of(other.Label).All(word => words.Contains(word.Text.ToLowerInvariant()))).ToList() is [var only] ? only.Key : key;
    });

    /// <summary>The choices of that type.</summary>
    internal NameIndex<string> Options(FieldType type) => options.GetOrAdd(type, one => new(((IOffersOptions)one).Options
        .Select(option => new Named<string>(option.Key, Names.Options(one).Write(option.Key), option.Label))));

    private IEnumerable<Named<Subject>> SubjectsAround(Field field)
    {
        var name = Names.Fields.Write(field.Key);
        yield return new(new FieldSubject(field.Key), name, field.Label);
        if (field.Type is CompoundType compound)
        {
            foreach (var part in compound.Parts)
            {
                yield return new(new FieldSubject(field.Key, part.Key), $"{name} {Names.Step} {Names.Parts(compound).Write(part.Key)}", $"{field.Label} {part.Label}");
            }
        }

        if (field.Type is LinkType { RecordType: var there })
        {
            foreach (var linked in Type.FieldsOf(there) ?? [])
            {
                yield return new(new LinkedSubject([field.Key], linked.Key), $"{name} {Names.Step} {Names.FieldsOf(there).Write(linked.Key)}", $"{field.Label} {linked.Label}");
            }
        }
    }

    private Named<Element> TargetOf(Element element)
    {
        var text = new SentenceWriter(Names).Target(element);
        return new(element, text, element.Kind == ElementKind.Record ? "record" : LabelOf(element));
    }

    private string LabelOf(Element element)
    {
        var tabs = Type.Forms.SelectMany(form => form.Tabs);
        return element.Kind switch
        {
            ElementKind.Field => Type.Find(element.Key)!.Label,
            ElementKind.Section => tabs.SelectMany(tab => tab.Sections).First(section => section.Key == element.Key).Label,
            ElementKind.Tab => tabs.First(tab => tab.Key == element.Key).Label,
            ElementKind.Form => Type.Forms.First(form => form.Key == element.Key).Label,
            _ => element.Key.Split('.') is [var field, var part] && Type.Find(field) is { Type: CompoundType compound } whole
                ? $"{whole.Label} {compound.FindPart(part)!.Label}"
                : element.Key,
        };
    }
}
