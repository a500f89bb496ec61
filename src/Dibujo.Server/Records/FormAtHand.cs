using Dibujo.Core.Evaluation;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Dibujo.Server.RecordTypes;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Dibujo.Server.Records;

/// <summary>The form through which a request comes to a record.</summary>
internal static class FormAtHand
{
    /// <summary>
    /// The record open on that form. Where none is named, on the first that applies to it; where none does, on the main form,
    /// which then refuses. Null for a form that the record type does not have.
    /// </summary>
    internal static WholeRecord? Open(Edition edition, RecordValues values, Setting setting, string? form, IRecordLookup lookup) =>
        form is null ? WholeRecord.OnFirstThatApplies(edition.Program, values, setting, lookup)
        : edition.Program.FindForm(form) is null ? null
        : new(new Session(edition.Program, values, setting with { Form = form }, lookup));

    internal static ProblemHttpResult NoSuchForm(Edition edition, string? form) => TypedResults.Problem(
        $"{edition.Definition.RecordType.Label} has no form “{form}”.", statusCode: StatusCodes.Status404NotFound);

    internal static ProblemHttpResult Closed(Session session) => TypedResults.Problem(
        $"The form “{session.Form.Label}” does not apply to this record now. Open another form of it.",
        statusCode: StatusCodes.Status404NotFound,
        title: "This form does not apply.");
}
