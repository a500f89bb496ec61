using System.Collections.Immutable;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Dibujo.Core.Workflows;

namespace Dibujo.Core.Checking;

/// <summary>Whether fields, forms, workflows and roles of a record type fit together.</summary>
internal sealed class RecordTypeCheck(RecordType type, ProblemList problems)
{
    private const string Root = "/recordType";

    private const int LongestOtherWord = 60;

    /// <summary>All that is wrong with the record type itself.</summary>
    internal static ImmutableArray<Problem> Of(RecordType type)
    {
        var problems = new ProblemList();
        new RecordTypeCheck(type, problems).Run();
        return problems.ToImmutable();
    }

    private void Run()
    {
        problems.CheckNames($"{Root}/fields", "field", type.Fields.Select(f => (f.Key, f.Label)));
        problems.CheckNames($"{Root}/roles", "role", type.Roles.Select(r => (r.Key, r.Label)));
        problems.CheckNames($"{Root}/forms", "form", type.Forms.Select(f => (f.Key, f.Label)));
        problems.CheckNames($"{Root}/workflows", "workflow", type.Workflows.Select(w => (w.Key, w.Label)));
        CheckTitle();
        foreach (var (i, field) in type.Fields.Index())
        {
            CheckType($"{Root}/fields/{i}/type", field.Type);
            CheckDefault($"{Root}/fields/{i}/default", field);
        }

        problems.CheckNames($"{Root}/linked", "record type", type.Linked.Select(l => (l.Key, l.Label)));
        foreach (var (l, linked) in type.Linked.Index())
        {
            problems.CheckNames($"{Root}/linked/{l}/fields", "field", linked.Fields.Select(f => (f.Key, f.Label)));
            foreach (var (i, field) in linked.Fields.Index())
            {
                CheckType($"{Root}/linked/{l}/fields/{i}/type", field.Type);
            }
        }

        CheckOtherWords();
        RequireOne("forms", type.Forms.Length);
        RequireOne("workflows", type.Workflows.Length);
        foreach (var (i, form) in type.Forms.Index())
        {
            CheckForm($"{Root}/forms/{i}", form);
        }

        foreach (var (i, workflow) in type.Workflows.Index())
        {
            CheckWorkflow($"{Root}/workflows/{i}", workflow);
        }
    }

    private void CheckTitle()
    {
        if (type.Find(type.TitleField) is null)
        {
            problems.Add($"{Root}/titleField", $"There is no field “{Excerpt.Of(type.TitleField)}”.",
                "Name the field by which a record is called in lists.");
        }
    }

    private void CheckOtherWords()
    {
        foreach (var (i, word) in type.OtherWords.Index())
        {
            if (BlankText.IsBlank(word.Said) || word.Said.Length > LongestOtherWord)
            {
                problems.Add($"{Root}/otherWords/{i}/said", $"Another word for something has 1 to {LongestOtherWord} characters.", "Write what people say, or delete it.");
            }
            else if (!word.IsIn(type))
            {
                problems.Add($"{Root}/otherWords/{i}", $"The other word “{Excerpt.Of(word.Said)}” stands for nothing that there is.", "Say which field, choice, stage or role it stands for, or delete it.");
            }
        }
    }

    private void RequireOne(string list, int count)
    {
        if (count == 0)
        {
            problems.Add($"{Root}/{list}", $"A record type without {list} cannot be filled in.", "Add one.");
        }
    }

    private void CheckType(string place, FieldType fieldType)
    {
        switch (fieldType)
        {
            case IOffersOptions { Options: var options }:
                problems.CheckNames($"{place}/options", "choice", options.Select(o => (o.Key, o.Label)));
                if (options.IsEmpty)
                {
                    problems.Add($"{place}/options", "A choice field without choices can never be filled in.", "Add a choice.");
                }

                break;
            case NumberType { Scale: < 0 or > 12 }:
                problems.Add($"{place}/scale", "A number has 0 to 12 digits after the point.", "Choose a number from 0 to 12.");
                break;
            case NumberType { Min: { } min, Max: { } max } when min > max:
                problems.Add($"{place}/min", "The least allowed is more than the most allowed.", "Exchange the two.");
                break;
            case MoneyType { Min: { } min, Max: { } max } when min > max:
                problems.Add($"{place}/min", "The least allowed is more than the most allowed.", "Exchange the two.");
                break;
            case LinkType { RecordType.Length: 0 }:
                problems.Add($"{place}/recordType", "The link does not say to what kind of record it leads.", "Name the key of a record type.");
                break;
            case MoneyType money when money.Currency.Length != 3 || !money.Currency.All(char.IsAsciiLetterUpper):
                problems.Add($"{place}/currency", $"“{Excerpt.Of(money.Currency)}” is not a currency code.",
                    "Use the three letters of ISO 4217, such as EUR.");
                break;
            case TextType { MaxLength: < 1 } or LongTextType { MaxLength: < 1 }:
                problems.Add($"{place}/maxLength", "Text must be allowed at least one character.", "Choose 1 or more.");
                break;
            case CompoundType compound:
                foreach (var (i, part) in compound.OptionalParts.Index().Where(p => compound.FindPart(p.Item) is null))
                {
                    problems.Add($"{place}/optionalParts/{i}", $"There is no part “{Excerpt.Of(part)}”.",
                        $"Choose among: {string.Join(", ", compound.Parts.Select(p => p.Key))}.");
                }

                break;
            default:
                break;
        }
    }

