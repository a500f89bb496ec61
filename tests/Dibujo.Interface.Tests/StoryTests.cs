using OpenQA.Selenium;

namespace Dibujo.Interface.Tests;

/// <summary>From a rule to a form that obeys it, by the real interface.</summary>
public sealed class StoryTests(Server server) : IClassFixture<Server>
{
    private const string GrossWeight = "[data-field=grossWeight]";

    [Fact]
    public void An_administrator_writes_a_rule_and_a_member_meets_it()
    {
        using var browser = new Browser(server.Address);
        WriteTheRule(browser);
        browser.SignOut();
        MeetTheRule(browser);
    }

    [Fact]
    public void Why_names_the_rule_in_words()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("rosa", "/types/object-loan/records/new");
        browser.Press("[role=tab]", "Closing");
        browser.Press("[data-field=decision] button", "Why?");

        browser.See("[role=note]", "Locked with section Outcome by rule 14, “The director decides”: because Role is none of Director or Loans officer.");
    }

    [Fact]
    public void A_rule_can_be_written_with_the_keyboard_alone_and_undone()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("ada", "/types/object-loan/rules");
        browser.SeeLive();
        browser.Shortcut("n");
        foreach (var blank in (string[])["Glazing", "is", "yes", "require", "Valuer", "to move on", "while so"])
        {
            browser.Pick(blank);
        }

        // The last blank ends the rule.
        browser.SeeNothing("[data-open]");
        browser.See("[data-rule]", "Require Valuer by Glazing");
        browser.See("[role=status]", "Draft saved");

        // Each undoing takes one step back, also after a reload.
        browser.Open("/types/object-loan/rules");
        browser.See("[data-rule]", "Require Valuer by Glazing");
        browser.Press("button[aria-label=Undo]");
        browser.See("[data-rule]", "While Glazing is yes");
        browser.SeeNothing("[data-rule]", "Require Valuer by Glazing");
        browser.Press("button[aria-label=Undo]");
        browser.Press("button[aria-label=Undo]");
        browser.Press("button[aria-label=Undo]");
        browser.See("[role=status]", "Draft saved");
        browser.SeeNothing("[data-rule]", "Glazing is");
    }

    /// <summary>No key waits for anything to open: what goes astray would be taken for one of the table's own keys.</summary>
    [Fact]
    public void A_rule_and_a_table_are_written_as_fast_as_keys_can_be_pressed()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("ada", "/types/object-loan/rules");
        browser.SeeLive();
        browser.Keyboard($"{Keys.Alt}n{Keys.Null}glazing{Keys.Enter}{Keys.Enter}yes{Keys.Enter}{Keys.Enter}valuer{Keys.Enter}{Keys.Escape}");
        browser.SeeValue("[data-open] input", "Require Valuer by Glazing");
        browser.Press("[data-open] [data-blank=message]");
        browser.Keyboard("The agent gets the keys for tonight." + Keys.Enter);
        browser.See("[data-open] [data-blank=message]", "“The agent gets the keys for tonight.”");
        browser.SeeNothing("[role=dialog]");
        browser.See("[role=status]", "Draft saved");

        browser.Open("/types/gallery-works/rules?rule=lead");
        browser.SeeLive();
        browser.Press("[data-cell='0-2']");
        browser.Keyboard($"7{Keys.Enter}16{Keys.Enter}soon{Keys.Enter}");
        // What cannot be read stays to be mended, with what could be.
        browser.See("[role=dialog]", "“soon” cannot be read here. Give a number such as 50");
        browser.See("[data-cell='2-2'][tabindex='0']");
        browser.Keyboard($"{Keys.Control}a{Keys.Null}10{Keys.Enter}4{Keys.Enter}");
        foreach (var (row, days) in ((int, string)[])[(0, "7 days"), (1, "16 days"), (2, "10 days"), (3, "4 days")])
        {
            browser.See($"[data-cell='{row}-2']", days, isExact: true);
        }

        browser.See("[role=status]", "Draft saved");

        // Whoever does not want it so has letters be letters.
        browser.Press("button[aria-label=Keys]");
        browser.Press("[role=dialog] label", "Letters by themselves are shortcuts");
        browser.Keyboard(Keys.Escape);
        browser.SeeNothing("[role=dialog]");
        browser.Run("document.querySelector('[data-rule-itself]').focus()");
        browser.Keyboard("nge?");
        browser.SeeNothing("[role=dialog]");
        browser.See("h2", "5 rules");
    }

    private static void WriteTheRule(Browser browser)
    {
        browser.SignIn("ada");
        browser.Press("a[href='/types/object-loan/rules']");
        browser.SeeLive();
        browser.Press("button", "New rule");
        // One blank after the other opens by itself.
        foreach (var blank in (string[])["Crate needed", "is", "yes", "require", "Gross weight"])
        {
            browser.Pick(blank);
        }

        browser.See("[data-open] [data-blank=detail]", "to move on");

        // The sheet follows before anything is published, and does so as the sample changes.
        browser.Press("[role=tab]", "Transport");
        browser.Press("[data-field=crateNeeded] label", "No");
        browser.SeeNothing($"{GrossWeight}[data-requirement]");
        browser.Press("[data-field=crateNeeded] label", "Yes");
        browser.See($"{GrossWeight}[data-requirement=toMoveOn]");
        browser.See("[data-open]", "now yes");
        browser.See("[data-open][data-in-force]");

        browser.See("[role=status]", "Draft saved");
        browser.Press("button", "Publish…");
        browser.Type("textarea", "Gross weight when there is a crate");
        browser.Evaluate("[...document.querySelectorAll('[role=dialog] button')].find(b => b.textContent === 'Publish').click()");
        browser.See("body", "Edition 2 is in force.");
    }

    private static void MeetTheRule(Browser browser)
    {
        browser.SignIn("lorenz", "/types/object-loan/records/new");
        browser.See("#field-title:not([readonly])");
        browser.Type("#field-title", "Gilded Astrolabe for Vell");
        browser.Type("#field-borrower", "Civic Gallery Vell");
        browser.Type("#field-purpose", "Research" + Keys.Enter);
        browser.Evaluate("document.querySelector('#field-startDate').focus()");
        browser.Keyboard("01102027");
        browser.Press("[role=tab]", "Object and care");
        browser.Press("#field-object");
        browser.Press("[role=option]");
        browser.Press("[role=tab]", "Transport");
        browser.SeeNothing($"{GrossWeight}[data-requirement]");
        browser.Press("[data-field=crateNeeded] label", "Yes");
        browser.See($"{GrossWeight}[data-requirement=toMoveOn]");

        browser.Press("button", "Send to assessment");
        browser.See($"{GrossWeight} [role=alert]", "Needed to move on");
        browser.See("[role=alert] li", "Gross weight");

        // Nothing typed is lost by a refusal.
        browser.Press("[role=tab]", "Request");
        Assert.Equal("Gilded Astrolabe for Vell", browser.Evaluate("document.querySelector('#field-title').value"));
        browser.Press("section[aria-label='What is missing'] button", "Gross weight");
        browser.See("#field-grossWeight");
        browser.Type("#field-grossWeight", "42");
        browser.Press("button", "Send to assessment");
        browser.See("[aria-current=step]", "Assessment");
        browser.See("section[aria-label=History]", "begun");
    }
}
