using System.Collections.Immutable;

namespace Dibujo.Core.Expressions;

/// <summary>A piece of an expression as it was written; the place counts characters from 0.</summary>
internal abstract record Syntax(int Place);

internal sealed record LiteralSyntax(int Place, FeelValue Value) : Syntax(Place);

/// <summary>A name, with what is looked up in it: <c>borrowerContact.family</c>, <c>startDate.year</c>.</summary>
internal sealed record NameSyntax(int Place, string Name) : Syntax(Place);

internal sealed record PathSyntax(int Place, Syntax Of, string Property) : Syntax(Place);

internal sealed record NegationSyntax(int Place, Syntax Of) : Syntax(Place);

/// <summary>Two operands with an operator between them, as written: <c>+ - * / ** = != &lt; &lt;= &gt; &gt;= and or</c>.</summary>
internal sealed record OperationSyntax(int Place, string Operator, Syntax Left, Syntax Right) : Syntax(Place);

internal sealed record BetweenSyntax(int Place, Syntax Subject, Syntax Low, Syntax High) : Syntax(Place);

/// <summary><c>x in (tests)</c>: at least one test holds; a test is a value, a range, a list or a comparison without left side.</summary>
internal sealed record InSyntax(int Place, Syntax Subject, ImmutableArray<Syntax> Tests) : Syntax(Place);

internal sealed record IfSyntax(int Place, Syntax Condition, Syntax Then, Syntax Else) : Syntax(Place);

internal sealed record ListSyntax(int Place, ImmutableArray<Syntax> Items) : Syntax(Place);

internal sealed record RangeSyntax(int Place, Syntax Low, bool IncludesLow, Syntax High, bool IncludesHigh) : Syntax(Place);

/// <summary>An item of a list by its number from 1; from the end where it is negative.</summary>
internal sealed record IndexSyntax(int Place, Syntax List, Syntax Index) : Syntax(Place);

internal sealed record CallSyntax(int Place, BuiltIn Function, ImmutableArray<Syntax> Arguments) : Syntax(Place);
