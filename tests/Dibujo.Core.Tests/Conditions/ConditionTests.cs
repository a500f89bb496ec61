using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Conditions;

/// <summary>What every kind of subject and test says of one loan at terms.</summary>
public class ConditionTests
{
    private static readonly RecordValues Lantern = LoanFile.Saved(
        ("title", "Silver Lantern for Vell"), ("borrower", "Oststrand Gallery"), ("borrowerType", "museum"),
        ("borrowerContact", "given=Mara"), ("borrowerAddress", "street=Kai 3, city=Vell"),
        ("startDate", "2026-12-10"), ("endDate", "2027-03-01"), ("requestedBy", "ina"), ("object", 7),
        ("hazardKinds", new[] { "mould", "sharp" }), ("lastConservation", "2011-11-23"), ("glazing", true),
        ("insuredValue", 75_000), ("fee", 3000), ("crateLength", 120.5m), ("crateWidth", 80), ("arrival", "2026-12-09T14:00"));

    [Theory]
    // Text, without case and surrounding space
    [InlineData("Borrower is “ oststrand GALLERY ”", true)]
    [InlineData("Title contains “lantern”", true)]
    [InlineData("Title starts with “Lantern”", false)]
    [InlineData("Title does not start with “Lantern”", true)]
    [InlineData("Valuer contains “x”", false)]
    [InlineData("Title is one of “A” or “silver lantern for vell”", true)]
    [InlineData("Title is none of “A” or “silver lantern for vell”", false)]
    // Numbers and money
    [InlineData("Insured value is at least EUR 75,000", true)]
    [InlineData("Insured value is more than EUR 75,000", false)]
    [InlineData("Insured value is less than EUR 75,000.01", true)]
    [InlineData("Crate length is between 120.5 cm and 121 cm", true)]
    [InlineData("Crate length is not between 120.5 cm and 121 cm", false)]
    [InlineData("Crate height is not between 1 cm and 2 cm", true)]
    [InlineData("Gross weight is at most 3 kg", false)]
    // Days and moments
    [InlineData("Start date is before 11 Dec 2026", true)]
    [InlineData("Start date is from 10 Dec 2026 on", true)]
    [InlineData("Start date is after 10 Dec 2026", false)]
    [InlineData("End date is between 1 Mar 2027 and 2 Mar 2027", true)]
    [InlineData("Start date is after the value of End date", false)]
    [InlineData("Last conservation is before today minus 15 years", true)]
    [InlineData("Last conservation is before today minus 16 years", false)]
    [InlineData("Start date is on or before today plus 16 days", true)]
    [InlineData("Start date is between today and today plus 1 month", true)]
    [InlineData("Arrival planned is before 10 Dec 2026 00:00", true)]
    [InlineData("Arrival planned is after the value of Now", true)]
    [InlineData("Today is 24 Nov 2026", true)]
    // A day beside a moment counts as its whole day
    [InlineData("Arrival planned is between 1 Dec 2026 09:00 and today plus 15 days", true)]
    [InlineData("Arrival planned is between today plus 15 days and 9 Dec 2026 13:59", false)]
    [InlineData("Arrival planned is not between 1 Dec 2026 09:00 and today plus 15 days", false)]
    [InlineData("Arrival planned is not between 1 Dec 2026 09:00 and today plus 14 days", true)]
    [InlineData("Arrival planned is on or before {today() + duration(\"P15D\")}", true)]
    [InlineData("Today is the value of Now", true)]
    [InlineData("Today is before the value of Now", false)]
    [InlineData("Now is after the value of Today", false)]
    [InlineData("Start date is after the value of Arrival planned", true)]
    // Choices, one and several
    [InlineData("Borrower type is Museum", true)]
    [InlineData("Borrower type is one of University or Company", false)]
    [InlineData("Kinds of hazard includes any of Toxic pigment or Mould", true)]
    [InlineData("Kinds of hazard includes all of Mould & Sharp edges", true)]
    [InlineData("Kinds of hazard includes all of Mould & Toxic pigment", false)]
    [InlineData("Kinds of hazard includes none of Toxic pigment or Loose parts", true)]
    [InlineData("Glazing is yes", true)]
    [InlineData("Crate needed is not yes", true)]
    [InlineData("Crate needed is no", false)]
    // Values of several parts
    [InlineData("Borrower contact is filled in", true)]
    [InlineData("Borrower contact is complete", false)]
    [InlineData("Borrower address is complete", true)]
    [InlineData("Borrower contact › Given name is “mara”", true)]
    [InlineData("Borrower contact › Family name is blank", true)]
    // Over a link
    [InlineData("Object › Title is “Tide table”", true)]
    [InlineData("Object › Material is Work on paper", true)]
    [InlineData("Object › Insured value is more than the value of Insured value", true)]
    [InlineData("Object › Location is blank", true)]
    // Persons, the setting and what was saved
    [InlineData("Requested by is the value of Person", true)]
    [InlineData("Conservator is the value of Person", false)]
    [InlineData("Role is Registrar", true)]
    [InlineData("Role is none of Director or Conservator", true)]
    [InlineData("Stage is Terms", true)]
    [InlineData("Stage is one of Enquiry or Terms", true)]
    [InlineData("Stage is before Terms", false)]
    [InlineData("Stage is after Assessment", true)]
    [InlineData("Stage is from Terms on", true)]
    [InlineData("Workflow is Short", false)]
    [InlineData("Move is Dispatch", false)]
    [InlineData("Move is blank", true)]
    [InlineData("New record is no", true)]
    [InlineData("Form is Loan file", true)]
    [InlineData("Channel is a form", true)]
    [InlineData("Title has changed", false)]
    [InlineData("Title has not changed", true)]
    [InlineData("the saved value of Insured value is EUR 75,000", true)]
    // Expressions
    [InlineData("Fee is at most {«Insured value» * 0.04}", true)]
    [InlineData("Fee is more than {if «Glazing» then «Insured value» / 20 else 0}", false)]
    [InlineData("Crate length is more than {«Gross weight» + 1}", false)]
    public void A_condition_says_of_the_loan_what_anyone_would(string condition, bool holds) =>
        Assert.Equal(holds ? 0 : -1, LoanFile.Open(LoanFile.Under($"While {condition}, lock Valuer."), Lantern).CaseInForce(0));

