using System.Globalization;
using System.Text;

namespace Dibujo.Core.Inference;

/// <summary>Keys for things by what they are called. As keyFor in the web, for what is begun here.</summary>
public static class PlainKey
{
    private const int Longest = 40;

    private static readonly (string Letter, string Plain)[] Apart = [("ß", "ss"), ("æ", "ae"), ("œ", "oe"), ("ø", "o"), ("ł", "l"), ("đ", "d"), ("þ", "th"), ("ı", "i")];

    /// <summary>Its words run together, without accents; unlike all that are taken, to which it is added.</summary>
    public static string For(string label, ISet<string> taken)
    {
        var plain = Apart.Aggregate(label.ToLowerInvariant(), (text, letter) => text.Replace(letter.Letter, letter.Plain, StringComparison.Ordinal)).Normalize(NormalizationForm.FormD);
        var joined = new StringBuilder();
        var begins = false;
        foreach (var c in plain.Where(c => CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark))
        {
            if (char.IsAsciiLetterOrDigit(c))
            {
                joined.Append(begins && joined.Length > 0 ? char.ToUpperInvariant(c) : c);
            }

            begins = !char.IsAsciiLetterOrDigit(c);
        }

        var named = joined.Length > 0 && char.IsAsciiLetter(joined[0]) ? joined.ToString() : $"f{joined}";
        var start = named[..Math.Min(Longest, named.Length)];
        var key = start;
        for (var number = 2; !taken.Add(key); number++)
        {
            key = string.Create(CultureInfo.InvariantCulture, $"{start}{number}");
        }

        return key;
    }
}
