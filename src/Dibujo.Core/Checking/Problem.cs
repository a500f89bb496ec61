namespace Dibujo.Core.Checking;

/// <summary>Something that keeps a definition from being compiled whole.</summary>
/// <param name="Place">Where: a JSON Pointer (RFC 6901) into the definition, such as <c>/rules/3/cases/0/while</c>.</param>
/// <param name="What">What is wrong and why, as a sentence.</param>
/// <param name="Mend">What to do about it, as a sentence.</param>
public sealed record Problem(string Place, string What, string Mend)
{
    /// <summary>The same problem where the place is one within another.</summary>
    internal Problem Within(string place) => this with { Place = place + Place };
}
