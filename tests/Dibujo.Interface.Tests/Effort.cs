using System.Globalization;
using System.Text;

namespace Dibujo.Interface.Tests;

/// <summary>What it takes to write a rule: presses (of the mouse, or of keys that are no part of a word) and typed words.</summary>
internal sealed record Effort(int Presses, int Words)
{
    public override string ToString() =>
        string.Create(CultureInfo.InvariantCulture, $"{Presses} {(Presses == 1 ? "press" : "presses")}{(Words > 0 ? $", {Words} {(Words == 1 ? "word" : "words")}" : "")}");
}

/// <summary>The page of docs that tells the effort of each job, written by the test that measures it.</summary>
internal sealed class EffortPage
{
    private readonly SortedDictionary<(int Job, string What), Dictionary<string, Effort>> jobs = [];

    internal void Add(int job, string what, string way, Effort effort)
    {
        if (!jobs.TryGetValue((job, what), out var ways))
        {
            jobs[(job, what)] = ways = new(StringComparer.Ordinal);
        }

        ways[way] = effort;
    }

    internal void Write(string path, IReadOnlyList<string> ways)
    {
        var page = new StringBuilder();
        page.AppendLine("# What it takes to write a rule").AppendLine();
        page.AppendLine("Counted by `EffortTests` through the real interface, from the open drafting table to the working rule. A press is one of the");
        page.AppendLine("mouse, or of a key that is no part of a word (Enter, an arrow, a shortcut); words are those that are typed.").AppendLine();
        page.AppendLine(CultureInfo.InvariantCulture, $"| job | {string.Join(" | ", ways)} |");
        page.AppendLine(CultureInfo.InvariantCulture, $"|---|{string.Concat(Enumerable.Repeat("---|", ways.Count))}");
        foreach (var ((job, what), measured) in jobs)
        {
            page.AppendLine(CultureInfo.InvariantCulture, $"| {job}. {what} | {string.Join(" | ", ways.Select(way => measured.TryGetValue(way, out var effort) ? effort.ToString() : ""))} |");
        }

        File.WriteAllText(path, page.ToString().ReplaceLineEndings("\n"));
    }
}
