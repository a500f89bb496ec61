using OpenQA.Selenium;

namespace Dibujo.Interface.Tests;

/// <summary>Members at work in lists: finding, typing into cells, several rows at once.</summary>
public sealed class ListTests(Server server) : IClassFixture<Server>
{
    private const string Row = "[data-row='";

    [Fact]
    public void A_cell_is_typed_into_under_its_rows_rules_and_a_refusal_stands_at_the_cell()
    {
        using var browser = new Browser(server.Address);
        var id = Begin(browser, "Copper Kite for Vell");
        Show(browser, "Copper Kite for Vell", "borrower", "startDate", "endDate", "loanDays");
        // What cannot be typed into says so, and why.
        Active(browser, id, "loanDays");
        browser.Keyboard("7");
        browser.See("main > p[role=status]", $"Loan days of No. {id} is locked.");
        browser.Press("main > p[role=status] button", "Why?");
        browser.See("[role=note]", "Loan days are counted");
        browser.Keyboard(Keys.Escape);
        Active(browser, id, "startDate");
        browser.Keyboard(Keys.Enter);
        browser.See($"{Row}{id}'] [data-column=startDate] input");
        browser.Keyboard("10 Jan 2031" + Keys.Tab);
        browser.Keyboard(Keys.Enter);
        browser.See($"{Row}{id}'] [data-column=endDate] [data-active] , {Row}{id}'] [data-column=endDate] input:focus");
        browser.Keyboard("5 Jan 2031" + Keys.Enter);
        // The row is left by going to another.
        browser.Press("input[aria-label='Search texts']");
        browser.See($"{Row}{id}'][data-refused]");
        Active(browser, id, "endDate");
        browser.Keyboard(Keys.Enter);
        browser.See($"{Row}{id}'] [data-column=endDate] [role=alert]", "before it begins");
        browser.Keyboard(Keys.Control + "a" + Keys.Null + "31 Jan 2031" + Keys.Enter);
        browser.Press("input[aria-label='Search texts']");
        browser.SeeNothing($"{Row}{id}'][data-open]");
        browser.See($"{Row}{id}'] [data-column=endDate]", "Jan 31, 2031");
        browser.Open($"/records/{id}");
        browser.SeeValue("#field-endDate", "Jan 31, 2031");
        browser.See("section[aria-label=History] summary", "changed");
        browser.SeeNothing("section[aria-label='Typed before']");
    }

    [Fact]
    public void Several_rows_are_changed_and_moved_at_once_with_a_report_and_changed_back()
    {
        using var browser = new Browser(server.Address);
        var (one, other) = (Begin(browser, "Reed Organ for Vell"), Begin(browser, "Reed Organ for Brennick", signsIn: false));
        Show(browser, "Reed Organ", "borrower");
        browser.Press($"input[aria-label='Tick No. {one}']");
        browser.Press($"input[aria-label='Tick No. {other}']");
        browser.Press("input[aria-label='Field to change']");
        browser.Keyboard("Borrower");
        browser.Press("[role=option]", "Borrower", isExact: true);
        browser.Type("input[aria-label='To what']", "House of Oststrand");
        browser.Press("button", "Change in all");
        browser.See("[aria-label='What came of it']", "2 rows saved.");
        browser.See($"{Row}{other}'] [data-column=borrower]", "House of Oststrand");
        browser.Press("button", "Undo all of it");
        browser.See("[aria-label='What came of it']", "undone: 2 rows saved.");
        browser.SeeNothing($"{Row}{other}'] [data-column=borrower]", "House of Oststrand");

        // What no column shows is put back as well.
        string? Start() => browser.RunLater($"const done = arguments[0]; fetch('/api/records/{one}').then((answer) => answer.json()).then(({{ values }}) => done(values.startDate));") as string;
        browser.Press("input[aria-label='Field to change']");
        browser.Keyboard(Keys.Control + "a" + Keys.Null + "Start date");
        browser.Press("[role=option]", "Start date", isExact: true);
        foreach (var (day, stored) in ((string, string)[])[("1 May 2031", "2031-05-01"), ("2 June 2031", "2031-06-02")])
        {
            browser.Press("[aria-label='What came of it'] button", "Close");
            browser.SeeNothing("[aria-label='What came of it']");
            browser.Retype("input[aria-label='To what']", day);
            browser.Press("button", "Change in all");
            browser.Until(day, () => Start() == stored ? "" : null);
            browser.See("[aria-label='What came of it']", "Start date changed: 2 rows saved.");
        }

        browser.Press("button", "Undo all of it");
        browser.See("[aria-label='What came of it']", "undone: 2 rows saved.");
        Assert.Equal("2031-05-01", Start());

        browser.Press("[aria-label='Ticked rows'] button", "Move on");
        browser.Press("[role=menuitem]", "Send to assessment");
        browser.See("[aria-label='What came of it']", "0 rows saved, 2 refused.");
        browser.See("[aria-label='What came of it'] li", "Borrower");
    }

