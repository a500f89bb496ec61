using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Dibujo.Core.Drafts;

/// <summary>How steps of a draft are written as JSON: as <see cref="Json.CoreJson"/> writes the model.</summary>
[JsonSourceGenerationOptions(
    PropertyNamingPolicy = JsonKnownNamingPolicy.CamelCase,
    UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
    DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    RespectNullableAnnotations = true,
    RespectRequiredConstructorParameters = true,
    AllowOutOfOrderMetadataProperties = true,
    AllowDuplicateProperties = false,
    MaxDepth = 64)]
[JsonSerializable(typeof(DraftStep))]
[JsonSerializable(typeof(ImmutableSortedDictionary<string, Revision>))]
public sealed partial class DraftJson : JsonSerializerContext;
