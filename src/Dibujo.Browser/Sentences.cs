using System.Runtime.InteropServices.JavaScript;
using Dibujo.Core.Answers;
using Dibujo.Core.Sentences;
using Dibujo.Core.Speech;
using Dibujo.Core.Tapes;

namespace Dibujo.Browser;

/// <summary>Rules as sentences, written and typed, as JavaScript sees them.</summary>
internal static partial class Sentences
{
    /// <summary>The rules at those places in words: a list of <see cref="SentencePart"/>s for each.</summary>
    [JSExport]
    internal static string Write(int program, int[] rules)
    {
        var definition = Programs.DefinitionOf(program);
        return AnswerWriter.Write(to => to.Write(Sentence.OfAll(rules.Select(rule => definition.Rules[rule]), definition.Type)));
    }

    /// <summary>Any rule as one line of text.</summary>
    [JSExport]
    internal static string WriteOne(int program, int[] tape, string text) =>
        Sentence.Plain(Sentence.Of(RuleTape.Rule(Tape.Read(tape, text)), Programs.DefinitionOf(program).Type));

    /// <summary>What may be put into the blanks of a sentence: a <see cref="Core.Sentences.Vocabulary"/>.</summary>
    [JSExport]
    internal static string Vocabulary(int program) =>
        AnswerWriter.Write(to => to.Write(Core.Sentences.Vocabulary.Of(Programs.DefinitionOf(program).Type)));

    /// <summary>Hears a rule as people say it, otherwise like another: a <see cref="Hearing"/>.</summary>
    [JSExport]
    internal static string Hear(int program, string said, int[] likeTape, string likeText)
    {
        var definition = Programs.DefinitionOf(program);
        return AnswerWriter.Write(to => to.Write(Hearing.Of(said, definition.Type, definition.Rules, RuleTape.Rule(Tape.Read(likeTape, likeText)), Readings.Own, Readings.Names)));
    }

    /// <summary>
    /// The word of theirs for which somebody put a name: of an object with <c>misheard</c>, what was not understood, and <c>mended</c>, what was said
    /// in the end. An <see cref="Core.Records.OtherWord"/>; null where there is none.
    /// </summary>
    [JSExport]
    internal static string Mended(int program, int[] tape, string text)
    {
        var node = Tape.Read(tape, text);
        return AnswerWriter.Write(to => to.Write(MendedWord.Of(node["misheard"].Texts(), node["mended"].Text, Programs.DefinitionOf(program).Type)));
    }

    /// <summary>
    /// Hears what is typed into cells of a rule's table: an object with <c>rule</c> and <c>cells</c>, a column from 0 and a
    /// text each. Back come cells and answers, null for what cannot be heard.
    /// </summary>
    [JSExport]
    internal static string HearCells(int program, int[] tape, string text)
    {
        var type = Programs.DefinitionOf(program).Type;
        var node = Tape.Read(tape, text);
        var table = RuleTape.Rule(node["rule"]).Table!;
        var cells = node["cells"];
        return AnswerWriter.Write(to => to.List(Enumerable.Range(0, cells.Count).Select(i => cells[i]), cell =>
        {
            var (column, said) = (cell["column"].Integer, cell["text"].Text);
            if (column < table.Drivers.Length)
            {
                to.Write(CellHearing.Cell(said, table.Drivers[column], type, Readings.Own));
            }
            else
            {
                to.Write(CellHearing.Answer(said, table.Outputs[column - table.Drivers.Length], type, Readings.Own));
            }
        }));
    }

    /// <summary>A name for a rule, from what it does and what it looks at.</summary>
    [JSExport]
    internal static string Name(int program, int[] tape, string text) => RuleName.For(RuleTape.Rule(Tape.Read(tape, text)), Programs.DefinitionOf(program).Type);
}
