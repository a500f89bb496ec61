using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using Dibujo.Core.Json;
using Dibujo.Core.Sentences;

namespace Dibujo.Browser;

/// <summary>Rules as sentences, written and typed, as JavaScript sees them.</summary>
internal static partial class Sentences
{
    /// <summary>The rules at those places in words: a list of <see cref="SentencePart"/>s for each, as JSON.</summary>
    [JSExport]
    internal static string Write(int program, int[] rules)
    {
        var definition = Programs.DefinitionOf(program);
        return JsonSerializer.Serialize(
            Sentence.OfAll(rules.Select(rule => definition.Rules[rule]), definition.RecordType),
            CoreJson.Default.ImmutableArrayImmutableArraySentencePart);
    }

    /// <summary>What may be put into the blanks of a sentence: a <see cref="Core.Sentences.Vocabulary"/> as JSON.</summary>
    [JSExport]
    internal static string Vocabulary(int program) =>
        JsonSerializer.Serialize(Core.Sentences.Vocabulary.Of(Programs.DefinitionOf(program).RecordType), CoreJson.Default.Vocabulary);

    /// <summary>Reads a sentence into a rule that is otherwise like another: a <see cref="SentenceReading"/> as JSON.</summary>
    [JSExport]
    internal static string Read(int program, string sentence, string likeJson) => JsonSerializer.Serialize(
        SentenceReading.Of(
            sentence, Programs.DefinitionOf(program).RecordType, JsonSerializer.Deserialize(likeJson, CoreJson.Default.Rule)!),
        CoreJson.Default.SentenceReading);

    /// <summary>What may stand at the cursor, the most likely first: <see cref="SentenceOffer"/>s as JSON.</summary>
    [JSExport]
    internal static string Complete(int program, string sentence, int cursor) => JsonSerializer.Serialize(
        SentenceReading.Complete(sentence, cursor, Programs.DefinitionOf(program).RecordType), CoreJson.Default.ImmutableArraySentenceOffer);
}
