using Dibujo.Core.Rules;

namespace Dibujo.Core.Sentences;

/// <summary>Writes a decision table: its columns, then row by row the tests, an arrow, and the answers.</summary>
internal sealed class TableWriter(SentenceWriter to, Names names)
{
    internal void Write(DecisionTable table)
    {
        to.Word("By");
        to.Add(PartKind.Detail, Wording.Of(table.Hit), "/table/hit");
        to.Word("table on");
        Columns(table.Drivers.Length, i => to.Add(PartKind.Subject, to.Subject(table.Drivers[i]), $"/table/drivers/{i}"));
        to.Word("for");
        Columns(table.Outputs.Length, i => WriteOutput($"/table/outputs/{i}", table.Outputs[i]));
        to.Mark(":");
        foreach (var (r, row) in table.Rows.Index())
        {
            if (r > 0)
            {
                to.Mark(";");
            }

            var here = $"/table/rows/{r}";
            Columns(Math.Min(row.If.Length, table.Drivers.Length), i =>
            {
                if (row.If[i].Test is { } test)
                {
                    to.WriteTest($"{here}/if/{i}", table.Drivers[i], test, row.If[i].Comparands);
                }
                else
                {
                    to.Add(PartKind.Test, "any", $"{here}/if/{i}");
                }
            });
            to.Word("→");
            Columns(Math.Min(row.Then.Length, table.Outputs.Length), i => WriteAnswer($"{here}/then/{i}", table.Outputs[i], row.Then[i]));
        }
    }

    private void WriteOutput(string place, Output output)
    {
        switch (output)
        {
            case StateOutput states:
                to.WriteTargets($"{place}/targets", states.Targets);
                break;
            case ValueOutput value:
                to.Word(value.Held ? "held value of" : "value of");
                to.Add(PartKind.Target, names.Fields.Write(value.Field), $"{place}/field");
                break;
            case ChoicesOutput choices:
                to.Word("choices of");
                to.Add(PartKind.Target, names.Fields.Write(choices.Field), $"{place}/field");
                break;
            case MessageOutput message:
                to.Word(Wording.Of(message.Severity));
                if (message.At is { } at)
                {
                    to.Word("at");
                    to.Add(PartKind.Target, to.Target(at), $"{place}/at");
                }

                break;
            default:
                throw new ArgumentOutOfRangeException(nameof(output));
        }
    }

    private void WriteAnswer(string place, Output output, Answer answer)
    {
        switch (output, answer)
        {
            case (StateOutput, StateAnswer { States: { IsEmpty: false } states }):
                for (var i = 0; i < states.Length; i++)
                {
                    if (i > 0)
                    {
                        to.Mark(",");
                    }

                    to.Add(PartKind.Verb, Wording.Of(states[i]), $"{place}/states/{i}");
                }

                break;
            case (ValueOutput of, ValueAnswer value):
                to.Add(PartKind.Comparand, to.Value(of.Field, value.Value), $"{place}/value");
                break;
            case (ChoicesOutput of, ChoicesAnswer choices):
                to.WriteOptions(of.Field, choices.Options, $"{place}/options");
                break;
            case (MessageOutput, TextAnswer text):
                to.Add(PartKind.Detail, to.Text(text.Text), $"{place}/text");
                break;
            default:
                to.Add(PartKind.Detail, "—", place);
                break;
        }
    }

    private void Columns(int count, Action<int> write)
    {
        for (var i = 0; i < count; i++)
        {
            if (i > 0)
            {
                to.Word("|");
            }

            write(i);
        }
    }
}
