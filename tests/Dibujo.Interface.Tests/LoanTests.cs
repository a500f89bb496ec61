using OpenQA.Selenium;

namespace Dibujo.Interface.Tests;

/// <summary>A loan on its way through the house, and the end of a request that is not for this house.</summary>
public sealed class LoanTests(Server server) : IClassFixture<Server>
{
    [Fact]
    public void A_loan_goes_from_enquiry_to_return_through_four_pairs_of_hands()
    {
        using var officer = new Browser(server.Address);
        officer.SignIn("lorenz", "/types/object-loan/records/new");
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
        registrar.SignIn("rosa", address);
        registrar.SeeLive();
        officer.See("[data-here]", "Rosa");
        registrar.Press("[role=tab]", "Insurance");
        registrar.Retype("#field-insuredValue", "120000" + Keys.Tab);
        registrar.SeeValue("#field-insuredValue", "120,000.00");
        registrar.Press("[role=tab]", "Transport");
        registrar.See("[data-field=courierNeeded] [data-suggestion]", "From 100,000 on");
        registrar.Press("[data-suggestion] button", "Use yes");
        registrar.SeeNothing("[data-suggestion]");

        // Another edition comes into force in the middle of it: what was typed stays, and it is told what is different.
        using var administrator = new Browser(server.Address);
        administrator.SignIn("ada", "/types/object-loan/rules");
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
        registrar.SeeValue("#field-insuredValue", "120,000.00");
        registrar.See("[data-field=certificate][data-requirement]");
        registrar.Press("button", "Save", isExact: true);
        registrar.See("aside [data-saying]", "Everything");

        // A director may look, and is told whose the moves are.
        using var director = new Browser(server.Address);
        director.SignIn("delphine", address);
        director.SeeLive();
        director.See("section[aria-label='What is missing']", "No move from here is yours to make: ");
        director.Press("a", "Read or print");
        director.See("article [data-field=insuredValue] dd", "EUR 120,000");

        // What was typed into a field that gets hidden comes back when it shows again.
        registrar.Type("#field-certificate", "C 4711");
        Choose(registrar, "insuredBy", "State indemnity");
        registrar.SeeNothing("#field-certificate");
        Choose(registrar, "insuredBy", "Us");
        registrar.SeeValue("#field-certificate", "C 4711");
        Save(registrar);

        // A refusal marks what is missing on whatever tab it is.
        registrar.Press("aside button", "Draw up terms");
        registrar.See("[role=alert] h3", "2 things speak against this");
        Missing(registrar, "Second valuation");
        registrar.Keyboard("118000" + Keys.Tab);
        Missing(registrar, "Valuer");
        registrar.Keyboard("Hart and Daughter" + Keys.Tab);
        MoveOn(registrar, "Draw up terms", "Terms");
        Missing(registrar, "Borrower contact");
        registrar.Keyboard("Ines" + Keys.Tab + "Kahl" + Keys.Tab);
        MoveOn(registrar, "Ask for approval", "Approval");

        // Two in one record, on different fields: both are kept.
        director.Open(address);
        director.SeeLive();
        director.Press("[role=tab]", "Insurance");
        director.Retype("#field-insuredValue", "130000" + Keys.Tab);
        registrar.Press("[role=tab]", "Closing");
        registrar.Press("[role=tab]", "Transport");
        registrar.Type("#field-grossWeight", "41" + Keys.Tab);
        Save(registrar);
        director.See("[data-news]", "Rosa");
        Save(director);
        director.Press("[role=tab]", "Transport");
        director.SeeValue("#field-grossWeight", "41");

        // A former value is put back from the history.
        director.Press("section[aria-label=History] summary", "changed");
        director.See("section[aria-label=History] li", "120,000");
        director.Press("section[aria-label=History] button", "Put back");
        director.Press("[role=tab]", "Insurance");
        director.SeeValue("#field-insuredValue", "120,000.00");
        Save(director);
        MoveOn(director, "Dispatch", "In transit");
        registrar.Open(address);
        registrar.SeeLive();
        MoveOn(registrar, "Confirm arrival", "On display");
        registrar.Press("nav[aria-label=Form] a", "Condition on return");
        registrar.See("[aria-current] span", "Condition on return");
        registrar.SeeLive();
        Choose(registrar, "stateBack", "Good");
        registrar.Type("#field-returnedOn", "2.9.2031" + Keys.Tab);
        Save(registrar);
        registrar.Press("nav[aria-label=Form] a", "Loan file");
        Missing(registrar, "Damage found");
        registrar.Press("[data-field=damageFound] label", "No", isExact: true);
        MoveOn(registrar, "Take back", "Returned");

        // A returned loan is an archive for the desk, and says why.
        officer.Open(address);
        officer.SeeLive();
        officer.See("#field-title[readonly]");
        officer.Press("p[role=status] button", "Why?");
        officer.See("[role=note]", "Returned loans are closed");
    }

