using Dibujo.Core.Notations;
using Dibujo.Core.Packs;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;
using Dibujo.Core.Speech;

namespace Dibujo.Core.Tests.Speech;

/// <summary>Rules as people say them, each with the one sentence that it means.</summary>
public class HearingTests
{
    private static readonly Pack Loans = PackFile.Read(File.ReadAllBytes(Checkout.Path("src", "Dibujo.Server", "Demo", "object-loan.pack.json"))).Pack!;

    [Theory]
    [InlineData("if crate needed, crate length is required", "While Crate needed is yes, require Crate length to move on.")]
    [InlineData("when a crate is needed show crate length", "While Crate needed is yes, show Crate length; otherwise hide Crate length.")]
    [InlineData("show light limit only for paper and textiles", "While Material is one of Work on paper or Textile, show Light limit; otherwise hide Light limit.")]
    [InlineData("flight number is mandatory when the mode is air", "While Mode is Air, require Flight number to move on.")]
    [InlineData("hide the customs section unless mode is air or sea", "While Mode is none of Air or Sea, hide section Customs.")]
    [InlineData("lock the insurance tab from Approval on except for the director", "While Stage is from Approval on and Role is not Director, lock tab Insurance.")]
    [InlineData("only directors may change the fee after approval", "While Role is not Director and Stage is after Approval, lock Fee.")]
    [InlineData("second valuation must be filled in if insured value is over 50,000", "While Insured value is more than EUR 50,000, require Second valuation to move on.")]
    [InlineData("if the insured value is at least €50k, require second valuation and valuer", "While Insured value is at least EUR 50,000, require Second valuation and Valuer to move on.")]
    [InlineData("fee can't be changed once In transit", "While Stage is from In transit on, lock Fee.")]
    [InlineData("fee is read-only as long as the fee is waived", "While Fee waived is yes, lock Fee.")]
    [InlineData("reset and lock fee when fee waived", "While Fee waived is yes, set Fee to its default and lock Fee.")]
    [InlineData("refusal reason is needed before saving if decision is refused", "While Decision is Refused, require Refusal reason to save.")]
    [InlineData("waiver reason appears when the fee is waived; otherwise hide it and clear it", "While Fee waived is yes, show Waiver reason; otherwise hide Waiver reason and clear.")]
    [InlineData("damage notes are not relevant unless damage was found", "While Damage found is not yes, hide Damage notes.")]
    [InlineData("if no damage found, hide damage notes and clear", "While Damage found is no, hide Damage notes and clear.")]
    [InlineData("require courier name for Dispatch saying \"Who travels?\" if courier needed", "While Courier needed is yes, require Courier name for Dispatch saying “Who travels?”.")]
    [InlineData("show form condition on departure only from insured value 50000 up", "While Insured value is at least EUR 50,000, show form Condition on departure; otherwise hide form Condition on departure.")]
    [InlineData("hide the return section until On display", "While Stage is before On display, hide section Return.")]
    [InlineData("insurance is locked during Assessment", "While Stage is Assessment, lock tab Insurance.")]
    [InlineData("lock everything once returned unless registrar or director", "While Stage is from Returned on and Role is none of Registrar or Director, lock the record.")]
    [InlineData("if end date is before start date stop saving with \"It ends before it begins.\" at end date", "While End date is before the value of Start date, stop saving with “It ends before it begins.” at End date.")]
    [InlineData("warn \"Please check\" if last conservation is more than 15 years ago", "While Last conservation is before today minus 15 years, warn with “Please check”.")]
    [InlineData("if start date is within 30 days and stage is before approval, warn with \"Soon.\"", "While Start date is between today and today plus 30 days and Stage is before Approval, warn with “Soon.”.")]
    [InlineData("require hazard notes when handling hazards present is ticked", "While Handling hazards present is yes, require Hazard notes to move on.")]
    [InlineData("require hazrd notes when hazards are present", "While Handling hazards present is yes, require Hazard notes to move on.")]
    [InlineData("borrower contact must be complete to move on from Terms on", "While Stage is from Terms on, require Borrower contact to move on.")]
    [InlineData("certificate number is optional unless insured by is us", "While Insured by is not Us, make optional Certificate number.")]
    [InlineData("if mode = air then flight number is required to save", "While Mode is Air, require Flight number to save.")]
    [InlineData("if insured value >= 100,000 suggest courier needed = yes because \"It is cheaper.\"", "While Insured value is at least EUR 100,000, suggest setting Courier needed to yes because “It is cheaper.”.")]
    [InlineData("purpose described disappears unless purpose is something else", "While Purpose is not Something else, hide Purpose described.")]
    [InlineData("on new records lock requested by", "While New record is yes, lock Requested by.")]
    [InlineData("when material is missing, hide light limit", "While Material is blank, hide Light limit.")]
    [InlineData("if crate length and crate width are filled in, require gross weight", "While Crate length is filled in and Crate width is filled in, require Gross weight to move on.")]
    [InlineData("if the mode is by hand, jump to tab closing", "While Mode is Carried by hand, jump ahead to tab Closing.")]
    [InlineData("if kinds of hazard includes none of mould and sharp edges, hide hazard notes", "While Kinds of hazard includes none of Mould or Sharp edges, hide Hazard notes.")]
    [InlineData("if kinds of hazard includes mould and sharp edges, lock fee", "While Kinds of hazard includes all of Mould & Sharp edges, lock Fee.")]
    [InlineData("end the form with \"We do not lend this.\" if material is textile", "While Material is Textile, end the form with “We do not lend this.”.")]
    [InlineData("set fee to 0 when fee waived is yes", "While Fee waived is yes, set Fee to EUR 0.")]
    [InlineData("if the insured value is over 50,000 and under 100,000, require valuer", "While Insured value is more than EUR 50,000 and Insured value is less than EUR 100,000, require Valuer to move on.")]
    [InlineData("crate length, width and height are mandatory when a crate is needed", "While Crate needed is yes, require Crate length, Crate width and Crate height to move on.")]
    [InlineData("For new records, title and borrower are required to save", "While New record is yes, require Title and Borrower to save.")]
    [InlineData("Textile needs a light limit", "While Material is Textile, require Light limit to move on.")]
    [InlineData("extension reason is only relevant if an extension is asked for", "While Extension asked for is yes, show Extension reason; otherwise hide Extension reason.")]
    [InlineData("if sensitivity is high require light limit", "While Object › Sensitivity is High, require Light limit to move on.")]
    [InlineData("glazing is required from Assessment until Approval", "While Stage is from Assessment on and Stage is before Approval, require Glazing to move on.")]
    [InlineData("require country of the borrower address when borrower type is company", "While Borrower type is Company, require Borrower address › Country to move on.")]
    [InlineData("clear flight number when mode changes", "While Mode has changed, empty Flight number.")]
    [InlineData("nobody but the conservator can edit conservator's remarks", "While Role is not Conservator, lock Conservator's remarks.")]
    [InlineData("on quick enquiry, hide material", "Only on Quick enquiry: always hide Material.")]
    [InlineData("valuation date must not be empty unless insured value is unknown", "While Insured value is filled in, require Valuation date to move on.")]
    [InlineData("if certificate number starts with QM, lock insured by", "While Certificate number starts with “QM”, lock Insured by.")]
    [InlineData("require fee for Dispatch if mode is air saying \"Air freight costs.\"", "While Mode is Air, require Fee for Dispatch saying “Air freight costs.”.")]
    [InlineData("if mode is air, show flight number; else if mode is sea, show port of entry; otherwise hide them", "While Mode is Air, show Flight number; else while Mode is Sea, show Port of entry; otherwise hide Flight number and Port of entry.")]
    public void What_people_say_is_heard_as_what_they_mean(string said, string meant)
    {
        var heard = Hear(said);

        Assert.Null(heard.Misunderstanding?.Message);
        Assert.Null(heard.Question);
        Assert.Equal(meant, heard.Sentence);
    }

