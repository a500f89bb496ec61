using Dibujo.Core.Conditions;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Evaluation;

/// <summary>Fields of linked records, up to three links away, found in a small archive of boxes within boxes.</summary>
public class LinkTests
{
    private static readonly RecordType Box = new(
        "box", "Box", "name",
        [new("name", "Name", new TextType()), new("within", "Within", new LinkType("box")), new("note", "Note", new TextType())],
        [new("main", "Main", [new("t", "Tab", [new("s", "Section", ["name", "within", "note"])])])],
        [new("w", "Way", [new("here", "Here")], [])]);

    private static readonly Setting Here = new("w", "here");

    [Theory]
    [InlineData(1, 1, "Drawer")]
    [InlineData(1, 2, "Cabinet")]
    [InlineData(1, 3, "Room")]
    [InlineData(2, 3, null)]
    [InlineData(9, 1, null)]
    public void A_field_is_found_over_one_to_three_links(int within, int links, string? name)
    {
        var session = new Session(Program(links, "Room"), RecordValues.Empty.With("within", new Link(within)), Here, new Archive());

        Assert.Equal(name == "Room" ? 0 : -1, session.CaseInForce(0));
        Assert.Equal(name is null ? -1 : 0, new Session(Program(links, name ?? "x"), RecordValues.Empty.With("within", new Link(within)), Here, new Archive()).CaseInForce(0));
    }

    [Fact]
    public void A_ring_of_links_is_followed_as_far_as_is_asked_and_no_further()
    {
        var archive = new Archive { Ring = true };

        Assert.Equal(0, new Session(Program(3, "Drawer"), RecordValues.Empty.With("within", new Link(1)), Here, archive).CaseInForce(0));
    }

    [Fact]
    public void A_record_that_becomes_known_counts_when_it_is_looked_up_again()
    {
        var archive = new Archive { IsEmpty = true };
        var session = new Session(Program(1, "Drawer"), RecordValues.Empty.With("within", new Link(1)), Here, archive);
        Assert.Equal(-1, session.CaseInForce(0));

        archive.IsEmpty = false;
        var delta = session.LookUpAgain();

        Assert.Equal([0], delta.Rules);
        Assert.Equal([session.Program.NumberOf(Element.Field("note"))], delta.Elements);
    }

    [Fact]
    public void More_than_three_links_cannot_be_followed()
    {
        var (_, problems) = Core.Compilation.ProgramCompiler.Compile(Definition(4, "x"));

        Assert.Equal("/rules/0/cases/0/while/subject/via", problems.Single().Place);
    }

    private static Core.Programs.RuleProgram Program(int links, string name)
    {
        var (program, problems) = Core.Compilation.ProgramCompiler.Compile(Definition(links, name));
        Assert.Empty(problems);
        return program!;
    }

    private static Definition Definition(int links, string name)
    {
        var subject = new LinkedSubject([.. Enumerable.Repeat("within", links)], "name");
        return new(Box, [new Rule("r", "Rule")
        {
            Cases = [new([new Core.Rules.Lock([Element.Field("note")])], new Clause(subject, Test.Is) { Comparands = [new Literal(new Text(name))] })],
        }]);
    }

    /// <summary>A drawer (1) in a cabinet (2) in a room (3); in a ring the room is in the drawer again.</summary>
    private sealed class Archive : IRecordLookup
    {
        internal bool IsEmpty { get; set; }

        internal bool Ring { get; init; }

        public RecordValues? Find(string recordType, int number) => (IsEmpty, number) switch
        {
            (false, 1) => Record("Drawer", 2),
            (false, 2) => Record("Cabinet", Ring ? 1 : 3),
            (false, 3) => Record("Room", null),
            _ => null,
        };

        public bool HasPerson(string userName) => false;

        private static RecordValues Record(string name, int? within) =>
            RecordValues.Empty.With("name", new Text(name)).With("within", within is { } number ? new Link(number) : Value.Blank);
    }
}
