using System.Collections.Immutable;
using Dibujo.Core.Checking;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Compilation;

/// <summary>
/// Compiles the rules of one record type, again and again as they are edited: a rule that an edit left alone is not
/// compiled again, and one of which only the name or the reason differs says what it said before.
/// </summary>
/// <remarks>Not for use by several threads at once.</remarks>
public sealed class ProgramCompiler
{
    /// <summary>Above so many times what a program uses, what has gathered in the frame is thrown away.</summary>
    private const int MostLeftOver = 3;
    private const int FewParts = 5000;
    private const int FewRules = 1000;

    private readonly RecordType type;
    private readonly bool isTrusted;
    private readonly Lazy<RuleCheck> check;

    /// <summary>Each rule that was met, by identity.</summary>
    private readonly Dictionary<Rule, KnownRule> known = new(ReferenceEqualityComparer.Instance);

    /// <summary>How many rules are known, those of earlier drafts included: never more than some times as many as a draft has.</summary>
    internal int Known => known.Count;

    /// <summary>A number for each key, and the rule that had it last.</summary>
    private readonly Dictionary<string, (int Number, Rule Rule)> keys = new(StringComparer.Ordinal);
    private Frame frame;
    private (ImmutableArray<CompiledRule?> Rules, RuleProgram Program)? last;

    /// <summary>Begins with nothing compiled.</summary>
    /// <param name="type">Of all rules to come; one without problems.</param>
    /// <param name="isTrusted">Whether they have been checked before, as what is published has: then none is checked.</param>
    /// <param name="accounts">Who can sign in: a rule that names anybody else has a problem. Null where nobody here knows.</param>
    public ProgramCompiler(RecordType type, bool isTrusted = false, IReadOnlySet<string>? accounts = null)
    {
        (this.type, this.isTrusted) = (type, isTrusted);
        frame = new(type);
        check = new(() => new(type, accounts));
    }

    /// <summary>
    /// Checks and compiles a definition. Rules that are off or have problems are left out; the program is null if the record
    /// type itself has a problem.
    /// </summary>
    public static (RuleProgram? Program, ImmutableArray<Problem> Problems) Compile(Definition definition)
    {
        var (program, problems) = CheckAndCompile(definition);
        return (program, problems.All());
    }

    /// <summary>The same as <see cref="Compile(Definition)"/>, with problems by rule, and with people checked against the accounts that there are, where these are known.</summary>
    public static (RuleProgram? Program, DefinitionProblems Problems) CheckAndCompile(Definition definition, IReadOnlySet<string>? accounts = null)
    {
        var problems = RecordTypeCheck.Of(definition.RecordType);
        if (!problems.IsEmpty)
        {
            return (null, new(problems, []));
        }

        var (program, ofRules) = new ProgramCompiler(definition.RecordType, accounts: accounts).Compile(definition.Rules);
        return (program.For(definition), new([], ofRules));
    }

    /// <summary>Compiles a definition that has been checked before, as what is published has.</summary>
    public static RuleProgram CompileTrusted(Definition definition) =>
        new ProgramCompiler(definition.RecordType, isTrusted: true).Compile(definition.Rules).Program.For(definition);

    /// <summary>The program of those rules, highest first, and what is wrong with them. Rules that are off or have problems are left out.</summary>
    public (RuleProgram Program, ImmutableArray<RuleProblems> Problems) Compile(ImmutableArray<Rule> rules)
    {
        ForgetIfMuchIsLeftOver();
        var problems = ImmutableArray.CreateBuilder<RuleProblems>();
        var compiled = ImmutableArray.CreateBuilder<CompiledRule?>(rules.Length);
        var lastWithKey = new bool[keys.Count + rules.Length];
        for (var place = 0; place < rules.Length; place++)
        {
            var rule = Of(rules[place]);
            var found = rule.Problems;
            if (lastWithKey[rule.Key])
            {
                found = [RuleCheck.Twice(rules[place]), .. found];
            }

            lastWithKey[rule.Key] = true;
            compiled.Add(found.IsEmpty && rules[place].On ? rule.Compiled : null);
            if (!found.IsEmpty)
            {
                problems.Add(new(place, found));
            }
        }

        return (Link(rules, compiled.ToImmutable()), problems.ToImmutable());
    }

    private RuleProgram Link(ImmutableArray<Rule> rules, ImmutableArray<CompiledRule?> compiled)
    {
        var definition = new Definition(type, rules);
        var program = last is { } same && same.Rules.AsSpan().SequenceEqual(compiled.AsSpan())
            ? same.Program.For(definition)
            : Linker.Link(frame, definition, compiled);
        last = (compiled, program);
        return program;
    }

    private void ForgetIfMuchIsLeftOver()
    {
        if (last is { } before && (known.Count > FewRules + (MostLeftOver * before.Rules.Length)
            || frame.Clauses.Count + frame.Groups.Count > FewParts + (MostLeftOver * before.Program.Groups.Count)))
        {
            (frame, last) = (new(type), null);
            known.Clear();
            keys.Clear();
        }
    }

    private KnownRule Of(Rule rule)
    {
        if (known.TryGetValue(rule, out var found))
        {
            return found;
        }

        var (key, before) = keys.TryGetValue(rule.Key, out var same) ? same : (keys.Count, null);
        var compiled = before is not null && SaysTheSame(rule, before) ? known[before].Compiled : Compile(rule);
        ImmutableArray<Problem> problems = isTrusted ? [] : [.. RuleCheck.OfNames(rule), .. compiled.Problems];
        keys[rule.Key] = (key, rule);
        return known[rule] = new(compiled, problems, key);
    }

    private static bool SaysTheSame(Rule one, Rule other) => (one with { Name = other.Name, Reason = other.Reason, On = other.On, Group = other.Group }).Equals(other);

    private CompiledRule Compile(Rule rule)
    {
        var problems = isTrusted ? [] : check.Value.Of(rule);
        return problems.IsEmpty ? RuleCompiler.Compile(frame, rule) : new() { Problems = problems };
    }

    /// <summary>What is known of a rule.</summary>
    /// <param name="Compiled">What it says.</param>
    /// <param name="Problems">With what it says and how it is called.</param>
    /// <param name="Key">A number that stands for its key.</param>
    private sealed record KnownRule(CompiledRule Compiled, ImmutableArray<Problem> Problems, int Key);
}
