using System.Collections.Immutable;
using System.Security.Claims;
using Dibujo.Core.Notations;
using Dibujo.Core.Records;
using Dibujo.Server.Accounts;

namespace Dibujo.Server.Writing;

/// <summary>Who reads or writes a record, and by which way.</summary>
/// <param name="Person">Account name of the person, or of the one for whom a program acts.</param>
/// <param name="Roles">Keys of the person's roles.</param>
/// <param name="Channel">The way.</param>
/// <param name="Written">How the person writes dates and numbers; null for a program, which says what it means.</param>
internal sealed record Author(string Person, ImmutableArray<string> Roles, Channel Channel, Notation? Written = null)
{
    /// <summary>Whoever sends a request, with how they write.</summary>
    internal static Author Of(HttpContext http, bool inList = false) =>
        Of(http.User, inList) with { Written = TokenSignIn.IsProgram(http.User) ? null : http.Notation() };

    /// <summary>
    /// Whoever sends a request. A program is known by its token, and nobody else can claim to be one; of a person's own two ways,
    /// the form and the list, the page says which.
    /// </summary>
    internal static Author Of(ClaimsPrincipal user, bool inList = false) =>
        new(user.Identity!.Name!, user.RoleKeys(), TokenSignIn.IsProgram(user) ? Channel.Api : inList ? Channel.List : Channel.Form);

    /// <summary>Whoever sends a file.</summary>
    internal static Author Importing(ClaimsPrincipal user) => Of(user) with { Channel = Channel.Import };
}
