using Microsoft.AspNetCore.Identity;

namespace Dibujo.Store.Accounts;

/// <summary>A person who signs in. Roles, of the platform and in records alike, are Identity's roles.</summary>
public sealed class Account : IdentityUser
{
    /// <summary>How the person is called on screens and in histories.</summary>
    public required string DisplayName { get; set; }

    /// <summary>The language in which the person writes dates and numbers, as a tag of BCP 47; null for the browser's.</summary>
    public string? Language { get; set; }

    /// <summary>How the person writes dates, as a pattern; null for as the language has it.</summary>
    public string? DatePattern { get; set; }

    /// <summary>How the person writes numbers, as 1234.5 is written; null for as the language has it.</summary>
    public string? NumberPattern { get; set; }
}
