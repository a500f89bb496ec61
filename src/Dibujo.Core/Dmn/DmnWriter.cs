using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Xml.Linq;
using Dibujo.Core.Conditions;
using Dibujo.Core.Expressions;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;
using Dibujo.Core.Schemas;
using Dibujo.Core.Values;

namespace Dibujo.Core.Dmn;

/// <summary>Rules with a decision table as DMN (OMG, version 1.3): a decision each. <see cref="DmnReader"/> reads them back.</summary>
public static class DmnWriter
{
    internal static readonly XNamespace Dmn = "https://www.omg.org/spec/DMN/20191111/MODEL/";

    /// <summary>The document, and the rules that do not fit into one, each with the reason.</summary>
    public static (XDocument Document, ImmutableArray<string> LeftOut) Write(Definition definition)
    {
        var leftOut = ImmutableArray.CreateBuilder<string>();
        var root = new XElement(Dmn + "definitions",
            new XAttribute("id", definition.RecordType.Key),
            new XAttribute("name", definition.RecordType.Label),
            new XAttribute("namespace", "urn:dibujo:" + definition.RecordType.Key));
        foreach (var rule in definition.Rules)
        {
            try
            {
                root.Add(Decision(rule, rule.Table ?? throw new UnsayableException("it has cases and no table."), new SubjectTypes(definition.RecordType)));
            }
            catch (UnsayableException reason)
            {
                leftOut.Add($"{rule.Name}: {reason.Message}");
            }
        }

        return (new(new XDeclaration("1.0", "utf-8", null), root), leftOut.ToImmutable());
    }

    /// <summary>The name of a subject in an input expression; null for one that has none.</summary>
    internal static string? Name(Subject subject) => subject switch
    {
        FieldSubject { Saved: true } => null,
        FieldSubject { Part: null } field => field.Field,
        FieldSubject field => $"{field.Field}.{field.Part}",
        LinkedSubject linked => string.Join('.', [.. linked.Via, linked.Field, .. linked.Part is null ? Array.Empty<string>() : [linked.Part]]),
        _ => Array.Find(Settings, s => s.Subject == subject).Name,
    };

    internal static readonly (Subject Subject, string Name)[] Settings =
    [
        (new StageSubject(), "setting.stage"), (new WorkflowSubject(), "setting.workflow"), (new MoveSubject(), "setting.move"),
        (new RoleSubject(), "setting.role"), (new PersonSubject(), "setting.person"), (new NewSubject(), "setting.new"),
        (new FormSubject(), "setting.form"), (new ChannelSubject(), "setting.channel"), (new UseSubject(), "setting.use"),
        (new TodaySubject(), Expression.Today), (new NowSubject(), Expression.Now),
    ];

    internal static string Name(Output output) => output switch
    {
        StateOutput states => "state " + string.Join(' ', states.Targets.Select(Name)),
        ValueOutput value => $"{(value.Held ? "held" : "value")} {value.Field}",
        ChoicesOutput choices => $"choices {choices.Field}",
        MessageOutput message => $"message {CamelCase(message.Severity)}{(message.At is { } at ? " " + Name(at) : "")}",
        _ => throw new ArgumentOutOfRangeException(nameof(output)),
    };

    internal static string CamelCase<T>(T value)
        where T : struct, Enum => JsonNamingPolicy.CamelCase.ConvertName(value.ToString());

    private static string Name(Element element) => $"{CamelCase(element.Kind)}:{element.Key}";

    private static XElement Decision(Rule rule, DecisionTable table, SubjectTypes subjects)
    {
        if (rule.Where is not null)
        {
            throw new UnsayableException("it is limited to forms or channels.");
        }

        var decision = new XElement(Dmn + "decision", new XAttribute("id", rule.Key), new XAttribute("name", rule.Name));
        if (rule.Reason is not null)
        {
            decision.Add(new XElement(Dmn + "description", rule.Reason));
        }

        var written = new XElement(Dmn + "decisionTable", new XAttribute("hitPolicy", table.Hit.ToString().ToUpperInvariant()));
        foreach (var driver in table.Drivers)
        {
            var name = Name(driver) ?? throw new UnsayableException("it looks at a saved value.");
            written.Add(new XElement(Dmn + "input", new XElement(Dmn + "inputExpression", new XElement(Dmn + "text", name))));
        }

        written.Add(table.Outputs.Select(output => new XElement(Dmn + "output", new XAttribute("name", Name(output)))));
        var cells = table.Drivers.Select(driver => new CellWriter(driver, subjects.Of(driver)!, subjects)).ToList();
        foreach (var row in table.Rows)
        {
            written.Add(new XElement(Dmn + "rule",
                row.If.Zip(cells).Select(cell => Entry("inputEntry", cell.Second.Write(cell.First))),
                row.Then.Select(answer => Entry("outputEntry", Answer(answer)))));
        }

        decision.Add(written);
        return decision;
    }

    private static XElement Entry(string name, string text) => new(Dmn + name, new XElement(Dmn + "text", text));

    private static string Answer(Answer answer) => answer switch
    {
        StateAnswer states => $"[{string.Join(", ", states.States.Select(s => Quote(CamelCase(s))))}]",
        ValueAnswer { Value: Literal { Value: var value } } => Feel(value),
        ValueAnswer { Value: var value } => Feel(value),
        ChoicesAnswer choices => $"[{string.Join(", ", choices.Options.Select(Quote))}]",
        TextAnswer text => Quote(text.Text),
        _ => "null",
    };

    /// <summary>What stands in a cell on the right.</summary>
    private static string Feel(Comparand comparand) => comparand switch
    {
        SubjectComparand { Subject: var subject } => Name(subject) ?? throw new UnsayableException("it looks at a saved value."),
        ExpressionComparand { Expression: var text } => text,
        RelativeDay day => Feel(day),
        _ => throw new ArgumentOutOfRangeException(nameof(comparand)),
    };

    internal static string Feel(RelativeDay day) => string.Create(CultureInfo.InvariantCulture,
        $"today() + duration(\"{(day.Amount < 0 ? "-" : "")}P{Math.Abs((long)day.Amount)}{day.Unit.ToString()[0]}\")");

    internal static string Feel(Value value) => value switch
    {
        Number number => number.Amount.ToString("0.############################", CultureInfo.InvariantCulture),
        YesNo answer => answer.IsYes ? "true" : "false",
        Choices choices => $"[{string.Join(", ", choices.Keys.Select(Quote))}]",
        Compound => throw new UnsayableException("a value has parts."),
        _ => Quote(value.Plain),
    };

    internal static string Quote(string text)
    {
        var quoted = new StringBuilder("\"");
        foreach (var c in text)
        {
            quoted.Append(c switch
            {
                '"' => "\\\"",
                '\\' => "\\\\",
                '\n' => "\\n",
                '\r' => "\\r",
                _ => c.ToString(),
            });
        }

        return quoted.Append('"').ToString();
    }
}
