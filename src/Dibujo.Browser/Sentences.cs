using System.Runtime.InteropServices.JavaScript;
using Dibujo.Core.Answers;
using Dibujo.Core.Sentences;
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

    /// <summary>What may be put into the blanks of a sentence: a <see cref="Core.Sentences.Vocabulary"/>.</summary>
    [JSExport]
    internal static string Vocabulary(int program) =>
        AnswerWriter.Write(to => to.Write(Core.Sentences.Vocabulary.Of(Programs.DefinitionOf(program).Type)));

    /// <summary>Reads a sentence into a rule that is otherwise like another: a <see cref="SentenceReading"/>.</summary>
    [JSExport]
    internal static string Read(int program, string sentence, int[] likeTape, string likeText) =>
        AnswerWriter.Write(to => to.Write(SentenceReading.Of(sentence, Programs.DefinitionOf(program).Type, RuleTape.Rule(Tape.Read(likeTape, likeText)))));

    /// <summary>What may stand at the cursor, the most likely first: <see cref="SentenceOffer"/>s.</summary>
    [JSExport]
    internal static string Complete(int program, string sentence, int cursor) =>
        AnswerWriter.Write(to => to.Write(SentenceReading.Complete(sentence, cursor, Programs.DefinitionOf(program).Type)));
}
