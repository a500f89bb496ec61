using OpenQA.Selenium;

namespace Dibujo.Interface.Tests;

/// <summary>Ten jobs of an administrator, by the line, by mouse, by demonstration and by keyboard alone: how much each takes.</summary>
public sealed class EffortTests(Server server) : IClassFixture<Server>
{
    private static readonly string[] Ways = ["by the line", "by mouse", "by demonstration", "by chips and keyboard alone"];

    /// <summary>Each job with what is said in the line, and the words of the rule that shows that it was done.</summary>
    private static readonly Job[] Jobs =
    [
        new(1, "Show a field only for one choice", "show glazing only if material is textile",
            "While Material is Textile, show Glazing; otherwise hide Glazing."),
        new(2, "Require a field when another is filled in", "require returned on if fee is filled in",
            "While Fee is filled in, require Returned on to move on."),
        new(3, "Lock a section from a stage on, except for a role", "lock section crate from Approval on except for the director",
            "While Stage is from Approval on and Role is not Director, lock section Crate."),
        new(4, "Show a field only on new records", "show requested by only for new records",
            "While New record is yes, show Requested by; otherwise hide Requested by."),
        new(5, "Three choices, each showing other fields", "if mode is air, show flight number; else if mode is sea, show port of entry; else if mode is van, show arrival planned; otherwise hide them",
            "show Flight number; else while Mode is Sea, show Port of entry; else while Mode is Van, show Arrival planned"),
        new(6, "Require a field for one move, with own words", "require fee for Dispatch if mode is air saying \"Air freight costs.\"",
            "While Mode is Air, require Fee for Dispatch saying “Air freight costs.”."),
        new(7, "Reset and lock a field when a driver changes", "reset and lock certificate number when insured by changes",
            "While Insured by has changed, set Certificate number to its default and lock Certificate number."),
        new(8, "A companion form only from a threshold on", "show form condition on return only if insured value is at least 50000",
            "While Insured value is at least EUR 50,000, show form Condition on return; otherwise hide form Condition on return."),
        new(9, "End the form early with a note", "end the form with \"Please ask the photographer.\" if purpose is photography",
            "While Purpose is Photography, end the form with “Please ask the photographer.”."),
        new(10, "Add a field to a rule that is there", "add glazing to rule 3",
            "require Light limit and Glazing to move on"),
    ];

    /// <summary>How the grid of the fifth job begins when it is read.</summary>
    private const string Grid = "Flight number";

    private readonly List<string> tooMuch = [];

    private sealed record Job(int Number, string What, string Said, string Sentence);

    [Fact]
    public void Ten_jobs_take_no_more_than_was_promised()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("ada");
        OpenTable(browser);
        var page = new EffortPage("What it takes to write a rule",
            "Counted by `EffortTests` through the real interface, from the open drafting table to the working rule. A press is one of the\nmouse, or of a key that is no part of a word (Enter, an arrow, a shortcut); words are those that are typed.");
        foreach (var job in Jobs)
        {
            Measure(browser, page, job, Ways[0], () => ByLine(browser, job));
            Measure(browser, page, job, Ways[1], () => ByMouse(browser, job.Number));
        }

