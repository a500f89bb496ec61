using System.Collections.Immutable;
using Dibujo.Core.Notations;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Reshaping;

/// <summary>Takes records from the record type as it was to what it is from now on.</summary>
public sealed class RecordReshaping
{
    private readonly ImmutableArray<Reshape> reshapes;
    private readonly ImmutableArray<TypeChange> types;
    private readonly ImmutableArray<Field> begun;
    private readonly ImmutableArray<Dropped> dropped;

    /// <summary>The way from one record type to another, which says itself what is whose successor.</summary>
    public RecordReshaping(RecordType before, RecordType after)
    {
        reshapes = Applicable(before, after);
        var origins = after.Fields.ToDictionary(field => field, Origin);
        types = [.. from field in after.Fields
                    let old = before.Find(origins[field])
                    where old is not null
                    let held = Merged(old, field.Key)
                    where !IsSame(held, field.Type)
                    select new TypeChange(field, held)];
        begun = [.. after.Fields.Where(field => before.Find(origins[field]) is null)];
        dropped = [.. before.Fields.Where(field => !origins.ContainsValue(field.Key)).Select(field => new Dropped(field, Later(field.Key)))];
        TitleField = after.TitleField;
        // A title is copied beside the record, as it reads in its field.
        IsNeeded = !reshapes.IsEmpty || !types.IsEmpty || Origin(after.Find(after.TitleField)!) != before.TitleField;
    }

    /// <summary>Whether any record might have to change; where nothing but new fields came, none has.</summary>
    public bool IsNeeded { get; }

    /// <summary>Whether anything is to be told of records, though they may stay as they are.</summary>
    public bool TellsSomething => IsNeeded || !dropped.IsEmpty;

    /// <summary>Key of the field by which records are called then.</summary>
    public string TitleField { get; }

    /// <summary>What becomes of a record, and what that does, one after another.</summary>
    /// <param name="values">Its values, bare as in the store; what no field knows stays.</param>
    /// <param name="workflow">Key of its workflow.</param>
    /// <param name="stage">Key of its stage.</param>
    /// <param name="names">Knows the people and records that there are: nothing becomes one that there is not.</param>
    /// <param name="note">Told of every change that meets this record; null to know nothing.</param>
    public (RecordValues Values, string Stage) Of(RecordValues values, string workflow, string stage, IKnownNames names, Action<Effect>? note = null)
    {
        foreach (var reshape in reshapes)
        {
            switch (reshape)
            {
                case FieldRenamed renamed when values.ByField.TryGetValue(renamed.From, out var held):
                    values = values.With(renamed.From, Value.Blank).With(renamed.To, held);
                    note?.Invoke(new(reshape, Fate.Kept, held, held));
                    break;
                case ChoiceMerged merged when ChoiceMerging.Of(values[merged.Field], merged.From, merged.To) is var then && !then.Equals(values[merged.Field]):
                    note?.Invoke(new(reshape, Fate.Altered, values[merged.Field], then));
                    values = values.With(merged.Field, then);
                    break;
                case StageRemoved removed when removed.Workflow == workflow && removed.From == stage:
                    stage = removed.To;
                    note?.Invoke(new(reshape, Fate.Altered, Value.Blank, Value.Blank));
                    break;
                default:
                    break;
            }
        }

        foreach (var change in types)
        {
            if (change.Before.Fit(values[change.Field.Key]) is not { IsBlank: false } held)
            {
                continue;
            }

            var then = Conversion.Of(held, change.Before, change.Field.Type, names);
            note?.Invoke(new(change.Field, Conversion.FateOf(held, change.Before, change.Field.Type, names), held, then) { Before = change.Before });
            values = then.Equals(held) ? values : values.With(change.Field.Key, then);
        }

        foreach (var gone in dropped.Where(gone => gone.Field.Type.Fit(values[gone.Key]) is { IsBlank: false }))
        {
            note?.Invoke(new(gone.Field, Fate.Kept, values[gone.Key], values[gone.Key]));
        }

        // Something of a former field that had the same key is nothing that was filled in here.
        foreach (var field in begun.Where(field => values.ByField.ContainsKey(field.Key)))
        {
            note?.Invoke(new(field, Fate.Lost, values[field.Key], Value.Blank));
            values = values.With(field.Key, Value.Blank);
        }

        return (values, stage);
    }

