using System.Runtime.InteropServices.JavaScript;
using Dibujo.Core.Answers;
using Dibujo.Core.Explanation;
using Dibujo.Core.Tapes;
using Dibujo.Core.Values;

namespace Dibujo.Browser;

/// <summary>Open records, as JavaScript sees them. What is different after a change comes back as <see cref="FollowedRecord"/> tells it.</summary>
/// <remarks>Text comes in composed (NFC): the browser does that, as its runtime here cannot.</remarks>
internal static partial class Sessions
{
    private static readonly Handles<FollowedRecord> Held = new();

    /// <summary>Opens a record: an object with <c>values</c>, <c>setting</c> and <c>followsForms</c>, whether it is to be told which forms apply.</summary>
    [JSExport]
    internal static int Open(int program, int[] tape, string text)
    {
        var record = Tape.Read(tape, text);
        return Held.Add(new(Programs.Of(program), ValueTape.Record(record["values"]), RecordTypeTape.Setting(record["setting"]), KnownRecords.All, record["followsForms"].IsTrue));
    }

    [JSExport]
    internal static void Close(int session) => Held.Remove(session);

    /// <summary>Everything, for the first drawing.</summary>
    [JSExport]
    internal static string All(int session) => Held[session].All();

    /// <summary>Changes one field to a bare value, or to what a text says that was typed; whether more of that may come.</summary>
    [JSExport]
    internal static string Change(int session, int field, int[] tape, string text, bool isPartial)
    {
        try
        {
            return ValueTape.Value(Tape.Read(tape, text)) is Text typed ? Held[session].Type(field, typed, Readings.Own, Readings.Names, isPartial)
                : Held[session].Change(field, ValueTape.Value(Tape.Read(tape, text)));
        }
        catch (FormatException mistake)
        {
            return Held[session].Refuse(field, mistake.Message);
        }
    }

    [JSExport]
    internal static string Enter(int session, int[] tape, string text) => Held[session].Enter(RecordTypeTape.Setting(Tape.Read(tape, text)));

    /// <summary>Looks linked records up again, after <see cref="KnownRecords.Know"/>.</summary>
    [JSExport]
    internal static string LookUpAgain(int session) => Held[session].LookUpAgain();

    /// <summary>Carries the record over to what the program's rules are now, or to those of another program of the same record type.</summary>
    [JSExport]
    internal static string Rebase(int session, int program) => Held[session].Rebase(Programs.Of(program));

    /// <summary>The changes that count now, and those that are set aside.</summary>
    [JSExport]
    internal static string Changes(int session) => Held[session].Changes();

    /// <summary>What would come of each move that is this person's to make, and how far each form is filled in.</summary>
    [JSExport]
    internal static string Outlook(int session) => Held[session].Outlook();

    /// <summary>Every clause of a rule with present value and truth.</summary>
    [JSExport]
    internal static string Clauses(int session, int rule) =>
        AnswerWriter.Write(to => to.Write(new Explainer(Held[session].Whole.AtHand).Clauses(rule)));

    /// <summary>Why the element of that number is as it is.</summary>
    [JSExport]
    internal static string Explain(int session, int element)
    {
        var open = Held[session].Whole.AtHand;
        return AnswerWriter.Write(to => to.Write(new Explainer(open).Explain(open.Program.ElementAt(element))));
    }
}
