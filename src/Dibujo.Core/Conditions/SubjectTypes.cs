using System.Collections.Immutable;
using Dibujo.Core.Records;

namespace Dibujo.Core.Conditions;

/// <summary>Which type each subject has for one record type, as though it were a field.</summary>
public sealed class SubjectTypes
{
    private static readonly YesNoType YesNo = new();
    private static readonly DateType Date = new();
    private static readonly DateTimeType DateTime = new();
    private static readonly TextType Text = new();
    private static readonly PersonType Person = new();

    private readonly RecordType type;
    private readonly Dictionary<string, Field> fields;

    /// <summary>For that record type; of fields with the same key the first counts.</summary>
    public SubjectTypes(RecordType type)
    {
        this.type = type;
        fields = type.Fields.DistinctBy(f => f.Key).ToDictionary(f => f.Key, StringComparer.Ordinal);
        Stages = new([.. type.Workflows.SelectMany(w => w.Stages).DistinctBy(s => s.Key).Select(s => new Option(s.Key, s.Label))]);
        Workflows = new([.. type.Workflows.DistinctBy(w => w.Key).Select(w => new Option(w.Key, w.Label))]);
        Moves = new([.. type.Workflows.SelectMany(w => w.Moves).DistinctBy(m => m.Key).Select(m => new Option(m.Key, m.Label))]);
        Roles = new([.. type.Roles.DistinctBy(r => r.Key).Select(r => new Option(r.Key, r.Label))]);
        Forms = new([.. type.Forms.DistinctBy(f => f.Key).Select(f => new Option(f.Key, f.Label))]);
    }

    /// <summary>The ways by which values come in, as choices.</summary>
    public static ChoiceType Channels { get; } =
        new([new("form", "a form"), new("list", "the list"), new("import", "an import"), new("api", "a program")]);

    /// <summary>What a person may be doing with a record, as choices.</summary>
    public static ChoiceType Uses { get; } = new([new("filling-in", "filling in"), new("reading", "reading")]);

    /// <summary>The stages of all workflows, as choices.</summary>
    public ChoiceType Stages { get; }

    /// <summary>The workflows, as choices.</summary>
    public ChoiceType Workflows { get; }

    /// <summary>The moves of all workflows, as choices.</summary>
    public ChoiceType Moves { get; }

    /// <summary>The roles, as choices.</summary>
    public ChoiceType Roles { get; }

    /// <summary>The forms, as choices.</summary>
    public ChoiceType Forms { get; }

    /// <summary>The channel's key among <see cref="Channels"/>.</summary>
    public static string KeyOf(Channel channel) => channel switch
    {
        Channel.List => "list",
        Channel.Import => "import",
        Channel.Api => "api",
        _ => "form",
    };

    /// <summary>The use's key among <see cref="Uses"/>.</summary>
    public static string KeyOf(Use use) => EnumNames<Use>.Of(use);

    /// <summary>The field of that key, or null.</summary>
    public Field? Field(string key) => fields.GetValueOrDefault(key);

    /// <summary>The subject's type; null where it names something that does not exist.</summary>
    public FieldType? Of(Subject subject) => subject switch
    {
        FieldSubject field => PartOf(Field(field.Field)?.Type, field.Part),
        LinkedSubject linked => PartOf(End(linked)?.Type, linked.Part),
        StageSubject => Stages,
        WorkflowSubject => Workflows,
        MoveSubject => Moves,
        RoleSubject => Roles,
        PersonSubject => Person,
        NewSubject => YesNo,
        FormSubject => Forms,
        ChannelSubject => Channels,
        UseSubject => Uses,
        TodaySubject => Date,
        NowSubject => DateTime,
        _ => throw new ArgumentOutOfRangeException(nameof(subject)),
    };

    /// <summary>The fields that the links lead through and the one in which they end; null where they lead nowhere.</summary>
    public ImmutableArray<Field>? Path(LinkedSubject subject)
    {
        if (subject.Via.Length is 0 or > LinkedSubject.MostLinks)
        {
            return null;
        }

        var path = ImmutableArray.CreateBuilder<Field>();
        var here = type.Fields;
        foreach (var via in subject.Via)
        {
            if (here.FirstOrDefault(f => f.Key == via) is not { Type: LinkType link } field || type.FieldsOf(link.RecordType) is not { } there)
            {
                return null;
            }

            path.Add(field);
            here = there;
        }

        if (here.FirstOrDefault(f => f.Key == subject.Field) is not { } end)
        {
            return null;
        }

        path.Add(end);
        return path.ToImmutable();
    }

    private Field? End(LinkedSubject subject) => Path(subject) is { } path ? path[^1] : null;

    private static FieldType? PartOf(FieldType? whole, string? part) =>
        part is null ? whole : whole is CompoundType compound && compound.FindPart(part) is not null ? Text : null;
}
