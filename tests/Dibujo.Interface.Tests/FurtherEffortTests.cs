using OpenQA.Selenium;

namespace Dibujo.Interface.Tests;

/// <summary>What else is done with rules, by mouse or with the keyboard alone: how much each job takes.</summary>
public sealed class FurtherEffortTests(Server server) : IClassFixture<Server>
{
    private static readonly string[] Ways = ["by mouse", "by keyboard alone"];

    private readonly EffortPage page = new("What it takes to keep rules",
        "Counted by `FurtherEffortTests` in the same way, until the rules say it.");

    private readonly List<string> tooMuch = [];

    private int number;

    [Fact]
    public void Further_jobs_take_no_more_than_was_promised()
    {
        using var browser = server.DraftingTable();
        Job(browser, "Hide a field for one choice", Ways[1], 20, HideByKeyboard, "While Mode is Van, hide Flight number.");
        Job(browser, "Show and require another field", Ways[1], 20, ShowAndRequireByKeyboard, "While Crate needed is yes, show Gross weight and require Gross weight to move on.");
        Job(browser, "A grid of three choices", Ways[1], 20, GridByKeyboard, "Flight number");
        Job(browser, "A grid of four fields", Ways[0], 16, FourFields, "Courier name");
        Job(browser, "A table of two drivers, two rows", Ways[0], 18, SeveralDrivers, "By first table on Mode | Crate needed");
        Job(browser, "Offer fewer choices for one answer", Ways[0], 14, Narrow, "While Purpose is Research, narrow Mode to Van or Carried by hand.");
        Job(browser, "Calculate a value", Ways[0], 14, Calculate, "calculate Loan days");
        Job(browser, "Suggest a value, with the reason", Ways[0], 14, Suggest, "suggest setting Courier needed to yes because “Air freight is handed over.”");
        Job(browser, "An error that stops saving", Ways[0], 14, StopSaving, "stop saving with “It ends before it begins.”");
        Job(browser, "A rule switched off", Ways[0], 14, SwitchOff, "Hazards are described");
        Job(browser, "A field that behaves like its neighbour", Ways[0], 14, BehaveLike, "Glazing");
        Job(browser, "A copy of a rule, for another choice", Ways[0], 14, Duplicate, "While Mode is Sea and Stage is Approval");
        Assert.Empty(tooMuch);
        page.Write(Checkout.Path("docs", "effort.md"), Ways);
    }

    /// <summary>Does the job on the table as it was published, sees what is different, and puts all back.</summary>
    private void Job(Browser browser, string what, string way, int most, Action<Browser> act, string different)
    {
        browser.Recount();
        act(browser);
        page.Add(++number, what, way, new(browser.Presses, browser.Words));
        if (browser.Presses > most)
        {
            tooMuch.Add($"{what}, {way}: {browser.Presses} presses, more than {most}.");
        }

        browser.See("[role=status]", "Draft saved");
        browser.Press("button", "Editions");
        browser.Until($"“{different}” among what is different", () => browser.TextOf("[aria-label^='Edition 1 compared'] li").FirstOrDefault(text => text.Contains(different, StringComparison.Ordinal)));
        browser.Press("button", "Discard all");
        browser.See("[role=dialog]", "Nothing is different.");
        browser.Keyboard(Keys.Escape);
        browser.SeeNothing("[role=dialog]");
    }

    private static void HideByKeyboard(Browser browser)
    {
        browser.Shortcut("n");
        Picked(browser, "Mode", "is", "Van", "hide", "Flight number");
        browser.Keyboard(Keys.Enter);
    }

    private static void ShowAndRequireByKeyboard(Browser browser)
    {
        browser.Shortcut("n");
        Picked(browser, "Crate needed", "is", "yes", "show and require", "Gross weight", "while so");
        // What it got by itself is kept.
        browser.Keyboard(Keys.Enter + Keys.Enter + Keys.Enter + Keys.Enter);
        browser.Until("the rule to have the keyboard", () => browser.Evaluate("document.activeElement.matches('[data-rule-itself]')") is true ? "" : null);
    }

