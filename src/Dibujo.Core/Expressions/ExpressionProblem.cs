namespace Dibujo.Core.Expressions;

/// <summary>What is wrong with an expression.</summary>
/// <param name="Place">Where: characters from the start, from 0.</param>
/// <param name="What">What is wrong and why, as a sentence.</param>
/// <param name="Mend">What to do about it, as a sentence.</param>
public sealed record ExpressionProblem(int Place, string What, string Mend);

internal sealed class ExpressionException(int place, string what, string mend) : Exception(what)
{
    internal ExpressionProblem Problem { get; } = new(place, what, mend);
}
