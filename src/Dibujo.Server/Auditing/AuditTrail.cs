using Dibujo.Store;
using Dibujo.Store.Auditing;

namespace Dibujo.Server.Auditing;

/// <summary>Notes what somebody may have to account for, in the same save as what it is about.</summary>
internal sealed class AuditTrail(DibujoDb db, TimeProvider clock)
{
    /// <summary>Adds an entry, which is stored with the next save.</summary>
    /// <param name="http">The request.</param>
    /// <param name="event">What happens.</param>
    /// <param name="about">What it is about.</param>
    /// <param name="who">Who does it; by default the person who is signed in.</param>
    internal void Note(HttpContext http, AuditEvent @event, string? about = null, string? who = null) => db.Audit.Add(Entry(http, @event, about, who));

    /// <summary>The same entry for work that goes on after the request, to be stored along with that.</summary>
    internal AuditEntry Entry(HttpContext http, AuditEvent @event, string? about = null, string? who = null) => new()
    {
        At = clock.GetUtcNow().UtcDateTime,
        Event = @event,
        Who = who is "" ? null : who ?? http.User.Identity?.Name,
        About = about,
        Address = http.Connection.RemoteIpAddress?.ToString(),
    };
}
