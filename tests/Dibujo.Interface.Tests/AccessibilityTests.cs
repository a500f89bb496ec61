using System.Text.Json;
using OpenQA.Selenium;

namespace Dibujo.Interface.Tests;

/// <summary>What axe-core finds (WCAG 2.2 A and AA, best practice) in each state of the drafting table and on the other pages: nothing, in both themes.</summary>
public sealed class AccessibilityTests(Server server) : IClassFixture<Server>
{
    private static readonly string Axe = File.ReadAllText(Checkout.Path("src", "web", "node_modules", "axe-core", "axe.min.js"));

    /// <summary>States of the drafting table, each with what leads there from the one before.</summary>
    private static readonly (string Name, Action<Browser> Reach)[] States =
    [
        ("the table", _ => { }),
        ("an open rule", browser => browser.Press("[data-rule=crate] button")),
        ("a blank that is open", browser => browser.Press("[data-open] [data-blank=target]")),
        ("a table rule", browser =>
        {
            browser.Keyboard(Keys.Escape);
            browser.Press("[data-open] button[aria-label^='Close rule']");
            Begin(browser, "Grid or table");
            browser.Pick("Mode");
            browser.Pick("Fee");
            browser.See("[data-crossing]");
        }),
        ("a table rule as a table", browser => browser.Press("[role=radiogroup] label", "table", isExact: true)),
        ("a cell that is open", browser => browser.Press("[data-cell='0-0']")),
        ("a new rule with a mistake", browser =>
        {
            browser.Keyboard(Keys.Escape);
            Say(browser, "if colour is red, require fee");
            browser.See("[data-misunderstanding]");
        }),
        ("the line with a guess", browser => { Say(browser, "require hazrd notes if mode is air"); browser.See("[data-guess]"); }),
        ("the line with a question", browser => { Say(browser, "require family name when borrower is known"); browser.See("[data-question]"); }),
        ("an open element", browser =>
        {
            Say(browser, "");
            browser.Press("[role=tab]", "Transport");
            browser.Press("[data-field=crateNeeded] button[aria-label^='Make a rule for this']");
            browser.See("section[aria-label='About Crate needed']");
        }),
        ("rules that are ticked", browser =>
        {
            browser.Press("section[aria-label='About Crate needed'] button[aria-label=Close]");
            browser.Evaluate("document.querySelector('[data-rule] input[type=checkbox]').click()");
            browser.See("[role=toolbar]");
        }),
        ("what can be done to them", browser =>
        {
            browser.Press("[role=toolbar] button", "More…");
            browser.See("[role=menuitem]", "Copy as a pack");
        }),
        ("the ways to begin a rule", browser =>
        {
            browser.Keyboard(Keys.Escape);
            browser.SeeNothing("[role=menuitem]");
            browser.Press("button[aria-label='Other ways to begin a rule']");
            browser.See("[role=menuitem]", "Grid or table");
        }),
        ("many ways to find", browser => { browser.Keyboard(Keys.Escape); browser.Press("button[aria-label='Find rules by more than words']"); browser.See("[aria-label='Find rules by more than words'] input"); }),
        ("the keys", browser => { browser.Keyboard(Keys.Escape); browser.Press("button[aria-label=Keys]"); browser.See("[role=dialog] kbd"); }),
        ("the editions", browser => { Leave(browser); browser.Press("button", "Editions"); browser.See("[role=dialog] [data-change]"); }),
        ("publishing", browser => { Leave(browser); browser.Press("button", "Publish…"); browser.See("[role=dialog] button", "Publish"); }),
        ("pasting", browser => { Leave(browser); Begin(browser, "From elsewhere"); browser.See("[role=dialog] textarea"); }),
    ];

