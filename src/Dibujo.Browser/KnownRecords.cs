using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Json;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Browser;

/// <summary>The linked records that JavaScript has told of; the server vouches for persons.</summary>
internal sealed partial class KnownRecords : IRecordLookup
{
    internal static readonly KnownRecords All = new();
    private readonly Dictionary<(string RecordType, int Number), RecordValues> known = [];

    public RecordValues? Find(string recordType, int number) => known.GetValueOrDefault((recordType, number));

    public bool HasPerson(string userName) => true;

    /// <summary>Tells the values of a record; open sessions see them after <see cref="Sessions.LookUpAgain"/>.</summary>
    [JSExport]
    internal static void Know(string recordType, int number, string valuesJson) =>
        All.known[(recordType, number)] = new(JsonSerializer.Deserialize(valuesJson, CoreJson.Default.IReadOnlyDictionaryStringValue)!);
}
