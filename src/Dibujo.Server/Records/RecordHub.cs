using Dibujo.Server.Accounts;
using Dibujo.Server.Live;
using Microsoft.AspNetCore.Authorization;

namespace Dibujo.Server.Records;

/// <summary>
/// Tells people who have a record open, or a list of records, of what others do meanwhile: who else is there, what was saved,
/// that another edition is in force.
/// </summary>
[Authorize(Policies.Members)]
internal sealed class RecordHub(LiveConnections live) : LiveHub(live)
{
    internal const string Address = "/live/records";

    private const string Record = "record ";

    private readonly LiveConnections live = live;

    /// <summary>Wants to be told of records of that type, and of its editions.</summary>
    public new void Watch(string recordType) => base.Watch(OfType(recordType));

    /// <summary>Is at that record from now on, and at no other by this connection.</summary>
    public void Open(int record)
    {
        Leave(Record);
        base.Watch(Of(record));
        Tell(Of(record), record);
    }

    internal static string Of(int record) => $"{Record}{record}";

    internal static string OfType(string recordType) => $"type {recordType}";

    /// <inheritdoc/>
    protected override void OnLeft(string topic)
    {
        if (topic.StartsWith(Record, StringComparison.Ordinal))
        {
            Tell(topic, int.Parse(topic.AsSpan(Record.Length), System.Globalization.CultureInfo.InvariantCulture));
        }
    }

    private void Tell(string topic, int record) => live.Tell(topic, "Here", record, live.People(topic));
}
