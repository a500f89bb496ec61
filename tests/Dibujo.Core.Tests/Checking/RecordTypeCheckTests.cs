using System.Collections.Immutable;
using Dibujo.Core.Checking;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Dibujo.Core.Workflows;

namespace Dibujo.Core.Tests.Checking;

/// <summary>A record type that does not fit together is told where and how to mend it.</summary>
public class RecordTypeCheckTests
{
    private static readonly RecordType Sound = new(
        "crate", "Crate", "name", [new("name", "Name", new TextType())],
        [new("main", "Main", [new("t", "Tab", [new("s", "Section", ["name"])])])],
        [new("w", "Way", [new("made", "Made"), new("gone", "Gone")], [new("send", "Send", "made", "gone")])]);

    public static TheoryData<string, FieldType> Types => new()
    {
        { "options", new ChoiceType([]) },
        { "options/1/key", new ChoiceType([new("a", "A"), new("a", "B")]) },
        { "scale", new NumberType(Scale: 13) },
        { "min", new NumberType(Min: 3, Max: 2) },
        { "min", new MoneyType(Min: 3, Max: 2) },
        { "currency", new MoneyType(Currency: "euro") },
        { "maxLength", new TextType(MaxLength: 0) },
        { "optionalParts/0", new FullNameType { OptionalParts = ["middle"] } },
        { "recordType", new LinkType("") },
    };

    [Theory]
    [MemberData(nameof(Types))]
    public void A_field_type_with_limits_that_nothing_keeps(string place, FieldType type) =>
        Assert.Contains($"/recordType/fields/0/type/{place}", Places(Sound with { Fields = [new("name", "Name", type)] }));

    [Fact]
    public void A_sound_record_type_has_no_problems() => Assert.Empty(Places(Sound));

    [Fact]
    public void Keys_are_there_and_are_not_there_twice()
    {
        var field = Sound.Fields[0];

        Assert.Contains("/recordType/fields/1/key", Places(Sound with { Fields = [field, field] }));
        Assert.Contains("/recordType/fields/1/key", Places(Sound with { Fields = [field, field with { Key = "" }] }));
        Assert.Contains("/recordType/fields/1/label", Places(Sound with { Fields = [field, field with { Key = "other", Label = " " }] }));
        Assert.Contains("/recordType/forms/1/key", Places(Sound with { Forms = [Sound.Forms[0], Sound.Forms[0]] }));
        Assert.Contains("/recordType/workflows/1/key", Places(Sound with { Workflows = [Sound.Workflows[0], Sound.Workflows[0]] }));
    }

    [Fact]
    public void Without_fields_forms_or_workflows_nobody_can_fill_it_in()
    {
        var places = Places(Sound with { Fields = [], Forms = [], Workflows = [] });

        Assert.Superset(new HashSet<string> { "/recordType/forms", "/recordType/workflows", "/recordType/titleField" }, places.ToHashSet());
    }

    [Fact]
    public void A_default_keeps_the_fields_limits() =>
        Assert.Contains("/recordType/fields/0/default", Places(Sound with { Fields = [new("name", "Name", new TextType(MaxLength: 3), Default: new FixedDefault(new Text("Lantern")))] }));

    [Theory]
    [InlineData("name, name", "/recordType/forms/0/tabs/0/sections/0/fields/1")]
    [InlineData("name, vault", "/recordType/forms/0/tabs/0/sections/0/fields/1")]
    public void A_form_has_each_field_once_and_no_others(string fields, string place) =>
        Assert.Contains(place, Places(Sound with { Forms = [new("main", "Main", [new("t", "Tab", [new Section("s", "Section", [.. fields.Split(", ")])])])] }));

    [Fact]
    public void Two_sections_of_a_form_do_not_share_a_key() => Assert.Contains(
        "/recordType/forms/0/tabs/1/sections/0/key",
        Places(Sound with { Forms = [new("main", "Main", [Sound.Forms[0].Tabs[0], new("t2", "Tab", [new("s", "Again", [])])])] }));

    [Fact]
    public void A_workflow_leads_from_stage_to_stage_for_roles_that_there_are()
    {
        var way = Sound.Workflows[0];

        Assert.Contains("/recordType/workflows/0/stages", Places(With(way with { Stages = [], Moves = [] })));
        Assert.Contains("/recordType/workflows/0/moves/0/to", Places(With(way with { Moves = [new("send", "Send", "made", "moon")] })));
        Assert.Contains("/recordType/workflows/0/moves/0/from", Places(With(way with { Moves = [new("send", "Send", "moon", "gone")] })));
        Assert.Contains("/recordType/workflows/0/moves/0/roles/0", Places(With(way with { Moves = [way.Moves[0] with { Roles = ["gardener"] }] })));
    }

    private static RecordType With(Workflow workflow) => Sound with { Workflows = [workflow] };

    private static ImmutableArray<string> Places(RecordType type)
    {
        var problems = DefinitionCheck.Of(new(type, []));
        Assert.All(problems, p => Assert.True(p.What.Length > 0 && p.Mend.Length > 0));
        return [.. problems.Select(p => p.Place)];
    }
}
