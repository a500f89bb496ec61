using System.Collections.Immutable;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Programs;

/// <summary>
/// A definition compiled and linked, for all its forms at once: immutable, to be shared by any number of sessions on any
/// number of threads. The form at hand is part of a session's setting, like the stage.
/// </summary>
/// <remarks>
/// Distinct clauses are stored once; an index leads from what a clause looks at to the clause, from there to the rules
/// that read it and on to the elements they claim, so that a change costs what it reaches and no more.
/// </remarks>
public sealed class RuleProgram
{
    private readonly ProgramTables tables;

    internal RuleProgram(Definition definition, ProgramTables tables) => (Definition, this.tables) = (definition, tables);

    /// <summary>What was compiled, rules with problems included.</summary>
    public Definition Definition { get; }

    /// <summary>How many elements there are on all forms; their numbers run from 0, fields first.</summary>
    public int ElementCount => Layout.ShownCount;

    internal FieldIndex Fields => tables.Fields;

    internal Layout Layout => tables.Layout;

    internal SlotTable Slots => tables.Slots;

    internal ClauseTable Clauses => tables.Clauses;

    internal GroupTable Groups => tables.Groups;

    internal VariantTable Variants => tables.Variants;

    internal ClaimTable Claims => tables.Claims;

    internal EffectTable Effects => tables.Effects;

    internal ValueOrder Order => tables.Order;

    internal ImmutableArray<Case>[] Cases => tables.Cases;

    internal int[] Speaking => tables.Speaking;

    internal AdviceCode[] Advice => tables.Advice;

    internal int[] VariantOfRule => tables.VariantOfRule;

    /// <summary>Whether a record may be other on another day, though nobody changes it: something looks at the date, or begins with it.</summary>
    public bool LooksAtTime => IsUsed(Slots.Of(SettingSlot.Today)) || IsUsed(Slots.Of(SettingSlot.Now)) || Definition.RecordType.Fields.Any(one => one.Default is TodayDefault);

    /// <summary>The element of that number.</summary>
    public Element ElementAt(int number) => Layout[number];

    /// <summary>The form of that key (null: the main form); null for an unknown one.</summary>
    public Form? FindForm(string? form) => FindDoor(form)?.Form;

    /// <summary>
    /// The element's number on that form (null: the main form); -1 for a container that this form does not have. Fields
    /// that do not stand on it have numbers too, and so have the record and the other forms.
    /// </summary>
    public int NumberOf(Element element, string? form = null) => FindDoor(form) is { } door ? Layout.Find(element, door) : -1;

    /// <summary>The numbers of all elements that the form of that key knows; none for an unknown one.</summary>
    public IEnumerable<int> NumbersOn(string form) => FindDoor(form) is not { } door ? [] : Enumerable.Range(0, ElementCount)
        .Where(number => Layout.DoorOf[number] < 0 || Layout.DoorOf[number] == door.Number || Layout[number].Kind == ElementKind.Form);

    /// <summary>Whether the field stands on that form (null: the main form).</summary>
    public bool IsOnForm(string field, string? form) => Fields.Find(field) is >= 0 and var index && FindDoor(form)?.Has(index) == true;

    /// <summary>The elements, on any form, that a jump ahead or an early end in the rule at that place skips; none for a rule without.</summary>
    public IEnumerable<Element> SkippedBy(int rule) =>
        (from of in Cases[rule]
         from effect in of.Effects
         where effect is JumpAhead or EndForm
         from skipped in SkippedElements.Of(Definition.Rules[rule], of, effect, Layout, Fields)
         from element in skipped.Elements
         select Layout[element]).Distinct();

    /// <summary>The form of that key (null: the main form) as a way to the record; null for an unknown one.</summary>
    internal Door? FindDoor(string? form) =>
        form is null ? Layout.Doors[0] : Array.Find(Layout.Doors, door => string.Equals(door.Form.Key, form, StringComparison.Ordinal));

    /// <summary>The same program for rules that say the same under other names.</summary>
    internal RuleProgram For(Definition definition) => new(definition, tables);

    private bool IsUsed(int slot) =>
        Clauses.Dispatches[slot] is not null || Clauses.SinglesOfSlot[slot].Length > 0 || Slots.Following[slot].Length > 0 || Effects.FieldsOfSlot[slot].Length > 0;
}
