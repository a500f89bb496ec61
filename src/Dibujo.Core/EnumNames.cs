using System.Reflection;
using System.Text.Json.Serialization;

namespace Dibujo.Core;

/// <summary>Members of an enumeration by their names in camel case, as <see cref="CamelCaseEnum{TEnum}"/> reads and writes them.</summary>
internal static class EnumNames<T>
    where T : struct, Enum
{
    private static readonly Dictionary<T, string> Names = Enum.GetValues<T>().ToDictionary(member => member, CamelCase);
    private static readonly Dictionary<string, T> Members = Names.ToDictionary(name => name.Value, name => name.Key, StringComparer.Ordinal);

    internal static string Of(T member) => Names[member];

    /// <summary>The member of that name; throws where there is none.</summary>
    internal static T Member(string name) => Members[name];

    private static string CamelCase(T member)
    {
        var name = member.ToString();
        return typeof(T).GetField(name)!.GetCustomAttribute<JsonStringEnumMemberNameAttribute>()?.Name ?? char.ToLowerInvariant(name[0]) + name[1..];
    }
}
