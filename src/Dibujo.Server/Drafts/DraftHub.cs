using Dibujo.Server.Accounts;
using Dibujo.Server.Live;
using Microsoft.AspNetCore.Authorization;

namespace Dibujo.Server.Drafts;

/// <summary>Tells administrators who have a draft open that it was changed, and who else is where in it.</summary>
[Authorize(Policies.Administrators)]
internal sealed class DraftHub(LiveConnections live) : LiveHub(live)
{
    internal const string Address = "/live/drafts";

    private const int LongestPlace = 100;

    private readonly LiveConnections live = live;

    /// <summary>Wants to be told of the draft of that record type.</summary>
    public new void Watch(string recordType) => base.Watch(Of(recordType));

    /// <summary>Is at that place of the draft from now on: a sheet, and on it a rule.</summary>
    public void Stand(string recordType, string place)
    {
        if (live.Find(Context.ConnectionId) is { } connection)
        {
            connection.Place = place.Length <= LongestPlace ? place : "";
            TellWhere(Of(recordType));
        }
    }

    /// <inheritdoc/>
    protected override void OnLeft(string topic) => TellWhere(topic);

    private void TellWhere(string topic) => live.Tell(topic, "Here", live.Places(topic));

    internal static string Of(string recordType) => $"draft {recordType}";
}
