using System.Runtime.InteropServices.JavaScript;
using Dibujo.Core.Analysis;
using Dibujo.Core.Answers;
using Dibujo.Core.Tapes;

namespace Dibujo.Browser;

/// <summary>What is to be known of rules before a record tells, as JavaScript asks for it.</summary>
internal static partial class Analyses
{
    /// <summary>Which rows of a rule's table are reached, and what none covers: a <see cref="TableReach"/>.</summary>
    [JSExport]
    internal static string Reach(int program, int[] tape, string text) =>
        AnswerWriter.Write(to => to.Write(TableReach.Of(RuleTape.Rule(Tape.Read(tape, text)).Table!, Programs.DefinitionOf(program).Type)));

    /// <summary>What changes where the draft's rules stand in another order, given as their places now: sentences.</summary>
    [JSExport]
    internal static string Reordered(int program, int[] places)
    {
        var definition = Programs.DefinitionOf(program);
        return AnswerWriter.Write(to => to.Write(Reordering.Between(definition.Rules, [.. places.Select(place => definition.Rules[place])], definition.Type)));
    }

    /// <summary>Where the moves of each workflow lead: a list of <see cref="Core.Analysis.Ways"/>.</summary>
    [JSExport]
    internal static string Ways(int program) => AnswerWriter.Write(to => to.Write(Programs.DefinitionOf(program).Type.Workflows.Select(Core.Analysis.Ways.Of)));

    /// <summary>What rules with a jump ahead or an early end skip: a list of objects with <c>rule</c>, its place, and <c>elements</c>.</summary>
    [JSExport]
    internal static string Skipped(int program) => AnswerWriter.Write(to => to.WriteSkipped(Programs.Of(program)));
}