        Measure(browser, page, Jobs[3], Ways[3], () => ByKeyboard(browser, "New record", "yes", "Requested by"));
        Measure(browser, page, Jobs[0], Ways[2], () => ByDemonstration(browser, "Object and care", "material", "Textile", "glazing", "Show it only then"));
        OpenTable(browser);
        Measure(browser, page, Jobs[1], Ways[2], () => FilledInByDemonstration(browser));
        Assert.Empty(tooMuch);
        page.Write(Checkout.Path("docs", "effort.md"), Ways);
    }

    /// <summary>Does the job on the table as it was published, sees that the rule is there, and puts all back.</summary>
    private void Measure(Browser browser, EffortPage page, Job job, string way, Action write)
    {
        browser.Recount();
        write();
        page.Add(job.Number, job.What, way, new(browser.Presses, browser.Words));
        var most = way == Ways[0] ? (Presses: 2, Words: job.Said.Split(' ').Length)
            : way == Ways[2] ? (Presses: 5, Words: 0)
            : way == Ways[3] ? (Presses: 20, Words: 20)
            : (Presses: job.Number is 1 or 2 or 4 or 7 or 10 ? 8 : 14, Words: 6);
        if (browser.Presses > most.Presses || browser.Words > most.Words)
        {
            tooMuch.Add($"{job.What}, {way}: {browser.Presses} presses and {browser.Words} words, more than {most}.");
        }

        SeeRule(browser, job.Number == 5 && way == Ways[1] ? Grid : job.Sentence);
        Discard(browser);
    }

    private static void SeeRule(Browser browser, string sentence)
    {
        browser.See("[role=status]", "Draft saved");
        browser.Press("button", "Editions");
        browser.Until($"the rule “{sentence}”", () => browser.TextOf("[aria-label^='Edition 1 compared'] li").FirstOrDefault(text => text.Contains(sentence, StringComparison.Ordinal)));
    }

    private static void Discard(Browser browser)
    {
        browser.Press("button", "Discard all");
        browser.See("[role=dialog]", "Nothing is different.");
        browser.Keyboard(Keys.Escape);
        browser.SeeNothing("[role=dialog]");
    }

    private static void OpenTable(Browser browser)
    {
        browser.Open("/types/object-loan/rules");
        browser.SeeLive();
        browser.See("[data-rule]");
    }

    private static void ByLine(Browser browser, Job job)
    {
        browser.Shortcut("l");
        browser.See("textarea[aria-label='Say a rule']");
        browser.Until("the line", () => browser.Evaluate("document.activeElement.getAttribute('aria-label')") as string == "Say a rule" ? "" : null);
        browser.Keyboard(job.Said);
        browser.See("[data-sentence]");
        browser.Keyboard(Keys.Enter);
    }

    private static void ByMouse(Browser browser, int job)
    {
        switch (job)
        {
            case 1:
                Write(browser, "Material", "is", "Textile", "show", "Glazing", "only while so");
                break;
            case 2:
                Write(browser, "Fee", "is filled in", "require", "Returned on");
                break;
            case 3:
                Write(browser, "Stage", "is from … on", "Approval");
                browser.Press("[data-open] button", "clause", isExact: true);
                Pick(browser, "Role", "is not", "Director", "lock", "section Crate");
                break;
            case 4:
                Write(browser, "New record", "is", "yes", "show", "Requested by", "only while so");
                break;
            case 5:
                browser.Press("button[aria-label='Other ways to begin a rule']");
                browser.Press("[role=menuitem]", "Grid or table");
                browser.PressOption("Mode");
                foreach (var element in (string[])["Flight number", "Port of entry", "Arrival planned"])
                {
                    browser.PressTick(element);
                }

                browser.Keyboard(Keys.Escape);
                browser.Press("[data-crossing='0-2']");
                browser.Press("[data-crossing='1-3']");
                browser.Press("[data-crossing='2-1']");
                browser.Press("[role=radiogroup] label", "hidden", isExact: true);
                browser.Press("button", "All that is not said: hidden");
                break;
            case 6:
                Write(browser, "Mode", "is", "Air", "require", "Fee", "Dispatch");
                browser.Press("[data-open] [data-blank=message]");
                browser.Keyboard("Air freight costs." + Keys.Enter);
                break;
            case 7:
                Write(browser, "Insured by", "has changed", "reset and lock", "Certificate number");
                break;
            case 8:
                Write(browser, "Insured value", "is at least");
                browser.Keyboard("50000" + Keys.Enter);
                Pick(browser, "show", "form Condition on return", "only while so");
                break;
            case 9:
                Write(browser, "Purpose", "is", "Photography", "end the form with");
                browser.Keyboard("Please ask the photographer." + Keys.Enter);
                break;
            default:
                browser.Press("[role=tab]", "Object and care");
                browser.Press("[data-field=glazing] button[aria-label^='Make a rule for this']");
                browser.Press("[data-blank=rule]");
                browser.PressOption("3 Light limit for paper and textile");
                break;
        }
    }

    /// <summary>A new rule, blank by blank in the order of its sentence: each opens by itself after the one before.</summary>
    private static void Write(Browser browser, params string[] picked)
    {
        browser.Press("button", "New rule");
        Pick(browser, picked);
    }

    private static void Pick(Browser browser, params string[] picked)
    {
        foreach (var option in picked)
        {
            browser.PressOption(option);
        }
    }

    private static void Change(Browser browser, string blank, string option)
    {
        browser.Press($"[data-open] [data-blank={blank}]");
        browser.PressOption(option);
    }

    private static void ByDemonstration(Browser browser, string tab, string field, string value, string target, string proposal)
    {
        browser.Press("[role=tab]", tab);
        browser.Press($"#field-{field}");
        browser.Press("[role=option]", value);
        browser.Press($"[data-field={target}] button[aria-label^='Make a rule for this']");
        browser.Press("section[aria-label^='About'] button", proposal);
    }

    /// <summary>A value on the sheet stands for itself and more; that any would do is said by another test.</summary>
    private static void FilledInByDemonstration(Browser browser)
    {
        browser.Press("[role=tab]", "Closing");
        browser.Type("#field-fee", "600");
        browser.Press("[data-field=returnedOn] button[aria-label^='Make a rule for this']");
        browser.Press("section[aria-label^='About'] button", "Require it to move on");
        Change(browser, "test", "is filled in");
    }

    private static void ByKeyboard(Browser browser, string subject, string value, string target)
    {
        browser.Shortcut("n");
        browser.Pick(subject);
        browser.Pick("is");
        browser.Pick(value);
        browser.Pick("show");
        browser.Pick(target);
        browser.Pick("only while");
        // The last one ends the rule, which has the keyboard.
        browser.Until("the rule closed, with the keyboard", () => browser.Evaluate("document.activeElement.matches('[data-rule-itself]') && !document.querySelector('[data-open]')") is true ? "" : null);
    }
}
