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

        browser.SignIn("lorenz");
        browser.Open("/types/works-request/records/new");
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
    public void A_field_that_records_hold_keeps_its_type_and_says_what_uses_it()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("ada");
        browser.Open("/types/object-loan/fields");
        browser.Press("[data-field=crateNeeded] button");
        browser.See("section[aria-label='The field Crate needed']", "so it keeps its type");
        browser.See("section[aria-label='The field Crate needed'] li", "Crate measures when there is a crate");
        Assert.Equal("true", browser.Evaluate("String([...document.querySelectorAll('button')].find((one) => one.textContent === 'Delete the field').disabled)"));
    }

    [Fact]
    public void A_pack_is_looked_at_before_it_is_taken_into_the_draft()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("ada");
        browser.Open("/types/collection-object/exchange");
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
        browser.SignIn("ada");
        browser.Open("/people");
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
