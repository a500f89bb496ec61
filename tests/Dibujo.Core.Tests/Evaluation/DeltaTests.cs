using Dibujo.Core.Conditions;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Values;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Evaluation;

/// <summary>A change tells what is different after it, and nothing else.</summary>
public class DeltaTests
{
    private static readonly Core.Rules.Definition Crates = Under(
        While(Field("crateNeeded", Test.Is, false), HideAndClear("grossWeight")),
        While(Field("grossWeight", Test.AtLeast, 100), Require("remarks")),
        While(Stage(Test.FromOn, "terms"), Lock("title")));

    [Fact]
    public void It_names_the_values_elements_and_rules_that_a_change_reaches()
    {
        var session = Crates.Open(Record(("grossWeight", 120)));

        Assert.Equal(
            "elements grossWeight remarks; values crateNeeded grossWeight; rules r0 r1", Told(session, session.Type("crateNeeded", false)));
    }

    [Fact]
    public void A_change_to_the_same_value_tells_nothing()
    {
        var session = Crates.Open(Record(("crateNeeded", true)));

        Assert.Equal("", Told(session, session.Type("crateNeeded", true)));
        Assert.Empty(session.Changes());
    }

    [Fact]
    public void Several_changes_at_once_tell_only_how_it_ends()
    {
        var session = Crates.Open(Record(("grossWeight", 120), ("crateNeeded", true)));

        var delta = session.Change([KeyValuePair.Create("crateNeeded", No), KeyValuePair.Create<string, Value>("title", new Text("Kite")), KeyValuePair.Create("crateNeeded", Yes)]);

        Assert.Equal("values title", Told(session, delta));
    }

    [Fact]
    public void Another_setting_tells_what_it_changes()
    {
        var session = Crates.Open();

        Assert.Equal("elements title; rules r2", Told(session, session.Enter(AtEnquiry with { Stage = "terms" })));
        Assert.Equal("", Told(session, session.Enter(AtEnquiry with { Stage = "approval" })));
        Assert.Equal("elements title; rules r2", Told(session, session.Enter(AtEnquiry)));
    }

    [Fact]
    public void A_section_with_nothing_to_see_in_it_is_told_too()
    {
        var session = Under(While(Field("title", Test.Is, "x"), Hide("section insurance"))).Open();

        Assert.Equal("elements certificate insurance insuredValue; values title; rules r0", Told(session, session.Type("title", "x")));
    }

    [Fact]
    public void Another_record_in_the_same_session_is_as_in_a_session_of_its_own()
    {
        var session = Crates.Open(Record(("grossWeight", 120), ("crateNeeded", false)));
        session.Type("title", "unsaved");

        session.Replace(Record(("grossWeight", 130)));

        var own = Crates.Open(Record(("grossWeight", 130)));
        Assert.Equal(own.Values(), session.Values());
        Assert.Empty(session.Changes());
        Assert.All(Enumerable.Range(0, own.Program.ElementCount), element => Assert.Equal(own.StateOf(element), session.StateOf(element)));
    }

    [Fact]
    public void An_element_that_the_form_does_not_have_is_named()
    {
        var thrown = Assert.Throws<ArgumentException>(() => Crates.Open().StateOf(Forms.Element.Section("attic")));

        Assert.Contains("has no Section “attic”", thrown.Message, StringComparison.Ordinal);
    }

    /// <summary>Elements, values and rules, as far as there are any.</summary>
    private static string Told(Session session, Delta delta) => string.Join("; ", new[]
    {
        Named("elements", delta.Elements.Select(e => session.Program.ElementAt(e).Key)),
        Named("values", delta.Values.Select(v => session.Program.Definition.RecordType.Fields[v].Key)),
        Named("rules", delta.Rules.Select(r => session.Program.Definition.Rules[r].Key)),
    }.Where(part => part.Length > 0));

    private static string Named(string noun, IEnumerable<string> keys) =>
        keys.Any() ? $"{noun} {string.Join(' ', keys.Order(StringComparer.Ordinal))}" : "";
}
