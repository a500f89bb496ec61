using OpenQA.Selenium;

namespace Dibujo.Interface.Tests;

/// <summary>The list of rules: found, grouped, handled several at once.</summary>
public sealed class ManyRulesTests(Server server) : IClassFixture<Server>
{
    [Fact]
    public void Rules_are_found_by_words_and_by_what_they_have_to_do_with_a_field()
    {
        using var browser = server.DraftingTable();
        browser.Run("document.querySelector('[data-rule-itself]').focus()");
        browser.Keyboard("f");
        browser.See("input[aria-label='Find rules by words']:focus");
        browser.Keyboard("fee waived");
        browser.See("search [role=status]", "rule");
        browser.See("[data-rule=fee]");
        browser.Keyboard(Keys.Escape);
        browser.Press("button[aria-label='Find rules by more than words']");
        browser.Press("div[aria-label='Find rules by more than words'] label", "off", isExact: true);
        browser.SeeNothing("[data-rule]:not([data-off])");
    }

    [Fact]
    public void Several_rules_are_grouped_switched_off_and_put_back()
    {
        using var browser = server.DraftingTable();
        Tick(browser, "light", "crate");
        browser.Press("[role=toolbar] button", "Group…");
        browser.See("[aria-label='Group of these rules'] input");
        browser.Keyboard("Objects" + Keys.Enter);
        browser.See("[role=listitem] button[aria-expanded]", "Objects");
        browser.Press("[role=toolbar] button", "Off");
        browser.See("[data-rule=light][data-off]");
        browser.See("[data-rule=crate][data-off]");
        browser.Press("[role=listitem] button[aria-expanded]", "Objects");
        browser.SeeNothing("[data-rule=light]");

        browser.Press("button[aria-label=Undo]");
        browser.Press("button[aria-label=Undo]");
        browser.See("[data-rule=light]:not([data-off])");
        browser.SeeNothing("[role=listitem] button[aria-expanded]");
    }

    [Fact]
    public void Where_another_order_matters_for_some_record_it_is_said_at_once()
    {
        using var browser = server.DraftingTable();
        browser.Press("textarea[aria-label='Say a rule']");
        browser.Keyboard("unlock fee" + Keys.Enter);
        browser.See("[data-open]");
        browser.See("[role=status]", "Draft saved");
        var key = browser.Attribute("[data-open]", "data-rule");
        browser.Press("button[aria-label^='Close rule']");
        Tick(browser, key!);
        browser.Press("[role=toolbar] button", "More…");
        browser.Press("[role=menuitem]", "Move to the bottom");

        browser.See("section[aria-label=Rules] [role=status]", "now wins over");
    }

    private static void Tick(Browser browser, params string[] rules)
    {
        foreach (var rule in rules)
        {
            browser.See($"[data-rule={rule}]");
            browser.Evaluate($"document.querySelector('[data-rule={rule}] input[type=checkbox]').click()");
        }

        browser.See("[role=toolbar]");
    }
}
