using System.Text.Json.Serialization;

namespace Dibujo.Core.Packs;

/// <summary>How packs are written as JSON: as <see cref="Json.CoreJson"/> writes the model.</summary>
[JsonSourceGenerationOptions(
    PropertyNamingPolicy = JsonKnownNamingPolicy.CamelCase,
    UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
    DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    RespectNullableAnnotations = true,
    RespectRequiredConstructorParameters = true,
    AllowOutOfOrderMetadataProperties = true,
    AllowDuplicateProperties = false,
    MaxDepth = 64)]
[JsonSerializable(typeof(Pack))]
[JsonSerializable(typeof(Comparison))]
public sealed partial class PackJson : JsonSerializerContext;
