namespace Dibujo.Core.Programs;

/// <summary>Fields whose values depend on each other, or one field that depends on none of those after it.</summary>
/// <param name="Fields">Their numbers, ascending.</param>
/// <param name="Variants">In a true cycle, the variants within it, highest rule first; else none.</param>
internal sealed record Cycle(int[] Fields, int[] Variants)
{
    internal bool IsTrue => Fields.Length > 1;
}
