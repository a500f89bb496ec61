using OpenQA.Selenium;

namespace Dibujo.Interface.Tests;

/// <summary>How much it takes to draw a record type, job by job.</summary>
public sealed class DrawingEffortTests(Server server) : IClassFixture<Server>
{
    private const string Way = "by mouse";

    private readonly EffortPage page = new("What it takes to draw a record type",
        "Counted by `DrawingEffortTests` in the same way. What it takes to choose a file is not counted.");

    private readonly List<string> tooMuch = [];

    [Fact]
    public void Drawing_takes_no_more_than_was_promised()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("ada");
        browser.See("button", "New record type");
        Measure(browser, 1, "Begin a record type", most: 4, () =>
        {
            browser.Press("button", "New record type");
            browser.See("[role=dialog] input:focus");
            browser.Keyboard("Frame request" + Keys.Enter);
            browser.See("section[aria-label=Fields]");
        });
        Measure(browser, 2, "Eight fields of seven types, with choices", most: 14, () =>
        {
            browser.Press("input[aria-label='Label of the new field']");
            foreach (var line in (string[])["Frame: Oak, Lime, Gilt", "Width: number", "Height: number", "Needed by: date", "Price: money", "Urgent: yes or no", "Maker: full name"])
            {
                browser.Keyboard(line + Keys.Enter);
                browser.See($"section[aria-label='The field {line.Split(':')[0]}']");
            }
        });
        browser.Press("nav[aria-label=Sheets] a", "Forms");
        browser.See("[data-tab]");
        Measure(browser, 3, "A second section, with two fields on it", most: 6, () =>
        {
            Fill(browser, "Name of the new section on Main", "Size");
            foreach (var field in (string[])["Width", "Height"])
            {
                browser.Press($"button[aria-label='Send {field} elsewhere']");
                browser.Press("[role=menuitem]", "To Size", isExact: true);
                browser.See("ul[aria-label='Fields in the section Size']", field);
            }
        });
        browser.Press("nav[aria-label=Sheets] a", "Workflow");
        browser.See("ol");
        Measure(browser, 4, "A stage between two others, with the moves through it", most: 5, () =>
        {
            browser.Press("button[aria-label='Insert a stage after Open']");
            browser.Press("input[aria-label='Stage 2']");
            browser.Keyboard(Keys.Control + "a" + Keys.Null + "Ordered" + Keys.Enter);
            browser.SeeValue("input[aria-label='Stage 2']", "Ordered");
        });
        Measure(browser, 5, "Two roles", most: 4, () =>
        {
            Fill(browser, "Name of the new role", "Framer");
            Fill(browser, "Name of the new role", "Keeper");
        });
        browser.See("[role=status]", "Draft saved");
        Measure(browser, 6, "Publish it", most: 2, () =>
        {
            browser.Press("button", "Publish…");
            browser.Press("[role=dialog] button", "Publish", isExact: true);
            browser.See("[role=alert], .mantine-Notifications-root", "Edition 1 is in force.");
        });
        browser.Press("nav[aria-label=Sheets] a", "Fields");
        browser.See("[data-field=maker]");
        Measure(browser, 7, "Another key for a field, followed by rules, forms and records", most: 5, () =>
        {
            browser.Press("[data-field=maker] button");
            browser.Press("section[aria-label^='The field'] input[value=maker]");
            browser.Keyboard(Keys.Control + "a" + Keys.Null + "framer" + Keys.Enter);
            browser.See("tr[data-field=framer]");
        });
        browser.Open("/types/object-loan/forms");
        browser.See("[data-tab]");
        Measure(browser, 8, "Split a long form over three more tabs", most: 6, () =>
        {
            foreach (var section in (string[])["Borrower", "Period", "Light and climate"])
            {
                browser.Press($"button[aria-label='More for the section {section}']");
                browser.Press("[role=menuitem]", "To a tab of its own");
                browser.See($"input[aria-label='Name of the tab {section}']");
            }
        });
        browser.Open("/from-table");
        browser.See("textarea");
        browser.Run("""
            const area = document.querySelector('textarea');
            Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value').set.call(area, 'Title\tDue\tFee\n' + [...Array(12)].map((_, i) => `Lantern ${i}\t${i + 1}.11.2026\t€ ${i}`).join('\n'));
            area.dispatchEvent(new Event('input', { bubbles: true }));
            """);
        Measure(browser, 9, "A record type with its records, of cells that are pasted", most: 4, () =>
        {
            browser.Press("button", "Look at them");
            browser.Press("input[placeholder='such as Loan enquiry']");
            browser.Keyboard("Lantern loan" + Keys.Enter);
            browser.See("[role=status]", "12 rows are records.");
        });
        Assert.Empty(tooMuch);
        page.Write(Checkout.Path("docs", "effort.md"), [Way]);
    }

    private void Measure(Browser browser, int number, string what, int most, Action draw)
    {
        browser.Recount();
        draw();
        page.Add(number, what, Way, new(browser.Presses, browser.Words));
        if (browser.Presses > most)
        {
            tooMuch.Add($"{what}: {browser.Presses} presses, more than {most}.");
        }
    }

    private static void Fill(Browser browser, string name, string label)
    {
        browser.Press($"input[aria-label='{name}']");
        browser.Keyboard(label + Keys.Enter);
        browser.SeeValue($"input[aria-label='{name}']", "");
    }
}
