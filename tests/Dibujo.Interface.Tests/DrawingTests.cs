using OpenQA.Selenium;

namespace Dibujo.Interface.Tests;

/// <summary>A record type is drawn from nothing: its fields, its form, its workflow and its roles; and people are invited to fill it in.</summary>
public sealed class DrawingTests(Server server) : IClassFixture<Server>
{
    [Fact]
    public void A_record_type_is_drawn_from_nothing_published_and_filled_in()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("ada");
        browser.Press("button", "New record type");
        browser.Type("[role=dialog] input", "Works request");
        browser.Press("[role=dialog] button", "Begin it");

        browser.See("section[aria-label=Fields]");
        AddField(browser, "Kind of work", "One choice", "Lighting", "Wall paint", "Plinth");
        AddField(browser, "Building", "One choice", "North wing", "South wing");
        AddField(browser, "Needed by", "Date");
        AddField(browser, "Cost", "Money");
        AddField(browser, "Urgent", "Yes or no");
        AddField(browser, "Asked by", "Person");
        AddField(browser, "Details", "Long text");
        browser.See("h2", "Works request: 8 fields");

        browser.Press("nav[aria-label=Sheets] a", "Forms");
        Begin(browser, "Name of the new section on Main", "When and why");
        foreach (var field in (string[])["Needed by", "Details"])
        {
            browser.Press($"button[aria-label='Send {field} elsewhere']");
            browser.Press("[role=menuitem]", "To When and why");
            browser.See("ul[aria-label='Fields in the section When and why']", field);
        }

        browser.Press("nav[aria-label=Sheets] a", "Workflow");
        Begin(browser, "Name of the new stage of Standard", "Checked");
        browser.Press("button[aria-label='Checked earlier']");
        browser.SeeValue("input[aria-label='Stage 2']", "Checked");
        Begin(browser, "Name of the new role", "Foreman");
        Begin(browser, "Name of the new role", "Painter");
        Choose(browser, "New move of Standard from", "Open");
        Choose(browser, "New move of Standard to", "Checked");
        browser.Press("button", "Add the move");
        browser.SeeValue("input[aria-label^='Label of the move']", "To checked");

        browser.Press("nav[aria-label=Sheets] a", "Rules");
        browser.SeeLive();
        browser.Press("textarea[aria-label='Say a rule']");
        browser.Keyboard("require details to move on if urgent is yes");
        browser.See("[data-sentence]", "While Urgent is yes, require Details to move on.");
        browser.Keyboard(Keys.Enter);
        browser.See("[data-open]");
        browser.See("[role=status]", "Draft saved");
        browser.Press("button", "Publish…");
        browser.Press("[role=dialog] button", "Publish", isExact: true);
        browser.See("[role=alert], .mantine-Notifications-root", "Edition 1 is in force.");
        browser.SignOut();

