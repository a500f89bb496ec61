using Microsoft.AspNetCore.SignalR;

namespace Dibujo.Server.Records;

/// <summary>Tells everybody who has a record or a list open of what has just become so; to be called once it is stored.</summary>
internal sealed class RecordNews(IHubContext<RecordHub> live)
{
    /// <summary>Records were saved: whoever looks at one of them, or at a list of their type, may look again.</summary>
    internal async Task SavedAsync(string recordType, string by, params int[] records)
    {
        foreach (var record in records)
        {
            await live.Clients.Group(RecordHub.Of(record)).SendAsync("Saved", record, by);
        }

        await live.Clients.Group(RecordHub.OfType(recordType)).SendAsync("Changed", records);
    }

    /// <summary>Another edition is in force.</summary>
    internal Task PublishedAsync(string recordType, int edition) => live.Clients.Group(RecordHub.OfType(recordType)).SendAsync("Published", edition);
}