    [Fact]
    public void The_drafting_table_is_open_to_everybody()
    {
        using var browser = new Browser(server.Address);
        browser.BeforeEachPage("localStorage.setItem('mantine-color-scheme-value', 'light')");
        browser.SignIn("ada", "/types/object-loan/rules");
        browser.SeeLive();
        var found = new List<string>();
        foreach (var (name, reach) in States)
        {
            reach(browser);
            found.AddRange(Judge(browser).Select(finding => $"{name}: {finding}"));
        }

        Assert.True(found.Count == 0, string.Join("\n", found));
    }

    [Fact]
    public void The_other_sheets_are_open_to_everybody()
    {
        using var browser = new Browser(server.Address);
        browser.BeforeEachPage("localStorage.setItem('mantine-color-scheme-value', 'light')");
        browser.SignIn("ada");
        var found = new List<string>();
        void Look(string name) => found.AddRange(Judge(browser).Select(finding => $"{name}: {finding}"));
        Look("record types");
        browser.Press("button", "New record type");
        browser.See("[role=dialog] input");
        Look("beginning a record type");
        browser.Open("/from-table");
        browser.See("textarea");
        Look("a table to be pasted");
        browser.Type("textarea", "Title;Due;Fee" + string.Concat(Enumerable.Range(1, 12).Select(i => Keys.Enter + $"Lantern {i};{i}.11.2026;{i}")) + Keys.Enter + "Clock;soon;13");
        browser.Press("button", "Look at them");
        browser.See("[data-column=fee]");
        browser.Press("button[aria-expanded]");
        Look("a table that is looked at");
        browser.Open("/types/object-loan/forms");
        browser.See("[data-tab]");
        browser.See("[data-section] [class*=locked]");
        Look("forms");
        browser.Press("button[aria-label='More for the section Loan']");
        browser.See("[role=menuitem]");
        Look("what can be done to a section");
        browser.Open("/types/object-loan/fields");
        browser.Press("[data-field=mode] button");
        browser.See("section[aria-label='The field Mode']");
        browser.See("[aria-label='Choices of Mode'] li", "records");
        Look("fields");
        browser.Press("[aria-label='Choices of Mode'] li button");
        browser.See("[role=menuitem]");
        Look("what may become of a choice");
        browser.Keyboard(Keys.Escape);
        browser.Press("input[aria-label='Tick Mode']");
        browser.See("[aria-label='The ticked fields']");
        Look("several fields at once");
        browser.Open("/types/object-loan/workflow");
        browser.See("ol");
        browser.See("p", "records");
        Look("workflow");
        browser.Press("button[aria-label='Delete Terms']");
        browser.See("[role=menuitem]");
        Look("where records of a stage go");
        browser.Open("/types/object-loan/exchange");
        browser.See("section[aria-label=In]");
        Look("exchange");
        browser.Open("/people");
        browser.See("[data-account]");
        Look("people");
        browser.Press("button", "Invite a person");
        browser.See("[role=dialog] input");
        Look("inviting a person");
        Assert.True(found.Count == 0, string.Join("\n", found));
    }