        browser.SignIn("lorenz", "/types/works-request/records/new");
        browser.See("#field-title:not([readonly])");
        browser.SeeLive();
        browser.Type("#field-title", "Light for the long gallery");
        browser.Press("[data-field=urgent] label", "Yes");
        browser.See("[data-field=details][data-requirement]");
        browser.Press("button", "Save");
        browser.See("nav[aria-label=Place]", "No. ");
        browser.Press("aside button", "To checked");
        browser.See("[role=alert] h3", "Something speaks against this.");
        browser.Type("#field-details", "It flickers.");
        browser.Press("aside button", "To checked");
        browser.See("li[aria-current=step]", "Checked");
    }

    [Fact]
    public void Who_goes_quickly_from_sheet_to_sheet_meets_no_draft_of_before()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("ada");
        browser.Press("button", "New record type");
        browser.Type("[role=dialog] input", "Key request");
        browser.Press("[role=dialog] button", "Begin it");
        browser.See("section[aria-label=Fields]");
        browser.Slowly(700);
        AddField(browser, "Door", "Text");
        foreach (var label in (string[])["Asked", "Lent", "Back"])
        {
            browser.Press("nav[aria-label=Sheets] a", "Workflow");
            Begin(browser, "Name of the new stage of Standard", label);
            browser.Press("nav[aria-label=Sheets] a", "Fields");
            AddField(browser, $"{label} on", "Date");
        }

        browser.See("[role=status]", "Draft saved");
        browser.See("h2", "Key request: 5 fields");
        browser.Press("nav[aria-label=Sheets] a", "Rules");
        browser.SeeLive();
        browser.SeeNothing("[aria-label='Rules that wait for a choice']");
        browser.Press("nav[aria-label=Sheets] a", "Workflow");
        browser.SeeValue("input[aria-label='Stage 5']", "Back");
    }

    [Fact]
    public void Records_follow_another_key_another_type_a_merged_choice_and_a_removed_stage()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("ada", "/types/gallery-works/fields");
        browser.Press("[data-field=title] button");
        var key = "section[aria-label^='The field'] input[value=title]";
        browser.See(key).SendKeys(Keys.Control + "a");
        browser.Type(key, "subject" + Keys.Enter);
        browser.See("tr[data-field=subject]");
        browser.See("section[aria-label='What becomes of the records']", "has the key subject in place of title");
        browser.Press("[data-field=kind] button");
        browser.Press("[aria-label^='Choices of'] li:first-child button");
        browser.See("[role=menuitem]");
        var into = browser.TextOf("[aria-label^='Choices of'] li:nth-child(2) > span:first-child").First();
        browser.Press("[role=menuitem]", into, isExact: true);
        browser.See("section[aria-label='What becomes of the records']", $"becomes {into}");
        browser.Press("nav[aria-label=Sheets] a", "Workflow");
        browser.See("input[aria-label='Stage 3']");
        var stage = (string)browser.Evaluate("document.querySelector('input[aria-label=\"Stage 2\"]').value")!;
        var next = (string)browser.Evaluate("document.querySelector('input[aria-label=\"Stage 3\"]').value")!;
        browser.See("p", "records");
        browser.Press($"button[aria-label='Delete {stage}']");
        browser.Press("[role=menuitem]", next, isExact: true);
        browser.SeeValue("input[aria-label='Stage 2']", next);
        browser.See("[role=status]", "Draft saved");
        browser.Press("button", "Publish…");
        browser.See("section[aria-label='What becomes of the records']", $"{stage} is no longer a stage: its records go to {next}.");
        browser.Press("[role=dialog] button", "Publish", isExact: true);
        browser.See("[role=alert], .mantine-Notifications-root", "is in force");
        // What records have become cannot be undone by undoing the edits that led there.
        browser.See("button[aria-label=Undo][disabled]");
        browser.Open("/types/gallery-works/records");
        browser.Press("[data-row] a");
        browser.See("#field-subject");
        Assert.NotEqual("", browser.Evaluate("document.querySelector('#field-subject').value"));
        browser.See("ol");
        Assert.DoesNotContain(stage, browser.TextOf("li[aria-current=step]").First(), StringComparison.Ordinal);
    }

    [Fact]
    public void A_record_type_is_made_of_a_table_with_a_column_of_every_type()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("ada", "/types/collection-object/records");
        browser.See("[data-row]");
        var objects = (string)browser.RunLater("const done = arguments[0]; fetch('/api/record-types/collection-object/records').then((answer) => answer.json()).then(({ rows }) => done(rows.map(({ id }) => id).join(' ')));");
        var file = Path.Combine(Directory.CreateTempSubdirectory("dibujo-table-").FullName, "enquiries.csv");
        File.WriteAllText(file, Enquiries(objects.Split(' ')));
        browser.Open("/");
        browser.Press("button", "New record type");
        browser.Press("[role=dialog] a", "From a table");
        browser.See("button", "Choose a workbook");
        browser.Attach("input[type=file]", file);
        browser.See("h2", "200 rows, 13 columns");
        Assert.Equal(
            ["Text", "Long text", "Number", "Money", "Yes or no", "Date", "Date and time", "One choice", "Several choices", "Link: Object", "Person", "Text", "Text"],
            ((IEnumerable<object>)browser.Evaluate("[...document.querySelectorAll('input[aria-label^=\"Type of\"]')].map((one) => one.value)")!).Cast<string>());
        Choose(browser, "Type of Contact", "Full name");
        Choose(browser, "Type of Address", "Address");
        browser.See("[data-column=contact]", "all fit");
        browser.Run("document.querySelector('[data-column=fee]').scrollIntoView({ block: 'center' })");
        browser.Press("[data-column=fee] button", "1 does not fit");
        browser.See("[data-column=fee]", "row 61: on request");
        browser.Type("input[placeholder='such as Loan enquiry']", "Enquiry");
        browser.Press("button", "Make it, with 200 rows");
        browser.See("[role=status]", "199 rows are records. One was refused");
        browser.See("table[aria-label='Refused rows']", "Fee cannot hold “on request”.");

        browser.Press("main a", "See the records");
        browser.Press("[data-row] a");
        browser.See("#field-title");
        Assert.StartsWith("Enquiry ", (string)browser.Evaluate("document.querySelector('#field-title').value")!, StringComparison.Ordinal);
    }

    [Fact]
    public void A_form_is_drawn_by_keyboard_alone()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("ada", "/types/collection-object/forms");
        browser.See("[data-tab]");
        var before = Placed(browser);
        // Taken up with the space bar, carried by the arrows, put down with the space bar.
        browser.Run("document.querySelector('[data-section] li:nth-child(1) button').focus()");
        browser.Keyboard(" ");
        browser.See("[data-dragging]");
        Carry(browser, Keys.ArrowRight);
        browser.Until("the first field in second place", () => Placed(browser)[1] == before[0] ? "" : null);
        // A section is carried in the same way.
        var sections = Sections(browser);
        browser.Run($"document.querySelector('[data-section={sections[0]}] button[aria-label^=\"Drag the section\"]').focus()");
        browser.Keyboard(" ");
        browser.See("[data-section][data-dragging]");
        Carry(browser, Keys.ArrowDown);
        browser.Until("the first section behind the second", () => Sections(browser)[1] == sections[0] ? "" : null);
        before = Placed(browser);
        // Sent to the margin and back by its menu, with nothing but keys.
        browser.Run("document.querySelector('[data-section] li:nth-child(1) [aria-haspopup=menu]').focus()");
        browser.Keyboard(Keys.Enter);
        browser.See("[role=menuitem]", "To the margin");
        browser.Until("the item that is meant", () =>
        {
            browser.Keyboard(Keys.ArrowDown);
            return (string?)browser.Evaluate("document.activeElement.textContent") == "To the margin" ? "" : null;
        });
        browser.Keyboard(Keys.Enter);
        browser.Until("a field in the margin", () => Placed(browser).Length == before.Length - 1 ? "" : null);
        browser.Keyboard(Keys.Control + "z" + Keys.Null);
        browser.SeeNothing("[role=menu]");
        // On a busy machine the menu that goes may take the keyboard once more.
        browser.Until("it back", () =>
        {
            if (Placed(browser).Length == before.Length)
            {
                return "";
            }

            browser.Run("document.querySelector('button[aria-label=Undo]').focus()");
            browser.Keyboard(Keys.Enter);
            return null;
        });
        browser.See("[role=status]", "Draft saved");
    }

    /// <summary>Carries what has been taken up one place on and puts it down there, once that is said to who cannot see it.</summary>
    private static void Carry(Browser browser, string arrow)
    {
        browser.Keyboard(arrow);
        browser.Until("it to be over something", () => (bool)browser.Evaluate("[...document.querySelectorAll('[id^=DndLiveRegion]')].some((one) => one.textContent.includes('moved over'))")! ? "" : null);
        browser.Keyboard(" ");
        browser.SeeNothing("[data-dragging]");
    }

    private static string[] Sections(Browser browser) =>
        [.. ((IEnumerable<object>)browser.Evaluate("[...document.querySelectorAll('[data-section]')].map((one) => one.dataset.section)")!).Cast<string>()];

    private static string[] Placed(Browser browser) =>
        [.. ((IEnumerable<object>)browser.Evaluate("[...document.querySelectorAll('[data-section] li[data-field]')].map((one) => one.dataset.field)")!).Cast<string>()];

    /// <summary>Two hundred rows with a column of every type; one amount is none.</summary>
    private static string Enquiries(string[] objects) => "Title;Details;Crates;Fee;Urgent;Due;Seen at;Purpose;Rooms;Object;Keeper;Contact;Address\n" + string.Join('\n', Enumerable.Range(0, 200).Select(i => string.Join(';',
        $"Enquiry {i + 1}",
        $"\"First line {i}\nsecond line\"",
        $"{(i % 7) + 1}",
        i == 59 ? "on request" : $"€ {i + 100},50",
        i % 2 == 0 ? "yes" : "no",
        new DateOnly(2026, 1, 1).AddDays(i).ToString("dd.MM.yyyy", System.Globalization.CultureInfo.InvariantCulture),
        new DateTime(2026, 1, 1, 14, 30, 0).AddDays(i).ToString("yyyy-MM-dd HH:mm", System.Globalization.CultureInfo.InvariantCulture),
        new[] { "Exhibition", "Research", "Photography" }[i % 3],
        new[] { "\"Dark; Dry\"", "Dry", "Cold" }[i % 3],
        objects[i % objects.Length],
        new[] { "rosa", "lorenz", "conrad" }[i % 3],
        $"Mara Vell{i}",
        $"Kai {i}, 1{i}, Vell, Nord")));

    [Fact]
    public void A_pack_is_looked_at_before_it_is_taken_into_the_draft()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("ada", "/types/collection-object/exchange");
        browser.See("section[aria-label=In]");
        var pack = File.ReadAllText(Checkout.Path("src", "Dibujo.Server", "Demo", "collection-object.pack.json"));
        var file = Path.Combine(Directory.CreateTempSubdirectory("dibujo-pack-").FullName, "objects.pack.json");
        File.WriteAllText(file, pack.Replace("\"Old objects\"", "\"Objects of long ago\"", StringComparison.Ordinal));
        browser.Attach("input[type=file]", file);

        browser.See("section[aria-label=In] [data-change=changed]", "Objects of long ago");
        browser.Press("section[aria-label=In] button", "Take it into the draft");
        browser.See("section[aria-label=In] [role=status]", "taken over");
        browser.Press("nav[aria-label=Sheets] a", "Rules");
        browser.See("[data-rule=old]", "Objects of long ago");
    }

    [Fact]
    public void A_person_who_is_invited_comes_in_by_the_link()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("ada", "/people");
        browser.Press("button", "Invite a person");
        browser.Type("[role=dialog] input:not([type=checkbox])", "Wim Ostrander");
        browser.Type("[role=dialog] form > div > div:nth-of-type(2) input", "wim");
        browser.Press("[role=dialog] label", "Registrar");
        browser.Press("[role=dialog] button", "Make the link");
        var link = browser.See("code").Text;
        browser.SignOut();

        browser.Open(new Uri(link).PathAndQuery + new Uri(link).Fragment);
        browser.Type("input[name=password]", "a good long one");
        browser.Type("input[name=again]", "a good long one" + Keys.Enter);
        browser.See("a[href='/account']", "Wim Ostrander");
    }

    private static void AddField(Browser browser, string label, string type, params string[] choices)
    {
        browser.Type("input[aria-label='Label of the new field']", label);
        Choose(browser, "Type of the new field", type);
        browser.Press("button", "Add", isExact: true);
        browser.See($"section[aria-label='The field {label}']");
        if (choices.Length > 0)
        {
            browser.Type("section[aria-label^='The field'] textarea", string.Join(Keys.Enter, choices) + Keys.Tab);
            browser.See("tr[data-chosen]", choices[^1]);
        }
    }

    private static void Begin(Browser browser, string name, string label)
    {
        browser.Type($"input[aria-label='{name}']", label + Keys.Enter);
        browser.SeeValue($"input[aria-label='{name}']", "");
    }

    private static void Choose(Browser browser, string select, string option)
    {
        browser.Press($"input[aria-label='{select}']");
        browser.Press("[role=option]", option, isExact: true);
    }
}
