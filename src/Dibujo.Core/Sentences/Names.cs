using System.Collections.Concurrent;
using System.Runtime.CompilerServices;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;

namespace Dibujo.Core.Sentences;

/// <summary>Everything in a record type that a sentence can name, each kind in its own list.</summary>
internal sealed class Names
{
    /// <summary>What stands between a field and its part, or a link and what it leads to.</summary>
    internal const string Step = "›";

    internal const string SavedValue = "the saved value of";
    internal const string ValueOf = "the value of";

    /// <summary>Before a single choice of several that is given as a list of one.</summary>
    internal const string Just = "just";

    /// <summary>What a field is set to that is reset.</summary>
    internal const string ItsDefault = "its default";

    /// <summary>How the element that encloses all forms is called.</summary>
    internal const string Record = "the record";

    private static readonly string[] Verbs =
    [
        "show", "hide", "require", "make optional", "lock", "unlock", "set", "empty", "calculate", "narrow", "stop saving", "stop moving",
        "warn", "tell", "suggest setting", "jump ahead", "end the form", "clear", "reset", "section", "tab", "form", Record, SavedValue, ValueOf,
        "all of", "any of", "none of", "value of", "held value of", "choices of", "what stops", "warning", "note",
    ];

    /// <summary>How tests go on after "is": an option that begins so stands in quotation marks.</summary>
    private static readonly string[] AfterIs =
        [.. Enum.GetValues<Test>().Select(Wording.Of).Where(w => w.StartsWith("is ", StringComparison.Ordinal)).Select(w => w[3..].Split(" … ")[0])];

    /// <summary>Made once for each record type, for as long as somebody has it: a large form has many names, and each is compared with the others.</summary>
    private static readonly ConditionalWeakTable<RecordType, Names> Made = [];

    private readonly ConcurrentDictionary<FieldType, NameList> options = new();
    private readonly ConcurrentDictionary<string, NameList> fieldsOf = new(StringComparer.Ordinal);

    private Names(RecordType type)
    {
        Type = type;
        Subjects = new(type);
        Fields = new(InFormOrder(type).Select(f => (f.Key, f.Label)), Verbs, [.. SettingSubject.All.Select(s => s.Name)]);
        SettingNames = new(SettingSubject.All.Select(s => (s.Name, s.Name)), [], []);
        Sections = new(type.Forms.SelectMany(f => f.Tabs).SelectMany(t => t.Sections).Select(s => (s.Key, s.Label)), [], []);
        Tabs = new(type.Forms.SelectMany(f => f.Tabs).Select(t => (t.Key, t.Label)), [], []);
        Forms = new(type.Forms.Select(f => (f.Key, f.Label)), [], []);
    }

    /// <summary>The names of that record type.</summary>
    internal static Names Of(RecordType type) => Made.GetValue(type, made => new(made));

    internal RecordType Type { get; }

    internal SubjectTypes Subjects { get; }

    internal NameList Fields { get; }

    internal NameList SettingNames { get; }

    internal NameList Sections { get; }

    internal NameList Tabs { get; }

    internal NameList Forms { get; }

    /// <summary>The choices of a field, stages, moves and so on.</summary>
    internal NameList Options(FieldType type) => options.GetOrAdd(
        type, one => new(((IOffersOptions)one).Options.Select(o => (o.Key, o.Label)), [.. AfterIs, "only", Just, "nothing", "today", ValueOf, ItsDefault], []));

    /// <summary>The parts of a compound value.</summary>
    internal static NameList Parts(CompoundType type) => new(type.Parts.Select(p => (p.Key, p.Label)), [], []);

    /// <summary>The fields of a linked record type.</summary>
    internal NameList FieldsOf(string recordType) => fieldsOf.GetOrAdd(
        recordType, key => new((Type.FieldsOf(key) ?? []).Select(f => (f.Key, f.Label)), [], []));

    /// <summary>The name of what is not a field; null for a field.</summary>
    internal static string? SettingName(Subject subject) => SettingSubject.Of(subject)?.Name;

    internal static Subject Setting(string name) => SettingSubject.All.First(s => s.Name == name).Subject;

    /// <summary>Fields as they come on the main form, then the others.</summary>
    private static IEnumerable<Field> InFormOrder(RecordType type) =>
        (type.Forms.FirstOrDefault()?.Fields().Select(type.Find).OfType<Field>() ?? []).Concat(type.Fields);
}
