using Dibujo.Server.Live;

namespace Dibujo.Server.Records;

/// <summary>Tells everybody else who has a record or a list open of what has just become so; to be called once it is stored. Waits for nobody.</summary>
internal sealed class RecordNews(LiveConnections live, Sender sender)
{
    /// <summary>Records were saved: whoever looks at one of them, or at a list of their type, may look again.</summary>
    internal void Saved(string recordType, string by, int[] records)
    {
        foreach (var record in records)
        {
            live.Tell(sender, RecordHub.Of(record), "Saved", record, by);
        }

        live.Tell(sender, RecordHub.OfType(recordType), "Changed", records);
    }

    /// <summary>Another edition is in force.</summary>
    internal void Published(string recordType, int edition) => live.Tell(RecordHub.OfType(recordType), "Published", edition);
}