    /// <summary>What a change does to one record.</summary>
    /// <param name="Of">A <see cref="Reshape"/>, or the field: of the new record type where it has another type or begins blank, of the old one where it goes.</param>
    /// <param name="Fate">What becomes of the value.</param>
    /// <param name="Held">The value before.</param>
    /// <param name="Then">The value after.</param>
    public sealed record Effect(object Of, Fate Fate, Value Held, Value Then)
    {
        /// <summary>The type in which the value before reads, where that is another.</summary>
        public FieldType? Before { get; init; }
    }

    private sealed record TypeChange(Field Field, FieldType Before);

    /// <summary>A field that is no more. What records have of it they keep, out of sight: nobody has said that it is to go.</summary>
    private sealed record Dropped(Field Field, string Key);

    /// <summary>
    /// Those that say something of these two types. A pack that goes from one installation to another tells what was done
    /// where it comes from, which may have been done here as well.
    /// </summary>
    private static ImmutableArray<Reshape> Applicable(RecordType before, RecordType after)
    {
        var fields = before.Fields.Select(field => field.Key).ToHashSet(StringComparer.Ordinal);
        return [.. after.Reshaping.Where(reshape => reshape switch
        {
            FieldRenamed renamed => fields.Contains(renamed.From) && fields.Add(renamed.To) && fields.Remove(renamed.From),
            StageRemoved removed => before.FindWorkflow(removed.Workflow)?.Position(removed.From) >= 0 && after.FindWorkflow(removed.Workflow)?.Position(removed.From) < 0,
            _ => true,
        })];
    }

    /// <summary>Key under which records have held the field so far.</summary>
    private string Origin(Field field) =>
        reshapes.OfType<FieldRenamed>().Reverse().Aggregate(field.Key, (key, renamed) => renamed.To == key ? renamed.From : key);

    /// <summary>The former type as it is once choices have been merged: what is left to do is what the types tell.</summary>
    private FieldType Merged(Field old, string key) => reshapes.OfType<ChoiceMerged>().Where(merged => Later(merged.Field) == key).Aggregate(old.Type, (type, merged) => type switch
    {
        ChoiceType choice => new ChoiceType(Merged(choice.Options, merged)),
        ChoicesType choices => new ChoicesType(Merged(choices.Options, merged)),
        _ => type,
    });

    private static ImmutableArray<Option> Merged(ImmutableArray<Option> options, ChoiceMerged merged)
    {
        ImmutableArray<Option> left = [.. options.Where(option => option.Key != merged.From)];
        return OptionList.Find(left, merged.To) is null ? left.Add(new(merged.To, merged.To)) : left;
    }

    private string Later(string key) => reshapes.OfType<FieldRenamed>().Aggregate(key, (at, renamed) => renamed.From == at ? renamed.To : at);

    /// <summary>Whether values are held alike: limits, units and words around a value make no other of it.</summary>
    private static bool IsSame(FieldType before, FieldType after) => (before, after) switch
    {
        (NumberType one, NumberType other) => other.Scale >= one.Scale,
        (MoneyType one, MoneyType other) => one.Currency == other.Currency,
        (IOffersOptions one, IOffersOptions other) => before.GetType() == after.GetType() && one.Options.All(option => OptionList.Find(other.Options, option.Key) is not null),
        (LinkType one, LinkType other) => one.RecordType == other.RecordType,
        _ => before.GetType() == after.GetType(),
    };
}
