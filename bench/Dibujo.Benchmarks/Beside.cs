using System.Diagnostics;
using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using Dibujo.Core.Bulk;
using Dibujo.Core.Compilation;
using Dibujo.Core.Conditions;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;
using RulesEngine.Models;

namespace Dibujo.Benchmarks;

/// <summary>The same conditions decided by general-purpose rule libraries, on the same records, in one run.</summary>
internal static class Beside
{
    private const int Rules = 1000;
    private const int Bulk = 100_000;
    private const int Open = 20;
    private const int OurRounds = 200;
    private const int TheirRounds = 10;

    internal static void Run(string jsonLogic)
    {
        var definition = LargeForm.With(Rules);
        var program = ProgramCompiler.Compile(definition).Program!;
        var random = new Random(7);
        var records = Enumerable.Range(0, Bulk).Select(_ => LargeForm.Record(random)).ToList();
        var few = records.Take(Open).ToList();
        var expected = few.Sum(record => Hits(new Session(program, record, LargeForm.Setting)));

        // Each takes its input in the form that suits it best, prepared beforehand: columns, open sessions, typed arrays.
        RecordColumns columns = null!;
        var intoColumns = new Measured("Dibujo, records into columns", Bulk, () => (columns = new(definition.RecordType, records)).Count);
        var opened = new Measured("Dibujo, a record into a session", Bulk / 50, () => records.Take(Bulk / 50).Sum(record => Hits(new Session(program, record, LargeForm.Setting))));
        var intoArrays = new Measured("RulesEngine, a record into arrays", Bulk / 50, () => records.Take(Bulk / 50).Sum(record => Parameters(record).Length));
        Measured.InTurn(4, intoColumns, opened, intoArrays);

        var bulk = new Measured("Dibujo, bulk of 100,000 records", Bulk, () => Hits(new BulkEvaluation(program, columns, LargeForm.Setting)));
        Measured.InTurn(10, bulk);
        var sessions = few.ConvertAll(record => new Session(program, record, LargeForm.Setting));
        var anew = new Measured("Dibujo, full evaluation", Open * OurRounds, () => Repeated(OurRounds, sessions, session =>
        {
            session.EvaluateAnew();
            return Hits(session);
        }));
        var names = Enumerable.Range(0, LargeForm.FieldCount).Select(LargeForm.Name).ToArray();
        var edited = new Session(program, few[0], LargeForm.Setting);
        var change = new Measured("Dibujo, one change", 30_000, () => Enumerable.Range(0, 30_000).Sum(i =>
            edited.Change(names[i % names.Length], records[i / names.Length % 50][names[i % names.Length]]).Rules.Count));
        var engine = Library(definition);
        var inputs = few.ConvertAll(Parameters);
        _ = Hits(engine, inputs[0]);
        var theirs = new Measured("RulesEngine (NuGet)", Open * TheirRounds, () => Repeated(TheirRounds, inputs, input => Hits(engine, input)));
        Measured.InTurn(40, anew, change, theirs);
        var logic = JsonLogic(definition, [.. Enumerable.Repeat(few, TheirRounds).SelectMany(f => f)], jsonLogic);

        var firstInBulk = new BulkEvaluation(program, new RecordColumns(definition.RecordType, few), LargeForm.Setting);
        int[] found = [Hits(firstInBulk), anew.Hits / OurRounds, theirs.Hits / TheirRounds, logic.Hits / TheirRounds];
        Demand(found.All(hits => hits == expected), "The libraries do not agree on the same records.");
        Console.WriteLine("| 1,000 rules of three clauses, 300 fields | per record or change | RulesEngine takes | json-logic-js takes |");
        Console.WriteLine("| --- | ---: | ---: | ---: |");
        foreach (var (name, time) in new[] { bulk.Result, anew.Result, change.Result, theirs.Result, ("json-logic-js (npm), by Node", logic.Microseconds) })
        {
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture,
                $"| {name} | {time:N1} µs | {theirs.Microseconds / time:N0} × as long | {logic.Microseconds / time:N0} × as long |"));
        }

        Console.WriteLine();
        Console.WriteLine("| preparing, once | per record |");
        Console.WriteLine("| --- | ---: |");
        foreach (var (name, time) in new[] { intoColumns.Result, opened.Result, intoArrays.Result })
        {
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"| {name} | {time:N1} µs |"));
        }
    }

    private static int Repeated<T>(int rounds, List<T> items, Func<T, int> hits)
    {
        var sum = 0;
        for (var round = 0; round < rounds; round++)
        {
            foreach (var item in items)
            {
                sum += hits(item);
            }
        }

        return sum;
    }

    private static int Hits(BulkEvaluation bulk)
    {
        var hits = 0;
        for (var rule = 0; rule < Rules; rule++)
        {
            hits += bulk.CountOf(rule, 0);
        }

        return hits;
    }

    private static int Hits(Session session)
    {
        var hits = 0;
        for (var rule = 0; rule < Rules; rule++)
        {
            hits += session.CaseInForce(rule) >= 0 ? 1 : 0;
        }

        return hits;
    }

    private static int Hits(RulesEngine.RulesEngine engine, RuleParameter[] input) =>
        engine.ExecuteAllRulesAsync("rules", input).AsTask().GetAwaiter().GetResult().Count(result => result.IsSuccess);

    private static RulesEngine.RulesEngine Library(Definition definition) => new(
    [
        new Workflow
        {
            WorkflowName = "rules",
            Rules = [.. definition.Rules.Select(rule => new RulesEngine.Models.Rule { RuleName = rule.Key, Expression = Expression(rule.Cases[0].While!) })],
        },
    ]);

    /// <summary>Fields by type in arrays, which is the fastest input that the library takes.</summary>
    private static RuleParameter[] Parameters(RecordValues record) =>
    [
        new("n", Of(record, value => value is Number number ? number.Amount : 0)),
        new("t", Of(record, value => value is Text or Choice ? value.Plain : "")),
        new("b", Of(record, value => value is YesNo { IsYes: true })),
    ];

    private static T[] Of<T>(RecordValues record, Func<Value, T> pick) =>
        [.. Enumerable.Range(0, LargeForm.FieldCount).Select(i => pick(record[LargeForm.Name(i)]))];

    private static string Expression(Condition condition) => condition switch
    {
        Group group => string.Join(group.Quantifier == Quantifier.AllOf ? " && " : " || ", group.Members.Select(Expression)),
        Clause { Subject: FieldSubject { Field: var field }, Test: var test, Comparands: [Literal { Value: var value }] } => (test, field[1..], value) switch
        {
            (Test.AtLeast, var i, _) => $"n[{i}] >= {value.Plain}m",
            (Test.Contains, var i, _) => $"t[{i}].Contains(\"{value.Plain}\")",
            (_, var i, YesNo answer) => $"b[{i}] == {(answer.IsYes ? "true" : "false")}",
            (_, var i, _) => $"t[{i}] == \"{value.Plain}\"",
        },
        _ => throw new ArgumentOutOfRangeException(nameof(condition)),
    };

    private static (double Microseconds, int Hits) JsonLogic(Definition definition, List<RecordValues> records, string script)
    {
        var file = Path.GetTempFileName();
        var input = new JsonObject
        {
            ["rules"] = new JsonArray([.. definition.Rules.Select(rule => Logic(rule.Cases[0].While!))]),
            ["records"] = new JsonArray([.. records.Select(r => JsonSerializer.SerializeToNode(r.ByField, Core.Json.CoreJson.Default.IReadOnlyDictionaryStringValue))]),
        };
        File.WriteAllText(file, input.ToJsonString());
        using var node = Process.Start(new ProcessStartInfo("node", [script, file]) { RedirectStandardOutput = true, UseShellExecute = false })!;
        var answer = JsonNode.Parse(node.StandardOutput.ReadToEnd())!;
        node.WaitForExit();
        File.Delete(file);
        return (answer["microseconds"]!.GetValue<double>(), answer["hits"]!.GetValue<int>());
    }

    private static JsonNode Logic(Condition condition) => condition switch
    {
        Group group => new JsonObject { [group.Quantifier == Quantifier.AllOf ? "and" : "or"] = new JsonArray([.. group.Members.Select(Logic)]) },
        Clause { Subject: FieldSubject { Field: var field }, Test: var test, Comparands: [Literal { Value: var value }] } => test switch
        {
            Test.AtLeast => new JsonObject { [">="] = new JsonArray(Var(field), Plain(value)) },
            Test.Contains => new JsonObject { ["in"] = new JsonArray(Plain(value), Var(field)) },
            _ => new JsonObject { ["=="] = new JsonArray(Var(field), Plain(value)) },
        },
        _ => throw new ArgumentOutOfRangeException(nameof(condition)),
    };

    private static JsonObject Var(string field) => new() { ["var"] = field };

    private static JsonNode Plain(Value value) => JsonSerializer.SerializeToNode(value, Core.Json.CoreJson.Default.Value)!;

    private static void Demand(bool holds, string what)
    {
        if (!holds)
        {
            throw new InvalidOperationException(what);
        }
    }

    /// <summary>The best of many runs, for each item of a run; each run takes a tenth of a second or so.</summary>
    private sealed class Measured(string name, int items, Func<int> run)
    {
        internal double Microseconds { get; private set; } = double.MaxValue;

        internal (string Name, double Time) Result => (name, Microseconds);

        internal int Hits { get; private set; }

        /// <summary>Runs them by turns, so that a machine that is slower for a while is slower for all.</summary>
        internal static void InTurn(int times, params Measured[] all)
        {
            for (var time = 0; time < times; time++)
            {
                foreach (var measured in all)
                {
                    measured.Run();
                }
            }
        }

        private void Run()
        {
            var start = Stopwatch.GetTimestamp();
            Hits = run();
            Microseconds = Math.Min(Microseconds, Stopwatch.GetElapsedTime(start).TotalMicroseconds / items);
        }
    }
}
