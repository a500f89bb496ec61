using Dibujo.Core.Notations;
using Dibujo.Core.Packs;
using Dibujo.Core.Rules;
using Dibujo.Core.Speech;

namespace Dibujo.Cli;

/// <summary>Reads a rule that is said as people say it, and prints its canonical sentence, or what was not understood.</summary>
internal static class ReadCommand
{
    /// <param name="packPath">The pack with the record type.</param>
    /// <param name="said">What was said.</param>
    /// <param name="peoplePath">A file of those who may be named; null: whatever is written like a name is one.</param>
    /// <param name="output">Where the sentence goes.</param>
    /// <param name="mistakes">Where everything else goes.</param>
    internal static int Run(string packPath, string said, string? peoplePath, TextWriter output, TextWriter mistakes) =>
        InputFile.ReadPack(packPath, mistakes) is { } pack && PeopleFile.Read(peoplePath, mistakes) is { } people ? Print(said, pack, people, output, mistakes) : ExitCode.Problems;

    /// <summary>As <see cref="Run"/>, a sentence a line: one line comes back for each, empty where there is no rule.</summary>
    internal static int RunEach(string packPath, TextReader lines, string? peoplePath, TextWriter output, TextWriter mistakes)
    {
        if (InputFile.ReadPack(packPath, mistakes) is not { } pack || PeopleFile.Read(peoplePath, mistakes) is not { } people)
        {
            return ExitCode.Problems;
        }

        var worst = ExitCode.Fine;
        while (lines.ReadLine() is { } said)
        {
            var code = Print(said, pack, people, output, mistakes);
            if (code != ExitCode.Fine)
            {
                output.WriteLine();
            }

            worst = Math.Max(worst, code);
        }

        return worst;
    }

    private static int Print(string said, Pack pack, IKnownNames people, TextWriter output, TextWriter mistakes)
    {
        var heard = Hearing.Of(said, pack.RecordType, pack.Rules, new Rule("", ""), null, people);
        if (heard.Sentence is { } sentence)
        {
            output.WriteLine(sentence);
        }

        foreach (var guess in heard.Guesses)
        {
            mistakes.WriteLine($"“{said[guess.Start..guess.End]}” is taken for {guess.Meant}.");
        }

        if (heard.Question is { } question)
        {
            mistakes.WriteLine($"“{question.Said}” could be {string.Join(" or ", question.Options.Select(option => option.Label))}. Say which.");
        }

        if (heard.Misunderstanding is { } unheard)
        {
            var nearest = unheard.Nearest.IsEmpty ? "" : $" Nearest: {string.Join(", ", unheard.Nearest.Select(one => one.Label))}.";
            mistakes.WriteLine($"Character {unheard.Place + 1}: {unheard.Message}{nearest}");
        }

        return heard.Rule is null ? ExitCode.Problems : ExitCode.Fine;
    }
}
