using System.Collections.Immutable;

namespace Dibujo.Core.Notations;

/// <summary>
/// How one person writes dates and numbers. What is written by it is read back as the same value; what is read may be written in any
/// usual way, and where two readings are possible by it none is taken: see <see cref="Reading"/>.
/// </summary>
/// <param name="Language">Whose months it names, as a tag of BCP 47.</param>
/// <param name="Days">How a day is written.</param>
/// <param name="Clock">How a time of day is written.</param>
/// <param name="Marks">What stands between thousands and before a fraction.</param>
/// <param name="Months">The names of the months, from January on, as a day is written with.</param>
/// <param name="LongMonths">The same in full.</param>
public sealed record Notation(string Language, DayPattern Days, Clock Clock, NumberMarks Marks, ImmutableArray<string> Months, ImmutableArray<string> LongMonths)
{
    /// <summary>That of files that say nothing of how they are written: English, the day before the month.</summary>
    public static readonly Notation Plain = Languages.Of("en-GB");

    /// <summary>
    /// Whether a text is read as this notation has it and in no other way: so a column whose cells were looked at together. Else what another
    /// way alone makes a value of is read by that, and where several do it is asked.
    /// </summary>
    public bool IsDecided { get; init; }

    /// <summary>The same as somebody set it up.</summary>
    /// <param name="language">A tag of BCP 47; null for what the browser asks for.</param>
    /// <param name="day">A pattern of <see cref="DayPattern.All"/>; null for the language's.</param>
    /// <param name="marks">A way of <see cref="NumberMarks.All"/>; null for the language's.</param>
    /// <param name="accepted">The languages that the browser asks for, as in the header Accept-Language.</param>
    public static Notation Of(string? language, string? day = null, string? marks = null, string? accepted = null)
    {
        var known = Languages.Of(language ?? Languages.FirstOf(accepted));
        return known with { Days = DayPattern.Find(day) ?? known.Days, Marks = NumberMarks.Find(marks) ?? known.Marks };
    }
}
