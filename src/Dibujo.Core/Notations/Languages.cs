using System.Collections.Immutable;

namespace Dibujo.Core.Notations;

/// <summary>How languages write days and numbers, from the Common Locale Data Repository (Unicode, CLDR 47), as far as Dibujo needs it: the browser's engine has none of its own.</summary>
public static class Languages
{
    private const string English = "Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec";
    private const string InEnglish = "January February March April May June July August September October November December";
    private const string German = "Jan. Feb. März Apr. Mai Juni Juli Aug. Sept. Okt. Nov. Dez.";
    private const string InGerman = "Januar Februar März April Mai Juni Juli August September Oktober November Dezember";
    private const string Spanish = "ene feb mar abr may jun jul ago sept oct nov dic";
    private const string InSpanish = "enero febrero marzo abril mayo junio julio agosto septiembre octubre noviembre diciembre";
    private const string French = "janv. févr. mars avr. mai juin juil. août sept. oct. nov. déc.";
    private const string InFrench = "janvier février mars avril mai juin juillet août septembre octobre novembre décembre";
    private const string Italian = "gen feb mar apr mag giu lug ago set ott nov dic";
    private const string InItalian = "gennaio febbraio marzo aprile maggio giugno luglio agosto settembre ottobre novembre dicembre";
    private const string Portuguese = "jan fev mar abr mai jun jul ago set out nov dez";
    private const string InPortuguese = "janeiro fevereiro março abril maio junho julho agosto setembro outubro novembro dezembro";
    private const string Dutch = "jan feb mrt apr mei jun jul aug sep okt nov dec";
    private const string InDutch = "januari februari maart april mei juni juli augustus september oktober november december";
    private const string Swedish = "jan feb mars apr maj juni juli aug sep okt nov dec";
    private const string InSwedish = "januari februari mars april maj juni juli augusti september oktober november december";
    private const string Danish = "jan. feb. mar. apr. maj jun. jul. aug. sep. okt. nov. dec.";
    private const string InDanish = "januar februar marts april maj juni juli august september oktober november december";
    private const string Polish = "sty lut mar kwi maj cze lip sie wrz paź lis gru";
    private const string InPolish = "stycznia lutego marca kwietnia maja czerwca lipca sierpnia września października listopada grudnia";
    private const string Japanese = "1月 2月 3月 4月 5月 6月 7月 8月 9月 10月 11月 12月";

    private static readonly NumberMarks CommaPoint = new(',', '.');
    private static readonly NumberMarks PointComma = new('.', ',');
    private static readonly NumberMarks NarrowComma = new('\u202F', ',');
    private static readonly NumberMarks SpaceComma = new('\u00A0', ',');
    private static readonly NumberMarks ApostrophePoint = new('’', '.');

    /// <summary>All that are known, the language without a country after those with one.</summary>
    public static readonly ImmutableArray<Notation> All =
    [
        Make("en-GB", "d MMM yyyy", CommaPoint, English, InEnglish),
        Make("en-US", "MMM d, yyyy", CommaPoint, English, InEnglish, Clock.Hours12),
        Make("en-CA", "yyyy-MM-dd", CommaPoint, English, InEnglish, Clock.Hours12),
        Make("en-AU", "d MMM yyyy", CommaPoint, English, InEnglish, Clock.Hours12),
        Make("en-IE", "d MMM yyyy", CommaPoint, English, InEnglish),
        Make("de-DE", "dd.MM.yyyy", PointComma, German, InGerman),
        Make("de-AT", "dd.MM.yyyy", SpaceComma, German, InGerman),
        Make("de-CH", "dd.MM.yyyy", ApostrophePoint, German, InGerman),
        Make("es-ES", "d MMM yyyy", PointComma, Spanish, InSpanish),
        Make("es-MX", "d MMM yyyy", CommaPoint, Spanish, InSpanish),
        Make("fr-FR", "d MMM yyyy", NarrowComma, French, InFrench),
        Make("fr-CH", "d MMM yyyy", NarrowComma, French, InFrench),
        Make("fr-CA", "d MMM yyyy", SpaceComma, French, InFrench),
        Make("it-IT", "d MMM yyyy", PointComma, Italian, InItalian),
        Make("pt-PT", "dd/MM/yyyy", SpaceComma, Portuguese, InPortuguese),
        Make("pt-BR", "dd/MM/yyyy", PointComma, Portuguese, InPortuguese),
        Make("nl-NL", "d MMM yyyy", PointComma, Dutch, InDutch),
        Make("sv-SE", "d MMM yyyy", SpaceComma, Swedish, InSwedish),
        Make("da-DK", "d. MMM yyyy", PointComma, Danish, InDanish),
        Make("pl-PL", "d MMM yyyy", SpaceComma, Polish, InPolish),
        Make("ja-JP", "yyyy/MM/dd", CommaPoint, Japanese, Japanese),
    ];

    /// <summary>How a language writes: the one of that tag, else the first of that language, else British English.</summary>
    public static Notation Of(string? tag) =>
        All.FirstOrDefault(known => string.Equals(known.Language, tag, StringComparison.OrdinalIgnoreCase))
        ?? All.FirstOrDefault(known => string.Equals(Primary(known.Language), Primary(tag ?? ""), StringComparison.OrdinalIgnoreCase))
        ?? All[0];

    /// <summary>The first language of a list such as "de-CH, de;q=0.9, en;q=0.8" of which something is known here; null for none.</summary>
    public static string? FirstOf(string? accepted) => accepted?.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
        .Select(one => one.Split(';')[0].Trim())
        .FirstOrDefault(tag => All.Any(known => string.Equals(Primary(known.Language), Primary(tag), StringComparison.OrdinalIgnoreCase)));

    private static string Primary(string tag) => tag.Split('-')[0];

    private static Notation Make(string tag, string day, NumberMarks marks, string months, string inFull, Clock clock = Clock.Hours24) =>
        new(tag, DayPattern.Find(day)!, clock, marks, [.. months.Split(' ')], [.. inFull.Split(' ')]);
}