    [Theory]
    [InlineData("Insured value has changed", "insuredValue", 80_000, true)]
    [InlineData("Insured value has changed", "insuredValue", 75_000, false)]
    [InlineData("the saved value of Insured value is EUR 75,000", "insuredValue", 80_000, true)]
    [InlineData("Insured value is EUR 75,000", "insuredValue", 80_000, false)]
    [InlineData("Object › Title is “Tide table”", "object", null, false)]
    [InlineData("Object › Title is not “Tide table”", "object", null, true)]
    [InlineData("Borrower contact is complete", "borrowerContact", "given=Mara, family=Vell", true)]
    [InlineData("Glazing is filled in", "glazing", null, false)]
    public void It_follows_what_is_typed(string condition, string field, object? value, bool holds)
    {
        var session = LoanFile.Open(LoanFile.Under($"While {condition}, lock Valuer."), Lantern);

        session.Change(field, LoanFile.Fitted(field, value));

        Assert.Equal(holds ? 0 : -1, session.CaseInForce(0));
    }

    [Theory]
    [InlineData("Move is Ask for approval", true)]
    [InlineData("Role is Registrar", false)]
    [InlineData("Stage is before Approval", true)]
    [InlineData("Stage is from Terms on", false)]
    [InlineData("Workflow is Short", true)]
    [InlineData("New record is yes", true)]
    [InlineData("Channel is an import", true)]
    [InlineData("Requested by is the value of Person", false)]
    [InlineData("Last conservation is before today minus 16 years", true)]
    public void It_follows_the_setting(string condition, bool holds)
    {
        var session = LoanFile.Open(LoanFile.Under($"While {condition}, lock Valuer."), Lantern);

        // The short workflow has no terms, so it is neither before nor after them there.
        session.Enter(new("short", "enquiry", IsNew: true, Move: "ask", Person: "theo", Channel: Channel.Import, Now: LoanFile.Now.AddYears(2)));

        Assert.Equal(holds ? 0 : -1, session.CaseInForce(0));
    }
}
