using OpenQA.Selenium;

namespace Dibujo.Interface.Tests;

/// <summary>An administrator looks after people: sees where they get in, ends that, shuts one out, and finds all of it in the audit trail.</summary>
public sealed class PeopleTests(Server server) : IClassFixture<Server>
{
    [Fact]
    public void Where_somebody_gets_in_is_seen_and_ended_and_disabling_asks_first()
    {
        using var rosa = new Browser(server.Address);
        rosa.SignIn("rosa", "/types/object-loan/records");
        rosa.See("[role=grid]");
        using var ada = new Browser(server.Address);
        ada.SignIn("ada", "/people");

        ada.Press("[data-account=rosa] button", "Sessions…");
        ada.See("[role=dialog]", "Where Rosa Okkema gets in");
        ada.Press("[role=dialog] button", "Sign out there");
        ada.See("[role=dialog]", "Signed in nowhere");
        ada.Keyboard(Keys.Escape);
        ada.SeeNothing("[role=dialog]");
        rosa.Open("/types/object-loan/records");
        rosa.See("input[name=userName]");

        // One presses in haste: it is asked first, and leaving things as they are is what Enter does.
        ada.Press("[data-account=conrad] button", "Disable…");
        ada.See("[role=dialog]", "Disable Conrad Sill?");
        ada.Keyboard(Keys.Enter);
        ada.SeeNothing("[role=dialog]");
        ada.SeeNothing("[data-account=conrad]", "disabled");
        ada.Press("[data-account=conrad] button", "Disable…");
        ada.Press("[role=dialog] button", "Disable", isExact: true);
        ada.See("[data-account=conrad]", "disabled");
        ada.Press("[data-account=conrad] button", "Let in again");
        ada.SeeNothing("[data-account=conrad]", "disabled");

        ada.Open("/audit-trail");
        ada.See("tbody tr", "Let a person in again");
        ada.Type("input[aria-label='Search the trail']", "okkema");
        ada.SeeNothing("tbody tr", "Let a person in again");
        ada.See("tbody tr", "Rosa Okkema (rosa)");
        ada.Press("input[aria-label='What happened']");
        ada.Keyboard("signed out else");
        ada.Press("[role=option]", "Signed out elsewhere");
        ada.SeeNothing("tbody tr", "Signed in");
        ada.See("tbody tr", "Signed out elsewhere");
    }
}