    private static void GridByKeyboard(Browser browser)
    {
        browser.Shortcut("g");
        Picked(browser, "Mode", "Flight number");
        browser.See("[data-crossing='0-0']");
        browser.Keyboard(Keys.Shift + Keys.Tab + Keys.Null + Keys.Shift + Keys.Tab + Keys.Null);
        browser.Until("a crossing to have the keyboard", () => browser.Evaluate("document.activeElement.dataset.crossing ?? ''") is string { Length: > 0 } ? "" : null);
        browser.Keyboard("h" + Keys.ArrowLeft + "req" + Keys.ArrowLeft + "s");
        browser.See("[data-crossing='0-2']", "shown");
    }

    private static void FourFields(Browser browser)
    {
        BeginGrid(browser, "Mode", "Flight number", "Port of entry", "Arrival planned", "Courier name");
        foreach (var crossing in (string[])["0-2", "1-3", "2-1", "3-2"])
        {
            browser.Press($"[data-crossing='{crossing}']");
        }

        browser.Press("[role=radiogroup] label", "hidden", isExact: true);
        browser.Press("button", "All that is not said: hidden");
    }

    private static void SeveralDrivers(Browser browser)
    {
        BeginGrid(browser, "Mode", "Crate length");
        browser.Press("[data-crossing='0-2']");
        browser.Press("[data-crossing='0-3']");
        browser.Press("[aria-label='How the table is drawn'] label", "table", isExact: true);
        browser.Press("[data-open] button[data-blank=driver]");
        browser.PressOption("Crate needed");
        browser.Press("[data-cell='0-1']");
        browser.Keyboard("yes" + Keys.Enter + "no" + Keys.Enter);
        browser.See("[data-cell='1-1']", "no");
    }

    private static void Narrow(Browser browser)
    {
        browser.Press("button", "New rule");
        Pressed(browser, "Purpose", "is", "Research", "narrow the choices of", "Mode");
        browser.PressTick("Van");
        browser.PressTick("Carried by hand");
    }

    private static void Calculate(Browser browser)
    {
        browser.Press("button", "New rule");
        Pressed(browser, "End date", "is filled in", "calculate", "Loan days");
        browser.Keyboard("=(endDate - startDate).days + 1" + Keys.Enter);
    }

    private static void Suggest(Browser browser)
    {
        browser.Press("button", "New rule");
        Pressed(browser, "Mode", "is", "Air", "suggest setting", "Courier needed", "yes");
        browser.Keyboard("Air freight is handed over." + Keys.Enter);
    }

    private static void StopSaving(Browser browser)
    {
        browser.Press("button", "New rule");
        Pressed(browser, "End date", "is before");
        browser.Keyboard("start date" + Keys.Enter);
        Pressed(browser, "stop saving with");
        browser.Keyboard("It ends before it begins." + Keys.Enter);
    }

    private static void BehaveLike(Browser browser)
    {
        browser.Press("[role=tab]", "Object and care");
        browser.Press("[data-field=glazing] button[aria-label^='Make a rule for this']");
        browser.Press("[data-blank=neighbour]");
        browser.PressOption("Light limit");
    }

    private static void Duplicate(Browser browser)
    {
        browser.Press("[data-rule=flight] button");
        browser.Press("button[aria-label='Duplicate the rule']");
        browser.Press("[data-open] [data-blank=comparand]");
        browser.PressOption("Sea");
    }

    private static void SwitchOff(Browser browser)
    {
        browser.Press("[data-rule=hazards] button");
        browser.Press("[data-open] label", "on");
    }

    private static void BeginGrid(Browser browser, string driver, params string[] elements)
    {
        browser.Press("button[aria-label='Other ways to begin a rule']");
        browser.Press("[role=menuitem]", "Grid or table");
        browser.PressOption(driver);
        foreach (var element in elements)
        {
            browser.PressTick(element);
        }

        browser.Keyboard(Keys.Escape);
    }

    private static void Picked(Browser browser, params string[] blanks)
    {
        foreach (var blank in blanks)
        {
            browser.Pick(blank);
        }
    }

    private static void Pressed(Browser browser, params string[] options)
    {
        foreach (var option in options)
        {
            browser.PressOption(option);
        }
    }
}
