using System.Collections.Immutable;
using System.Text.RegularExpressions;
using System.Xml;
using System.Xml.Linq;
using Dibujo.Core.Checking;
using Dibujo.Core.Conditions;
using Dibujo.Core.Expressions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Dmn;

/// <summary>Decision tables in DMN (versions 1.1 to 1.5) as rules, as far as their columns say what <see cref="DmnWriter"/> writes.</summary>
public static partial class DmnReader
{
    private const int MostCharacters = 10_000_000;

    /// <summary>The rules, and what could not be read, with the decision and row in the place.</summary>
    public static (ImmutableArray<Rule> Rules, ImmutableArray<Problem> Problems) Read(Stream xml, RecordType type)
    {
        var problems = new ProblemList();
        var rules = ImmutableArray.CreateBuilder<Rule>();
        try
        {
            // No document type: so no entities that could blow up, and nothing fetched from elsewhere.
            using var reader = XmlReader.Create(xml, new()
            {
                DtdProcessing = DtdProcessing.Prohibit,
                XmlResolver = null,
                MaxCharactersInDocument = MostCharacters,
            });
            foreach (var decision in Decisions(reader))
            {
                if (decision.Elements().FirstOrDefault(e => e.Name.LocalName == "decisionTable") is { } table
                    && new TableReader(type, problems, $"/decision/{Attribute(decision, "id")}").Read(table) is { } read)
                {
                    rules.Add(new(
                        Key(Attribute(decision, "id"), rules.Count), Attribute(decision, "name") is { Length: > 0 } name ? name : $"Decision {rules.Count + 1}",
                        decision.Elements().FirstOrDefault(e => e.Name.LocalName == "description")?.Value, Table: read));
                }
            }
        }
        catch (TooManyRowsException mistake)
        {
            problems.Add($"/line/{mistake.Line}", $"A table has more than {TableCheck.MostRows:N0} rows.", $"Divide it into tables of at most {TableCheck.MostRows:N0}.");
        }
        catch (XmlException mistake)
        {
            problems.Add($"/line/{mistake.LineNumber}", "The file is not valid XML here, or it has a document type.", "Check it with the program that wrote it.");
        }

        if (rules.Count == 0 && problems.IsEmpty)
        {
            problems.Add("", "There is no decision table in the file.", "Give a DMN file with at least one decision that is a table.");
        }

        return (rules.ToImmutable(), problems.ToImmutable());
    }

    private sealed class TooManyRowsException(int line) : Exception
    {
        internal int Line => line;
    }

    /// <summary>One decision at a time, at whatever depth, without holding the whole document.</summary>
    private static IEnumerable<XElement> Decisions(XmlReader reader)
    {
        reader.MoveToContent();
        while (!reader.EOF)
        {
            if (reader is { NodeType: XmlNodeType.Element, LocalName: "decision" } && reader.Depth < 10)
            {
                yield return Shallow(reader);
            }
            else
            {
                reader.Read();
            }
        }
    }

    /// <summary>The element, unless it is nested deeper than any table is.</summary>
    private static XElement Shallow(XmlReader reader)
    {
        const int Deepest = 40;
        var root = new XElement(reader.LocalName);
        Take(reader, root);
        var path = new Stack<XElement>([root]);
        var rows = 0;
        if (reader.IsEmptyElement)
        {
            reader.Read();
            return root;
        }

        while (reader.Read() && path.Count > 0)
        {
            switch (reader.NodeType)
            {
                case XmlNodeType.Element when path.Count > Deepest:
                    throw new XmlException("The file is nested too deeply.", null, ((IXmlLineInfo)reader).LineNumber, 0);
                case XmlNodeType.Element:
                    var child = new XElement(reader.LocalName);
                    Take(reader, child);
                    path.Peek().Add(child);
                    rows += child.Name.LocalName == "rule" ? 1 : 0;
                    if (rows > TableCheck.MostRows)
                    {
                        // Before the rest is read, however long it is.
                        throw new TooManyRowsException(((IXmlLineInfo)reader).LineNumber);
                    }

                    if (!reader.IsEmptyElement)
                    {
                        path.Push(child);
                    }

                    break;
                case XmlNodeType.Text or XmlNodeType.CDATA:
                    path.Peek().Add(reader.Value);
                    break;
                case XmlNodeType.EndElement:
                    path.Pop();
                    break;
                default:
                    break;
            }

            if (path.Count == 0)
            {
                break;
            }
        }

        return root;
    }

    private static void Take(XmlReader from, XElement to)
    {
        for (var i = 0; i < from.AttributeCount; i++)
        {
            from.MoveToAttribute(i);
            if (from.Prefix.Length == 0 && from.LocalName != "xmlns")
            {
                to.SetAttributeValue(from.LocalName, from.Value);
            }
        }

        from.MoveToElement();
    }

