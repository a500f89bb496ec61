using OpenQA.Selenium;

namespace Dibujo.Interface.Tests;

/// <summary>Whole jobs, from nothing to what somebody else can work with: how much each takes.</summary>
public sealed class WholeJobTests
{
    private const string Way = "by mouse and typing";

    private static readonly string[] TenFields =
    [
        "Frame: Oak, Lime, Gilt", "Width: number in cm", "Height: number in cm", "Needed by: date", "Price: money",
        "Urgent: yes or no", "Maker: full name", "Care: several of Dry, Dark, Cool", "Remarks: long text",
    ];

    private readonly EffortPage page = new("What whole jobs take",
        "Counted by `WholeJobTests` in the same way, on an installation that has just been set up.");

    [Fact]
    public async Task From_nothing_to_a_record_of_a_member()
    {
        var data = ServerProcess.NewDataFolder();
        await using var server = await ServerProcess.Start(data, null, "--demo=false");
        using var browser = new Browser(server.Address);
        Measure(browser, 1, "First run to a member's record", most: 40, () => FirstRun(browser, WelcomeIn(server.Said)));
        browser.SignOut();
        browser.SignIn("vera", password: Password);
        Measure(browser, 2, "A type of ten fields, two forms, four stages, published", most: 60, () => TenFieldsTwoFormsFourStages(browser));
        page.Write(Checkout.Path("docs", "effort.md"), [Way]);
    }

    private const string Password = "a good long one";

    private void Measure(Browser browser, int number, string what, int most, Action act)
    {
        browser.Recount();
        act();
        page.Add(number, what, Way, new(browser.Presses, browser.Words));
        Assert.InRange(browser.Presses, 1, most);
    }

    /// <summary>Where the link leads that an installation without people prints.</summary>
    private static string WelcomeIn(string said) => said[said.IndexOf("/welcome#", StringComparison.Ordinal)..].Split([' ', '\n', '\r'])[0];

    private static void FirstRun(Browser browser, string link)
    {
        browser.Open(link);
        browser.See("input[name=userName]");
        browser.Run("document.querySelector('form input').focus()");
        browser.Keyboard("Vera Lindqvist" + Keys.Tab + "vera" + Keys.Tab + Password + Keys.Tab + Password + Keys.Enter);
        browser.Press("button", "New record type");
        browser.See("[role=dialog] input:focus");
        browser.Keyboard("Key request" + Keys.Enter);
        browser.Press("input[aria-label='Label of the new field']");
        foreach (var field in (string[])["Door: Front, Yard", "Until: date"])
        {
            AddField(browser, field);
        }

        browser.See("[role=status]", "Draft saved");
        Publish(browser);
        browser.Press("a[href='/people']");
        browser.Press("button", "Invite a person");
        browser.See("[role=dialog] input:focus");
        browser.Keyboard("Wim Ostrander" + Keys.Tab + "wim" + Keys.Enter);
        var invitation = new Uri(browser.See("code").Text);
        browser.SignOut();

        browser.Open(invitation.PathAndQuery + invitation.Fragment);
        browser.Press("input[name=password]");
        browser.Keyboard(Password + Keys.Tab + Password + Keys.Enter);
        browser.Press("main a[href='/types/key-request/records']");
        browser.Press("main a", "New key request");
        browser.See("#field-title:not([readonly])");
        browser.SeeLive();
        browser.Press("#field-title");
        browser.Keyboard("Yard key for the mason");
        browser.Press("button", "Save", isExact: true);
        browser.See("nav[aria-label=Place]", "No. ");
    }

    private static void TenFieldsTwoFormsFourStages(Browser browser)
    {
        browser.Press("button", "New record type");
        browser.See("[role=dialog] input:focus");
        browser.Keyboard("Frame request" + Keys.Enter);
        browser.Press("input[aria-label='Label of the new field']");
        foreach (var field in TenFields)
        {
            AddField(browser, field);
        }

        browser.See("h2", "Frame request: 10 fields");
        browser.Press("nav[aria-label=Sheets] a", "Forms");
        browser.Press("input[aria-label='Name of the new form']");
        browser.Keyboard("On return" + Keys.Enter);
        foreach (var field in (string[])["Care", "Remarks"])
        {
            browser.Press($"section[aria-label='Fields in the margin'] button[aria-label='Send {field} elsewhere']");
            browser.Press("[role=menuitem]", "To Details", isExact: true);
            browser.See("ul[aria-label='Fields in the section Details']", field);
        }

        browser.Press("nav[aria-label=Sheets] a", "Workflow");
        foreach (var (after, stage) in ((string, string)[])[("Open", "Ordered"), ("Ordered", "Made")])
        {
            browser.Press($"button[aria-label='Insert a stage after {after}']");
            browser.See("input[aria-label^='Stage ']:focus");
            browser.Keyboard(stage + Keys.Enter);
            browser.See($"button[aria-label='Insert a stage after {stage}']");
        }

        browser.See("[role=status]", "Draft saved");
        Publish(browser);
    }

    private static void AddField(Browser browser, string line)
    {
        browser.Keyboard(line + Keys.Enter);
        browser.SeeValue("input[aria-label='Label of the new field']", "");
        browser.See($"section[aria-label='The field {line.Split(':')[0]}']");
    }

    private static void Publish(Browser browser)
    {
        browser.Press("button", "Publish…");
        browser.Press("[role=dialog] button", "Publish", isExact: true);
        browser.See("[role=alert], .mantine-Notifications-root", "Edition 1 is in force.");
    }
}
