using System.Runtime.InteropServices.JavaScript;
using Dibujo.Core.Answers;
using Dibujo.Core.Programs;
using Dibujo.Core.Rules;
using Dibujo.Core.Tapes;

namespace Dibujo.Browser;

/// <summary>
/// Definitions, as JavaScript sees them: it hands over tapes (see <see cref="Tape"/>) and gets JSON. What only an editor
/// wants to know of one is made when it is asked for.
/// </summary>
internal static partial class Programs
{
    private static readonly Handles<OpenDefinition> Held = new();

    /// <summary>Compiles an edition, which the server has checked.</summary>
    [JSExport]
    internal static int Publish(int[] tape, string text) => Held.Add(OpenDefinition.Published(RuleTape.Definition(Tape.Read(tape, text))));

    /// <summary>Checks and compiles a draft. Its rules are known from now on by their places in the list, from 0.</summary>
    [JSExport]
    internal static int Draft(int[] tape, string text) => Held.Add(OpenDefinition.Draft(RuleTape.Definition(Tape.Read(tape, text))));

    /// <summary>
    /// Puts other rules in place of a draft's. They come as a list in which a number stands for a rule that is known; a rule
    /// that is not gets the next number. Where none is known, numbers begin from 0 again.
    /// </summary>
    [JSExport]
    internal static void Edit(int program, int[] tape, string text)
    {
        var rules = Tape.Read(tape, text);
        Held[program].Edit([.. Enumerable.Range(0, rules.Count).Select(place => rules[place])
            .Select(rule => rule.Kind == TapeKind.Integer ? ((Rule?)null, rule.Integer) : (RuleTape.Rule(rule), -1))]);
    }

    /// <summary>
    /// What is wrong: <c>type</c>, problems of the record type, without which nothing can be opened, and <c>rules</c>, the
    /// place of each rule with problems, and those, with places within it, in turn.
    /// </summary>
    [JSExport]
    internal static string Problems(int program) => AnswerWriter.Write(to => to.Write(Held[program].TypeProblems, Held[program].RuleProblems));

    /// <summary>The elements that the form of that key knows; none where the record type has problems.</summary>
    [JSExport]
    internal static string Elements(int program, string form) => Held[program].Program is not { } usable ? "[]"
        : AnswerWriter.Write(to => to.Write(usable, form));

    [JSExport]
    internal static void Close(int program) => Held.Remove(program);

    internal static OpenDefinition DefinitionOf(int program) => Held[program];

    internal static RuleProgram Of(int program) => Held[program].Program ?? throw new InvalidOperationException("The record type has a problem.");
}
