using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;

namespace Dibujo.Core.Compilation;

/// <summary>What of the setting has a slot of its own.</summary>
internal enum SettingSlot
{
    Stage,
    Workflow,
    Move,
    Roles,
    Person,
    New,
    Form,
    Channel,
    Today,
    Now,
}

/// <summary>
/// Where the engine finds what clauses look at, by number: live field values first, then saved ones, then the setting,
/// then what is derived from those.
/// </summary>
internal sealed class SlotTable(RecordType type, FieldIndex fields)
{
    private const int SettingCount = (int)SettingSlot.Now + 1;
    private readonly SubjectTypes subjects = new(type);
    private readonly List<DerivedSlot> derived = [];
    private readonly Dictionary<object, int> known = [];

    internal int FirstDerived => (2 * fields.Count) + SettingCount;

    internal int Count => FirstDerived + derived.Count;

    internal SubjectTypes Subjects => subjects;

    /// <summary>How each derived slot is computed, in the order of their numbers.</summary>
    internal DerivedSlot[] Derived { get; private set; } = [];

    /// <summary>For each slot, the derived slots that follow from it directly.</summary>
    internal int[][] Following { get; private set; } = [];

    internal int Saved(int field) => fields.Count + field;

    internal int Of(SettingSlot slot) => (2 * fields.Count) + (int)slot;

    /// <summary>The subject's slot.</summary>
    /// <param name="subject">One that exists.</param>
    /// <param name="ownField">The field whose saved value is looked at in place of its live one; -1 for none.</param>
    internal int Of(Subject subject, int ownField) => subject switch
    {
        FieldSubject field => Part(Field(field, ownField), field.Part),
        LinkedSubject linked => Linked(linked, ownField),
        StageSubject => Of(SettingSlot.Stage),
        WorkflowSubject => Of(SettingSlot.Workflow),
        MoveSubject => Of(SettingSlot.Move),
        RoleSubject => Of(SettingSlot.Roles),
        PersonSubject => Of(SettingSlot.Person),
        NewSubject => Of(SettingSlot.New),
        FormSubject => Of(SettingSlot.Form),
        ChannelSubject => Of(SettingSlot.Channel),
        TodaySubject => Of(SettingSlot.Today),
        NowSubject => Of(SettingSlot.Now),
        _ => throw new ArgumentOutOfRangeException(nameof(subject)),
    };

    /// <summary>The slot of a comparand that is no literal.</summary>
    /// <param name="comparand">One without problems.</param>
    /// <param name="as">The type that an expression's result has to fit.</param>
    /// <param name="ownField">See <see cref="Of(Subject, int)"/>.</param>
    internal int Of(Comparand comparand, FieldType @as, int ownField) => comparand switch
    {
        SubjectComparand { Subject: var subject } => Of(subject, ownField),
        RelativeDay day => Derive(day, () => new RelativeDaySlot(Of(SettingSlot.Today), day)),
        ExpressionComparand { Expression: var text } => Expression(text, @as, ownField),
        _ => throw new ArgumentOutOfRangeException(nameof(comparand)),
    };

    /// <summary>The slot with the day of the moment in another slot.</summary>
    internal int Day(int slot) => Derive(("day", slot), () => new DaySlot(slot));

    /// <summary>The fields whose live values the slot follows from.</summary>
    internal IEnumerable<int> FieldsOf(int slot) => slot >= FirstDerived
        ? derived[slot - FirstDerived].Inputs.SelectMany(FieldsOf).Distinct()
        : slot < fields.Count ? [slot] : [];

    internal void Freeze()
    {
        Derived = [.. derived];
        var following = new List<int>[Count];
        for (var i = 0; i < following.Length; i++)
        {
            following[i] = [];
        }

        foreach (var (i, slot) in derived.Index())
        {
            foreach (var input in slot.Inputs.Distinct())
            {
                following[input].Add(FirstDerived + i);
            }
        }

        Following = [.. following.Select(f => f.ToArray())];
    }

    private int Field(FieldSubject subject, int ownField)
    {
        var field = fields[subject.Field];
        return subject.Saved || field == ownField ? Saved(field) : field;
    }

    private int Part(int whole, string? part) => part is null ? whole : Derive(("part", whole, part), () => new PartSlot(whole, part));

    private int Linked(LinkedSubject subject, int ownField)
    {
        var path = subjects.Path(subject)!.Value;
        var slot = Of(new FieldSubject(path[0].Key), ownField);
        for (var i = 1; i < path.Length; i++)
        {
            var (from, field, there) = (slot, path[i], ((LinkType)path[i - 1].Type).RecordType);
            slot = Derive(("linked", from, field.Key), () => new LinkedSlot(from, there, field));
        }

        return Part(slot, subject.Part);
    }

    private int Expression(string text, FieldType @as, int ownField)
    {
        var expression = Expressions.Expression.Parse(text).Expression!;
        ImmutableArray<int> names = [.. expression.Names.Select(name => Of(NameResolution.Resolve(name, subjects)!, ownField))];
        return Derive(("=", text, string.Join(',', names), @as), () => new ExpressionSlot(expression, names, @as));
    }

    private int Derive(object key, Func<DerivedSlot> make)
    {
        if (!known.TryGetValue(key, out var slot))
        {
            var made = make();
            slot = Count;
            derived.Add(made);
            known.Add(key, slot);
        }

        return slot;
    }
}
