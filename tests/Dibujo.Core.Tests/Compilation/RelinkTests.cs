using System.Collections;
using System.Collections.Immutable;
using System.Globalization;
using System.Reflection;
using System.Text;
using CsCheck;
using Dibujo.Core.Checking;
using Dibujo.Core.Compilation;
using Dibujo.Core.Conditions;
using Dibujo.Core.Expressions;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Tests.Compilation;

/// <summary>A program that came of many edits is the one that would have been compiled at once.</summary>
public class RelinkTests
{
    private const int Worlds = 400;

    [Fact]
    public void A_program_relinked_after_any_edits_is_the_fresh_one_byte_for_byte() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed);
        var definition = chance.Definition();
        var compiler = new ProgramCompiler(definition.RecordType);
        var rules = definition.Rules;
        for (var edit = 0; edit < 6; edit++)
        {
            var (relinked, problems) = compiler.Compile(rules);
            var (fresh, freshProblems) = new ProgramCompiler(definition.RecordType).Compile(rules);

            Assert.Equal(Written(fresh), Written(relinked));
            Assert.Equal(Problems(freshProblems), Problems(problems));
            rules = Edited(chance, rules);
        }
    }, iter: Worlds);

    [Fact]
    public void However_often_rules_are_edited_few_more_are_known_than_there_are()
    {
        var definition = new Chance(7).Definition();
        var compiler = new ProgramCompiler(definition.RecordType);
        var rules = definition.Rules;
        for (var edit = 0; edit < 3000; edit++)
        {
            rules = rules.SetItem(edit % rules.Length, rules[edit % rules.Length] with { Reason = $"Edited {edit} times" });
            compiler.Compile(rules);
            Assert.InRange(compiler.Known, 0, 1001 + (3 * rules.Length));
        }

        Assert.Equal(Written(new ProgramCompiler(definition.RecordType).Compile(rules).Program), Written(compiler.Compile(rules).Program));
    }

    [Fact]
    public void Renaming_a_rule_or_giving_another_reason_links_nothing() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed);
        var definition = chance.Definition();
        var compiler = new ProgramCompiler(definition.RecordType);
        var before = compiler.Compile(definition.Rules).Program;

        var after = compiler.Compile([.. definition.Rules.Select(rule => rule with { Name = rule.Name + "!", Reason = "Somebody asked." })]).Program;

        Assert.Same(before.Claims, after.Claims);
        Assert.EndsWith("!", after.Definition.Rules[0].Name, StringComparison.Ordinal);
    }, iter: 100);

    [Fact]
    public void A_rule_whose_key_another_has_is_left_out_until_one_of_them_goes()
    {
        var definition = new Chance(7).Definition();
        var compiler = new ProgramCompiler(definition.RecordType);
        var rule = definition.Rules[0];

        var (_, problems) = compiler.Compile([rule, rule with { Name = "The same again" }]);

        Assert.Equal((1, "/key"), (Assert.Single(problems).Place, problems[0].Problems[0].Place));
        Assert.Empty(compiler.Compile([rule]).Problems);
    }

    private static ImmutableArray<Rule> Edited(Chance chance, ImmutableArray<Rule> rules)
    {
        var at = chance.Pick([.. Enumerable.Range(0, rules.Length)]);
        return chance.Pick("replace", "add", "remove", "move", "switch", "rename", "break") switch
        {
            "replace" => rules.SetItem(at, chance.NextRule(at) with { Key = rules[at].Key }),
            "add" => rules.Insert(at, chance.NextRule(rules.Length + 100)),
            "remove" => rules.Length > 1 ? rules.RemoveAt(at) : rules,
            "move" => rules.RemoveAt(at).Insert(0, rules[at]),
            "switch" => rules.SetItem(at, rules[at] with { On = !rules[at].On }),
            "rename" => rules.SetItem(at, rules[at] with { Name = "Another name" }),
            _ => rules.SetItem(at, rules[at] with { Cases = [], Table = null }),
        };
    }

    private static string Problems(ImmutableArray<RuleProblems> problems) =>
        string.Join('\n', problems.SelectMany(of => of.Problems.Select(problem => problem.Within($"/rules/{of.Place}"))));

    private static string Written(RuleProgram program)
    {
        var text = new StringBuilder();
        Write(program, text);
        return text.ToString();
    }

    /// <summary>Every field of every object of the program, down to its numbers.</summary>
    private static void Write(object? item, StringBuilder to)
    {
        switch (item)
        {
            case null:
                to.Append('-');
                return;
            case string or bool or Enum or decimal or DateTime or DateOnly:
                to.Append(CultureInfo.InvariantCulture, $"{item}|");
                return;
            case ValueType number when number.GetType().IsPrimitive:
                to.Append(CultureInfo.InvariantCulture, $"{number}|");
                return;
            case RecordType or Field or SubjectTypes or Expression or Definition:
                // What was compiled, as it came.
                return;
        }

        to.Append(item.GetType().Name).Append('(');
        if (item is IEnumerable items)
        {
            foreach (var inner in items)
            {
                Write(inner, to);
            }
        }
        else
        {
            for (var type = item.GetType(); type != typeof(object) && type != typeof(ValueType); type = type!.BaseType)
            {
                foreach (var field in type!.GetFields(BindingFlags.Instance | BindingFlags.NonPublic | BindingFlags.Public | BindingFlags.DeclaredOnly))
                {
                    Write(field.GetValue(item), to);
                }
            }
        }

        to.Append(')');
    }
}
