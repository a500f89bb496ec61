using System.Collections.Immutable;

namespace Dibujo.Core.Expressions;

/// <summary>From tokens to syntax, by recursive descent (grammar: OMG DMN 1.5, chapter 10.3, in part).</summary>
internal sealed class Parser
{
    /// <summary>Deeper nesting is refused, so that no input can exhaust the stack.</summary>
    private const int MaxDepth = 60;

    private static readonly string[] Reserved =
        ["if", "then", "else", "and", "or", "between", "in", "true", "false", "null", "for", "some", "every", "satisfies", "return", "instance", "function"];

    private readonly List<Token> tokens;
    private int next;
    private int depth;

    private Parser(string text) => tokens = Lexer.Cut(text);

    private Token Here => tokens[next];

    internal static Syntax Parse(string text)
    {
        var parser = new Parser(text);
        var whole = parser.Expression();
        parser.Demand(parser.Here.Kind == TokenKind.End, "the end");
        return whole;
    }

    /// <summary>What stands in a cell of a decision table: tests on an input, separated by commas.</summary>
    internal static ImmutableArray<Syntax> ParseTests(string text)
    {
        var parser = new Parser(text);
        var tests = parser.Tests();
        parser.Demand(parser.Here.Kind == TokenKind.End, "the end");
        return tests;
    }

    private ImmutableArray<Syntax> Tests()
    {
        var tests = ImmutableArray.CreateBuilder<Syntax>();
        do
        {
            tests.Add(Test());
        }
        while (Take(","));
        return tests.ToImmutable();
    }

    /// <summary>A comparison without left side is a range to infinity; anything else is a value, list or range.</summary>
    private Syntax Test()
    {
        var place = Here.Place;
        var none = new LiteralSyntax(place, FeelValue.Null);
        return Here switch
        {
            { Kind: TokenKind.Mark, Content: "<" or "<=" } mark => Ahead(() => new RangeSyntax(place, none, false, Sum(), mark.Content == "<=")),
            { Kind: TokenKind.Mark, Content: ">" or ">=" } mark => Ahead(() => new RangeSyntax(place, Sum(), mark.Content == ">=", none, false)),
            _ => Expression(),
        };
    }

    private Syntax Ahead(Func<Syntax> then)
    {
        next++;
        return then();
    }

    private Syntax Expression()
    {
        if (++depth > MaxDepth)
        {
            throw new ExpressionException(Here.Place, $"The expression is nested more than {MaxDepth} levels deep.", "Calculate a part of it in another field.");
        }

        var place = Here.Place;
        Syntax result;
        if (TakeWord("if"))
        {
            var condition = Expression();
            DemandWord("then");
            var then = Expression();
            DemandWord("else");
            result = new IfSyntax(place, condition, then, Expression());
        }
        else
        {
            result = Disjunction();
        }

        depth--;
        return result;
    }

    private Syntax Disjunction() => Chain(Conjunction, "or");

    private Syntax Conjunction() => Chain(Comparison, "and");

    private Syntax Chain(Func<Syntax> member, string word)
    {
        var left = member();
        for (var length = 1; Here is { Kind: TokenKind.Word } token && token.Content == word; length++)
        {
            BoundChain(length);
            next++;
            left = new OperationSyntax(token.Place, word, left, member());
        }

        return left;
    }

    private Syntax Comparison()
    {
        var left = Sum();
        var place = Here.Place;
        if (Here is { Kind: TokenKind.Mark, Content: "=" or "!=" or "<" or "<=" or ">" or ">=" } mark)
        {
            next++;
            return new OperationSyntax(place, mark.Content, left, Sum());
        }

        if (TakeWord("between"))
        {
            var low = Sum();
            DemandWord("and");
            return new BetweenSyntax(place, left, low, Sum());
        }

        if (!TakeWord("in"))
        {
            return left;
        }

        // A parenthesis opens a list of tests, or a range without its lower end: only what follows tells.
        if (Here is { Kind: TokenKind.Mark, Content: "(" } && !IsRangeAhead())
        {
            next++;
            var tests = Tests();
            Demand(Take(")"), "“)”");
            return new InSyntax(place, left, tests);
        }

        return new InSyntax(place, left, [Test()]);
    }

