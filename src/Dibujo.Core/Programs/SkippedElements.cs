using Dibujo.Core.Conditions;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Programs;

/// <summary>What a jump ahead or an early end skips: whatever stands on a form between the last field that the condition looks at and where the jump leads.</summary>
internal static class SkippedElements
{
    /// <summary>For each form on which the effect skips anything, the numbers of what it skips there.</summary>
    internal static IEnumerable<(Door Door, IEnumerable<int> Elements)> Of(Rule rule, Case of, Effect effect, Layout layout, FieldIndex fields) =>
        from door in layout.Doors
        where rule.Where?.Covers(door.Form.Key) ?? true
        let start = Drivers.Of(of.While).Select(key => door.Place(fields[key])).DefaultIfEmpty(-1).Max()
        let end = effect is JumpAhead { To: var to } ? door.Place(layout.Find(to, door)) : door.End
        where start >= 0 && end >= start
        select (door, door.Between(start, end));
}
