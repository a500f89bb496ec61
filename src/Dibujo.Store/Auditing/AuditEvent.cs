using System.Text.Json.Serialization;
using Dibujo.Core;

namespace Dibujo.Store.Auditing;

/// <summary>What is accounted for. Stored by name.</summary>
[JsonConverter(typeof(CamelCaseEnum<AuditEvent>))]
public enum AuditEvent
{
    /// <summary>A person signed in.</summary>
    SignedIn,

    /// <summary>Name and password did not belong together.</summary>
    SignInFailed,

    /// <summary>There were too many failures, so nothing more is looked at for a while.</summary>
    SignInSlowedDown,

    /// <summary>A person signed out.</summary>
    SignedOut,

    /// <summary>A person ended one of their other sign-ins.</summary>
    SessionEnded,

    /// <summary>A person made a token for a program.</summary>
    TokenMade,

    /// <summary>A person took a token back.</summary>
    TokenRevoked,

    /// <summary>A record type was begun.</summary>
    RecordTypeBegun,

    /// <summary>An edition was put in force.</summary>
    Published,

    /// <summary>Rules were taken out as a file.</summary>
    RulesExported,

    /// <summary>Rules from a file changed a draft.</summary>
    RulesImported,

    /// <summary>Records were taken out as a file.</summary>
    RecordsExported,

    /// <summary>Records came in from a file.</summary>
    RecordsImported,

    /// <summary>What an import did was taken back by whoever had begun it.</summary>
    ImportTakenBack,

    /// <summary>An administrator made an account, and a link to set its password by.</summary>
    PersonInvited,

    /// <summary>An administrator changed what an account is called, or what it may do.</summary>
    AccountChanged,

    /// <summary>An administrator shut an account.</summary>
    AccountDisabled,

    /// <summary>An administrator opened a shut account again.</summary>
    AccountEnabled,

    /// <summary>An administrator made a link to set a password by.</summary>
    PasswordLinkMade,

    /// <summary>A person set a password by a link.</summary>
    PasswordSet,

    /// <summary>An administrator edited a draft; told once for a person, a record type and an hour.</summary>
    DraftEdited,

    /// <summary>A person let everybody use a view of a list, or changed such a view.</summary>
    ViewShared,

    /// <summary>A person took a view from everybody.</summary>
    ViewWithdrawn,

    /// <summary>An administrator took the trail out as a file.</summary>
    AuditExported,
}