    private Syntax Sum() => Binary(Product, "+", "-");

    private Syntax Product() => Binary(Power, "*", "/");

    private Syntax Power()
    {
        var left = Signed();
        var length = 0;
        while (Here is { Kind: TokenKind.Mark, Content: "**" } mark)
        {
            BoundChain(++length);
            next++;
            left = new OperationSyntax(mark.Place, "**", left, Signed());
        }

        return left;
    }

    private Syntax Binary(Func<Syntax> operand, string one, string other)
    {
        var left = operand();
        for (var length = 1; Here is { Kind: TokenKind.Mark } mark && (mark.Content == one || mark.Content == other); length++)
        {
            BoundChain(length);
            next++;
            left = new OperationSyntax(mark.Place, mark.Content, left, operand());
        }

        return left;
    }

    /// <summary>A chain leans to the left and is walked recursively later, so its length counts as depth.</summary>
    private void BoundChain(int length)
    {
        if (length > 500)
        {
            throw new ExpressionException(Here.Place, "The expression is too long.", "Calculate a part of it in another field.");
        }
    }

    private Syntax Signed()
    {
        var place = Here.Place;
        if (!Take("-"))
        {
            return Postfix();
        }

        if (++depth > MaxDepth)
        {
            throw new ExpressionException(place, "There are too many signs in a row.", "Keep one.");
        }

        var negation = new NegationSyntax(place, Signed());
        depth--;
        return negation;
    }

    private Syntax Postfix()
    {
        var value = Primary();
        for (var length = 1; Here is { Kind: TokenKind.Mark, Content: "." or "[" } mark; length++)
        {
            BoundChain(length);
            if (mark.Content == ".")
            {
                next++;
                Demand(Here.Kind == TokenKind.Word, "the name of a part");
                value = new PathSyntax(mark.Place, value, tokens[next++].Content);
            }
            else
            {
                next++;
                value = new IndexSyntax(mark.Place, value, Expression());
                Demand(Take("]"), "“]”");
            }
        }

        return value;
    }

    private Syntax Primary()
    {
        var token = Here;
        switch (token.Kind)
        {
            case TokenKind.Number:
                next++;
                return Values.ExactDecimal.TryParse(token.Content, out var amount)
                    ? new LiteralSyntax(token.Place, new FeelNumber(amount))
                    : throw new ExpressionException(token.Place, "This number is too large or too exact; at most 28 digits fit.", "Write a shorter one.");
            case TokenKind.Text:
                next++;
                return new LiteralSyntax(token.Place, new FeelText(token.Content));
            case TokenKind.At:
                next++;
                return Temporal.Parse(token.Content) is { } temporal
                    ? new LiteralSyntax(token.Place, temporal)
                    : throw new ExpressionException(token.Place, $"“{token.Content}” is no date, date and time or duration.",
                        "Write it as 2026-11-24, 2026-11-24T09:30:00, P30D or P1Y6M.");
            case TokenKind.Mark when token.Content is "(" or "[" or "]" && IsRangeAhead():
                return Range();
            case TokenKind.Mark when token.Content == "(":
                next++;
                var inner = Expression();
                Demand(Take(")"), "“)”");
                return inner;
            case TokenKind.Mark when token.Content == "[":
                return List();
            case TokenKind.Mark when token.Content == "?":
                next++;
                return new NameSyntax(token.Place, "?");
            case TokenKind.Word:
                return Word();
            default:
                throw Expected("a value, a field or a function");
        }
    }

