using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;

namespace Dibujo.Core.Csv;

/// <summary>Separated values as offices have them (RFC 4180): in whichever encoding their programs write, with commas, semicolons, tabs or bars between.</summary>
public static class SeparatedText
{
    /// <summary>The longest cell.</summary>
    private const int LongestCell = 200_000;

    private static readonly char[] Separators = [',', ';', '\t', '|'];

    private static readonly UTF8Encoding StrictUtf8 = new(encoderShouldEmitUTF8Identifier: false, throwOnInvalidBytes: true);

    /// <summary>The text of a file, and in which encoding it was taken to be; that it is no UTF-8 and says nothing of what else it is, is a guess. Null for a file that is no text.</summary>
    public static DecodedText? Decode(ReadOnlySpan<byte> file)
    {
        if (file is [0xFF, 0xFE, ..] or [0xFE, 0xFF, ..])
        {
            return new((file[0] == 0xFF ? Encoding.Unicode : Encoding.BigEndianUnicode).GetString(file[2..]), "UTF-16", IsGuessed: false);
        }

        if (file.Length >= 4 && file.Length % 2 == 0 && ZerosAt(file, 1) * 4 > file.Length && ZerosAt(file, 0) == 0)
        {
            return new(Encoding.Unicode.GetString(file), "UTF-16", IsGuessed: true);
        }

        if (file.Contains((byte)0))
        {
            return null;
        }

        try
        {
            return new(StrictUtf8.GetString(file).TrimStart('\uFEFF'), "UTF-8", IsGuessed: false);
        }
        catch (DecoderFallbackException)
        {
            return new(CodePagesEncodingProvider.Instance.GetEncoding(1252)!.GetString(file), "Windows-1252", IsGuessed: true);
        }
    }

    /// <summary>The rows, each with the line on which it ends; what stands between cells is told by the first row.</summary>
    /// <exception cref="CsvHelperException">Where quotation marks do not end, or a cell is too long.</exception>
    public static IEnumerable<(int Line, string[] Cells)> Rows(string text)
    {
        using var csv = new CsvParser(new StringReader(text), new CsvConfiguration(CultureInfo.InvariantCulture)
        {
            Delimiter = SeparatorOf(text).ToString(),
            MissingFieldFound = null,
            DetectColumnCountChanges = false,
            MaxFieldSize = LongestCell,
            // A quotation mark in the middle of a cell is one: people paste what they have.
            Mode = text.Contains('"', StringComparison.Ordinal) ? CsvMode.RFC4180 : CsvMode.NoEscape,
        });
        while (csv.Read())
        {
            yield return (csv.RawRow, csv.Record!);
        }
    }

    /// <summary>What stands most often in the first row that says anything, outside of quotation marks; a comma where nothing does.</summary>
    private static char SeparatorOf(string text)
    {
        Span<int> counts = stackalloc int[Separators.Length];
        var (isQuoted, hasAny) = (false, false);
        foreach (var c in text)
        {
            if (c == '"')
            {
                isQuoted = !isQuoted;
            }
            else if (c is '\n' or '\r' && !isQuoted && hasAny)
            {
                break;
            }
            else if (!isQuoted && Array.IndexOf(Separators, c) is >= 0 and var at)
            {
                counts[at]++;
            }

            hasAny |= !char.IsWhiteSpace(c);
        }

        var most = 0;
        for (var i = 1; i < counts.Length; i++)
        {
            most = counts[i] > counts[most] ? i : most;
        }

        return Separators[most];
    }

    private static int ZerosAt(ReadOnlySpan<byte> file, int parity)
    {
        var count = 0;
        for (var i = parity; i < file.Length; i += 2)
        {
            count += file[i] == 0 ? 1 : 0;
        }

        return count;
    }
}

/// <summary>A file as text.</summary>
/// <param name="Text">Without a byte-order mark.</param>
/// <param name="Encoding">Name of the encoding.</param>
/// <param name="IsGuessed">Whether the file does not say so itself.</param>
public sealed record DecodedText(string Text, string Encoding, bool IsGuessed);
