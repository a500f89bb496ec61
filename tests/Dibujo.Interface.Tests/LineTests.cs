using OpenQA.Selenium;

namespace Dibujo.Interface.Tests;

/// <summary>The line: for what each word stands, what is not understood, and which of two is meant, by keys alone.</summary>
public sealed class LineTests(Server server) : IClassFixture<Server>
{
    [Fact]
    public void Words_are_walked_by_keys_and_tell_for_what_they_stand()
    {
        using var browser = Said("For textiles glazing must be filled in please");
        browser.See("[data-sentence]", "While Material is Textile, require Glazing to move on.");

        browser.Shortcut("w");
        browser.Keyboard(Keys.ArrowRight);
        browser.See("[role=toolbar] button[aria-label='“textiles”: Material is Textile']:focus");
        browser.Keyboard(Keys.ArrowRight);
        browser.See("[role=toolbar] button[aria-label='“glazing”: Glazing']:focus");
        browser.Keyboard(Keys.Escape);
        browser.See("textarea[aria-label='Say a rule']:focus");
        browser.See("[data-sentence]");

        // The line keeps the keyboard, also for who types on at once.
        browser.Keyboard(Keys.Enter + "hide the valuer");
        browser.See("[data-open]", "Glazing");
        browser.SeeValue("textarea[aria-label='Say a rule']:focus", "hide the valuer");
        browser.See("[data-sentence]", "Always hide Valuer.");
        browser.Keyboard(Keys.Enter);
        browser.See("[data-open]", "Valuer");
        browser.Keyboard(Keys.Control + "z");
        browser.SeeNothing("[data-rule]", "hide Valuer");
    }

    [Fact]
    public void Of_two_that_are_as_likely_one_is_taken_by_its_number()
    {
        using var browser = Said("If the loan goes by sea, or by air with a crate, require the customs reference.");
        browser.See("[data-question]", "Which of these is meant?");

        browser.Shortcut("2");
        browser.See("[data-sentence]", "While Mode is Sea or (Mode is Air and Crate needed is yes), require Customs reference to move on.");
    }

    [Fact]
    public void What_would_have_to_be_a_choice_is_told_with_the_choices_that_there_are()
    {
        using var browser = Said("When the decision is declined, hide the fee");
        browser.See("[data-misunderstanding]", "“declined” is no choice of Decision: Approved, Refused.");
        browser.See("[role=toolbar] button[aria-label='“declined”: not understood']");

        browser.Press("[data-misunderstanding] button", "Refused");
        browser.See("[data-sentence]", "While Decision is Refused, hide Fee.");
    }

    [Fact]
    public void A_word_for_which_a_name_was_put_is_offered_and_understood_from_then_on()
    {
        using var browser = Said("hide the fee for ours");
        browser.SeeNothing("[data-sentence]");
        browser.Keyboard(Keys.Backspace + Keys.Backspace + Keys.Backspace + Keys.Backspace + "us");
        browser.See("[data-sentence]", "While Insured by is Us, hide Fee.");
        browser.Keyboard(Keys.Enter);
        browser.See("[data-offered-word][role=status]", "is “ours” another word for Insured by: Us?");

        browser.Shortcut("o");
        browser.See("textarea[aria-label='Say a rule']:focus");
        browser.Keyboard("lock the valuer for ours");
        browser.See("[data-sentence]", "While Insured by is Us, lock Valuer.");
        browser.Keyboard(Keys.Enter);
        browser.SeeNothing("[data-offered-word]");

        browser.Press("button[aria-label='Other words']");
        browser.See("ul[aria-label='Other words']", "“ours”");
        browser.Press("button[aria-label='Forget “ours”']");
        browser.SeeNothing("ul[aria-label='Other words']");

        // One more by keys alone; the keyboard is ready for the next, and goes back where the list was opened.
        browser.See("[role=dialog] input[maxlength='60']").Click();
        browser.Keyboard("collectors" + Keys.Tab + "private");
        browser.See("[role=option]", "Borrower type: Private collector");
        browser.Keyboard(Keys.ArrowDown + Keys.Enter + Keys.Tab + Keys.Enter);
        browser.See("ul[aria-label='Other words']", "“collectors”");
        browser.See("[role=dialog] input[maxlength='60']:focus");
        browser.Keyboard(Keys.Escape);
        browser.SeeNothing("[role=dialog]");
        browser.See("button[aria-label='Other words']:focus");
    }

    private Browser Said(string text)
    {
        var browser = server.DraftingTable();
        browser.Shortcut("l");
        browser.See("textarea[aria-label='Say a rule']:focus");
        browser.Keyboard(text);
        return browser;
    }
}