    private Syntax Word()
    {
        var token = Here;
        if (BuiltIn.Longest(tokens, next) is var (function, words) && tokens[next + words] is { Kind: TokenKind.Mark, Content: "(" })
        {
            next += words + 1;
            return Call(token.Place, function);
        }

        if (token.Content is "today" or "now" && tokens[next + 1] is { Kind: TokenKind.Mark, Content: "(" }
            && tokens[next + 2] is { Kind: TokenKind.Mark, Content: ")" })
        {
            next += 3;
            return new NameSyntax(token.Place, token.Content + "()");
        }

        next++;
        return token.Content switch
        {
            "true" => new LiteralSyntax(token.Place, FeelValue.True),
            "false" => new LiteralSyntax(token.Place, FeelValue.False),
            "null" => new LiteralSyntax(token.Place, FeelValue.Null),
            _ when Reserved.Contains(token.Content) => throw new ExpressionException(token.Place,
                $"“{token.Content}” cannot stand here.", "Write a value, a field or a function."),
            _ when Here is { Kind: TokenKind.Mark, Content: "(" } => throw new ExpressionException(token.Place,
                $"There is no function “{token.Content}”.", $"Use one of: {BuiltIn.Names}."),
            _ => new NameSyntax(token.Place, token.Content),
        };
    }

    private CallSyntax Call(int place, BuiltIn function)
    {
        var arguments = ImmutableArray.CreateBuilder<Syntax>();
        if (!Take(")"))
        {
            do
            {
                arguments.Add(Expression());
            }
            while (Take(","));
            Demand(Take(")"), "“)” or “,”");
        }

        return arguments.Count >= function.Least && arguments.Count <= function.Most
            ? new(place, function, arguments.ToImmutable())
            : throw new ExpressionException(place, $"“{function.Name}” does not take {arguments.Count} values.", $"Write it as {function.Usage}.");
    }

    private ListSyntax List()
    {
        var place = tokens[next++].Place;
        var items = ImmutableArray.CreateBuilder<Syntax>();
        if (!Take("]"))
        {
            do
            {
                items.Add(Expression());
            }
            while (Take(","));
            Demand(Take("]"), "“]” or “,”");
        }

        return new(place, items.ToImmutable());
    }

    private RangeSyntax Range()
    {
        var open = tokens[next++];
        var low = Sum();
        Demand(Take(".."), "“..”");
        var high = Sum();
        var close = Here;
        Demand(close is { Kind: TokenKind.Mark, Content: ")" or "]" or "[" }, "“]” or “)”");
        next++;
        return new(open.Place, low, open.Content == "[", high, close.Content == "]");
    }

    /// <summary>Whether the bracket here is closed with two points between, outside of other brackets.</summary>
    private bool IsRangeAhead()
    {
        var level = 0;
        for (var i = next + 1; i < tokens.Count; i++)
        {
            switch (tokens[i])
            {
                case { Kind: TokenKind.End } or { Kind: TokenKind.Mark, Content: "," } when level == 0:
                    return false;
                case { Kind: TokenKind.Mark, Content: ".." } when level == 0:
                    return true;
                case { Kind: TokenKind.Mark, Content: "(" or "[" }:
                    level++;
                    break;
                case { Kind: TokenKind.Mark, Content: ")" or "]" }:
                    if (--level < 0)
                    {
                        return false;
                    }

                    break;
                default:
                    break;
            }
        }

        return false;
    }

    private bool Take(string mark)
    {
        var there = Here is { Kind: TokenKind.Mark } token && token.Content == mark;
        next += there ? 1 : 0;
        return there;
    }

    private bool TakeWord(string word)
    {
        var there = Here is { Kind: TokenKind.Word } token && token.Content == word;
        next += there ? 1 : 0;
        return there;
    }

    private void DemandWord(string word) => Demand(TakeWord(word), $"“{word}”");

    private void Demand(bool isThere, string what)
    {
        if (!isThere)
        {
            throw Expected(what);
        }
    }

    private ExpressionException Expected(string what) => new(
        Here.Place,
        Here.Kind == TokenKind.End ? $"The expression ends where {what} was expected." : $"“{Here.Content}” stands where {what} was expected.",
        $"Write {what} here.");
}