    [Fact]
    public void The_pages_of_members_are_open_to_everybody()
    {
        using var browser = new Browser(server.Address);
        browser.BeforeEachPage("localStorage.setItem('mantine-color-scheme-value', 'light')");
        browser.SignIn("lorenz", "/types/object-loan/records");
        var found = new List<string>();
        void Look(string name) => found.AddRange(Judge(browser).Select(finding => $"{name}: {finding}"));
        browser.See("[data-row]");
        browser.Press("button", "Filter");
        browser.See("[data-clause]");
        Look("the list with a test");
        browser.Press("input[aria-label^='Tick No. ']");
        browser.See("[aria-label='Ticked rows']");
        Look("ticked rows");
        browser.Press("button", "Columns");
        browser.See("label", "Saved by");
        Look("the choice of columns");
        browser.Keyboard(Keys.Escape);
        browser.Press("[data-row] [data-column=title]");
        browser.Keyboard(Keys.Enter);
        browser.See("[data-row] input[type=text], [data-row][data-open]");
        Look("a row that is typed into");
        browser.Open("/types/object-loan/progress");
        browser.See("tbody tr");
        Look("the overview");
        browser.Open("/types/object-loan/intake");
        browser.See("button", "Choose a file");
        Look("bringing records in");
        browser.Open("/types/object-loan/records/new");
        browser.SeeLive();
        browser.Press("aside button", "Send to assessment");
        browser.See("[role=alert] h3");
        Look("a refused record");
        browser.Type("#field-title", "Slate Kite for Vell");
        browser.Press("[data-field=title] button, [data-field=purpose] button", "Why?");
        browser.See("[role=note]");
        Look("why");
        browser.Keyboard(Keys.Escape);
        browser.Press("[data-field=startDate] button[aria-label='Pick from a calendar']");
        browser.See("table button");
        Look("a calendar");
        browser.Keyboard(Keys.Escape);
        browser.Press("button", "Save");
        browser.Press("section[aria-label=History] summary");
        browser.See("section[aria-label=History] dl");
        Look("history");
        browser.Type("#field-borrower", "Museum of Vell");
        browser.Press("header a", "Dibujo");
        browser.See("[role=dialog] button", "Stay here");
        Look("leaving");
        browser.Press("[role=dialog] button", "Stay here");
        browser.Press("button", "Save");
        browser.See("aside", "Everything is saved.");
        browser.Press("a", "Read or print");
        browser.See("article [data-field=borrower]");
        Look("reading");
        browser.Open("/nowhere/at/all");
        browser.See("h2", "There is nothing at this address");
        Look("an unknown address");
        Assert.True(found.Count == 0, string.Join("\n", found));
    }

    private static void Say(Browser browser, string said)
    {
        browser.Press("textarea[aria-label='Say a rule']");
        browser.Keyboard(Keys.Control + "a" + Keys.Null + Keys.Backspace + said);
    }

    private static void Begin(Browser browser, string way)
    {
        browser.Press("button[aria-label='Other ways to begin a rule']");
        browser.Press("[role=menuitem]", way);
    }

    private static void Leave(Browser browser)
    {
        browser.Keyboard(Keys.Escape);
        browser.SeeNothing("[role=dialog]");
    }

    /// <summary>What is found on the page as it stands, once nothing moves any more: everything in the light theme, and in the dark one what colours can do wrong.</summary>
    private static string[] Judge(Browser browser)
    {
        browser.Run(Axe);
        var light = Judge(browser, "light", "{ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'] }");
        var dark = Judge(browser, "dark", "{ runOnly: { type: 'rule', values: ['color-contrast', 'link-in-text-block'] } }");
        browser.Run("document.documentElement.setAttribute('data-mantine-color-scheme', 'light')");
        return [.. light, .. dark.Select(finding => $"in the dark theme, {finding}")];
    }

    private static string[] Judge(Browser browser, string theme, string options)
    {
        browser.Run($"document.documentElement.setAttribute('data-mantine-color-scheme', '{theme}')");
        // Until nothing moves or changes colour any more.
        browser.RunLater("""
            const done = arguments[arguments.length - 1];
            const isMoving = (one) => one.playState === 'running' && one.effect?.getTiming().iterations !== Infinity;
            const look = () => (document.getAnimations().some(isMoving) ? setTimeout(look, 50) : done());
            setTimeout(() => requestAnimationFrame(() => requestAnimationFrame(look)), 150);
            """);
        var findings = (string)browser.RunLater($$"""
            const done = arguments[arguments.length - 1];
            axe.run(document, { ...{{options}}, resultTypes: ['violations'] })
              .then(({ violations }) => done(JSON.stringify(violations.map(({ id, nodes }) => `${id}: ${nodes.slice(0, 3).map((node) => node.html.slice(0, 160) + (node.any[0] ? ` (${node.any[0].message})` : "")).join(' | ')}`))));
            """);
        return JsonSerializer.Deserialize<string[]>(findings)!;
    }
}