    private static string Attribute(XElement element, string name) => element.Attribute(name)?.Value ?? "";

    private static string Key(string id, int number) =>
        id.Length is > 0 and <= 64 && id.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '_') ? id : $"decision-{number + 1}";

    /// <summary>Reads one table; a cell that cannot be read is a problem, and the table is then left out.</summary>
    private sealed class TableReader(RecordType type, ProblemList problems, string place)
    {
        private readonly SubjectTypes subjects = new(type);

        internal DecisionTable? Read(XElement table)
        {
            var before = problems.Count;
            HitPolicy? hit = Attribute(table, "hitPolicy").ToUpperInvariant() switch
            {
                "" or "UNIQUE" => HitPolicy.Unique,
                "FIRST" => HitPolicy.First,
                "ANY" => HitPolicy.Any,
                _ => null,
            };
            if (hit is null)
            {
                problems.Add(place, $"The hit policy “{Excerpt.Of(Attribute(table, "hitPolicy"))}” is not known here.", "Use UNIQUE, FIRST or ANY.");
            }

            var drivers = Children(table, "input").Select((input, i) => Driver(i, input.Descendants().FirstOrDefault(e => e.Name.LocalName == "text")?.Value.Trim() ?? "")).ToList();
            var outputs = Children(table, "output").Select((output, i) => Output(i, Attribute(output, "name"))).ToList();
            if (problems.Count > before)
            {
                return null;
            }

            var rows = Children(table, "rule").Select((row, i) => new Row(
                [.. Children(row, "inputEntry").Take(drivers.Count).Select((cell, c) => Cell($"{place}/rule/{i + 1}/{c + 1}", drivers[c]!, Text(cell)))],
                [.. Children(row, "outputEntry").Take(outputs.Count).Select((cell, c) => Answer($"{place}/rule/{i + 1}/{drivers.Count + c + 1}", outputs[c]!, Text(cell)))])).ToImmutableArray();
            return problems.Count > before ? null : new(hit!.Value, [.. drivers!], [.. outputs!], rows);
        }

        private static IEnumerable<XElement> Children(XElement of, string name) => of.Elements().Where(e => e.Name.LocalName == name);

        private static string Text(XElement cell) => cell.Elements().FirstOrDefault(e => e.Name.LocalName == "text")?.Value.Trim() ?? "";

        private Subject? Driver(int column, string name)
        {
            var subject = Array.Find(DmnWriter.Settings, s => s.Name == name).Subject ?? NameResolution.Resolve(name, subjects);
            if (subject is null)
            {
                problems.Add($"{place}/input/{column + 1}", $"There is nothing called “{Excerpt.Of(name)}” in this record type.", "Name a field by its key.");
            }

            return subject;
        }

        private Output? Output(int column, string name)
        {
            var words = name.Split(' ', StringSplitOptions.RemoveEmptyEntries);
            Output? output = words switch
            {
                ["state", .. var targets] when targets.Select(Target).ToList() is var found && found.TrueForAll(t => t is not null) =>
                    new StateOutput([.. found.Select(t => t!.Value)]),
                ["value", var field] => new ValueOutput(field),
                ["held", var field] => new ValueOutput(field, Held: true),
                ["choices", var field] => new ChoicesOutput(field),
                ["message", var severity] when SeverityOf(severity) is { } known => new MessageOutput(known),
                ["message", var severity, var at] when SeverityOf(severity) is { } known && Target(at) is { } target => new MessageOutput(known, target),
                _ => null,
            };
            if (output is null)
            {
                problems.Add($"{place}/output/{column + 1}", $"It cannot be told what “{Excerpt.Of(name)}” speaks of.",
                    "Name it “state field:KEY”, “value KEY”, “held KEY”, “choices KEY” or “message warning”.");
            }

            return output;
        }

        private static Severity? SeverityOf(string word) =>
            Enum.GetValues<Severity>().Cast<Severity?>().FirstOrDefault(s => DmnWriter.CamelCase(s!.Value) == word);

        private static Element? Target(string word) => word.Split(':', 2) is [var kind, var key]
            && Enum.GetValues<ElementKind>().Cast<ElementKind?>().FirstOrDefault(k => DmnWriter.CamelCase(k!.Value) == kind) is { } known
                ? new Element(known, key)
                : null;

        private Cell Cell(string here, Subject driver, string text)
        {
            if (text is "" or "-")
            {
                return new();
            }

            try
            {
                // Space around the input is of no account here, nor whether its letters are small.
                text = text.Contains(CellWriter.TrimEnd, StringComparison.Ordinal)
                    ? text.Replace(CellWriter.TrimStart, "", StringComparison.Ordinal).Replace(CellWriter.TrimEnd, "", StringComparison.Ordinal) : text;
                var negated = Negation().Match(text);
                var inner = negated.Success ? negated.Groups["inner"].Value : text;
                if (new CellReader(driver, subjects.Of(driver)!, subjects, inner).Read(Parser.ParseTests(inner), negated.Success) is { } cell)
                {
                    return cell;
                }

                problems.Add(here, $"“{Excerpt.Of(text)}” cannot be a test here.", "Use values, comparisons, ranges with both ends, contains or starts with.");
            }
            catch (ExpressionException mistake)
            {
                problems.Add(here, mistake.Problem.What, mistake.Problem.Mend);
            }

            return new();
        }

        private Answer Answer(string here, Output output, string text)
        {
            if (text is "" or "-" or "null")
            {
                return new NoAnswer();
            }

            var (expression, mistake) = Expression.Parse(text);
            if (mistake is not null)
            {
                problems.Add(here, mistake.What, mistake.Mend);
                return new NoAnswer();
            }

            var value = expression!.Names.IsEmpty ? expression.Evaluate(_ => FeelValue.Null) : null;
            var words = value is FeelList list ? list.Items.OfType<FeelText>().Select(t => t.Content).ToImmutableArray() : value is FeelText one ? [one.Content] : [];
            switch (output)
            {
                case StateOutput when words.Length > 0 && words.Select(StateOf).ToList() is var states && states.TrueForAll(s => s is not null):
                    return new StateAnswer([.. states.Select(s => s!.Value)]);
                case ChoicesOutput when value is FeelList or FeelText:
                    return new ChoicesAnswer(words);
                case MessageOutput when value is FeelText said:
                    return new TextAnswer(said.Content);
                case ValueOutput when value is not null and not FeelNull && value.ToValue() is { IsBlank: false } fixedValue:
                    return new ValueAnswer(new Literal(fixedValue is Date or Moment ? new Text(fixedValue.Plain) : fixedValue));
                case ValueOutput:
                    return new ValueAnswer(expression.Names is [var name] && name == text && NameResolution.Resolve(name, subjects) is { } subject
                        ? new SubjectComparand(subject) : new ExpressionComparand(text));
                default:
                    problems.Add(here, $"“{Excerpt.Of(text)}” cannot be an answer here.", "Give states, choices, a value or text, as the column asks.");
                    return new NoAnswer();
            }
        }

        private static State? StateOf(string word) => Enum.GetValues<State>().Cast<State?>().FirstOrDefault(s => DmnWriter.CamelCase(s!.Value) == word);
    }

    /// <summary>From the tests in a cell to a test with comparands.</summary>
    private sealed class CellReader(Subject driver, FieldType type, SubjectTypes subjects, string text)
    {
        private bool IsTemporal => type is DateType or DateTimeType;

        internal Cell? Read(ImmutableArray<Syntax> tests, bool negated) => Plain([.. tests.Select(Bare)], negated);

        /// <summary>The test without what makes it hold where FEEL has other ideas of blanks and capitals: see <see cref="CellWriter"/>.</summary>
        private static Syntax Bare(Syntax test) => test switch
        {
            OperationSyntax { Operator: "=", Left: InSyntax or CallSyntax or OperationSyntax, Right: LiteralSyntax { Value: FeelBoolean { Holds: true } } } whole => Bare(whole.Left),
            OperationSyntax { Operator: "and", Left: OperationSyntax { Operator: "!=", Left: NameSyntax { Name: "?" }, Right: LiteralSyntax { Value: FeelNull } }, Right: var rest } => Bare(rest),
            OperationSyntax
            {
                Operator: "and",
                Left: OperationSyntax { Operator: ">=", Left: NameSyntax { Name: "?" }, Right: var low },
                Right: OperationSyntax { Operator: "<=", Left: NameSyntax { Name: "?" }, Right: var high },
            } => new RangeSyntax(test.Place, low, true, high, true),
            OperationSyntax { Operator: "=", Left: var input, Right: var comparand } when InSmallLetters(input) is NameSyntax { Name: "?" } => InSmallLetters(comparand),
            InSyntax { Subject: NameSyntax { Name: "?" }, Tests: [RangeSyntax range] } => range,
            CallSyntax { Function.Name: "contains" or "starts with" } call => call with { Arguments = [.. call.Arguments.Select(InSmallLetters)] },
            _ => test,
        };

        private static Syntax InSmallLetters(Syntax syntax) => syntax is CallSyntax { Function.Name: "lower case", Arguments: [var of] } ? of : syntax;

        private Cell? Plain(ImmutableArray<Syntax> tests, bool negated) => tests switch
        {
            [LiteralSyntax { Value: FeelNull }] => new(negated ? Test.FilledIn : Test.Blank),
            [RangeSyntax range] => Range(range, negated),
            [CallSyntax { Function.Name: "contains", Arguments: [NameSyntax { Name: "?" }, var with] }] => One(negated ? Test.DoesNotContain : Test.Contains, with),
            [CallSyntax { Function.Name: "starts with", Arguments: [NameSyntax { Name: "?" }, var with] }] => One(negated ? Test.DoesNotStartWith : Test.StartsWith, with),
            _ when tests.All(t => t is CallSyntax { Function.Name: "list contains", Arguments: [NameSyntax { Name: "?" }, _] }) =>
                Many(Included(negated, tests.Length), [.. tests.Select(t => ((CallSyntax)t).Arguments[1])]),
            [var one] => One(negated ? Test.IsNot : Test.Is, one),
            _ => Many(negated ? Test.NoneOf : Test.OneOf, tests),
        };

        /// <summary>What a person has several of, and is asked for one.</summary>
        private Test Included(bool negated, int count) => driver is not RoleSubject ? negated ? Test.IncludesNone : Test.IncludesAny
            : count == 1 ? negated ? Test.IsNot : Test.Is
            : negated ? Test.NoneOf : Test.OneOf;

        private Cell? Range(RangeSyntax range, bool negated) => range switch
        {
            { Low: LiteralSyntax { Value: FeelNull } } when !negated =>
                One(IsTemporal ? (range.IncludesHigh ? Test.OnOrBefore : Test.Before) : range.IncludesHigh ? Test.AtMost : Test.LessThan, range.High),
            { High: LiteralSyntax { Value: FeelNull } } when !negated =>
                One(IsTemporal ? (range.IncludesLow ? Test.FromOn : Test.After) : range.IncludesLow ? Test.AtLeast : Test.MoreThan, range.Low),
            { IncludesLow: true, IncludesHigh: true } => Many(negated ? Test.NotBetween : Test.Between, [range.Low, range.High]),
            _ => null,
        };

        /// <summary>What stands alone in a cell may be an expression: what follows the operator.</summary>
        private Cell? One(Test test, Syntax comparand) => Many(test, [comparand])
            ?? (test.Shape() == TestShape.One && FittingTests.Of(driver, type).Contains(test) && !IsFixed(comparand)
                ? new(test) { Comparands = [new ExpressionComparand(Operator().Match(text).Groups["operand"].Value.Trim())] }
                : null);

        private Cell? Many(Test test, ImmutableArray<Syntax> from)
        {
            var comparands = from.Select(Comparand).ToList();
            return FittingTests.Of(driver, type).Contains(test) && comparands.TrueForAll(c => c is not null)
                ? new(test) { Comparands = [.. comparands!] }
                : null;
        }

        private Comparand? Comparand(Syntax syntax)
        {
            if (Evaluator.Dotted(syntax) is { } name)
            {
                return name == Expression.Today ? new RelativeDay(0) : NameResolution.Resolve(name, subjects) is { } subject ? new SubjectComparand(subject) : null;
            }

            if (syntax is OperationSyntax { Operator: "+", Left: NameSyntax { Name: Expression.Today }, Right: CallSyntax { Function.Name: "duration" } duration })
            {
                return new Evaluator(_ => FeelValue.Null).Evaluate(duration) switch
                {
                    FeelMonthsDuration { Months: var months } => months % 12 == 0 ? new RelativeDay(months / 12, DayUnit.Years) : new RelativeDay(months, DayUnit.Months),
                    FeelDaysDuration { Seconds: var seconds } when seconds % 86_400 == 0 && Math.Abs(seconds) < 86_400m * 3_000_000 => new RelativeDay((int)(seconds / 86_400)),
                    _ => null,
                };
            }

            var value = IsFixed(syntax) ? new Evaluator(_ => FeelValue.Null).Evaluate(syntax).ToValue() : Value.Blank;
            return value.IsBlank ? null : new Literal(value is Date or Moment ? new Text(value.Plain) : value);
        }

        private static bool IsFixed(Syntax syntax) => syntax switch
        {
            LiteralSyntax => true,
            NegationSyntax negation => IsFixed(negation.Of),
            ListSyntax list => list.Items.All(IsFixed),
            CallSyntax call => call.Arguments.All(IsFixed),
            _ => false,
        };
    }

    [GeneratedRegex(@"^\s*not\s*\((?<inner>.*)\)\s*$", RegexOptions.ExplicitCapture | RegexOptions.Singleline, 1000)]
    private static partial Regex Negation();

    /// <summary>What an expression is compared with, and what is done to it before, as <see cref="CellWriter"/> writes it.</summary>
    [GeneratedRegex(@"^\s*([<>]=?|\? != null and (\? =|lower case\(\?\) =))?\s*(?<wrapped>round half up\(|lower case\()?(?<operand>.*?)(?(wrapped)(, \d+)?\))\s*$", RegexOptions.ExplicitCapture | RegexOptions.Singleline, 1000)]
    private static partial Regex Operator();
}
