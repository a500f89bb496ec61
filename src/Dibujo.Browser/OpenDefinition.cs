using System.Collections.Immutable;
using Dibujo.Core.Checking;
using Dibujo.Core.Compilation;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Browser;

/// <summary>A record type whose rules JavaScript looks at and edits.</summary>
internal sealed class OpenDefinition
{
    private readonly bool isTrusted;
    private ProgramCompiler? compiler;

    /// <summary>Who could sign in when the compiler was made.</summary>
    private ImmutableHashSet<string>? accounts;

    /// <summary>Every rule that has come over, by the number under which JavaScript knows it.</summary>
    private readonly List<Rule> known = [];

    private OpenDefinition(RecordType type, ImmutableArray<Problem> problems, bool isTrusted)
    {
        (Type, TypeProblems, this.isTrusted) = (type, problems, isTrusted);
    }

    internal RecordType Type { get; }

    /// <summary>What is wrong with the record type itself; then there is no program.</summary>
    internal ImmutableArray<Problem> TypeProblems { get; }

    /// <summary>What is wrong with rules.</summary>
    internal ImmutableArray<RuleProblems> RuleProblems { get; private set; } = [];

    internal ImmutableArray<Rule> Rules { get; private set; } = [];

    internal RuleProgram? Program { get; private set; }

    /// <summary>An edition, which the server has checked.</summary>
    internal static OpenDefinition Published(Definition definition) => new OpenDefinition(definition.RecordType, [], isTrusted: true).With(definition.Rules);

    /// <summary>A draft, in which anything may be wrong.</summary>
    internal static OpenDefinition Draft(Definition definition) =>
        new OpenDefinition(definition.RecordType, DefinitionCheck.OfRecordType(definition.RecordType), isTrusted: false).With(definition.Rules);

    /// <summary>
    /// Puts other rules in place; null for one stands for the rule of the number beside it. Where none does, what was known is
    /// forgotten, and the rules are known by their places in this list.
    /// </summary>
    internal void Edit(IReadOnlyList<(Rule? Rule, int Number)> rules)
    {
        if (rules.All(rule => rule.Rule is not null))
        {
            known.Clear();
        }

        With([.. rules.Select(rule =>
        {
            if (rule.Rule is { } added)
            {
                known.Add(added);
                return added;
            }

            return known[rule.Number];
        })]);
    }

    private OpenDefinition With(ImmutableArray<Rule> rules)
    {
        if (known.Count == 0)
        {
            known.AddRange(rules);
        }

        Rules = rules;
        if (TypeProblems.IsEmpty)
        {
            // Other people: each rule that names somebody is checked again.
            if (compiler is null || (!isTrusted && accounts != Readings.Accounts))
            {
                compiler = new(Type, isTrusted, accounts = Readings.Accounts);
            }

            (Program, RuleProblems) = compiler.Compile(rules);
        }

        return this;
    }
}
