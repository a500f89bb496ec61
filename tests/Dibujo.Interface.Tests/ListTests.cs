using OpenQA.Selenium;

namespace Dibujo.Interface.Tests;

/// <summary>Members at work in lists: finding, typing into cells, several rows at once.</summary>
public sealed class ListTests(Server server) : IClassFixture<Server>
{
    private const string Row = "[data-row='";

    [Fact]
    public void A_cell_is_typed_into_under_its_rows_rules_and_a_refusal_stands_at_the_cell()
    {
        using var browser = new Browser(server.Address);
        var id = Begin(browser, "Copper Kite for Vell");
        Show(browser, "Copper Kite for Vell", "borrower", "startDate", "endDate");
        Active(browser, id, "startDate");
        browser.Keyboard(Keys.Enter);
        browser.See($"{Row}{id}'] [data-column=startDate] input");
        browser.Keyboard("10 Jan 2031" + Keys.Tab);
        browser.Keyboard(Keys.Enter);
        browser.See($"{Row}{id}'] [data-column=endDate] [data-active] , {Row}{id}'] [data-column=endDate] input:focus");
        browser.Keyboard("5 Jan 2031" + Keys.Enter);
        // The row is left by going to another.
        browser.Press("input[aria-label='Search texts']");
        browser.See($"{Row}{id}'][data-refused]");
        Active(browser, id, "endDate");
        browser.Keyboard(Keys.Enter);
        browser.See($"{Row}{id}'] [data-column=endDate] [role=alert]", "before it begins");
        browser.Keyboard(Keys.Control + "a" + Keys.Null + "31 Jan 2031" + Keys.Enter);
        browser.Press("input[aria-label='Search texts']");
        browser.SeeNothing($"{Row}{id}'][data-open]");
        browser.See($"{Row}{id}'] [data-column=endDate]", "Jan 31, 2031");
        browser.Open($"/records/{id}");
        browser.SeeValue("#field-endDate", "Jan 31, 2031");
        browser.See("section[aria-label=History] summary", "changed");
        browser.SeeNothing("section[aria-label='Typed before']");
    }

    [Fact]
    public void Several_rows_are_changed_and_moved_at_once_with_a_report_and_changed_back()
    {
        using var browser = new Browser(server.Address);
        var (one, other) = (Begin(browser, "Reed Organ for Vell"), Begin(browser, "Reed Organ for Brennick", signsIn: false));
        Show(browser, "Reed Organ", "borrower");
        browser.Press($"input[aria-label='Tick No. {one}']");
        browser.Press($"input[aria-label='Tick No. {other}']");
        browser.Press("input[aria-label='Field to change']");
        browser.Keyboard("Borrower");
        browser.Press("[role=option]", "Borrower", isExact: true);
        browser.Type("input[aria-label='To what']", "House of Oststrand");
        browser.Press("button", "Change in all");
        browser.See("[aria-label='What came of it']", "2 rows saved.");
        browser.See($"{Row}{other}'] [data-column=borrower]", "House of Oststrand");
        browser.Press("button", "Undo all of it");
        browser.See("[aria-label='What came of it']", "undone: 2 rows saved.");
        browser.SeeNothing($"{Row}{other}'] [data-column=borrower]", "House of Oststrand");

        browser.Press("[aria-label='Ticked rows'] button", "Move on");
        browser.Press("[role=menuitem]", "Send to assessment");
        browser.See("[aria-label='What came of it']", "0 rows saved, 2 refused.");
        browser.See("[aria-label='What came of it'] li", "Borrower");
    }

    [Fact]
    public void A_list_is_left_and_found_again_as_it_was_and_kept_as_a_view()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("rosa");
        browser.Open("/types/object-loan/records");
        browser.Press("[data-heading=title] button");
        browser.See("[data-heading=title][aria-sort=ascending]");
        browser.Type("input[aria-label='Search texts']", "astrolabe for vell");
        browser.SeeNothing("[data-row] [data-column=title]", "Lantern");
        browser.Press("[data-row] a");
        browser.SeeLive();
        browser.Press("nav[aria-label=Place] a", "Object loan");
        browser.SeeValue("input[aria-label='Search texts']", "astrolabe for vell");
        browser.See("[data-heading=title][aria-sort=ascending]");
        browser.See("nav[aria-label='Opened lately'] a", "Astrolabe for Vell");
        browser.Press("button", "Views");
        browser.Press("[role=menuitem]", "Keep this view…");
        browser.Type("[role=dialog] input:not([type=checkbox])", "Astrolabes");
        browser.Press("[role=dialog] label", "Others may use it too");
        browser.Press("[role=dialog] button", "Keep");
        browser.SeeNothing("[role=dialog]");

        using var lorenz = new Browser(server.Address);
        lorenz.SignIn("lorenz");
        lorenz.Open("/types/object-loan/records");
        lorenz.See("[data-row]");
        lorenz.Press("button", "Views");
        lorenz.Press("[role=menuitem]", "Astrolabes");
        lorenz.SeeValue("input[aria-label='Search texts']", "astrolabe for vell");
        lorenz.SeeNothing("[data-row] [data-column=title]", "Lantern");
    }

    private static void Show(Browser browser, string search, params string[] fields)
    {
        var columns = string.Join(',', fields.Prepend("title").Prepend("@number").Select(key => $$"""{"key":"{{key}}","width":150}"""));
        browser.Open($"/types/object-loan/records?list={Uri.EscapeDataString($$"""{"columns":[{{columns}}],"search":"{{search}}"}""")}");
        browser.See("[data-row]");
        browser.SeeNothing("[data-row] [data-column=title]", "Lantern");
    }

    private static void Active(Browser browser, string id, string column)
    {
        browser.Press($"{Row}{id}'] [data-column={column}]");
        browser.See($"{Row}{id}'] [data-column={column}][data-active]");
        browser.Evaluate("document.querySelector('[role=grid]').focus()");
    }

    /// <summary>Begins a record and answers with its number.</summary>
    private static string Begin(Browser browser, string title, bool signsIn = true)
    {
        if (signsIn)
        {
            browser.SignIn("lorenz");
        }

        browser.Open("/types/object-loan/records/new");
        browser.See("#field-title:not([readonly])");
        browser.Type("#field-title", title);
        browser.Press("button", "Save");
        browser.See("section[aria-label=History] li", "begun");
        return (string)browser.Evaluate("document.querySelector('nav[aria-label=Place]').textContent.split('No. ')[1]")!;
    }
}