    private void CheckDefault(string place, Field field)
    {
        var fits = field.Default switch
        {
            FixedDefault { Value: var value } => field.Type.Fit(value) is { } fitted && field.Type.Violation(fitted) is null,
            TodayDefault => field.Type is DateType or DateTimeType,
            CreatorDefault => field.Type is PersonType,
            _ => true,
        };
        if (!fits)
        {
            problems.Add(place, $"{field.Label} cannot hold this default.", $"Give {field.Type.Noun}, within the field's limits.");
        }
    }

    private void CheckForm(string place, Form form)
    {
        problems.CheckNames($"{place}/tabs", "tab", form.Tabs.Select(t => (t.Key, t.Label)));
        var sections = new HashSet<string>(StringComparer.Ordinal);
        var placed = new HashSet<string>(StringComparer.Ordinal);
        foreach (var (t, tab) in form.Tabs.Index())
        {
            problems.CheckNames($"{place}/tabs/{t}/sections", "section", tab.Sections.Select(s => (s.Key, s.Label)));
            foreach (var (s, section) in tab.Sections.Index())
            {
                var here = $"{place}/tabs/{t}/sections/{s}";
                if (!sections.Add(section.Key))
                {
                    problems.Add($"{here}/key", $"Two sections of this form have the key “{section.Key}”.",
                        "Give one of them another key.");
                }

                if (section.Columns is { } columns and (< 1 or > Section.MostColumns))
                {
                    problems.Add($"{here}/columns", $"{section.Label} cannot have {columns} columns.", $"Choose 1 to {Section.MostColumns}.");
                }

                foreach (var (f, field) in section.Fields.Index())
                {
                    if (type.Find(field) is null)
                    {
                        problems.Add($"{here}/fields/{f}", $"There is no field “{Excerpt.Of(field)}”.",
                            "Add it to the record type, or take it off the form.");
                    }
                    else if (type.Find(field)!.Retired)
                    {
                        problems.Add($"{here}/fields/{f}", $"{type.Find(field)!.Label} is retired and still stands on {form.Label}.", "Take it off, or bring it back.");
                    }
                    else if (!placed.Add(field))
                    {
                        problems.Add($"{here}/fields/{f}", $"“{field}” stands on this form twice.", "Take one of them off.");
                    }
                }
            }
        }
    }

    private void CheckWorkflow(string place, Workflow workflow)
    {
        problems.CheckNames($"{place}/stages", "stage", workflow.Stages.Select(s => (s.Key, s.Label)));
        problems.CheckNames($"{place}/moves", "move", workflow.Moves.Select(m => (m.Key, m.Label)));
        if (workflow.Stages.IsEmpty)
        {
            problems.Add($"{place}/stages", "A workflow without stages leads nowhere.", "Add a stage.");
        }

        foreach (var (i, move) in workflow.Moves.Index())
        {
            foreach (var (end, stage) in new[] { ("from", move.From), ("to", move.To) })
            {
                if (workflow.Position(stage) < 0)
                {
                    problems.Add($"{place}/moves/{i}/{end}",
                        $"The workflow “{workflow.Label}” has no stage “{Excerpt.Of(stage)}”.",
                        "Name one of its stages.");
                }
            }

            foreach (var (r, role) in move.Roles.Index())
            {
                if (!type.Roles.Any(known => known.Key == role))
                {
                    problems.Add($"{place}/moves/{i}/roles/{r}", $"There is no role “{Excerpt.Of(role)}”.",
                        "Add the role, or take it off the move.");
                }
            }
        }
    }
}
