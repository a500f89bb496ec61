using Dibujo.Core.Conditions;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Answers;

/// <summary>Rules as answers: what <see cref="Tapes.RuleTape"/> reads.</summary>
public static class RuleAnswer
{
    /// <summary>The rule.</summary>
    public static void Write(this AnswerWriter to, Rule rule) => to.Object(() =>
    {
        to.Text("key", rule.Key);
        to.Text("name", rule.Name);
        to.TextIfAny("reason", rule.Reason);
        to.TextIfAny("group", rule.Group);
        to.Truth("on", rule.On);
        if (rule.Table is { } table)
        {
            to.Table(table);
        }

        if (rule.Where is { } where)
        {
            to.Json.WritePropertyName("where");
            to.Object(() =>
            {
                to.Texts("forms", where.Forms);
                to.List("channels", where.Channels, channel => to.Json.WriteStringValue(EnumNames<Records.Channel>.Of(channel)));
            });
        }

        to.List("cases", rule.Cases, one => to.Object(() =>
        {
            to.List("effects", one.Effects, to.Effect);
            if (one.While is { } condition)
            {
                to.Json.WritePropertyName("while");
                to.Condition(condition);
            }
        }));
    });

    /// <summary>What a clause looks at.</summary>
    public static void Write(this AnswerWriter to, Subject subject) => to.Object(() =>
    {
        to.Text("kind", subject switch
        {
            FieldSubject => "field",
            LinkedSubject => "linked",
            _ => SettingSubject.Of(subject)!.Kind,
        });
        if (subject is FieldSubject field)
        {
            to.Text("field", field.Field);
            to.TextIfAny("part", field.Part);
            to.Truth("saved", field.Saved);
        }
        else if (subject is LinkedSubject linked)
        {
            to.Texts("via", linked.Via);
            to.Text("field", linked.Field);
            to.TextIfAny("part", linked.Part);
        }
    });

    private static void Condition(this AnswerWriter to, Condition condition) => to.Object(() =>
    {
        if (condition is Group group)
        {
            to.Text("kind", "group");
            to.Enum("quantifier", group.Quantifier);
            to.List("members", group.Members, to.Condition);
        }
        else if (condition is Clause clause)
        {
            to.Text("kind", "clause");
            to.Json.WritePropertyName("subject");
            to.Write(clause.Subject);
            to.Enum("test", clause.Test);
            to.List("comparands", clause.Comparands, to.Comparand);
        }
    });

    private static void Comparand(this AnswerWriter to, string name, Comparand comparand)
    {
        to.Json.WritePropertyName(name);
        to.Comparand(comparand);
    }

    private static void Comparand(this AnswerWriter to, Comparand comparand) => to.Object(() =>
    {
        switch (comparand)
        {
            case Literal literal:
                to.Text("kind", "literal");
                to.Value("value", literal.Value);
                break;
            case SubjectComparand other:
                to.Text("kind", "subject");
                to.Json.WritePropertyName("subject");
                to.Write(other.Subject);
                break;
            case RelativeDay day:
                to.Text("kind", "day");
                to.Number("amount", day.Amount);
                to.Enum("unit", day.Unit);
                break;
            case ExpressionComparand expression:
                to.Text("kind", "expression");
                to.Text("expression", expression.Expression);
                break;
        }
    });

    private static void Effect(this AnswerWriter to, Effect effect) => to.Object(() =>
    {
        to.Text("kind", effect switch
        {
            SetValue => "set",
            ClearValue => "clear",
            ResetValue => "reset",
            _ => char.ToLowerInvariant(effect.GetType().Name[0]) + effect.GetType().Name[1..],
        });
        switch (effect)
        {
            case StateEffect state:
                to.List("targets", state.Targets, to.Element);
                break;
            case FieldEffect field:
                to.Text("field", field.Field);
                break;
        }

        switch (effect)
        {
            case Hide hide:
                to.Enum("value", hide.Value);
                break;
            case Require require:
                to.Enum("level", require.Level);
                to.TextIfAny("message", require.Message);
                to.Texts("moves", require.Moves);
                break;
            case SetValue set:
                to.Comparand("to", set.To);
                break;
            case Calculate calculate:
                to.Comparand("from", calculate.From);
                break;
            case Narrow narrow:
                to.Texts("options", narrow.Options);
                break;
            case Message message:
                to.Enum("severity", message.Severity);
                to.Text("text", message.Text);
                if (message.At is { } at)
                {
                    to.Element("at", at);
                }

                break;
            case Suggest suggest:
                to.Text("field", suggest.Field);
                to.Comparand("value", suggest.Value);
                to.Text("reason", suggest.Reason);
                break;
            case JumpAhead jump:
                to.Element("to", jump.To);
                break;
            case EndForm end:
                to.Text("note", end.Note);
                break;
        }
    });

    private static void Table(this AnswerWriter to, DecisionTable table)
    {
        to.Json.WritePropertyName("table");
        to.Object(() =>
        {
            to.Enum("hit", table.Hit);
            to.List("drivers", table.Drivers, to.Write);
            to.List("outputs", table.Outputs, to.Output);
            to.List("rows", table.Rows, row => to.Object(() =>
            {
                to.List("if", row.If, to.Write);
                to.List("then", row.Then, to.Write);
            }));
        });
    }

    private static void Output(this AnswerWriter to, Output output) => to.Object(() =>
    {
        switch (output)
        {
            case StateOutput state:
                to.Text("kind", "state");
                to.List("targets", state.Targets, to.Element);
                break;
            case ValueOutput value:
                to.Text("kind", "value");
                to.Text("field", value.Field);
                to.Truth("held", value.Held);
                break;
            case ChoicesOutput choices:
                to.Text("kind", "choices");
                to.Text("field", choices.Field);
                break;
            case MessageOutput message:
                to.Text("kind", "message");
                to.Enum("severity", message.Severity);
                if (message.At is { } at)
                {
                    to.Element("at", at);
                }

                break;
        }
    });

    /// <summary>A cell on the left of a table; null for none.</summary>
    public static void Write(this AnswerWriter to, Cell? cell)
    {
        if (cell is null)
        {
            to.Json.WriteNullValue();
            return;
        }

        to.Object(() =>
        {
            if (cell.Test is { } test)
            {
                to.Enum("test", test);
            }

            to.List("comparands", cell.Comparands, to.Comparand);
        });
    }

    /// <summary>A cell on the right of a table; null for none.</summary>
    public static void Write(this AnswerWriter to, Answer? answer)
    {
        if (answer is null)
        {
            to.Json.WriteNullValue();
            return;
        }

        to.Object(() => to.Members(answer));
    }

    private static void Members(this AnswerWriter to, Answer answer)
    {
        switch (answer)
        {
            case StateAnswer states:
                to.Text("kind", "states");
                to.List("states", states.States, state => to.Json.WriteStringValue(EnumNames<State>.Of(state)));
                break;
            case ValueAnswer value:
                to.Text("kind", "value");
                to.Comparand("value", value.Value);
                break;
            case ChoicesAnswer choices:
                to.Text("kind", "choices");
                to.Texts("options", choices.Options);
                break;
            case TextAnswer text:
                to.Text("kind", "text");
                to.Text("text", text.Text);
                break;
            default:
                to.Text("kind", "none");
                break;
        }
    }
}
