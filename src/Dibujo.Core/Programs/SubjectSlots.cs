using Dibujo.Core.Conditions;
using Dibujo.Core.Records;

namespace Dibujo.Core.Programs;

/// <summary>From subjects to the slots that hold them.</summary>
internal static class SubjectSlots
{
    /// <summary>The subject's slot.</summary>
    /// <param name="subject">One that exists.</param>
    /// <param name="ownField">The field whose saved value is looked at in place of its live one; -1 for none.</param>
    /// <param name="fields">The fields by number.</param>
    /// <param name="subjects">For the way over links.</param>
    /// <param name="numberOf">The number of a derived slot.</param>
    internal static int Of(Subject subject, int ownField, FieldIndex fields, SubjectTypes subjects, Func<DerivedSlot, int> numberOf)
    {
        return subject switch
        {
            FieldSubject field => Part(Field(fields[field.Field], field.Saved), field.Part),
            LinkedSubject linked => Linked(linked),
            _ => (2 * fields.Count) + SettingSubject.PlaceOf(subject),
        };

        int Field(int field, bool saved) => saved || field == ownField ? fields.Count + field : field;

        int Part(int whole, string? part) => part is null ? whole : numberOf(new PartSlot(whole, part));

        int Linked(LinkedSubject linked)
        {
            var path = subjects.Path(linked)!.Value;
            var slot = Field(fields[path[0].Key], saved: false);
            for (var i = 1; i < path.Length; i++)
            {
                slot = numberOf(new LinkedSlot(slot, ((LinkType)path[i - 1].Type).RecordType, path[i]));
            }

            return Part(slot, linked.Part);
        }
    }
}
