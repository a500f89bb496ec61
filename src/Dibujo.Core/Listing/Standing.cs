using Dibujo.Core.Evaluation;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Listing;

/// <summary>
/// How a record stood when it was last looked at, for nobody in particular: how far each form is, whether something is missing
/// for the next move, and which names and addresses are complete. Kept beside the record, so that lists and overviews need not evaluate all of them.
/// </summary>
public static class Standing
{
    /// <summary>Whether something is missing for the next move: yes or no.</summary>
    public const string Missing = "@missing";

    /// <summary>Under which key it says how far that form is.</summary>
    public static string KeyOf(string form) => $"@form:{form}";

    /// <summary>Under which key it says that a field of several parts is complete; of one that is not it says nothing.</summary>
    public static string CompleteKeyOf(string field) => $"@complete:{field}";

    /// <summary>How the record stands.</summary>
    /// <param name="program">The rules in force.</param>
    /// <param name="values">The record as it is saved.</param>
    /// <param name="setting">Its workflow and stage, and the moment.</param>
    /// <param name="records">Where linked records are found.</param>
    public static RecordValues Of(RuleProgram program, RecordValues values, Setting setting, IRecordLookup? records) =>
        Of(new WholeRecord(new Session(program, values, Nobody(setting), records)), values);

    /// <summary>The same of a record that is open already. It is as nobody sees it then.</summary>
    public static RecordValues Of(WholeRecord record, RecordValues values, Setting setting)
    {
        record.Become(values, Nobody(setting));
        return Of(record, values);
    }

    private static Setting Nobody(Setting setting) =>
        setting with { Person = null, Roles = [], Move = null, IsNew = false, Channel = Channel.Form, Use = Use.FillingIn, Form = null };

    private static RecordValues Of(WholeRecord record, RecordValues values)
    {
        var type = record.AtHand.Program.Definition.RecordType;
        var isMissing = record.Missing().Any(missing => missing.Moves.IsEmpty);
        return new(FormProgress.Of(record)
            .Select(form => KeyValuePair.Create(KeyOf(form.Form), (Value)new Text(EnumNames<Progress>.Of(form.Progress))))
            .Append(KeyValuePair.Create(Missing, (Value)new YesNo(isMissing)))
            .Concat(type.Fields.Where(field => field.Type is CompoundType && field.Type.IsComplete(values[field.Key]))
                .Select(field => KeyValuePair.Create(CompleteKeyOf(field.Key), (Value)new YesNo(true)))));
    }
}
