using System.Text.Json;
using BenchmarkDotNet.Running;
using Dibujo.Benchmarks;
using Dibujo.Core.Json;

if (args is ["write-form", var rules, var path])
{
    // For the browser build's benchmark: the same form and record as JSON.
    var written = new Dictionary<string, JsonElement>
    {
        ["definition"] = JsonSerializer.SerializeToElement(LargeForm.With(int.Parse(rules, System.Globalization.CultureInfo.InvariantCulture)), CoreJson.Default.Definition),
        ["values"] = JsonSerializer.SerializeToElement(LargeForm.Record().ByField, CoreJson.Default.IReadOnlyDictionaryStringValue),
        ["setting"] = JsonSerializer.SerializeToElement(LargeForm.Setting, CoreJson.Default.Setting),
    };
    File.WriteAllText(path, JsonSerializer.Serialize(written));
    return;
}

if (args is ["beside", var jsonLogic])
{
    Beside.Run(jsonLogic);
    return;
}

BenchmarkSwitcher.FromAssembly(typeof(EngineBenchmarks).Assembly).Run(args);
