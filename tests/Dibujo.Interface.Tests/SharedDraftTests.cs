using System.Text.Json.Nodes;

namespace Dibujo.Interface.Tests;

/// <summary>Two browsers on one draft.</summary>
public sealed class SharedDraftTests(Server server) : IClassFixture<Server>
{
    /// <summary>How often each writes something: a few at every run of the tests, more by DIBUJO_EDITS.</summary>
    private static readonly int Edits = Tries.Of("DIBUJO_EDITS", 15);

    [Fact]
    public void What_one_writes_arrives_at_the_other_by_itself()
    {
        using var here = server.DraftingTable();
        using var there = server.DraftingTable();
        here.Press("[data-rule=light] button");
        Rename(here, "light", "Light is limited");

        there.See("[data-rule=light]", "Light is limited");
    }

    [Fact]
    public void Two_edits_of_one_rule_are_shown_to_both_with_both_versions()
    {
        using var here = server.DraftingTable();
        using var there = server.DraftingTable();
        here.Press("[data-rule=hazards] button");
        there.Press("[data-rule=hazards] button");
        here.LoseConnection(isLost: true);
        Rename(here, "hazards", "Hazards here");
        Rename(there, "hazards", "Hazards there");
        there.See("[role=status]", "Draft saved");
        here.LoseConnection(isLost: false);

        here.See("section[aria-label^='Two versions of']", "Hazards here");
        there.See("section[aria-label^='Two versions of']", "Hazards here");
        there.Press("section[aria-label^='Two versions of'] button", "Take");
        here.SeeNothing("section[aria-label^='Two versions of']");
        here.SeeValue("[data-rule=hazards] input", "Hazards here");
    }

    [Fact]
    public void Two_who_draw_different_parts_choose_nothing_and_keep_both()
    {
        const string Stages = "section[aria-label='The workflow Standard'] input";
        using var here = server.DraftingTable();
        using var there = server.DraftingTable();
        here.Open("/types/object-loan/workflow");
        there.Open("/types/object-loan/workflow");
        here.See($"{Stages}[aria-label='Stage 1']");
        here.LoseConnection(isLost: true);
        here.Retype($"{Stages}[aria-label='Stage 1']", "Asked for" + OpenQA.Selenium.Keys.Enter);
        there.Retype($"{Stages}[aria-label='Stage 3']", "Terms agreed" + OpenQA.Selenium.Keys.Enter);
        there.See("[role=status]", "Draft saved");
        here.LoseConnection(isLost: false);

        foreach (var browser in (Browser[])[here, there])
        {
            browser.SeeValue($"{Stages}[aria-label='Stage 1']", "Asked for");
            browser.SeeValue($"{Stages}[aria-label='Stage 3']", "Terms agreed");
        }

        here.See("[role=status]", "Draft saved");
        here.SeeNothing("a", "for a choice");
        there.SeeNothing("a", "for a choice");
    }

    [Fact]
    public void Who_else_is_in_the_draft_is_seen_and_at_which_rule()
    {
        using var ada = new Browser(server.Address);
        ada.SignIn("ada", "/people");
        ada.Press("[data-account=rosa] button");
        ada.Press("[role=dialog] label", "Platform administrator");
        ada.Press("[role=dialog] button", "Change the account");
        ada.See("[data-account=rosa]", "Platform administrator");
        ada.Open("/types/gallery-works/rules");
        ada.SeeLive();
        using var rosa = new Browser(server.Address);
        rosa.SignIn("rosa", "/types/gallery-works/rules?rule=lead");
        ada.See("[role=status]", "Also here: Rosa Okkema at rule");
        rosa.See("[role=status]", "Also here: Ada Penhallow");
        rosa.Press("nav[aria-label=Sheets] a", "Forms");
        ada.See("[role=status]", "Also here: Rosa Okkema at Forms");
        rosa.Open("/");
        ada.SeeNothing("[role=status]", "Also here");
    }

    [Fact]
    public void After_many_edits_and_lost_connections_both_have_the_same_and_no_words_are_lost()
    {
        var chance = new Random(20261128);
        using var here = server.DraftingTable();
        using var there = server.DraftingTable();
        Browser[] both = [here, there];
        var last = new Dictionary<(int Who, string Rule), string>();
        for (var edit = 0; edit < 2 * Edits; edit++)
        {
            var who = edit % 2;
            var rule = ((string[])["purpose", "extension", "crate", "courier"])[chance.Next(4)];
            last[(who, rule)] = $"{rule} {who}-{edit}";
            Rename(both[who], rule, last[(who, rule)]);
            if (chance.Next(5) == 0)
            {
                both[chance.Next(2)].LoseConnection(isLost: chance.Next(2) == 0);
            }
        }

        foreach (var browser in both)
        {
            browser.LoseConnection(isLost: false);
            browser.See("[role=status]", "Draft saved");
        }

        var drafts = both.Select(Draft).ToArray();
        both[0].Until("the same rules", () => (drafts = [.. both.Select(Draft)])[0] == drafts[1] ? "" : null);
        var stored = Fetch(here, "/api/record-types/object-loan/draft/steps?after=0").ToJsonString();
        Assert.All(last.Values, text => Assert.Contains($"\"{text}\"", stored, StringComparison.Ordinal));
        var kept = Fetch(here, "/api/record-types/object-loan/draft")["definition"]!["rules"]!.AsArray();
        Assert.All(last.Keys, key => Assert.Contains(kept.First(rule => rule!["key"]!.GetValue<string>() == key.Rule)!["name"]!.GetValue<string>(), drafts[0], StringComparison.Ordinal));
    }

    /// <summary>Opens the rule where it is closed, and types another name at once.</summary>
    private static void Rename(Browser browser, string rule, string name)
    {
        browser.Evaluate($"document.querySelector('[data-rule={rule}]:not([data-open]) button')?.click()");
        browser.See($"[data-rule={rule}][data-open] input[aria-label='Name of the rule']");
        browser.Run($$"""
            const input = document.querySelector("[data-rule={{rule}}] input[aria-label='Name of the rule']");
            Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(input, '{{name}}');
            input.dispatchEvent(new Event('input', { bubbles: true }));
            """);
    }

    /// <summary>The names of the rules as the page draws them.</summary>
    private static string Draft(Browser browser) => (string)browser.Evaluate(
        "[...document.querySelectorAll('[data-rule]')].slice(0, 6).map((row) => row.querySelector(\"input[aria-label='Name of the rule']\")?.value ?? row.querySelector('span').innerText.split('\\n')[0]).join('|')")!;

    private static JsonNode Fetch(Browser browser, string address) =>
        JsonNode.Parse((string)browser.RunLater($"const done = arguments[0]; fetch('{address}').then((answer) => answer.text()).then(done);"))!;
}