    [Theory]
    [InlineData("require hazrd notes if mode is air", "hazrd notes", "Hazard notes")]
    [InlineData("require valuer if sensitivity is high", "sensitivity", "Object › Sensitivity")]
    [InlineData("show valuer when certificate number is entered", "show valuer when certificate number is entered", "only while, since otherwise it is so at rest")]
    [InlineData("require valuer for textiles", "textiles", "Material")]
    public void What_was_guessed_is_marked(string said, string words, string meant)
    {
        var guess = Hear(said).Guesses.First(one => one.Meant == meant);

        Assert.Equal(words, said[guess.Start..guess.End]);
    }

    [Theory]
    [InlineData("require family name when borrower is known", "family name", "Borrower contact › Family name", "Courier name › Family name")]
    [InlineData("require valuer if mode is air or courier needed and stage is terms", "mode is air or courier needed and stage is terms", "(mode is air) or (courier needed and stage is terms)", "(mode is air or courier needed) and (stage is terms)")]
    public void What_could_mean_several_things_is_asked(string said, string words, params string[] options)
    {
        var heard = Hear(said);

        Assert.Null(heard.Rule);
        Assert.Equal(words, heard.Question!.Said);
        Assert.Equal(options, heard.Question.Options.Select(option => option.Text));
        Assert.All(options, option => Assert.NotNull(Hear(said.Replace(words, option, StringComparison.Ordinal)).Rule));
    }

