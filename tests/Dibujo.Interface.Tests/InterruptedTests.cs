using OpenQA.Selenium;

namespace Dibujo.Interface.Tests;

/// <summary>Work that something comes between: nothing typed is lost, done twice, or done in another name.</summary>
public sealed class InterruptedTests(Server server) : IClassFixture<Server>
{
    private const string Lists = "/types/object-loan/records";

    [Fact]
    public void Of_two_half_typed_new_records_both_are_offered()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("lorenz", $"{Lists}/new");
        foreach (var title in (string[])["Amber Kite", "Bronze Kite"])
        {
            browser.See("#field-title:not([readonly])");
            browser.Type("#field-title", title);
            browser.Until("it to be kept", () => browser.Evaluate($"Object.values(localStorage).some((kept) => kept.includes('{title}'))") is true ? "" : null);
            browser.Run("window.onbeforeunload = null; location.reload()");
            Reloaded(browser);
        }

        browser.See("section[aria-label='Typed before'] li", "Amber Kite");
        browser.See("section[aria-label='Typed before'] li", "Bronze Kite");
        browser.Press("section[aria-label='Typed before'] button", "Put it in again");
        browser.SeeValue("#field-title", "Bronze Kite");
        browser.SeeNothing("section[aria-label='Typed before'] li", "Bronze Kite");
        browser.See("section[aria-label='Typed before'] li", "Amber Kite");
    }

    [Fact]
    public void A_record_whose_answer_is_lost_is_begun_once()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("lorenz", $"{Lists}/new");
        browser.See("#field-title:not([readonly])");
        browser.Type("#field-title", "Copper Heron once");
        browser.Run("const own = window.fetch; let left = 4; window.fetch = async (...asked) => { const answer = await own(...asked); if (answer.status === 201 && left-- > 0) { throw new TypeError('lost'); } return answer; }");
        browser.Press("button", "Save");
        browser.See("section[role=alert]", "The server does not answer.");
        browser.SeeValue("#field-title", "Copper Heron once");
        browser.Press("button", "Save");
        browser.See("nav[aria-label=Place]", "No. ");
        browser.Open(Lists);
        browser.Type("input[aria-label='Search texts']", "Copper Heron once");
        browser.See("[role=status]", "1 record", isExact: true);
    }

    [Fact]
    public void Who_is_signed_out_elsewhere_signs_in_again_and_goes_on_at_the_first_press()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("lorenz", $"{Lists}/new");
        browser.See("#field-title:not([readonly])");
        browser.Type("#field-title", "Silver Heron");
        SignInElsewhere(browser, null);
        browser.Press("button", "Save");
        browser.See("[role=dialog]", "Your sign-in has ended");
        Assert.Equal("userName", browser.Until("the focus in the name", () => browser.Evaluate("document.activeElement.name") as string is "userName" and var name ? name : null));
        browser.Type("[role=dialog] input[name=password]", "quillhaven" + Keys.Enter);
        browser.SeeNothing("[role=dialog]");
        browser.SeeValue("#field-title", "Silver Heron");
        browser.Press("button", "Save");
        browser.See("nav[aria-label=Place]", "No. ");
        browser.See("section[aria-label=History] summary", "Lorenz Vahl");
    }

    [Fact]
    public void What_one_typed_is_never_saved_in_the_name_of_who_signs_in_next()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("lorenz", $"{Lists}/new");
        browser.See("#field-title:not([readonly])");
        browser.Type("#field-title", "Golden Heron");
        SignInElsewhere(browser, "rosa");
        browser.Press("button", "Save");
        browser.See("[role=dialog]");
        browser.See("section[role=alert]", "This browser is signed in as Rosa Okkema now.");
        browser.SeeValue("#field-title", "Golden Heron");

        // The page becomes Rosa's, and offers her nothing of it.
        browser.Retype("[role=dialog] input[name=userName]", "rosa");
        browser.Run("window.onbeforeunload = null");
        browser.Type("[role=dialog] input[name=password]", "quillhaven" + Keys.Enter);
        browser.See("header", "Rosa Okkema");
        browser.See("#field-title:not([readonly])");
        browser.SeeNothing("section[aria-label='Typed before']");

        browser.SignOut();
        browser.SignIn("lorenz", $"{Lists}/new");
        browser.See("section[aria-label='Typed before'] li", "Golden Heron");
    }

    [Fact]
    public void Many_rows_of_which_some_are_not_reached_are_told_gone_on_with_and_undone()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("lorenz", Lists);
        browser.See("[role=grid] [data-row]");
        for (var pages = 0; pages < 3; pages++)
        {
            var height = browser.Evaluate("document.querySelector('[role=grid]').scrollHeight");
            browser.Run("document.querySelector('[role=grid]').scrollTop = 1e6");
            browser.Until("more rows", () => Equals(browser.Evaluate("document.querySelector('[role=grid]').scrollHeight"), height) ? null : "");
        }

        browser.Press("input[aria-label='Tick all rows fetched so far']");
        browser.See("[aria-label='Ticked rows']", "rows are ticked");
        // The first hundred arrive; then the connection is gone.
        browser.Run("const own = window.fetch; window.lost = true; let done = 0; window.fetch = async (...asked) => { if (asked[0].url?.endsWith('/changes') && window.lost && ++done > 1) { throw new TypeError('lost'); } return own(...asked); }");
        browser.Press("input[aria-label='Field to change']");
        browser.PressOption("Purpose described");
        browser.Type("[aria-label='Ticked rows'] input[aria-label='To what']", "Looked at");
        browser.Press("button", "Change in all");
        browser.See("[aria-label='What came of it']", "not reached. The server does not answer.");
        browser.Run("window.lost = false");
        browser.Press("button", "Go on with the rest");
        browser.SeeNothing("[aria-label='What came of it'] p", "not reached");
        browser.Press("[aria-label='What came of it'] button", "Undo");
        browser.See("[aria-label='What came of it']", "undone");
    }

    [Fact]
    public void A_block_with_quotes_and_line_breaks_is_shown_before_it_is_saved_and_taken_back()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("lorenz", $"{Lists}?list={Uri.EscapeDataString("""{"columns":[{"key":"@number","width":70},{"key":"title","width":260},{"key":"@stage","width":120},{"key":"borrower","width":200}],"search":"","isAny":false,"clauses":[],"sortBy":null,"descending":false}""")}");
        browser.See("[role=grid] [data-row]");
        const string Borrowers = "[...document.querySelectorAll('[role=grid] [data-row]')].slice(0, 3).map((row) => row.querySelector('[data-column=borrower]').innerText).join('|')";
        var before = browser.Evaluate(Borrowers);
        browser.Press("[role=grid] [data-row] [data-column=title]");
        browser.Evaluate("(document.querySelector('[role=grid]').focus(), true)");
        browser.Paste("\"Kite, \"\"the\"\" 1\"\tReturned\t\"House\nof One\"\r\nKite 2\tReturned\tHouse of Two\r\n");
        browser.See("[aria-label='What pasting would change']", "Stage takes nothing that is pasted");
        browser.See("[aria-label='What pasting would change'] li", "Title: ");
        browser.See("[aria-label='What pasting would change'] li", "takes one line");
        browser.Press("button", "Leave everything as it was");
        Assert.Equal("grid", browser.Evaluate("document.activeElement.getAttribute('role')"));
        browser.Keyboard(Keys.ArrowRight + Keys.ArrowRight);
        browser.Paste("House of \"One\"\r\n'House of Two\r\n");
        browser.See("[aria-label='What pasting would change']", "2 rows can be saved");
        browser.Press("button", "Save 2 rows");
        browser.See("[aria-label='What came of it']", "2 rows saved");
        browser.See("[role=grid] [data-row] [data-column=borrower]", "House of \"One\"");
        browser.Evaluate("(document.querySelector('[role=grid]').focus(), true)");
        browser.Keyboard(Keys.Control + "z" + Keys.Null);
        browser.See("[aria-label='What came of it']", "Undone: 2 rows saved");
        browser.Until("what stood there before", () => browser.Evaluate(Borrowers) is string now && now == (string)before! ? now : null);
    }

    [Fact]
    public void A_file_is_shown_before_it_is_taken_in_and_what_came_of_it_is_there_when_one_comes_back()
    {
        using var browser = new Browser(server.Address);
        var file = Path.Combine(Directory.CreateTempSubdirectory("dibujo-intake-").FullName, "loans.csv");
        // As a spreadsheet of an office in the west of Europe writes it.
        File.WriteAllBytes(file, [.. System.Text.Encoding.Latin1.GetBytes("Title;Borrower;Purpose;Start date\r\nCafé sign;\"Musée; Vell\";Research;1.3.2031\r\nNo borrower;;Research;2.3.2031\r\n")]);
        browser.SignIn("lorenz", "/types/object-loan/intake");
        browser.See("h2", "Bring records in");
        browser.Attach("input[type=file]", file);
        browser.See("section[aria-label='Bring records in']", "It would begin one record. One row would be refused.");
        browser.See("section[aria-label='Bring records in']", "read as Windows-1252");
        browser.Press("button", "Take 1 row in");
        browser.See("section[aria-label='Bring records in']", "One row is a record. One was refused");
        browser.Open(Lists);
        browser.Retype("input[aria-label='Search texts']", "Café sign");
        browser.See("[role=grid] [data-row] [data-column=title]", "Café sign");
        browser.Open("/types/object-loan/intake");
        browser.See("section[aria-label='Brought in lately'] td", "1 of 2 taken in, 1 refused");
        browser.Press("section[aria-label='Brought in lately'] button", "Row by row");
        browser.See("section[aria-label='Bring records in']", "An imported loan needs its borrower.");
        browser.Press("section[aria-label='Brought in lately'] button", "Take it back…");
        browser.Press("[aria-label='Take it back'] button", "Take 1 row back");
        browser.See("section[aria-label='Bring records in']", "One record is as it was before.");
        browser.See("section[aria-label='Brought in lately'] td", "taken back since");
        browser.Open(Lists);
        browser.Retype("input[aria-label='Search texts']", "Café sign");
        browser.See("main", "No record is like that.");
    }

    /// <summary>In another window of the same browser somebody signs in, or out.</summary>
    private static void SignInElsewhere(Browser browser, string? person) => browser.RunLater(
        $$"""
        const then = arguments[0];
        (async () => {
          const { token } = await (await fetch('/api/sign-in')).json();
          const headers = { 'X-Dibujo-Token': token, 'Content-Type': 'application/json' };
          await fetch('/api/sign-in', {{(person is null ? "{ method: 'DELETE', headers }" : $"{{ method: 'POST', headers, body: JSON.stringify({{ userName: '{person}', password: 'quillhaven' }}) }}")}});
          then(true);
        })();
        """);

    private static void Reloaded(Browser browser) => browser.See("#field-title:not([readonly])");
}
