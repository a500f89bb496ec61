using System.Collections.Immutable;
using Dibujo.Core.Forms;
using Dibujo.Core.Notations;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Saving;

/// <summary>Fits submitted changes to their fields, before any rule is looked at.</summary>
internal sealed class ChangeCheck(RuleProgram program, Form form, IRecordLookup? records, DateOnly today)
{
    /// <summary>The changes that can be looked at further; a refusal for each that cannot, or that breaks a limit.</summary>
    internal Dictionary<string, Value> Fit(
        RecordValues saved, Submission submission, ImmutableArray<Refusal>.Builder refusals)
    {
        var raw = submission.Changes;
        var changes = new Dictionary<string, Value>(StringComparer.Ordinal);
        var type = program.Definition.RecordType;
        if (raw.Count > type.Fields.Length)
        {
            // However long the list is, the answer is not.
            refusals.Add(new(RefusalReason.UnknownField, null,
                $"{raw.Count} fields are changed, but a record of this kind has {type.Fields.Length}. Leave out those that it does not have."));
            return changes;
        }

        var first = refusals.Count;
        foreach (var (key, value) in raw)
        {
            if (type.Find(key) is not { } field || !program.IsOnForm(key, form.Key))
            {
                refusals.Add(new(RefusalReason.UnknownField, key,
                    $"The form {form.Label} has no field “{Excerpt.Of(key)}”. Leave it out."));
                continue;
            }

            if (Fit(field, value, submission.Written, out var why) is not { } fitted)
            {
                refusals.Add(new(RefusalReason.WrongType, key, why));
                continue;
            }

            if (field.Type.Violation(fitted, saved[key]) is { } violation)
            {
                refusals.Add(new(RefusalReason.Limit, key, violation));
            }

            // What leads nowhere by now may be handed in again as it stands: nobody chose it anew.
            if (records is not null && !fitted.Equals(saved[key]) && LeadsNowhere(field.Type, fitted) is { } nowhere)
            {
                refusals.Add(new(RefusalReason.LeadsNowhere, key, nowhere));
            }

            changes[key] = fitted;
        }

        // In the order of the fields, however they came.
        refusals.Sort(first, refusals.Count - first, Comparer<Refusal>.Create((one, other) => (Place(one), one.Field, one.Reason).CompareTo((Place(other), other.Field, other.Reason))));
        return changes;

        int Place(Refusal refusal) => type.Find(refusal.Field ?? "") is { } field ? type.Fields.IndexOf(field) : int.MaxValue;
    }

    private Value? Fit(Field field, Value value, Notation? written, out string why)
    {
        why = $"{field.Label} cannot hold this. Give {field.Type.Noun}.";
        if (written is null || value is not Text { Content: var text })
        {
            return field.Type.Fit(value);
        }

        var reading = written.Take(value, field.Type, records as IKnownNames ?? NoNames.Instance, today);
        why = reading switch
        {
            Reading.Open open => open.Question(Excerpt.Of(text)),
            Reading.None none => none.Reason,
            _ => why,
        };
        return reading.Certain;
    }

    private string? LeadsNowhere(FieldType type, Value value) => (type, value) switch
    {
        (LinkType to, Link link) when records!.Find(to.RecordType, link.Record) is null => $"There is no record {link.Record} of that kind. Choose one that exists.",
        (PersonType, Person person) when !records!.HasPerson(person.UserName) => $"Nobody signs in as “{person.UserName}”. Choose a person who does.",
        _ => null,
    };
}
