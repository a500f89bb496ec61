using System.Collections.Immutable;
using Dibujo.Core.Checking;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Compilation;

/// <summary>
/// A definition compiled, for all its forms at once: immutable, to be shared by any number of sessions on any number of
/// threads. The form at hand is part of a session's setting, like the stage.
/// </summary>
/// <remarks>
/// Distinct clauses are stored once; an index leads from what a clause looks at to the clause, from there to the rules
/// that read it and on to the elements they claim, so that a change costs what it reaches and no more.
/// </remarks>
public sealed class RuleProgram
{
    internal RuleProgram(Definition definition)
    {
        Definition = definition;
        Fields = new(definition.RecordType);
        Layout = new(definition.RecordType);
        Slots = new(definition.RecordType, Fields);
        Clauses = new(definition.RecordType, Slots);
        Groups = new(Clauses);
        Rules = new(Clauses, Groups, Slots);
        Effects = new(Slots, Fields);
        Cases = new ImmutableArray<Case>[definition.Rules.Length];
        VariantOfRule = new int[definition.Rules.Length];
        Array.Fill(Cases, []);
    }

    /// <summary>What was compiled, rules with problems included.</summary>
    public Definition Definition { get; }

    /// <summary>How many elements there are on all forms; their numbers run from 0, fields first.</summary>
    public int ElementCount => Layout.ShownCount;

    internal FieldIndex Fields { get; }

    internal Layout Layout { get; }

    internal SlotTable Slots { get; }

    internal ClauseTable Clauses { get; }

    internal GroupTable Groups { get; }

    internal RuleTable Rules { get; }

    internal ClaimTable Claims { get; } = new();

    internal EffectTable Effects { get; }

    /// <summary>For each list position, the rule's cases; none for a rule left out. Where the rule applies is not part of them.</summary>
    internal ImmutableArray<Case>[] Cases { get; }

    /// <summary>List positions of the rules that say messages.</summary>
    internal List<int> Speaking { get; } = [];

    /// <summary>The suggestions of all rules, in list order.</summary>
    internal List<AdviceCode> Advice { get; } = [];

    /// <summary>The cycles in the order in which their values are settled.</summary>
    internal Cycle[] Cycles { get; set; } = [];

    /// <summary>For each cycle, whether some rule may give a field in it another value than the saved one, though nobody changed it.</summary>
    internal bool[] IsGivenValues { get; set; } = [];

    /// <summary>For each field, its place in <see cref="Cycles"/>.</summary>
    internal int[] CycleOfField { get; set; } = [];

    /// <summary>For each variant, the true cycle that it belongs to; -1 for none.</summary>
    internal int[] CycleOfVariant { get; set; } = [];

    /// <summary>For each clause, the true cycles in which it takes part. Where such a cycle ends may depend on where it began.</summary>
    internal int[][] CyclesOfClause { get; set; } = [];

    /// <summary>For each variant, the true cycles over whose fields it decides, from within or from outside.</summary>
    internal int[][] CyclesUnderVariant { get; set; } = [];

    /// <summary>For each element, the elements whose state its claims decide, itself included.</summary>
    internal int[][] ElementsUnder { get; set; } = [];

    /// <summary>For each list position, the number of the rule's variant for the record at large; -1 for a rule left out.</summary>
    internal int[] VariantOfRule { get; }

    /// <summary>
    /// Compiles. Rules that are off or have problems are left out; the program is null if the record type itself has a
    /// problem.
    /// </summary>
    public static (RuleProgram? Program, ImmutableArray<Problem> Problems) Compile(Definition definition)
    {
        var problems = DefinitionCheck.Of(definition);
        return problems.Any(p => p.Place.StartsWith("/recordType", StringComparison.Ordinal))
            ? (null, problems)
            : (ProgramCompiler.Compile(definition, problems), problems);
    }

    /// <summary>The element of that number.</summary>
    public Element ElementAt(int number) => Layout[number];

    /// <summary>The form of that key (null: the main form); null for an unknown one.</summary>
    public Form? FindForm(string? form) => FindDoor(form)?.Form;

    /// <summary>
    /// The element's number on that form (null: the main form); -1 for a container that this form does not have. Fields
    /// that do not stand on it have numbers too, and so have the record and the other forms.
    /// </summary>
    public int NumberOf(Element element, string? form = null) => FindDoor(form) is { } door ? Layout.Find(element, door) : -1;

    /// <summary>Whether the field stands on that form (null: the main form).</summary>
    public bool IsOnForm(string field, string? form) => Fields.Find(field) is >= 0 and var index && FindDoor(form)?.Has(index) == true;

    /// <summary>The form of that key (null: the main form) as a way to the record; null for an unknown one.</summary>
    internal Door? FindDoor(string? form) =>
        form is null ? Layout.Doors[0] : Array.Find(Layout.Doors, door => string.Equals(door.Form.Key, form, StringComparison.Ordinal));
}

/// <summary>A suggestion: in which case of which rule, for which field, and where its value is found.</summary>
internal sealed record AdviceCode(int Rule, int Case, int Field, ValueCode Value, string Reason);
