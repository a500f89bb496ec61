namespace Dibujo.Server.Accounts;

/// <summary>Who may call what.</summary>
internal static class Policies
{
    /// <summary>Everyone who has signed in, and programs by a person's token.</summary>
    internal const string Members = "members";

    /// <summary>Everyone who has signed in on a page: what is the person's own affair, no program does.</summary>
    internal const string InPerson = "in-person";

    /// <summary>Platform administrators, who draft and publish rules.</summary>
    internal const string Administrators = "administrators";

    /// <summary>The Identity role behind <see cref="Administrators"/>.</summary>
    internal const string AdministratorRole = "administrator";
}
