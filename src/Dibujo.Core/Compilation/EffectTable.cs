using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Compilation;

/// <summary>What a claim on a field's value does.</summary>
/// <param name="IsHeld">Whether the value is held for as long as the case is in force; else it is given when the case comes into force.</param>
/// <param name="Slot">Where the value is found; -1 for a fixed one.</param>
/// <param name="Fixed">The value, where it is fixed.</param>
internal readonly record struct ValueCode(bool IsHeld, int Slot, Value Fixed);

/// <summary>What a claim on requirement asks for.</summary>
internal sealed record RequirementCode(Requirement Level, ImmutableArray<string> Moves, string? Message);

/// <summary>What the claims of a program say, beyond what fits into an integer.</summary>
internal sealed class EffectTable(SlotTable slots, FieldIndex fields)
{
    private readonly List<ValueCode> values = [];
    private readonly List<RequirementCode> requirements = [];
    private readonly List<ImmutableArray<string>> choices = [];
    private readonly HashSet<(int Slot, int Field)> read = [];

    internal ValueCode[] Values { get; private set; } = [];

    internal RequirementCode[] Requirements { get; private set; } = [];

    internal ImmutableArray<string>[] Choices { get; private set; } = [];

    /// <summary>Whether some value is given at the moment when a case comes into force, so that it matters what was in force before.</summary>
    internal bool HasSets { get; private set; }

    /// <summary>For each field, whether some case may give it a value that can be edited after.</summary>
    internal bool[] IsGiven { get; } = new bool[fields.Count];

    /// <summary>For each slot, the fields to whose values it leads.</summary>
    internal int[][] FieldsOfSlot { get; private set; } = [];

    /// <summary>The fields that the values given to each field follow from.</summary>
    internal HashSet<int>[] Sources { get; } = [.. Enumerable.Range(0, fields.Count).Select(_ => new HashSet<int>())];

    /// <summary>What a claim by that effect says; a value effect finds its value as seen from the field itself.</summary>
    internal int Says(Effect effect) => effect switch
    {
        Show => (int)HidingCode.Shown,
        Hide { Value: HiddenValue.Clear } => (int)HidingCode.HiddenAndCleared,
        Hide { Value: HiddenValue.Reset } => (int)HidingCode.HiddenAndReset,
        Hide or JumpAhead or EndForm => (int)HidingCode.Hidden,
        Unlock => (int)Access.Open,
        Lock => (int)Access.Locked,
        Require require => Add(requirements, new(require.Level, require.Moves, require.Message)),
        MakeOptional => Add(requirements, new(Requirement.Optional, [], null)),
        SetValue set => AddValue(set.Field, set.To, isHeld: false),
        ClearValue clear => AddValue(clear.Field, new Literal(Value.Blank), isHeld: false),
        Calculate calculate => AddValue(calculate.Field, calculate.From, isHeld: true),
        Narrow narrow => Add(choices, narrow.Options),
        _ => throw new ArgumentOutOfRangeException(nameof(effect)),
    };

    /// <summary>Where a value for the field is found, seen from the field itself: its own value is the saved one.</summary>
    internal ValueCode ValueOf(int field, Comparand from, bool isHeld = false) => from is Literal literal
        ? new(isHeld, -1, fields.Type(field).FitGiven(literal.Value))
        : new(isHeld, slots.Of(from, fields.Type(field), field), Value.Blank);

    internal void Freeze()
    {
        Values = [.. values];
        Requirements = [.. requirements];
        Choices = [.. choices];
        var of = new List<int>[slots.Count];
        for (var i = 0; i < of.Length; i++)
        {
            of[i] = [];
        }

        foreach (var (slot, field) in read)
        {
            of[slot].Add(field);
        }

        FieldsOfSlot = [.. of.Select(f => f.ToArray())];
    }

    private int AddValue(string key, Comparand from, bool isHeld)
    {
        var field = fields[key];
        HasSets |= !isHeld;
        IsGiven[field] |= !isHeld;
        var code = ValueOf(field, from, isHeld);
        if (code.Slot >= 0)
        {
            read.Add((code.Slot, field));
            Sources[field].UnionWith(slots.FieldsOf(code.Slot));
        }

        return Add(values, code);
    }

    private static int Add<T>(List<T> list, T item)
    {
        list.Add(item);
        return list.Count - 1;
    }
}
