using OpenQA.Selenium;

namespace Dibujo.Interface.Tests;

/// <summary>What is typed stands there as it was typed: in every box, as fast as keys can come.</summary>
public sealed class KeysTests(Server server) : IClassFixture<Server>
{
    /// <summary>Boxes that take a text; those that take only figures, files or passwords are looked at elsewhere.</summary>
    private const string Boxes = "[...document.querySelectorAll('input, textarea')].filter((box) => box.offsetParent && !box.readOnly && !box.disabled && !['checkbox', 'radio', 'file', 'password', 'time', 'hidden', 'date'].includes(box.type) && !box.matches('.mantine-NumberInput-input, [maxlength=\"3\"]'))";

    [Theory]
    [InlineData("lorenz", "/types/object-loan/records", "input[aria-label='Search texts']")]
    [InlineData("lorenz", "/types/object-loan/records/new", "#field-title")]
    [InlineData("ada", "/audit-trail", "input[aria-label='Search the trail']")]
    [InlineData("ada", "/people", "main")]
    [InlineData("ada", "/account", "main input")]
    [InlineData("ada", "/types/object-loan/rules", "input[aria-label='Find rules by words']")]
    [InlineData("ada", "/types/object-loan/fields", "main input")]
    [InlineData("ada", "/types/object-loan/forms", "main input")]
    [InlineData("ada", "/types/object-loan/workflow", "main input")]
    [InlineData("ada", "/", "main")]
    public void Every_box_keeps_every_letter(string person, string path, string there)
    {
        using var browser = new Browser(server.Address);
        browser.SignIn(person, path);
        browser.See(there);
        var count = Convert.ToInt32(browser.Evaluate($"{Boxes}.length"), System.Globalization.CultureInfo.InvariantCulture);
        for (var i = 0; i < Math.Min(count, 12); i++)
        {
            // What is typed into one may open, close or draw another.
            if (browser.Evaluate($"(({Boxes})[{i}]?.focus(), ({Boxes})[{i}]?.select(), document.activeElement === ({Boxes})[{i}])") is not true)
            {
                continue;
            }

            browser.Evaluate("(window.box = document.activeElement, true)");
            browser.Keyboard("lantern for port");
            Assert.Equal("lantern for port", browser.Evaluate("window.box.isConnected ? window.box.value : 'gone'"));
            // Whatever comes later, such as what was asked for meanwhile, changes none of it.
            browser.RunLater("const then = arguments[0]; setTimeout(() => then(true), 450)");
            Assert.Equal("lantern for port", browser.Evaluate("window.box.isConnected && document.activeElement === window.box ? window.box.value : 'gone'"));
            browser.Keyboard(Keys.Escape);
        }
    }

    [Fact]
    public void A_filters_text_keeps_every_letter_and_filters_by_all_of_them()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("lorenz", "/types/object-loan/records");
        browser.Press("button", "Filter");
        browser.Press("[data-clause] input[aria-label=Column]");
        browser.PressOption("Title");
        browser.Press("[data-clause] input[aria-label=Test]");
        browser.PressOption("contains");
        browser.Press("[data-clause] input[aria-label='Compared with']");
        browser.Slowly(300);
        browser.Keyboard("lantern for");
        browser.SeeValue("[data-clause] input[aria-label='Compared with']", "lantern for");
        browser.Slowly(0);
        browser.Until("the address to say it", () => browser.Evaluate("new URLSearchParams(location.search).get('list').includes('lantern for')") is true ? "" : null);
        browser.SeeValue("[data-clause] input[aria-label='Compared with']", "lantern for");
        browser.SeeOnly("[role=grid] [data-row] [data-column=title]", "lantern for");
    }

    [Fact]
    public void A_day_and_an_amount_are_read_as_the_person_writes_and_asked_for_where_that_does_not_tell()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("lorenz", "/account");
        Choose(browser, "Language", "Japanese (Japan)");
        browser.See("[data-sample]", "2027/03/31, 14:30");
        browser.Open("/types/object-loan/records/new");
        browser.SeeLive();
        browser.Type("#field-startDate", "1/3/2031" + Keys.Tab);
        browser.See("[data-field=startDate] [role=alert]", "may be 2031/03/01 or 2031/01/03");
        browser.Press("[data-field=startDate] button", "2031/01/03");
        browser.SeeValue("#field-startDate", "2031/01/03");
        browser.SeeNothing("[data-field=startDate] [role=alert]");
        Assert.Equal("field-startDate", browser.Evaluate("document.activeElement.id"));

        browser.Open("/account");
        Choose(browser, "Language", "as the browser asks for");
        browser.See("[data-sample]", "Mar 31, 2027, 2:30 PM");
    }

    [Fact]
    public void What_is_typed_where_one_chooses_is_chosen_when_one_goes_on_or_stands_there_to_be_mended()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("lorenz", "/types/object-loan/records/new");
        browser.SeeLive();
        browser.Type("#field-purpose", "resea" + Keys.Tab);
        browser.SeeValue("#field-purpose", "Research");
        browser.Retype("#field-purpose", "juggling" + Keys.Tab);
        browser.SeeValue("#field-purpose", "juggling");
        browser.See("[data-field=purpose] [role=alert]", "“juggling” is none of the choices: ");
        browser.Retype("#field-purpose", Keys.Backspace + Keys.Tab);
        browser.SeeValue("#field-purpose", "");
        browser.SeeNothing("[data-field=purpose] [role=alert]", "juggling");
        browser.Press("[role=tab]", "Object and care");
        browser.Type("#field-object", "no object is called so" + Keys.Tab);
        browser.SeeValue("#field-object", "no object is called so");
        browser.See("[data-field=object] [role=alert]", "No record is called “no object is called so”.");
        browser.Retype("#field-object", "No. 12" + Keys.Tab);
        browser.Until("the record of that number", () => ((string)browser.Evaluate("document.querySelector('#field-object').value")!).EndsWith("(No. 12)", StringComparison.Ordinal) ? "" : null);
    }

    private static void Choose(Browser browser, string label, string option)
    {
        browser.Press($"section[aria-label='How you write'] input[aria-haspopup=listbox], section[aria-label='How you write'] input");
        browser.Keyboard(Keys.Control + "a" + Keys.Null + option);
        browser.Press("[role=option]", option, isExact: true);
        Assert.NotEmpty(label);
    }
}
