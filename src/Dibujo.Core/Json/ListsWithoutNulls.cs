using System.Collections;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;

namespace Dibujo.Core.Json;

/// <summary>Refuses null as an item of a list, which the reader itself would let through.</summary>
public static class ListsWithoutNulls
{
    /// <summary>To be added to a resolver with <see cref="JsonTypeInfoResolver.WithAddedModifier"/>.</summary>
    public static void Demand(JsonTypeInfo info)
    {
        var lists = info.Kind == JsonTypeInfoKind.Object
            ? info.Properties.Where(p => p.Get is not null && p.PropertyType != typeof(string) && typeof(IEnumerable).IsAssignableFrom(p.PropertyType)).ToList()
            : [];
        if (lists.Count > 0)
        {
            info.OnDeserialized = read =>
            {
                foreach (var list in lists)
                {
                    if (list.Get!(read) is IEnumerable items && items.Cast<object?>().Contains(null))
                    {
                        throw new JsonException($"null stands in the list “{list.Name}”");
                    }
                }
            };
        }
    }
}
