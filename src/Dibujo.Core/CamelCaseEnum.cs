using System.Text.Json;
using System.Text.Json.Serialization;

namespace Dibujo.Core;

/// <summary>Writes an enumeration by its member's name in camel case and reads nothing else, numbers included.</summary>
public sealed class CamelCaseEnum<TEnum>() : JsonStringEnumConverter<TEnum>(JsonNamingPolicy.CamelCase, allowIntegerValues: false)
    where TEnum : struct, Enum;
