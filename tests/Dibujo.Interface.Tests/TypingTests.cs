using OpenQA.Selenium;

namespace Dibujo.Interface.Tests;

/// <summary>What is typed goes where one looks: no letter is a command, and whatever has the focus begins to be edited.</summary>
public sealed class TypingTests(Server server) : IClassFixture<Server>
{
    private const string Focused = "document.activeElement.dataset.blank";

    [Fact]
    public void Letters_at_a_blank_begin_its_list_and_are_no_commands()
    {
        using var browser = server.DraftingTable();
        browser.Press("[data-rule=crate] button");
        browser.See("[data-open] [data-blank=verb]");
        browser.Run("document.querySelector('[data-open] [data-blank=verb]').focus()");
        browser.Keyboard("n");
        browser.See("[role=dialog] input[aria-label='Find verb']");
        browser.Keyboard(Keys.Escape);
        browser.Until("the blank to have the keyboard again", () => browser.Evaluate(Focused) as string == "verb" ? "" : null);

        // Every letter arrives, the first one that opened the list among them.
        browser.Keyboard("lock" + Keys.Enter);
        browser.See("[data-open] [data-blank=verb]", "lock", isExact: true);
        browser.Until("the next blank", () => browser.Evaluate(Focused) as string == "target" ? "" : null);
        browser.Press("button[aria-label=Undo]");
        browser.See("[data-open] [data-blank=verb]", "hide", isExact: true);
    }

    [Fact]
    public void Letters_at_the_page_do_nothing_and_those_at_a_rule_are_commands()
    {
        using var browser = server.DraftingTable();
        var rules = browser.Evaluate("document.querySelector('h2').textContent");
        browser.Run("document.activeElement.blur()");
        browser.Keyboard("nge?/t");
        browser.SeeNothing("[role=dialog]");
        Assert.Equal(rules, browser.Evaluate("document.querySelector('h2').textContent"));

        browser.Run("document.querySelector('[data-rule=light] [data-rule-itself]').focus()");
        browser.Keyboard("j");
        browser.See("[data-open]");
        browser.Until("the rule that was opened to have the keyboard", () => browser.Evaluate("document.activeElement.matches('[data-open] [data-rule-itself]')") is true ? "" : null);
        var first = (string)browser.Evaluate("document.querySelector('[data-open]').dataset.rule")!;
        browser.Keyboard("j");
        browser.Until("the next one", () => browser.Evaluate("document.querySelector('[data-open]')?.dataset.rule") as string != first ? "" : null);
        browser.Keyboard(Keys.Escape);
        browser.SeeNothing("[data-open]");
        browser.Until("the closed rule to have the keyboard", () => browser.Evaluate("document.activeElement.matches('[data-rule-itself]')") is true ? "" : null);
    }

    [Fact]
    public void Several_are_ticked_also_behind_typed_text()
    {
        using var browser = server.DraftingTable();
        browser.Shortcut("n");
        foreach (var blank in (string[])["Glazing", "is", "yes", "require"])
        {
            browser.Pick(blank);
        }

        browser.See("input[aria-label='Find target']");
        browser.Keyboard("valuer");
        browser.See("[role=option][data-combobox-selected]", "Valuer");
        browser.Keyboard(Keys.Shift + Keys.Enter + Keys.Null + "fee");
        browser.See("[role=option][data-combobox-selected]", "Fee");
        browser.Keyboard(Keys.Shift + Keys.Enter + Keys.Null + Keys.Enter);
        browser.See("[data-open] [data-blank=target]", "Valuer", isExact: true);
        browser.See("[data-open] [data-blank=target]", "Fee", isExact: true);
        browser.See("input[aria-label='Find detail']");
    }

    [Fact]
    public void A_grid_is_drawn_by_keyboard_alone()
    {
        using var browser = server.DraftingTable();
        browser.Recount();
        browser.Shortcut("g");
        browser.Pick("Mode");
        browser.See("input[aria-label='Find element']");
        browser.Keyboard("flight");
        browser.See("[role=option][data-combobox-selected]", "Flight number");
        browser.Keyboard(Keys.Enter);
        browser.See("[data-crossing='0-0']", "—");
        // From the last blank up to the crossings.
        browser.Keyboard(Keys.Shift + Keys.Tab + Keys.Null + Keys.Shift + Keys.Tab + Keys.Null);
        browser.Until("a crossing to have the keyboard", () => browser.Evaluate("document.activeElement.dataset.crossing ?? ''") is string { Length: > 0 } ? "" : null);
        browser.Keyboard("h" + Keys.ArrowLeft + "req" + Keys.ArrowLeft + "s");
        browser.See("[data-crossing='0-4']", "hidden");
        browser.See("[data-crossing='0-3']", "required to move on");
        browser.See("[data-crossing='0-2']", "shown");
        browser.Keyboard(Keys.Backspace);
        browser.See("[data-crossing='0-2']", "—", isExact: true);
        Assert.InRange(browser.Presses, 1, 20);
        browser.Press("button[aria-label=Undo]");
    }

    [Fact]
    public void Dragging_paints_every_crossing_under_the_pointer_the_first_one_too()
    {
        using var browser = server.DraftingTable();
        browser.Shortcut("g");
        browser.Pick("Mode");
        browser.Pick("Fee");
        browser.See("[data-crossing='0-0']");
        browser.Press("[role=radiogroup] label", "required to move on", isExact: true);
        var width = browser.Evaluate("document.querySelector('[data-crossing=\"0-2\"]').getBoundingClientRect().left");
        browser.Drag("[data-crossing='0-0']", "[data-crossing='0-2']");
        foreach (var c in (int[])[0, 2])
        {
            browser.See($"[data-crossing='0-{c}']", "required to move on");
        }

        Assert.Equal(width, browser.Evaluate("document.querySelector('[data-crossing=\"0-2\"]').getBoundingClientRect().left"));
    }
}
