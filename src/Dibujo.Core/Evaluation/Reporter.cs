using Dibujo.Core.Forms;
using Dibujo.Core.Programs;
using Dibujo.Core.Values;

namespace Dibujo.Core.Evaluation;

/// <summary>Remembers what was last told of a session, and tells what has changed since.</summary>
internal sealed class Reporter
{
    private readonly Session session;
    private readonly Layout layout;
    private readonly Delta delta = new();
    private readonly ElementState[] told;
    private readonly Value[] toldValues;
    private readonly int[] toldCases;
    private readonly int[] visibleFields;
    private readonly bool[] isTouched;
    private readonly List<int> touched = [];
    private readonly List<int> touchedRules = [];
    private bool hasBegun;

    internal Reporter(Session session)
    {
        this.session = session;
        layout = session.Program.Layout;
        told = new ElementState[layout.ShownCount];
        toldValues = new Value[layout.FieldCount];
        toldCases = new int[session.Program.VariantOfRule.Length];
        visibleFields = new int[layout.ShownCount];
        isTouched = new bool[layout.ShownCount];
    }

    /// <summary>The state as last told; the first time, or after <see cref="Forget"/>, as it is now.</summary>
    internal ElementState StateOf(int element)
    {
        Begin();
        return told[element];
    }

    /// <summary>Makes the next question look at everything anew.</summary>
    internal void Forget() => hasBegun = false;

    /// <summary>Notes that the state of an element, or the value of a field, may be another now.</summary>
    internal void Touch(int element)
    {
        if (element < isTouched.Length && !isTouched[element])
        {
            isTouched[element] = true;
            touched.Add(element);
        }
    }

    internal void TouchRule(VariantCode variant)
    {
        if (variant.OwnField < 0)
        {
            touchedRules.Add(variant.Rule);
        }
    }

    /// <summary>Notes that anything may be another now.</summary>
    internal void TouchEverything()
    {
        for (var element = 0; element < told.Length; element++)
        {
            Touch(element);
        }

        touchedRules.Clear();
        touchedRules.AddRange(Enumerable.Range(0, toldCases.Length));
    }

    /// <summary>Tells everything: the form at hand is another.</summary>
    internal Delta ReportAnew()
    {
        hasBegun = false;
        Begin();
        delta.Clear();
        for (var element = 0; element < told.Length; element++)
        {
            delta.AddElement(element);
        }

        for (var field = 0; field < toldValues.Length; field++)
        {
            delta.AddValue(field);
        }

        for (var rule = 0; rule < toldCases.Length; rule++)
        {
            delta.AddRule(rule);
        }

        return delta;
    }

    /// <summary>Takes everything as it is now for told, unless that was done before. To be called before anything is changed.</summary>
    internal void Begin()
    {
        if (hasBegun)
        {
            return;
        }

        hasBegun = true;
        Array.Clear(visibleFields);
        Array.Clear(told);
        for (var element = 0; element < told.Length; element++)
        {
            Touch(element);
        }

        Report();
        for (var rule = 0; rule < toldCases.Length; rule++)
        {
            toldCases[rule] = session.CaseInForce(rule);
        }
    }

    internal Delta Report()
    {
        delta.Clear();
        // Containers come after fields, since a container is seen as long as a field in it is.
        for (var i = 0; i < touched.Count; i++)
        {
            if (touched[i] < layout.FieldCount)
            {
                ReportField(touched[i]);
            }
        }

        for (var i = 0; i < touched.Count; i++)
        {
            if (layout.IsPart(touched[i]))
            {
                ReportState(touched[i], Part(touched[i]));
            }
            else if (touched[i] >= layout.FieldCount)
            {
                ReportState(touched[i], Container(touched[i]));
            }
        }

        foreach (var element in touched)
        {
            isTouched[element] = false;
        }

        touched.Clear();
        foreach (var rule in touchedRules)
        {
            if (toldCases[rule] != session.CaseInForce(rule))
            {
                toldCases[rule] = session.CaseInForce(rule);
                delta.AddRule(rule);
            }
        }

        touchedRules.Clear();
        return delta;
    }

    private void ReportField(int field)
    {
        if (!session.ValueOf(field).Equals(toldValues[field]))
        {
            toldValues[field] = session.ValueOf(field);
            delta.AddValue(field);
        }

        var wasVisible = told[field].IsVisible;
        var now = Field(field);
        ReportState(field, now);
        if (wasVisible != now.IsVisible)
        {
            // Only a field that stands on the form at hand is ever visible.
            for (var c = session.Door.SectionOf[field]; c >= 0; c = session.Door.Parents[c])
            {
                visibleFields[c] += now.IsVisible ? 1 : -1;
                Touch(c);
            }
        }
    }

    private void ReportState(int element, ElementState now)
    {
        if (told[element] != now)
        {
            told[element] = now;
            delta.AddElement(element);
        }
    }

    private ElementState Field(int field) => Asked(field, session.Door.Has(field) && !session.Hiding(field).Hidden, session.IsSetAside(field));

    private ElementState Part(int part) => Asked(part, session.Door.Has(layout.FieldOf(part)) && !session.Hiding(part).Hidden, false);

    private ElementState Asked(int element, bool visible, bool setAside)
    {
        var access = session.AccessTo(element);
        // What a rule holds in a field, nobody can type into its parts.
        access = layout.IsPart(element) && session.ValueClaim(layout.FieldOf(element)) is { IsHeld: true } ? Access.Locked : access;
        var (level, moves, _) = session.RequirementOn(element);
        var suspended = level != Requirement.Optional && (!visible || (level == Requirement.ToSave && access == Access.Locked));
        return new(visible, access, level, suspended, setAside, !moves.IsEmpty);
    }

    private ElementState Container(int element)
    {
        if (layout.DoorOf[element] is >= 0 and var door && door != session.Door.Number && element != layout.Doors[door].Element)
        {
            return default;
        }

        var visible = !session.Hiding(element).Hidden || visibleFields[element] > 0;
        var (level, moves, _) = session.RequirementOn(element);
        return new(visible, session.AccessTo(element), level, !visible && level != Requirement.Optional, false, !moves.IsEmpty);
    }
}
