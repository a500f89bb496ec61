using Dibujo.Core.Rules;
using Dibujo.Core.Speech;

namespace Dibujo.Cli;

/// <summary>Reads a rule that is said as people say it, and prints its canonical sentence.</summary>
internal static class ReadCommand
{
    internal static int Run(string packPath, string said, TextWriter output, TextWriter mistakes)
    {
        if (InputFile.ReadPack(packPath, mistakes) is not { } pack)
        {
            return ExitCode.Problems;
        }

        var heard = Hearing.Of(said, pack.RecordType, pack.Rules, new Rule("", ""));
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