    [Fact]
    public void A_loan_is_begun_filled_in_and_moved_on_by_keys_alone()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("lorenz", "/types/object-loan/records/new");
        browser.SeeLive();
        browser.TabTo("#field-title");
        browser.Keyboard("Bronze Heron for Vell");
        browser.Keyboard(Keys.Control + "s" + Keys.Null);
        browser.See("section[aria-label=History] li", "begun");
        browser.SeeLive();
        browser.Keyboard(Keys.Control + Keys.Enter + Keys.Null);
        browser.See("[role=alert] h3", "speak against this");
        // From what is missing to its field and on.
        browser.TabTo("section[aria-label='What is missing'] button", "Borrower");
        browser.Keyboard(Keys.Enter);
        browser.See("#field-borrower:focus");
        browser.Keyboard("Museum of Vell");
        browser.TabTo("#field-purpose");
        browser.Keyboard("research" + Keys.Enter);
        browser.TabTo("#field-startDate");
        browser.Keyboard("1 Mar 2031");
        browser.TabTo("#field-endDate");
        browser.Keyboard("1 Sep 2031");
        browser.TabTo("[role=tab]", "Request");
        browser.Keyboard(Keys.ArrowRight);
        browser.See("[role=tab][aria-selected=true]", "Object and care");
        browser.TabTo("#field-object");
        browser.Keyboard("Cloak");
        browser.See("[role=option]", "(No. ");
        browser.Keyboard(Keys.ArrowDown + Keys.Enter);
        browser.See("[data-moves]", "nothing stands in the way.");
        browser.Keyboard(Keys.Control + Keys.Enter + Keys.Null);
        browser.See("[aria-current=step]", "Assessment");
        browser.See("aside [data-saying]", "Everything is saved.");
    }

    [Fact]
    public void A_request_that_is_not_for_this_house_ends_early_and_says_so()
    {
        using var browser = new Browser(server.Address);
        browser.SignIn("lorenz", "/types/gallery-works/records/new");
        browser.SeeLive();
        Choose(browser, "kind", "Structural work");
        browser.See("[data-severity=note]", "The form ends here");
    }

    [Fact]
    public void A_phone_in_the_store_room_is_enough()
    {
        using var browser = new Browser(server.Address, width: 390);
        browser.SignIn("lorenz", "/types/object-loan/records/new");
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

    private static void Save(Browser browser)
    {
        browser.Keyboard(Keys.Control + "s" + Keys.Null);
        browser.See("aside [data-saying]", "Everything is saved.");
    }

    private static void MoveOn(Browser browser, string move, string stage)
    {
        browser.Press("aside button", move);
        browser.See("[aria-current=step]", stage);
    }

    /// <summary>Presses what is missing, and is where it is to be filled in.</summary>
    private static void Missing(Browser browser, string field)
    {
        browser.Press("section[aria-label='What is missing'] button", field);
        browser.Until("the focus in a field", () => browser.Evaluate("document.activeElement.closest('[data-field]') !== null") is true ? "" : null);
    }

    private static void Choose(Browser browser, string field, string label)
    {
        browser.Press($"#field-{field}");
        browser.Press("[role=option]", label);
    }
}
