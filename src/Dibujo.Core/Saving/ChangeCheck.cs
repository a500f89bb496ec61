using System.Collections.Immutable;
using Dibujo.Core.Compilation;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Saving;

/// <summary>Fits submitted changes to their fields, before any rule is looked at.</summary>
internal sealed class ChangeCheck(RuleProgram program, IRecordLookup? records)
{
    /// <summary>The changes that can be looked at further; a refusal for each that cannot, or that breaks a limit.</summary>
    internal Dictionary<string, Value> Fit(ImmutableDictionary<string, Value> raw, ImmutableArray<Refusal>.Builder refusals)
    {
        var changes = new Dictionary<string, Value>(StringComparer.Ordinal);
        foreach (var (key, value) in raw)
        {
            if (!program.IsOnForm(key))
            {
                refusals.Add(new(RefusalReason.UnknownField, key,
                    $"The form {program.Form.Label} has no field “{key}”. Leave it out."));
                continue;
            }

            var field = program.Definition.RecordType.Find(key)!;
            if (field.Type.Fit(value) is not { } fitted)
            {
                refusals.Add(new(RefusalReason.WrongType, key, $"{field.Label} cannot hold this. Give {field.Type.Noun}."));
                continue;
            }

            if (field.Type.Violation(fitted) is { } violation)
            {
                refusals.Add(new(RefusalReason.Limit, key, violation));
            }

            if (records is not null && LeadsNowhere(field.Type, fitted) is { } nowhere)
            {
                refusals.Add(new(RefusalReason.LeadsNowhere, key, nowhere));
            }

            changes[key] = fitted;
        }

        return changes;
    }

    private string? LeadsNowhere(FieldType type, Value value) => (type, value) switch
    {
        (LinkType to, Link link) when records!.Find(to.RecordType, link.Record) is null => $"There is no record {link.Record} of that kind. Choose one that exists.",
        (PersonType, Person person) when !records!.HasPerson(person.UserName) => $"Nobody signs in as “{person.UserName}”. Choose a person who does.",
        _ => null,
    };
}
