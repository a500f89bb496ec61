using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Dibujo.Core.Checking;
using Dibujo.Core.Csv;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Examples;
using Dibujo.Core.Explanation;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Saving;
using Dibujo.Core.Sentences;
using Dibujo.Core.Values;

namespace Dibujo.Core.Json;

/// <summary>How the model is written as JSON, in files, in the store and at every boundary: strictly, without reflection.</summary>
[JsonSourceGenerationOptions(
    PropertyNamingPolicy = JsonKnownNamingPolicy.CamelCase,
    UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
    DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    RespectNullableAnnotations = true,
    RespectRequiredConstructorParameters = true,
    AllowOutOfOrderMetadataProperties = true,
    AllowDuplicateProperties = false,
    MaxDepth = 64)]
[JsonSerializable(typeof(Definition))]
[JsonSerializable(typeof(RecordFile))]
[JsonSerializable(typeof(Setting))]
[JsonSerializable(typeof(Value))]
[JsonSerializable(typeof(IReadOnlyDictionary<string, Value>))]
[JsonSerializable(typeof(ImmutableArray<Problem>))]
[JsonSerializable(typeof(ImmutableArray<Refusal>))]
[JsonSerializable(typeof(ImmutableArray<SentencePart>))]
[JsonSerializable(typeof(Rule))]
[JsonSerializable(typeof(SentenceReading))]
[JsonSerializable(typeof(ImmutableArray<SentenceOffer>))]
[JsonSerializable(typeof(ImmutableArray<MissingField>))]
[JsonSerializable(typeof(ImmutableArray<SaidMessage>))]
[JsonSerializable(typeof(ImmutableArray<Suggestion>))]
[JsonSerializable(typeof(ImmutableArray<ClauseExplanation>))]
[JsonSerializable(typeof(ImmutableArray<ImmutableArray<SentencePart>>))]
[JsonSerializable(typeof(ElementExplanation))]
[JsonSerializable(typeof(Vocabulary))]
[JsonSerializable(typeof(ImmutableArray<Element>))]
[JsonSerializable(typeof(ImmutableArray<string>))]
[JsonSerializable(typeof(Example))]
[JsonSerializable(typeof(ImmutableArray<ExampleRun>))]
[JsonSerializable(typeof(ImportReport))]
[JsonSerializable(typeof(ImmutableArray<Outlook>))]
[JsonSerializable(typeof(ImmutableArray<Reshape>))]
public sealed partial class CoreJson : JsonSerializerContext;
