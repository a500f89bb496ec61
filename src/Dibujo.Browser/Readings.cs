using System.Runtime.InteropServices.JavaScript;
using System.Collections.Immutable;
using Dibujo.Core.Answers;
using Dibujo.Core.Notations;
using Dibujo.Core.Tapes;

namespace Dibujo.Browser;

/// <summary>What the person at this browser writes, as JavaScript sees it.</summary>
internal static partial class Readings
{
    /// <summary>How that person writes dates and numbers.</summary>
    internal static Notation Own { get; private set; } = Notation.Plain;

    /// <summary>What people are called.</summary>
    internal static KnownPeople Names { get; private set; } = new([]);

    /// <summary>Who can sign in; null as long as nobody has told. The same set for as long as it is the same people.</summary>
    internal static ImmutableHashSet<string>? Accounts { get; private set; }

    /// <summary>Takes over how the person writes, and who there is: an object with <c>language</c>, <c>day</c>, <c>marks</c> and <c>people</c>, a list of account and name.</summary>
    [JSExport]
    internal static void GoBy(int[] tape, string text)
    {
        var node = Tape.Read(tape, text);
        Own = Notation.Of(node["language"].TextOrNull, node["day"].TextOrNull, node["marks"].TextOrNull);
        (string Account, string Name)[] people = [.. node["people"].List(person => (person["userName"].Text, person["displayName"].Text))];
        Names = new(people);
        var accounts = people.Select(person => person.Account).ToImmutableHashSet(StringComparer.Ordinal);
        if (!accounts.IsEmpty && Accounts?.SetEquals(accounts) != true)
        {
            Accounts = accounts;
        }
    }

    /// <summary>What a text says as a value of a type (tape): the day on which it was written tells of today.</summary>
    [JSExport]
    internal static string Read(string written, string today, int[] tape, string text) =>
        AnswerWriter.Write(to => to.Write(Own.Read(written, RecordTypeTape.Type(Tape.Read(tape, text)), Names, DateOnly.ParseExact(today, "yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture))));
}
