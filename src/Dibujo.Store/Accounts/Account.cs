using Microsoft.AspNetCore.Identity;

namespace Dibujo.Store.Accounts;

/// <summary>A person who signs in. Roles, of the platform and in records alike, are Identity's roles.</summary>
public sealed class Account : IdentityUser
{
    /// <summary>How the person is called on screens and in histories.</summary>
    public required string DisplayName { get; set; }
}
