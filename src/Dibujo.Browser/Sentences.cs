using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using Dibujo.Core.Exchange;
using Dibujo.Core.Sentences;

namespace Dibujo.Browser;

/// <summary>Rules typed as sentences, as JavaScript sees them.</summary>
internal static partial class Sentences
{
    /// <summary>Reads a sentence into a rule that is otherwise like another: a <see cref="SentenceReading"/> as JSON.</summary>
    [JSExport]
    internal static string Read(int program, string sentence, string likeJson) => JsonSerializer.Serialize(
        SentenceReading.Of(
            sentence, Programs.Held[program].Definition.RecordType, JsonSerializer.Deserialize(likeJson, CoreJson.Default.Rule)!),
        CoreJson.Default.SentenceReading);

    /// <summary>What may stand at the cursor, the most likely first: <see cref="SentenceOffer"/>s as JSON.</summary>
    [JSExport]
    internal static string Complete(int program, string sentence, int cursor) => JsonSerializer.Serialize(
        SentenceReading.Complete(sentence, cursor, Programs.Held[program].Definition.RecordType), CoreJson.Default.ImmutableArraySentenceOffer);
}
