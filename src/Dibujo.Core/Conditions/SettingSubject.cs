using System.Collections.Immutable;

namespace Dibujo.Core.Conditions;

/// <summary>A subject that is no field: something of the setting in which a record is seen.</summary>
/// <param name="Subject">What is looked at.</param>
/// <param name="Kind">What it is called in JSON.</param>
/// <param name="Name">What it is called in sentences.</param>
internal sealed record SettingSubject(Subject Subject, string Kind, string Name)
{
    /// <summary>All of them, most usual first.</summary>
    internal static readonly ImmutableArray<SettingSubject> All =
    [
        new(new StageSubject(), "stage", "Stage"),
        new(new RoleSubject(), "role", "Role"),
        new(new NewSubject(), "new", "New record"),
        new(new MoveSubject(), "move", "Move"),
        new(new WorkflowSubject(), "workflow", "Workflow"),
        new(new PersonSubject(), "person", "Person"),
        new(new FormSubject(), "form", "Form"),
        new(new ChannelSubject(), "channel", "Channel"),
        new(new UseSubject(), "use", "Use"),
        new(new TodaySubject(), "today", "Today"),
        new(new NowSubject(), "now", "Now"),
    ];

    /// <summary>The place of the subject among <see cref="All"/>; -1 for a field.</summary>
    internal static int PlaceOf(Subject subject)
    {
        for (var place = 0; place < All.Length; place++)
        {
            if (All[place].Subject.GetType() == subject.GetType())
            {
                return place;
            }
        }

        return -1;
    }

    /// <summary>The one of that subject; null for a field.</summary>
    internal static SettingSubject? Of(Subject subject) => PlaceOf(subject) is >= 0 and var place ? All[place] : null;

    /// <summary>The one of that kind; null for any other.</summary>
    internal static SettingSubject? OfKind(string kind) => All.FirstOrDefault(one => one.Kind == kind);
}
