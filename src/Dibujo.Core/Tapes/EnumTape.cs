namespace Dibujo.Core.Tapes;

/// <summary>Members of enumerations by their names in camel case, as <see cref="CamelCaseEnum{TEnum}"/> writes them.</summary>
internal static class EnumTape
{
    /// <summary>The member; the one with the value 0 where nothing is said.</summary>
    internal static T Read<T>(TapeNode node, T otherwise = default)
        where T : struct, Enum => node.IsNull ? otherwise : EnumNames<T>.Member(node.Text);
}
