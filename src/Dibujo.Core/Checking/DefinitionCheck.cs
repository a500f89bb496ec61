using System.Collections.Immutable;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Checking;

/// <summary>Finds everything in a definition that cannot be compiled.</summary>
public static class DefinitionCheck
{
    /// <summary>What is wrong with the record type itself, rules apart.</summary>
    public static ImmutableArray<Problem> OfRecordType(RecordType type) => RecordTypeCheck.Of(type);

    /// <summary>
    /// All problems, record type first, then rules in list order. A rule with a problem is left out of the program; a
    /// problem in the record type keeps the whole from compiling.
    /// </summary>
    public static ImmutableArray<Problem> Of(Definition definition)
    {
        var problems = RecordTypeCheck.Of(definition.RecordType);
        if (!problems.IsEmpty)
        {
            return problems;
        }

        var check = new RuleCheck(definition.RecordType, accounts: null);
        var keys = new HashSet<string>(StringComparer.Ordinal);
        return
        [
            .. definition.Rules.SelectMany((rule, place) => RuleCheck.OfNames(rule)
                .Concat(keys.Add(rule.Key) ? [] : [RuleCheck.Twice(rule)])
                .Concat(check.Of(rule))
                .Select(problem => problem.Within($"/rules/{place}"))),
        ];
    }
}
