using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Compilation;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Listing;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;
using Dibujo.Core.Workflows;
using Dibujo.Store.Records;

namespace Dibujo.Server.Demo;

/// <summary>Invented records in all stages, the same at every run, each as the rules would have had it filled in.</summary>
internal sealed class DemoRecords(Definition definition, DateTime now, IReadOnlyDictionary<int, RecordValues> objects) : IRecordLookup
{
    private static readonly string[] Adjectives = ["Quiet", "Silver", "Northern", "Unfinished", "Gilded", "Second", "Early", "Tidal", "Woven", "Blue"];
    private static readonly string[] Things = ["Harbour", "Meadow", "Procession", "Almanac", "Lantern", "Kingfisher", "Orchard", "Treaty", "Cloak", "Astrolabe"];
    private static readonly string[] Places = ["Marlow Fen", "Oststrand", "Vell", "Carrick Moss", "Lindenau-am-See", "Port Amsel", "Hallowdale", "Brennick"];
    private static readonly string[] Names = ["Ines Tarrow", "Otto Quell", "Maud Ferring", "Piet Sandoval", "Yara Lindqvist", "Hugo Brand", "Nell Ashdown"];
    private static readonly string[] Notes = ["Handle at the frame only.", "See the letter in the file.", "Corner loose, keep flat.", "Ask the desk before opening."];

    private readonly Random random = new(20261124);
    private readonly RuleProgram program = ProgramCompiler.Compile(definition).Program!;
    private readonly RecordType type = definition.RecordType;

    private readonly int[] numbers = [.. objects.Keys.Order()];

    public RecordValues? Find(string recordType, int number) => objects.GetValueOrDefault(number);

    public bool HasPerson(string userName) => true;

    internal IEnumerable<StoredRecord> Take(int count) => Enumerable.Range(0, count).Select(Invented);

    private StoredRecord Invented(int number)
    {
        var workflow = type.Workflows[random.Next(4) == 0 ? type.Workflows.Length - 1 : 0];
        var stage = random.Next(workflow.Stages.Length);
        var values = Filled(workflow, stage);
        return new()
        {
            RecordType = type.Key,
            Workflow = workflow.Key,
            Stage = workflow.Stages[stage].Key,
            Title = values["title"].Plain,
            Values = values,
            ChangedAt = DateTime.SpecifyKind(now.AddMinutes(-17 * number), DateTimeKind.Utc),
            ChangedBy = Pick("lorenz", "rosa", "conrad"),
            // Lists are right from the first moment on.
            Standing = Standing.Of(program, values, new Setting(workflow.Key, workflow.Stages[stage].Key).At(now), this),
            StandingEdition = 1,
            StandingDay = DateOnly.FromDateTime(now),
        };
    }

    /// <summary>Values as they come together on the way to a stage: at each a few more, and whatever the rules ask for there.</summary>
    private RecordValues Filled(Workflow workflow, int last)
    {
        var values = type.Defaults(new Setting(workflow.Key, workflow.Stages[0].Key, IsNew: true, Person: "lorenz", Now: now));
        for (var stage = 0; stage <= last; stage++)
        {
            var setting = new Setting(workflow.Key, workflow.Stages[stage].Key, IsNew: stage == 0, Person: "lorenz", Now: now) { Roles = ["director"] };
            var session = new Session(program, values, setting, this);
            foreach (var field in type.Fields.Where(f => session[f.Key].IsBlank && random.NextDouble() < 0.3))
            {
                session.Change(field.Key, Invent(session, field));
            }

            FillIn(session, stage < last ? Requirement.ToMoveOn : Requirement.ToSave);
            values = session.Values();
        }

        return values;
    }

    /// <summary>Fills in what is asked for, and what that makes the rules ask for in turn.</summary>
    private void FillIn(Session session, Requirement least)
    {
        for (var again = 0; again < 4; again++)
        {
            session.Change(type.Fields.Index()
                .Where(f => session.StateOf(f.Index) is { IsEditable: true } state && state.Effective >= least && session.ValueOf(f.Index).IsBlank)
                .Select(f => KeyValuePair.Create(f.Item.Key, Invent(session, f.Item))).ToList());
        }
    }

