using System.Text;
using Dibujo.Core.Notations;

namespace Dibujo.Cli;

/// <summary>Those who may be named in a sentence, each on a line: what they are called, or their account, a tab or comma, and what they are called.</summary>
internal static class PeopleFile
{
    /// <summary>The people in that file; without one, whoever is written as a name. Null, with the reason printed, where it cannot be read.</summary>
    internal static IKnownNames? Read(string? path, TextWriter mistakes)
    {
        if (path is null)
        {
            return new NamesAsWritten();
        }

        return InputFile.Bytes(path, mistakes) is { } bytes
            ? new KnownPeople([.. Encoding.UTF8.GetString(bytes).Split('\n').Select(line => line.Trim('\r', '\uFEFF', ' ').Split('\t', ',')).Where(line => line[^1].Length > 0).Select(line => (line[^1].Trim(), line[^1].Trim()))])
            : null;
    }

    /// <summary>Two words in capitals are a person whom nobody here knows.</summary>
    private sealed class NamesAsWritten : IKnownNames
    {
        /// <summary>What a sentence begins with, in capitals too, and what stands for nobody in particular.</summary>
        private static readonly string[] NoNames = ["If", "When", "While", "For", "Only", "Unless", "Until", "Nobody", "Hide", "Show", "Lock", "Require", "Warn", "Tell", "Mr", "Mrs", "Ms", "Dr", "Should", "Where", "Let", "Once", "Except"];

        public string? TitleOf(string recordType, int number) => null;

        public string? NameOf(string userName) => userName;

        public IReadOnlyList<int> RecordsCalled(string recordType, string title) => [];

        public IReadOnlyList<string> PeopleCalled(string name) =>
            name.Split(' ') is [[>= 'A' and <= 'Z', >= 'a' and <= 'z', ..], [>= 'A' and <= 'Z', >= 'a' and <= 'z', ..]] words && !NoNames.Contains(words[0], StringComparer.Ordinal) ? [name] : [];
    }
}
