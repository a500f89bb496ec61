using System.Collections.Immutable;

namespace Dibujo.Core.Expressions;

/// <summary>
/// A formula in a subset of FEEL (OMG DMN 1.5, chapter 10.3); what it takes is listed in docs/rule-language.md. Names are
/// keys of fields, with a point before a part or a field of a linked record, and <c>today()</c> and <c>now()</c>.
/// </summary>
public sealed class Expression
{
    /// <summary>The name that stands for the site's date.</summary>
    public const string Today = "today()";

    /// <summary>The name that stands for the site's date and time.</summary>
    public const string Now = "now()";

    private const int MostCharacters = 4000;

    private Expression(string text, Syntax syntax)
    {
        Text = text;
        Syntax = syntax;
        var names = new List<string>();
        _ = new TypeCheck(name => Note(names, name), _ => { }).Check(syntax);
        Names = [.. names.Distinct(StringComparer.Ordinal)];
    }

    /// <summary>As it was written.</summary>
    public string Text { get; }

    /// <summary>The names in it, each once, in the order in which they come.</summary>
    public ImmutableArray<string> Names { get; }

    internal Syntax Syntax { get; }

    /// <summary>The expression, or what keeps the text from being one.</summary>
    public static (Expression? Expression, ExpressionProblem? Problem) Parse(string text)
    {
        if (text.Length > MostCharacters)
        {
            return (null, new(MostCharacters, $"The expression has more than {MostCharacters} characters.", "Calculate a part of it in another field."));
        }

        try
        {
            return (new(text, Parser.Parse(text)), null);
        }
        catch (ExpressionException mistake)
        {
            return (null, mistake.Problem);
        }
    }

    /// <summary>The result's type, where names stand for those types (null: for nothing); every problem is reported.</summary>
    internal FeelType Check(Func<string, FeelType?> nameType, Action<ExpressionProblem> report) => new TypeCheck(nameType, report).Check(Syntax);

    /// <summary>The result; null in the sense of the language where there is none. Never throws.</summary>
    internal FeelValue Evaluate(Func<string, FeelValue> lookUp) => new Evaluator(lookUp).Evaluate(Syntax);

    private static FeelType? Note(List<string> names, string name)
    {
        names.Add(name);
        return FeelType.Any;
    }
}
