using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Checking;

/// <summary>Whether jumping ahead and ending the form skip anything: that begins after a field at which the condition looks.</summary>
internal sealed class SkipCheck(RecordType type, ProblemList problems)
{
    internal void Check(string place, Case @case)
    {
        var drivers = Drivers.Of(@case.While).ToHashSet(StringComparer.Ordinal);
        foreach (var (i, effect) in @case.Effects.Index().Where(e => e.Item is JumpAhead or EndForm))
        {
            if (!type.Forms.Any(form => form.Fields().Any(drivers.Contains)))
            {
                problems.Add($"{place}/{i}",
                    "The condition looks at no field that stands on a form, so it is not said after which field the rest is skipped.",
                    "Let the condition look at the field whose answer decides.");
            }
            else if (effect is JumpAhead { To: var to } && type.Forms.All(form => !IsAhead(form, drivers, to)))
            {
                problems.Add($"{place}/{i}/to", "This stands before the field that decides, on every form where both stand.", "Choose something that comes later.");
            }
        }
    }

    private static bool IsAhead(Form form, HashSet<string> drivers, Element to)
    {
        var order = form.Tabs.SelectMany(tab => tab.Sections
            .SelectMany(section => section.Fields.Select(Element.Field).Prepend(Element.Section(section.Key)))
            .Prepend(Element.Tab(tab.Key))).ToList();
        var last = order.FindLastIndex(element => element.Kind == ElementKind.Field && drivers.Contains(element.Key));
        return last >= 0 && order.IndexOf(to) > last;
    }
}
