using System.Text.Json;
using System.Text.Json.Serialization.Metadata;

namespace Dibujo.Core.Json;

/// <summary>Refuses an object of which it is not said of which kind it is, as a mistake of the text, where the reader itself complains of the type.</summary>
public static class KindsNamed
{
    /// <summary>To be added to a resolver with <see cref="JsonTypeInfoResolver.WithAddedModifier"/>.</summary>
    public static void Demand(JsonTypeInfo info)
    {
        if (info is { Kind: JsonTypeInfoKind.Object, PolymorphismOptions: not null, Type.IsAbstract: true })
        {
            info.CreateObject = () => throw new JsonException("the kind is not named");
        }
    }
}