    private Value Invent(Session session, Field field) => (field.Key, field.Type) switch
    {
        ("title", _) when type.Key == "object-loan" => new Text($"{Pick(Adjectives)} {Pick(Things)} for {Pick(Places)}"),
        ("title", _) when type.Key == "gallery-works" => new Text($"{Pick("Light", "Plinth", "New paint", "Cabinet")} for the {Pick(Things)}"),
        ("title", _) => new Text($"{Pick(Adjectives)} {Pick(Things)}"),
        ("inventoryNumber", _) => new Text(string.Create(CultureInfo.InvariantCulture, $"QM {random.Next(1890, 2020)}.{random.Next(1, 400)}")),
        ("yearMade", _) => new Number(random.Next(1380, 1990)),
        (_, LinkType) => new Link(numbers[random.Next(numbers.Length)]),
        (_, FullNameType) => Pick(Names).Split(' ') is var name
            ? Compound.Empty.With("given", new Text(name[0])).With("family", new Text(name[1])) : Value.Blank,
        (_, AddressType) => Compound.Empty
            .With("street", new Text(string.Create(CultureInfo.InvariantCulture, $"{random.Next(1, 90)} Quay Row")))
            .With("city", new Text(Pick(Places))).With("country", new Text(Pick("Amselland", "Vellmark"))),
        (_, PersonType) => new Person(Pick("lorenz", "rosa", "conrad")),
        (_, DateTimeType) => new Moment(Day(-100, 200).ToDateTime(new(random.Next(7, 18), 0))),
        (_, ChoicesType several) => new Choices([several.Options[random.Next(several.Options.Length)].Key]),
        ("borrower", _) => new Text($"{Pick("Museum of", "Civic Gallery", "Institute of")} {Pick(Places)}"),
        ("flightNumber", _) => new Text(string.Create(CultureInfo.InvariantCulture, $"QH {random.Next(100, 999)}")),
        ("portOfEntry", _) => new Text(Pick(Places)),
        ("certificate" or "customsReference", _) => new Text(string.Create(CultureInfo.InvariantCulture, $"Q-{random.Next(10_000, 99_999)}")),
        ("startDate", _) => new Date(Day(-200, 300)),
        ("endDate", _) => new Date(Day(300, 600)),
        ("lastConservation", _) => new Date(Day(-9000, -100)),
        ("decision", _) => new Choice(random.Next(8) == 0 ? "refused" : "approved"),
        ("feeWaived" or "damageFound" or "lookAsked" or "extensionAsked" or "hazards", _) => new YesNo(random.Next(5) == 0),
        (_, YesNoType) => new YesNo(random.Next(2) == 0),
        (_, DateType) => new Date(Day(-300, 300)),
        (_, ChoiceType choice) => OneOf(session.Offers(type.Fields.IndexOf(field)) ?? [.. choice.Options.Select(o => o.Key)]),
        ("fee", _) => new Number(50 * random.Next(1, 40)),
        (_, MoneyType) => new Number(500 * (decimal)Math.Pow(random.Next(2, 30), 2)),
        ("lightLimit", _) => new Number(50 * random.Next(1, 5)),
        ("humidityFrom", _) => new Number(random.Next(35, 45)),
        ("humidityTo", _) => new Number(random.Next(50, 60)),
        (_, NumberType) => new Number(random.Next(20, 240)),
        (_, LongTextType) => new Text(Pick(Notes)),
        _ => new Text(Pick(Names)),
    };

    private Value OneOf(ImmutableArray<string> keys) => keys.IsEmpty ? Value.Blank : new Choice(keys[random.Next(keys.Length)]);

    private DateOnly Day(int from, int to) => DateOnly.FromDateTime(now).AddDays(random.Next(from, to));

    private T Pick<T>(params T[] from) => from[random.Next(from.Length)];
}
