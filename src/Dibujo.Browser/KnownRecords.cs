using System.Runtime.InteropServices.JavaScript;
using Dibujo.Core.Records;
using Dibujo.Core.Tapes;
using Dibujo.Core.Values;

namespace Dibujo.Browser;

/// <summary>The linked records that JavaScript has told of; the server vouches for persons.</summary>
internal sealed partial class KnownRecords : IRecordLookup
{
    internal static readonly KnownRecords All = new();
    private readonly Dictionary<(string RecordType, int Number), RecordValues> known = [];

    public RecordValues? Find(string recordType, int number) => known.GetValueOrDefault((recordType, number));

    public bool HasPerson(string userName) => true;

    /// <summary>Tells of records: a list with type, number and values of each. Open ones see them after <see cref="Sessions.LookUpAgain"/>.</summary>
    [JSExport]
    internal static void Know(int[] tape, string text)
    {
        var records = Tape.Read(tape, text);
        for (var i = 0; i < records.Count; i++)
        {
            All.known[(records[i]["recordType"].Text, records[i]["number"].Integer)] = ValueTape.Record(records[i]["values"]);
        }
    }
}
