using System.Globalization;
using System.Text;

namespace Dibujo.Interface.Tests;

/// <summary>What it takes to write a rule: presses (of the mouse, or of keys that are no part of a word) and typed words.</summary>
internal sealed record Effort(int Presses, int Words)
{
    public override string ToString() =>
        string.Create(CultureInfo.InvariantCulture, $"{Presses} {(Presses == 1 ? "press" : "presses")}{(Words > 0 ? $", {Words} {(Words == 1 ? "word" : "words")}" : "")}");
}

/// <summary>A part of the page of docs that tells the effort of jobs, written by the test that measures it; other parts stay as they are.</summary>
/// <param name="title">Its heading.</param>
/// <param name="how">What was counted, as a paragraph.</param>
internal sealed class EffortPage(string title, string how)
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
        page.AppendLine(CultureInfo.InvariantCulture, $"# {title}").AppendLine();
        page.AppendLine(how).AppendLine();
        page.AppendLine(CultureInfo.InvariantCulture, $"| job | {string.Join(" | ", ways)} |");
        page.AppendLine(CultureInfo.InvariantCulture, $"|---|{string.Concat(Enumerable.Repeat("---|", ways.Count))}");
        foreach (var ((job, what), measured) in jobs)
        {
            page.AppendLine(CultureInfo.InvariantCulture, $"| {job}. {what} | {string.Join(" | ", ways.Select(way => measured.TryGetValue(way, out var effort) ? effort.ToString() : ""))} |");
        }

        var parts = ("\n" + File.ReadAllText(path)).Split("\n# ", StringSplitOptions.RemoveEmptyEntries).Select(part => $"# {part.Trim()}\n").ToList();
        var own = page.ToString().ReplaceLineEndings("\n");
        var at = parts.FindIndex(part => part.StartsWith($"# {title}\n", StringComparison.Ordinal));
        if (at < 0)
        {
            parts.Add(own);
        }
        else
        {
            parts[at] = own;
        }

        File.WriteAllText(path, string.Join('\n', parts));
    }
}
