using System.Collections.Immutable;
using Dibujo.Core.Checking;
using Dibujo.Core.Expressions;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Reshaping;

/// <summary>A draft after a change that its rules, examples, forms and records follow.</summary>
public static class Reshaped
{
    /// <summary>The draft with everything following, and the change noted for the records; or why it cannot be made, as a sentence.</summary>
    public static (Definition? Definition, string? Mistake) By(Definition draft, Reshape reshape)
    {
        var type = draft.RecordType;
        return Mistake(type, reshape) is { } mistake ? (null, mistake) : (Noted(reshape switch
        {
            FieldRenamed field => new FieldRenaming(type, field.From, field.To).Of(draft),
            ChoiceMerged choice => new ChoiceMerging(type, choice).Of(draft),
            StageRemoved stage => StageRemoval.Of(draft, stage),
            _ => draft,
        }, type.Reshaping, reshape), null);
    }

    /// <summary>Two renamings of one field are one, and none where it has its former key again.</summary>
    private static Definition Noted(Definition definition, ImmutableArray<Reshape> before, Reshape reshape)
    {
        ImmutableArray<Reshape> noted = before is [.., FieldRenamed last] && reshape is FieldRenamed next && last.To == next.From
            ? last.From == next.To ? before[..^1] : before.SetItem(before.Length - 1, new FieldRenamed(last.From, next.To))
            : before.Add(reshape);
        return definition with { RecordType = definition.RecordType with { Reshaping = noted } };
    }

    private static string? Mistake(RecordType type, Reshape reshape) => reshape switch
    {
        FieldRenamed { From: var from } when type.Find(from) is null => $"There is no field “{from}”.",
        FieldRenamed { To: var to } when type.Find(to) is not null => $"There is a field “{to}” already. Choose another key.",
        FieldRenamed { To: var to } when !ProblemList.IsKey(to) || Expression.Parse(to).Expression is not { Names: [var name] } || name != to =>
            $"“{to}” cannot be a key. Begin with a letter and use letters and digits, so that formulas can name it.",
        ChoiceMerged merged when (type.Find(merged.Field)?.Type as IOffersOptions)?.Options is not { } options
            || !options.Any(o => o.Key == merged.From) || !options.Any(o => o.Key == merged.To) || merged.From == merged.To => "Name two choices of one field.",
        StageRemoved removed when type.FindWorkflow(removed.Workflow) is not { } workflow
            || workflow.Position(removed.From) < 0 || workflow.Position(removed.To) < 0 || removed.From == removed.To => "Name two stages of one workflow.",
        _ => null,
    };
}
