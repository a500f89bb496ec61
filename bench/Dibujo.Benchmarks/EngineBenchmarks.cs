using BenchmarkDotNet.Attributes;
using Dibujo.Core.Compilation;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Programs;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Benchmarks;

/// <summary>One change beside a full evaluation of the same form, and compiling its rules.</summary>
[MemoryDiagnoser]
public class EngineBenchmarks
{
    private readonly RecordValues record = LargeForm.Record();
    private readonly Value[][] values = [.. Enumerable.Range(0, LargeForm.FieldCount).Select(i =>
    {
        var random = new Random(i);
        return new[] { LargeForm.Value(random, i), LargeForm.Value(random, i) };
    })];

    private readonly string[] names = [.. Enumerable.Range(0, LargeForm.FieldCount).Select(LargeForm.Name)];
    private Definition definition = null!;
    private RuleProgram program = null!;
    private Session session = null!;
    private int turn;

    /// <summary>How many rules the form has.</summary>
    [Params(1000, 3000, 10_000)]
    public int Rules { get; set; }

    /// <summary>Compiles once and opens a record.</summary>
    [GlobalSetup]
    public void Open()
    {
        definition = LargeForm.With(Rules);
        program = ProgramCompiler.Compile(definition).Program!;
        session = new(program, record, LargeForm.Setting);
    }

    /// <summary>One field after another gets another value.</summary>
    [Benchmark]
    public Delta Change()
    {
        var field = turn++ % LargeForm.FieldCount;
        return session.Change(names[field], values[field][turn / LargeForm.FieldCount % 2]);
    }

    /// <summary>Everything anew, up to the state of every element.</summary>
    [Benchmark(Baseline = true)]
    public int FullEvaluation()
    {
        var opened = new Session(program, record, LargeForm.Setting);
        var visible = 0;
        for (var element = 0; element < program.ElementCount; element++)
        {
            visible += opened.StateOf(element).IsVisible ? 1 : 0;
        }

        return visible;
    }

    /// <summary>From the model to the program.</summary>
    [Benchmark]
    public RuleProgram Compile() => ProgramCompiler.Compile(definition).Program!;
}
