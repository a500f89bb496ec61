using System.Globalization;
using System.Text;

namespace Dibujo.Core.Values;

/// <summary>Text that nobody can see: white space, and characters that are drawn as nothing at all.</summary>
public static class BlankText
{
    /// <summary>Whether no character of the text is seen by anyone who reads it.</summary>
    internal static bool IsBlank(string text)
    {
        foreach (var letter in text.AsSpan())
        {
            if (letter is > ' ' and <= '~')
            {
                return false;
            }

            if (!char.IsWhiteSpace(letter))
            {
                return !Array.Exists([.. text.EnumerateRunes()], IsSeen);
            }
        }

        return true;
    }

    /// <summary>The first character of the text that is neither seen nor a plain space, so that two texts may look alike and not be; null for none.</summary>
    public static Rune? Unseen(string text)
    {
        foreach (var rune in text.EnumerateRunes())
        {
            if (rune.Value != ' ' && (rune == Rune.ReplacementChar || !IsSeen(rune)))
            {
                return rune;
            }
        }

        return null;
    }

    private static bool IsSeen(Rune rune) => Rune.GetUnicodeCategory(rune) switch
    {
        UnicodeCategory.Control or UnicodeCategory.Format or UnicodeCategory.SpaceSeparator
            or UnicodeCategory.LineSeparator or UnicodeCategory.ParagraphSeparator or UnicodeCategory.Surrogate => false,
        _ => !IsIgnorable(rune.Value),
    };

    /// <summary>What is drawn as nothing though its category says otherwise (Unicode, Default_Ignorable_Code_Point), and the empty Braille pattern.</summary>
    private static bool IsIgnorable(int code) => code is 0x034F or 0x115F or 0x1160 or 0x17B4 or 0x17B5 or 0x180B or 0x180C or 0x180D or 0x180F
        or 0x2800 or 0x3164 or 0xFFA0 or (>= 0xFE00 and <= 0xFE0F) or (>= 0xE0000 and <= 0xE0FFF);
}