    [Fact]
    public void A_list_is_left_and_found_again_as_it_was_and_kept_as_a_view()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("rosa", "/types/object-loan/records");
        browser.Press("[data-heading=title] button");
        browser.See("[data-heading=title][aria-sort=ascending]");
        browser.Type("input[aria-label='Search texts']", "astrolabe for vell");
        browser.SeeOnly("[data-row] [data-column=title]", "astrolabe for vell");
        browser.Press("[data-row] a");
        browser.SeeLive();
        browser.Press("nav[aria-label=Place] a", "Object loan");
        browser.SeeValue("input[aria-label='Search texts']", "astrolabe for vell");
        browser.See("[data-heading=title][aria-sort=ascending]");
        browser.See("nav[aria-label='Opened lately'] a", "Astrolabe for Vell");
        browser.Press("button", "Views");
        browser.Press("[role=menuitem]", "Keep this view…");
        browser.Type("[role=dialog] input:not([type=checkbox])", "Astrolabes");
        browser.Press("[role=dialog] label", "Others may use it too");
        browser.Press("[role=dialog] button", "Keep");
        browser.SeeNothing("[role=dialog]");

        using var lorenz = new Browser(server.Address);
        lorenz.SignIn("lorenz", "/types/object-loan/records");
        lorenz.See("[data-row]");
        lorenz.Press("button", "Views");
        lorenz.Press("[role=menuitem]", "Astrolabes");
        lorenz.SeeValue("input[aria-label='Search texts']", "astrolabe for vell");
        lorenz.SeeOnly("[data-row] [data-column=title]", "astrolabe for vell");
    }

    [Fact]
    public void Headings_and_cells_are_used_by_keyboard_and_a_closed_cell_takes_no_key_for_something_else()
    {
        using var browser = new Browser(server.Address);
        var (one, other) = (Begin(browser, "Lead Drum for Vell"), Begin(browser, "Lead Drum for Brennick", signsIn: false));
        Show(browser, "Lead Drum", "title", "loanDays", "borrower");
        browser.Press($"{Row}{other}'] input[type=checkbox]");
        browser.See("main", "1 row is ticked.");

        browser.Run("document.querySelector('[data-heading=title] button').focus()");
        var width = Width(browser);
        browser.Keyboard(Keys.Shift + Keys.ArrowRight + Keys.Null);
        browser.Until("a wider column", () => Width(browser) == width + 20 ? "" : null);
        browser.Keyboard(Keys.Enter);
        browser.See("[aria-sort=ascending]", "Title");
        browser.Until("them by title", () => Rows(browser).SequenceEqual([other, one]) ? "" : null);
        browser.Keyboard(Keys.Space);
        browser.See("[aria-sort=descending]", "Title");
        browser.Until("them the other way", () => Rows(browser).SequenceEqual([one, other]) ? "" : null);

        // As fast as keys can be pressed, over a cell that is locked.
        Active(browser, one, "title");
        browser.Keyboard($"Lead Drum at last{Keys.Tab}as long as it takes{Keys.Tab}House of Vell{Keys.Enter}");
        browser.See($"{Row}{one}'] [data-column=title]", "Lead Drum at last");
        browser.See($"{Row}{one}'] [data-column=borrower]", "House of Vell");
        browser.SeeNothing("[data-open]");
        browser.See("main", "1 row is ticked.");

        static long Width(Browser browser) => (long)browser.Evaluate("Math.round(document.querySelector('[data-heading=title]').getBoundingClientRect().width)")!;
    }

    [Fact]
    public void What_is_typed_before_a_row_is_open_is_kept()
    {
        using var browser = new Browser(server.Address);
        var id = Begin(browser, "Tin Drum for Vell");
        Show(browser, "Tin Drum for Vell", "borrower", "purpose", "startDate");
        Active(browser, id, "borrower");
        // Faster than the server answers, and on to the next cells.
        browser.Slowly(400);
        browser.Keyboard("House of Kestrelmoor" + Keys.Tab);
        browser.Keyboard("research" + Keys.Tab);
        browser.Keyboard("3.4.2031" + Keys.Tab);
        browser.Slowly(0);
        browser.Press("input[aria-label='Search texts']");
        browser.See($"{Row}{id}'] [data-column=borrower]", "House of Kestrelmoor");
        browser.See($"{Row}{id}'] [data-column=purpose]", "Research");
        browser.See($"{Row}{id}'] [data-column=startDate]", "Apr 3, 2031");
        browser.SeeNothing($"{Row}{id}'][data-open]");
        browser.Open($"/records/{id}");
        browser.SeeValue("#field-borrower", "House of Kestrelmoor");
    }

    [Fact]
    public void What_is_typed_while_a_row_is_saved_and_what_is_set_aside_in_it_is_kept()
    {
        using var browser = new Browser(server.Address);
        var (one, other) = (Begin(browser, "Brass Drum for Vell"), Begin(browser, "Brass Drum for Brennick", signsIn: false));
        Show(browser, "Brass Drum", "borrower", "purpose", "crateNeeded", "crateLength");
        Active(browser, other, "borrower");
        browser.Keyboard("House of Brennick");
        browser.See($"{Row}{other}'][data-open]");
        // Left, and come back to before the answer is there.
        browser.Slowly(900);
        browser.Keyboard(Keys.Enter);
        browser.See($"{Row}{one}'] [data-active]");
        browser.Keyboard(Keys.ArrowUp + Keys.ArrowRight);
        browser.Keyboard("research" + Keys.Enter);
        browser.Slowly(0);
        browser.SeeNothing("[data-open]");
        browser.See($"{Row}{other}'] [data-column=borrower]", "House of Brennick");
        browser.See($"{Row}{other}'] [data-column=purpose]", "Research");

        // A length is typed, and then there is no crate after all: what was set aside is not saved with the rest, and not gone.
        Active(browser, other, "crateNeeded");
        browser.Keyboard("yes" + Keys.Tab);
        browser.Keyboard("120" + Keys.Tab);
        Active(browser, other, "crateNeeded");
        browser.Keyboard("no" + Keys.Enter);
        browser.SeeNothing("[data-open]");
        browser.See("nav[aria-label='Typed and not saved']", "Brass Drum for Brennick");
        browser.Press("nav[aria-label='Typed and not saved'] a");
        browser.See("section[aria-label='Typed before']", "120");
    }

    [Fact]
    public void A_cell_of_a_companion_form_is_typed_into_where_that_form_applies()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("rosa");
        var filter = """{"columns":[{"key":"@number","width":70},{"key":"borrower","width":150},{"key":"notesOut","width":200}],"clauses":[{"of":"@stage","test":"is","values":["transit"]}]}""";
        browser.Open($"/types/object-loan/records?list={Uri.EscapeDataString(filter)}");
        browser.See("[data-row]");
        var id = (string)browser.Evaluate("document.querySelector('[data-row]').dataset.row")!;
        Active(browser, id, "borrower");
        browser.Keyboard("House of Oststrand" + Keys.Tab + "Scratched at the base" + Keys.Enter);
        browser.Press("input[aria-label='Search texts']");
        browser.See($"{Row}{id}'] [data-column=notesOut]", "Scratched at the base");
        browser.SeeNothing($"{Row}{id}'][data-open]");
        browser.Open($"/records/{id}?form=conditionOut");
        browser.SeeValue("#field-notesOut", "Scratched at the base");
        browser.See("section[aria-label=History] li", "changed Departure notes");
    }

    [Fact]
    public void A_block_of_cells_is_copied_pasted_reported_and_undone()
    {
        using var browser = new Browser(server.Address);
        var (one, other) = (Begin(browser, "Glass Flute for Vell"), Begin(browser, "Glass Flute for Brennick", signsIn: false));
        Show(browser, "Glass Flute", "borrower", "startDate", "loanDays");
        Active(browser, other, "borrower");
        browser.Paste("House of Vell\t1 May 2031\nHouse of Brennick\t2 May 2031");
        browser.See("[aria-label='What pasting would change'] li", "Start date: blank → May 1, 2031");
        browser.Press("button", "Save 2 rows");
        browser.See("[aria-label='What came of it']", "2 rows saved.");
        browser.See($"{Row}{one}'] [data-column=startDate]", "May 2, 2031");
        Active(browser, other, "borrower");
        browser.Keyboard(Keys.Shift + Keys.ArrowRight + Keys.ArrowDown + Keys.Null);
        Assert.Equal("House of Vell\tMay 1, 2031\nHouse of Brennick\tMay 2, 2031", browser.Copy());
        browser.Press("button", "Undo all of it");
        browser.See("[aria-label='What came of it']", "undone: 2 rows saved.");
        browser.SeeNothing($"{Row}{one}'] [data-column=borrower]", "House");

        // What rules lock is refused with the reason, also where it is pasted.
        Active(browser, other, "loanDays");
        browser.Paste("7");
        browser.See("[aria-label='What came of it']", "0 rows saved, 1 refused.");
        browser.See("[aria-label='What came of it'] li", "Loan days");
    }

    [Fact]
    public void A_file_comes_in_row_by_row_and_what_is_refused_goes_back_to_be_mended()
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory("dibujo-intake-").FullName, "loans.csv");
        File.WriteAllText(file, "title,borrower,startDate,endDate\nPewter Jug for Vell,House of Vell,2031-05-01,2031-06-01\nPewter Jug for nobody,,2031-05-01,2031-06-01\n");
        using var browser = new Browser(server.Address);
        browser.SignIn("lorenz", "/types/object-loan/intake");
        browser.See("h2", "Bring records in");
        browser.Attach("input[type=file]", file);
        browser.See("section[aria-label='Bring records in']", "It would begin one record. One row would be refused.");
        browser.Press("button", "Take 1 row in");
        browser.See("section[aria-label='Bring records in']", "One row is a record. One was refused");
        browser.See("section[aria-label='Bring records in']", "An imported loan needs its borrower.");
        var mended = (string)browser.RunLater("const then = arguments[0]; fetch(document.querySelector('a[download]').href).then((answer) => answer.text()).then(then)");
        Assert.Contains("Pewter Jug for nobody", mended, StringComparison.Ordinal);
        Assert.DoesNotContain("House of Vell", mended, StringComparison.Ordinal);
        browser.Press("a", "See the records");
        browser.Retype("input[aria-label='Search texts']", "pewter jug");
        browser.SeeOnly("[data-row] [data-column=title]", "Pewter Jug for Vell");
    }

    [Fact]
    public void Rows_stay_under_the_hand_that_types_and_the_cell_where_one_is_with_its_record()
    {
        using var browser = new Browser(server.Address);
        var (one, other) = (Begin(browser, "Slate Drum for Vell"), Begin(browser, "Slate Drum for Brennick", signsIn: false));
        Show(browser, "Slate Drum", "borrower");
        Active(browser, other, "borrower");
        // What somebody begins comes in above, and takes nothing away from where one is.
        using var colleague = new Browser(server.Address);
        var another = Begin(colleague, "Slate Drum for Oststrand");
        browser.See($"{Row}{another}']");
        Assert.Equal([another, other, one], Rows(browser));
        browser.See($"{Row}{other}'] [data-column=borrower][data-active]");
        browser.Keyboard("House of Brennick" + Keys.Enter);
        browser.See($"{Row}{one}'] [data-column=borrower][data-active]");
        browser.SeeNothing("[data-open]");
        browser.See("p[role=status]", "by now some belong elsewhere");
        Assert.Equal([another, other, one], Rows(browser));
        browser.Press("button", "Put them in order");
        browser.Until("the row that was saved last first", () => Rows(browser)[0] == other ? "" : null);
        browser.See($"{Row}{one}'] [data-column=borrower][data-active]");
    }

    [Fact]
    public void An_edition_that_comes_into_force_is_taken_over_by_the_row_that_is_typed_into()
    {
        using var browser = new Browser(server.Address);
        var (one, other) = (Begin(browser, "Glass Drum for Vell"), Begin(browser, "Glass Drum for Brennick", signsIn: false));
        Show(browser, "Glass Drum", "borrower", "startDate");
        Active(browser, other, "borrower");
        browser.Keyboard("House of ");
        browser.See($"{Row}{other}'] input:focus");

        // The fields come in another order: whatever counts them counts otherwise now.
        using var administrator = new Browser(server.Address);
        administrator.SignIn("ada");
        Assert.Equal("done", administrator.RunLater("""
            const done = arguments[0];
            const read = (address) => fetch(address).then((answer) => answer.json());
            const types = '/api/record-types/object-loan';
            (async () => {
              const { token } = await read('/api/sign-in');
              const send = (address, body) => fetch(address, { method: 'POST', headers: { 'Content-Type': 'application/json', 'X-Dibujo-Token': token }, body: JSON.stringify(body) }).then((answer) => answer.json());
              const { definition, typeRevision, version } = await read(`${types}/draft`);
              const recordType = { ...definition.recordType, fields: definition.recordType.fields.toReversed() };
              const made = await send(`${types}/draft/steps`, { edits: [], recordType, recordTypeBase: typeRevision });
              const begun = await send(`${types}/editions`, { version: made.version, note: 'Fields turned round' });
              done(begun.title ?? 'done');
            })().catch((mistake) => done(String(mistake)));
            """));
        browser.Until("the other edition", () => browser.RunLater("const done = arguments[0]; fetch('/api/record-types/object-loan').then((answer) => answer.json()).then(({ number }) => done(number));") is 2L ? "" : null);
        browser.See($"{Row}{other}'][data-edition='2']");
        browser.Keyboard("Brennick" + Keys.Enter);
        browser.SeeNothing("[data-open]");
        browser.See($"{Row}{other}'] [data-column=borrower]", "House of Brennick");
        // A row that is opened only now.
        Active(browser, one, "borrower");
        browser.Keyboard("House of Vell" + Keys.Tab + "1 May 2031" + Keys.Enter);
        Active(browser, other, "borrower");
        browser.See($"{Row}{one}'] [data-column=borrower]", "House of Vell");
        browser.See($"{Row}{one}'] [data-column=startDate]", "May 1, 2031");
    }

    [Fact]
    public void Two_who_type_into_one_row_keep_both_where_nothing_collides_and_are_told()
    {
        using var browser = new Browser(server.Address);
        Begin(browser, "Horn Drum for Vell");
        var other = Begin(browser, "Horn Drum for Brennick", signsIn: false);
        Show(browser, "Horn Drum", "borrower", "purpose");
        Active(browser, other, "borrower");
        browser.Keyboard("House of Brennick");
        browser.See($"{Row}{other}'][data-open]");

        using var colleague = new Browser(server.Address);
        colleague.SignIn("rosa", $"/records/{other}");
        colleague.SeeLive();
        colleague.Type("#field-startDate", "1 May 2031" + Keys.Tab);
        colleague.Press("button", "Save", isExact: true);
        colleague.See("section[aria-label=History] summary", "Rosa Okkema: changed Start date");
        browser.Keyboard(Keys.Enter);
        browser.See("main > p[role=status]", $"Rosa Okkema saved No. {other} meanwhile (Start date). That is kept, and what you typed as well.");
        browser.SeeNothing("[data-open]");
        browser.See($"{Row}{other}'] [data-column=borrower]", "House of Brennick");

        // Where both have changed the same it is for the person to choose, and nobody's is lost.
        Active(browser, other, "borrower");
        browser.Keyboard("House of Vell");
        browser.See($"{Row}{other}'][data-open]");
        colleague.SeeValue("#field-borrower", "House of Brennick");
        colleague.Retype("#field-borrower", "House of Oststrand");
        colleague.Press("button", "Save", isExact: true);
        colleague.See("section[aria-label=History] summary", "Rosa Okkema: changed Borrower");
        browser.Keyboard(Keys.Enter);
        browser.See($"{Row}{other}'][data-refused]");
        Active(browser, other, "borrower");
        browser.Keyboard(Keys.Enter);
        browser.See($"{Row}{other}'] [data-column=borrower] [role=alert]", "Rosa Okkema made this “House of Oststrand” meanwhile.");
        browser.Press("a", "open the record");
        browser.See("section[aria-label='Typed before'] li", "House of Vell (saved meanwhile by Rosa Okkema: House of Oststrand)");
    }

    private static string[] Rows(Browser browser) =>
        [.. ((IEnumerable<object>)browser.Evaluate("[...document.querySelectorAll('[data-row]')].sort((one, other) => one.dataset.index - other.dataset.index).map((one) => one.dataset.row)")!).Cast<string>()];

    private static void Show(Browser browser, string search, params string[] fields)
    {
        var columns = string.Join(',', fields.Prepend("title").Prepend("@number").Select(key => $$"""{"key":"{{key}}","width":150}"""));
        browser.Open($"/types/object-loan/records?list={Uri.EscapeDataString($$"""{"columns":[{{columns}}],"search":"{{search}}"}""")}");
        browser.SeeOnly("[data-row] [data-column=title]", search);
    }

    private static void Active(Browser browser, string id, string column)
    {
        browser.Press($"{Row}{id}'] [data-column={column}]");
        browser.See($"{Row}{id}'] [data-column={column}][data-active]");
        browser.Evaluate("document.querySelector('[role=grid]').focus()");
    }

    /// <summary>Begins a record and answers with its number.</summary>
    private static string Begin(Browser browser, string title, bool signsIn = true)
    {
        const string New = "/types/object-loan/records/new";
        if (signsIn)
        {
            browser.SignIn("lorenz", New);
        }
        else
        {
            browser.Open(New);
        }

        browser.See("#field-title:not([readonly])");
        browser.Type("#field-title", title);
        browser.Press("button", "Save");
        browser.See("section[aria-label=History] li", "begun");
        return (string)browser.Evaluate("document.querySelector('nav[aria-label=Place]').textContent.split('No. ')[1]")!;
    }
}
