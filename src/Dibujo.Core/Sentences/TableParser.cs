using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Sentences;

/// <summary>Reads decision tables, as <see cref="TableWriter"/> writes them.</summary>
internal sealed class TableParser(SentenceParser sentences, SentenceReader reader, ValueReader values, Names names)
{
    /// <summary>The longer wording first, since "hidden" begins "hidden and cleared".</summary>
    private static readonly State[] States = [.. Enum.GetValues<State>().OrderByDescending(s => Wording.Of(s).Length)];

    internal DecisionTable Table()
    {
        var hit = Enum.GetValues<HitPolicy>().Cast<HitPolicy?>().FirstOrDefault(h => reader.Take(Wording.Of(h!.Value))) ?? throw reader.Fail();
        reader.Demand("table on");
        var drivers = Columns(values.DemandSubject);
        reader.Demand("for");
        var outputs = Columns(Output);
        reader.Demand(":");
        var rows = ImmutableArray.CreateBuilder<Row>();
        do
        {
            var tests = Each(drivers, Cell);
            if (!reader.Take("→"))
            {
                reader.Demand("->");
            }

            rows.Add(new(tests, Each(outputs, Answer)));
        }
        while (reader.Take(";"));
        return new(hit, drivers, outputs, rows.ToImmutable());
    }

    private ImmutableArray<T> Columns<T>(Func<T> demand)
    {
        var columns = ImmutableArray.CreateBuilder<T>();
        do
        {
            columns.Add(demand());
        }
        while (reader.Take("|"));
        return columns.ToImmutable();
    }

    private ImmutableArray<TCell> Each<TColumn, TCell>(ImmutableArray<TColumn> columns, Func<TColumn, TCell> demand)
    {
        var cells = ImmutableArray.CreateBuilder<TCell>();
        foreach (var column in columns)
        {
            if (cells.Count > 0)
            {
                reader.Demand("|");
            }

            cells.Add(demand(column));
        }

        return cells.ToImmutable();
    }

    private Cell Cell(Subject driver)
    {
        if (reader.Take("any", PartKind.Test))
        {
            return new();
        }

        var (test, comparands) = sentences.Test(driver, names.Subjects.Of(driver) ?? throw reader.Fail());
        return new(test) { Comparands = comparands };
    }

    private Output Output()
    {
        if (reader.Take("value of"))
        {
            return new ValueOutput(values.DemandField());
        }

        if (reader.Take("held value of"))
        {
            return new ValueOutput(values.DemandField(), Held: true);
        }

        if (reader.Take("choices of"))
        {
            return new ChoicesOutput(values.DemandField());
        }

        foreach (var severity in Enum.GetValues<Severity>())
        {
            if (reader.Take(Wording.Of(severity)))
            {
                return new MessageOutput(severity, reader.Take("at") ? sentences.Target() : (Element?)null);
            }
        }

        return new StateOutput(sentences.Targets());
    }

    private Answer Answer(Output output)
    {
        if (reader.Take("—", PartKind.Detail))
        {
            return new NoAnswer();
        }

        return output switch
        {
            ValueOutput value => new ValueAnswer(values.DemandComparand(names.Subjects.Field(value.Field)!.Type)),
            ChoicesOutput choices => new ChoicesAnswer(values.DemandOptions(sentences.WithOptions(choices.Field))),
            MessageOutput => new TextAnswer(values.DemandMessage("the message in quotation marks")),
            _ => new StateAnswer(StateList()),
        };
    }

    private ImmutableArray<State> StateList()
    {
        var states = ImmutableArray.CreateBuilder<State>();
        do
        {
            var found = Array.FindIndex(States, state => reader.Take(Wording.Of(state), PartKind.Verb));
            states.Add(found >= 0 ? States[found] : throw reader.Fail());
        }
        while (reader.Take(","));
        return states.ToImmutable();
    }
}