    [Theory]
    [InlineData("add glazing to rule 3", "light", "require Light limit and Glazing to move on")]
    [InlineData("also add glazing and material to the light limit", "light", "require Light limit, Glazing and Material to move on")]
    public void What_is_added_to_a_rule_comes_back_as_that_rule(string said, string key, string words)
    {
        var heard = Hear(said);

        Assert.Equal(key, heard.Rule!.Key);
        Assert.Contains(words, heard.Sentence, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("treat glazing like light limit", "glazing", "lightLimit", 2)]
    [InlineData("Glazing should behave like the light limit.", "glazing", "lightLimit", 2)]
    [InlineData("the port of entry works the same as the flight number", "portOfEntry", "flightNumber", 1)]
    public void What_is_to_be_like_another_joins_it_in_the_rules_that_act_on_it(string said, string added, string like, int rules)
    {
        var heard = Hear(said);
        var all = rules == 1 ? [heard.Rule!] : heard.Question!.Options.Select(option => Hear(option.Text).Rule!).ToList();

        Assert.Equal(rules, all.Select(rule => rule.Key).Distinct().Count());
        var effects = all.SelectMany(rule => rule.Cases).SelectMany(of => of.Effects).OfType<StateEffect>().Where(effect => effect.Targets.Contains(Core.Forms.Element.Field(like))).ToList();
        Assert.NotEmpty(effects);
        Assert.All(effects, effect => Assert.Contains(Core.Forms.Element.Field(added), effect.Targets));
    }

    [Fact]
    public void Where_several_rules_could_be_meant_it_is_asked_which()
    {
        var question = Hear("add glazing to condition").Question!;

        Assert.Equal("condition", question.Said);
        Assert.Equal(["rule 46", "rule 47"], question.Options.Select(option => option.Text));
    }

    [Theory]
    [InlineData("if colour is red, require fee", 3, "“colour” is not understood here")]
    [InlineData("if fee is hidden, show valuer", 10, "cannot look at whether something is hidden")]
    [InlineData("require valuer if mode is", 25, "Go on with")]
    public void What_cannot_be_said_is_refused_where_it_stands(string said, int place, string message)
    {
        var heard = Hear(said);

        Assert.Null(heard.Rule);
        Assert.Equal(place, heard.Misunderstanding!.Place);
        Assert.Contains(message, heard.Misunderstanding.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void Every_rule_of_the_demo_is_heard_as_it_stands() => Assert.All(Loans.Rules, rule =>
    {
        var sentence = Sentence.Plain(Sentence.Of(rule, Loans.RecordType));
        var heard = Hear(sentence);

        Assert.Equal(sentence, heard.Sentence);
        Assert.Empty(heard.Guesses);
    });

    [Theory]
    [InlineData("show crate len", "Crate length")]
    [InlineData("flight number is mandatory if mo", "Mode")]
    [InlineData("if mode is a", "Air")]
    [InlineData("lock fee once In tr", "In transit")]
    public void The_word_half_typed_is_completed(string half, string offer) =>
        Assert.Contains(offer, Hear(half).Offers.Select(one => one.Text));

    [Fact]
    public void A_rule_that_nobody_named_is_called_by_what_it_does() =>
        Assert.Equal("Require Second valuation by Insured value", Hear("second valuation is required if insured value is over 50,000").Rule!.Name);

    private static Hearing Hear(string said) => Hearing.Of(said, Loans.RecordType, Loans.Rules, new Rule("r", ""));

    [Theory]
    [InlineData("de-DE", "1.3.2027", "before 1 Mar 2027")]
    [InlineData("en-US", "3/1/2027", "before 1 Mar 2027")]
    [InlineData("en-GB", "1/3/2027", "before 1 Mar 2027")]
    [InlineData("en-US", "March 1st, 2027", "before 1 Mar 2027")]
    [InlineData("ja-JP", "2027/3/1", "before 1 Mar 2027")]
    public void A_day_is_heard_as_whoever_says_it_writes(string language, string day, string meant)
    {
        var heard = Heard($"hide fee if start date is before {day}", language);

        Assert.Equal($"While Start date is {meant}, hide Fee.", heard.Sentence);
    }

    [Theory]
    [InlineData("de-DE", "1.250,50", "EUR 1,250.5")]
    [InlineData("de-DE", "300.000", "EUR 300,000")]
    [InlineData("en-US", "1.250,50", "EUR 1,250.5")]
    [InlineData("fr-CH", "1’250.50", "EUR 1,250.5")]
    [InlineData("de-DE", "1,5k", "EUR 1,500")]
    public void An_amount_is_heard_as_whoever_says_it_writes(string language, string amount, string meant)
    {
        var heard = Heard($"hide fee if insured value is more than {amount}", language);

        Assert.Equal($"While Insured value is more than {meant}, hide Fee.", heard.Sentence);
    }

    [Fact]
    public void A_day_that_may_be_two_is_asked_for()
    {
        var heard = Heard("hide fee if start date is before 1/3/2031", "ja-JP");

        Assert.Null(heard.Rule);
        Assert.Equal(["2031-03-01", "2031-01-03"], heard.Question!.Options.Select(option => option.Text));
    }

    private static Hearing Heard(string said, string language) => Hearing.Of(said, Loans.RecordType, Loans.Rules, new Rule("", ""), Notation.Of(language));
}
