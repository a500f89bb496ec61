using System.Collections.Immutable;
using Dibujo.Core.Notations;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Reshaping;

/// <summary>Counts, record by record, what a changed record type does to them.</summary>
/// <param name="before">The record type as records are now.</param>
/// <param name="after">As it is to be.</param>
/// <param name="names">Knows the people and records that there are.</param>
public sealed class Consequences(RecordType before, RecordType after, IKnownNames names)
{
    private const int MostExamples = 8;

    private readonly RecordReshaping reshaping = new(before, after);
    private readonly Dictionary<object, Tally> tallies = new(ReferenceEqualityComparer.Instance);
    private readonly List<object> order = [];

    /// <summary>How many records were looked at.</summary>
    public int Records { get; private set; }

    /// <summary>How many of them will not be as they were.</summary>
    public int Changed { get; private set; }

    /// <summary>Looks at one record.</summary>
    public void Add(int record, string title, RecordValues values, string workflow, string stage)
    {
        var isChanged = false;
        _ = reshaping.Of(values, workflow, stage, names, effect =>
        {
            // As when it is done: what reads alike may be stored otherwise, and the other way round.
            isChanged |= effect.Of is Reshape || !ValueConverter.AreAlike(effect.Held, effect.Then);
            if (!tallies.TryGetValue(effect.Of, out var tally))
            {
                tallies[effect.Of] = tally = new();
                order.Add(effect.Of);
            }

            tally.Records++;
            tally.Of[(int)effect.Fate]++;
            if (effect.Fate != Fate.Kept && effect.Of is Field field && tally.Examples.Count(one => one.Fate == effect.Fate) < MostExamples)
            {
                tally.Examples.Add(new(record, title, effect.Fate, (effect.Before ?? field.Type).Display(effect.Held), effect.Then.IsBlank ? "" : field.Type.Display(effect.Then)));
            }
        });
        Records++;
        Changed += isChanged ? 1 : 0;
    }

    /// <summary>What was found so far; a change that met no record is not in it.</summary>
    public ImmutableArray<Consequence> All() => [.. order.Select(change =>
    {
        var tally = tallies[change];
        return new Consequence(
            Words(change), FieldOf(change), tally.Records, tally.Of[(int)Fate.Rewritten], tally.Of[(int)Fate.Altered], tally.Of[(int)Fate.Lost],
            [.. tally.Examples.OrderByDescending(one => one.Fate).ThenBy(one => one.Record)]);
    })];

    private string? FieldOf(object change) => change switch
    {
        FieldRenamed renamed => Later(renamed.To),
        ChoiceMerged merged => Later(merged.Field),
        Field field => field.Key,
        _ => null,
    };

    private string Later(string key) => after.Find(key) is null ? after.Reshaping.OfType<FieldRenamed>().Aggregate(key, (at, renamed) => renamed.From == at ? renamed.To : at) : key;

    private string Words(object change) => change switch
    {
        FieldRenamed renamed => $"{Label(renamed.To)} has the key {renamed.To} in place of {renamed.From}.",
        ChoiceMerged merged => $"{Label(merged.Field)}: {Choice(merged.Field, merged.From)} becomes {Choice(merged.Field, merged.To)}.",
        StageRemoved removed => $"{before.FindStage(removed.From)?.Label ?? removed.From} is no longer a stage: its records go to {after.FindStage(removed.To)?.Label ?? removed.To}.",
        Field field when before.Fields.Contains(field) && after.Find(Later(field.Key)) is null => $"{field.Label} is no longer a field. What records have of it stays with them, out of sight, and in their history.",
        Field field when before.Find(Origin(field.Key)) is { } old => old.Type.GetType() == field.Type.GetType()
            ? $"{field.Label} is of a type with other settings."
            : $"{field.Label} is {Kind(old.Type)} no longer, but {Kind(field.Type)}.",
        Field field => $"{field.Label} begins blank: what a former field of the key {field.Key} held does not come back.",
        _ => "",
    };

    private string Origin(string key) => after.Reshaping.OfType<FieldRenamed>().Reverse().Aggregate(key, (at, renamed) => renamed.To == at ? renamed.From : at);

    private string Label(string key) => (after.Find(Later(key)) ?? before.Find(Origin(key)))?.Label ?? key;

    private string Choice(string field, string key) =>
        new[] { before.Find(Origin(field)), after.Find(field) }.Select(one => (one?.Type as IOffersOptions)?.Options.FirstOrDefault(option => option.Key == key)?.Label)
            .FirstOrDefault(label => label is not null) ?? key;

    private static string Kind(FieldType type) => type switch
    {
        TextType => "a line of text",
        LongTextType => "long text",
        YesNoType => "yes or no",
        DateType => "a date",
        DateTimeType => "a date and time",
        ChoiceType => "one choice",
        ChoicesType => "several choices",
        FullNameType => "a full name",
        AddressType => "an address",
        LinkType => "a link to a record",
        PersonType => "a person",
        _ => type.Noun,
    };

    private sealed class Tally
    {
        internal int Records { get; set; }

        internal int[] Of { get; } = new int[4];

        internal List<ReshapedValue> Examples { get; } = [];
    }
}
