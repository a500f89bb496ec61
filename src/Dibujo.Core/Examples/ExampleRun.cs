using System.Collections.Immutable;
using Dibujo.Core.Compilation;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;
using Dibujo.Core.Values;

namespace Dibujo.Core.Examples;

/// <summary>What came of an example.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Failures">What was otherwise than expected, each as a sentence; none: it holds.</param>
public sealed record ExampleRun(string Name, ImmutableArray<string> Failures)
{
    /// <summary>Whether everything was as expected.</summary>
    public bool Holds => Failures.IsEmpty;

    /// <summary>Runs all examples of a definition. One that names what does not exist fails, and says so.</summary>
    public static ImmutableArray<ExampleRun> Of(Definition definition)
    {
        var program = ProgramCompiler.Compile(definition).Program;
        return [.. definition.Examples.Select(example =>
            new ExampleRun(example.Name, program is null ? ["The record type has problems."] : [.. Failing(program, example)]))];
    }

    private static IEnumerable<string> Failing(RuleProgram program, Example example)
    {
        var type = program.Definition.RecordType;
        var setting = example.Setting with { Form = example.Form ?? example.Setting.Form };
        var mistakes = setting.Mistakes(type).ToList();
        if (mistakes.Count > 0)
        {
            foreach (var (_, mistake) in mistakes)
            {
                yield return mistake;
            }

            yield break;
        }

        foreach (var key in example.Values.Keys.Concat(example.Changes.Keys).Where(key => type.Find(key) is null))
        {
            yield return $"There is no field “{key}”.";
        }

        foreach (var mistake in example.Linked.SelectMany(given => given.Mistakes(type)))
        {
            yield return mistake;
        }

        var session = new Session(program, type.Begin(setting, example.Values), setting, new GivenRecords(example.Linked));
        session.Change(example.Changes.Where(c => type.Find(c.Key)?.Type.Fit(c.Value) is not null)
            .Select(c => KeyValuePair.Create(c.Key, type.Find(c.Key)!.Type.Fit(c.Value)!)));
        var labels = new Labels(type);
        foreach (var expectation in example.Expect)
        {
            if (session.NumberOf(expectation.Element) < 0)
            {
                yield return $"There is no {expectation.Element.Kind.ToString().ToLowerInvariant()} “{expectation.Element.Key}” on the form.";
                continue;
            }

            foreach (var failure in Failing(session, expectation, labels.Of(expectation.Element)))
            {
                yield return failure;
            }
        }
    }

    private static IEnumerable<string> Failing(Session session, Expectation expected, string label)
    {
        var state = session.StateOf(expected.Element);
        if (expected.Visible is { } visible && visible != state.IsVisible)
        {
            yield return $"{label} is {(state.IsVisible ? "shown" : "hidden")}, not {(visible ? "shown" : "hidden")}.";
        }

        if (expected.Access is { } access && access != state.Access)
        {
            yield return $"{label} is {Word(state.Access)}, not {Word(access)}.";
        }

        if (expected.Requirement is { } requirement && requirement != state.Requirement)
        {
            yield return $"{label} is {Word(state.Requirement)}, not {Word(requirement)}.";
        }

        if (expected.Value is { } value && expected.Element.Kind == ElementKind.Field)
        {
            var type = session.Program.Definition.RecordType.Find(expected.Element.Key)!.Type;
            var found = session[expected.Element.Key];
            if (!found.Equals(type.Fit(value) ?? value))
            {
                yield return $"{label} holds {Shown(type, found)}, not {Shown(type, type.Fit(value) ?? value)}.";
            }
        }
    }

    private static string Shown(FieldType type, Value value) => value.IsBlank ? "nothing" : type.Display(value);

    private static string Word(Access access) => access == Access.Open ? "open" : "locked";

    private static string Word(Requirement requirement) => requirement switch
    {
        Requirement.Optional => "optional",
        Requirement.ToMoveOn => "required to move on",
        _ => "required to save",
    };
}
