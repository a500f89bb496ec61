using OpenQA.Selenium;

namespace Dibujo.Interface.Tests;

/// <summary>A loan on its way through the house, and the end of a request that is not for this house.</summary>
public sealed class LoanTests(Server server) : IClassFixture<Server>
{
    [Fact]
    public void A_loan_goes_from_enquiry_to_approval_through_four_pairs_of_hands()
    {
        using var officer = new Browser(server.Address);
        officer.SignIn("lorenz");
        officer.Open("/types/object-loan/records/new");
        officer.SeeLive();
        officer.Type("#field-title", "Marble Owl for Port Amsel");
        // A draft is saved half-empty; moving on asks for everything, each thing one press from its field.
        officer.Keyboard(Keys.Control + "s" + Keys.Null);
        officer.See("section[aria-label=History] li", "begun");
        officer.Press("aside button", "Send to assessment");
        officer.See("[role=alert] h3", "speak against this");
        officer.Press("section[aria-label='What is missing'] button", "Object");
        officer.See("[role=tab][aria-selected=true]", "Object and care");
        officer.Press("#field-object");
        officer.Keyboard("Cloak");
        officer.Press("[role=option]", "(No. ");
        officer.Press("[role=tab]", "Request");
        officer.Type("#field-borrower", "Museum of Port Amsel");
        Choose(officer, "purpose", "Exhibition");
        officer.Type("#field-startDate", "1.3.2031");
        officer.Type("#field-endDate", "1.9.2031" + Keys.Tab);
        officer.See("[data-moves]", "nothing stands in the way.");
        officer.Keyboard(Keys.Control + Keys.Enter + Keys.Null);
        officer.See("[aria-current=step]", "Assessment");
        var address = "/records/" + officer.Evaluate("document.querySelector('nav[aria-label=Place]').textContent.split('No. ')[1]");

        // Somebody else has it open, and is seen to.
        using var registrar = new Browser(server.Address);
        registrar.SignIn("rosa");
        registrar.Open(address);
        registrar.SeeLive();
        officer.See("[data-here]", "Rosa");
        registrar.Press("[role=tab]", "Insurance");
        registrar.Retype("#field-insuredValue", "120000" + Keys.Tab);
        registrar.SeeValue("#field-insuredValue", "120,000");
        registrar.Press("[role=tab]", "Transport");
        registrar.See("[data-field=courierNeeded] [data-suggestion]", "From 100,000 on");
        registrar.Press("[data-suggestion] button", "Use yes");
        registrar.SeeNothing("[data-suggestion]");

        // Another edition comes into force in the middle of it: what was typed stays, and it is told what is different.
        using var administrator = new Browser(server.Address);
        administrator.SignIn("ada");
        administrator.Open("/types/object-loan/rules");
        administrator.SeeLive();
        administrator.Press("textarea[aria-label='Say a rule']");
        administrator.Keyboard("require certificate number if insured value is at least 100,000");
        administrator.See("[data-sentence]", "require Certificate number");
        administrator.Keyboard(Keys.Enter);
        administrator.See("[role=status]", "Draft saved");
        administrator.Press("button", "Publish…");
        administrator.Type("[role=dialog] textarea, [role=dialog] input[type=text]", "Certificates");
        administrator.Press("[role=dialog] button", "Publish", isExact: true);
        registrar.See("[data-news]", "Edition 2 is in force");
        registrar.See("[data-news]", "Certificate number");
        registrar.Press("[role=tab]", "Insurance");
        registrar.SeeValue("#field-insuredValue", "120,000");
        registrar.See("[data-field=certificate][data-requirement]");
        registrar.Press("button", "Save", isExact: true);
        registrar.See("aside [data-saying]", "Everything");

        // A conservator may look, and is told whose the moves are.
        using var director = new Browser(server.Address);
        director.SignIn("delphine");
        director.Open(address);
        director.SeeLive();
        director.See("section[aria-label='What is missing']", "No move from here is yours to make: ");
        director.Press("a", "Read or print");
        director.See("article [data-field=insuredValue] dd", "EUR 120,000");
    }

    [Fact]
    public void A_request_that_is_not_for_this_house_ends_early_and_says_so()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("lorenz");
        browser.Open("/types/gallery-works/records/new");
        browser.SeeLive();
        Choose(browser, "kind", "Structural work");
        browser.See("[data-severity=note]", "The form ends here");
    }

    [Fact]
    public void A_phone_in_the_store_room_is_enough()
    {
        using var browser = new Browser(server.Address, width: 390);
        browser.SignIn("lorenz");
        browser.Open("/types/object-loan/records/new");
        browser.SeeLive();
        Assert.Equal(false, browser.Evaluate("document.documentElement.scrollWidth > window.innerWidth + 1"));
        browser.Type("#field-title", "Tin Owl for Vell");
        // What saves is at hand wherever the page has been scrolled to.
        browser.Press("button", "Save", isExact: true);
        browser.See("section[aria-label=History] li", "begun");
        browser.Press("section[aria-label='What is missing'] button", "Borrower");
        browser.Keyboard("Museum of Vell");
        browser.Press("button", "Save", isExact: true);
        browser.See("aside [data-saying]", "Everything is saved.");
        browser.Open("/types/object-loan/records");
        browser.See("[data-row]", "Tin Owl for Vell");
        Assert.Equal(false, browser.Evaluate("document.documentElement.scrollWidth > window.innerWidth + 1"));
    }

    private static void Choose(Browser browser, string field, string label)
    {
        browser.Press($"#field-{field}");
        browser.Press("[role=option]", label);
    }
}
