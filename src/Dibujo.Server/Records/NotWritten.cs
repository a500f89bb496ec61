using System.Collections.Immutable;
using Dibujo.Core.Saving;
using Dibujo.Server.RecordTypes;
using Dibujo.Server.Writing;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Dibujo.Server.Records;

/// <summary>Why nothing was written, as an answer over HTTP.</summary>
internal static class NotWritten
{
    /// <summary>For everything but what is stored.</summary>
    /// <param name="outcome">What came of the request.</param>
    /// <param name="who">What the person is called who came before; needed for <see cref="WriteOutcome.Overtaken"/> alone.</param>
    internal static ProblemHttpResult Problem(WriteOutcome outcome, string who = "Somebody else") => outcome switch
    {
        WriteOutcome.Refused { Refusals: var refusals } => TypedResults.Problem(
            "Nothing was saved. Each reason says what to do.",
            statusCode: StatusCodes.Status422UnprocessableEntity,
            title: Title(refusals),
            extensions: [KeyValuePair.Create<string, object?>("refusals", refusals)]),
        WriteOutcome.Overtaken { Now.Version: var version } => TypedResults.Problem(
            OvertakenBy(who),
            statusCode: StatusCodes.Status409Conflict,
            title: OvertakenTitle,
            extensions: [KeyValuePair.Create<string, object?>("version", version)]),
        WriteOutcome.NoSuchForm { Edition: var edition, Form: var form } => FormAtHand.NoSuchForm(edition, form),
        WriteOutcome.NoSuchRecordType { Key: var key } => ReadRecordTypes.NoSuchRecordType(key),
        WriteOutcome.NoSuchRecord { Record: var record } => ReadRecord.NoSuchRecord(record),
        _ => throw new ArgumentOutOfRangeException(nameof(outcome)),
    };

    /// <summary>The same in a sentence, for where several outcomes stand below each other.</summary>
    internal static string Sentence(WriteOutcome outcome, string who = "Somebody else") => outcome switch
    {
        WriteOutcome.Refused { Refusals: var refusals } => Title(refusals),
        WriteOutcome.Overtaken => $"{OvertakenTitle} {OvertakenBy(who)}",
        WriteOutcome.NoSuchRecord => "There is no such record.",
        _ => Problem(outcome).ProblemDetails.Detail!,
    };

    private const string OvertakenTitle = "The record is no longer the one you began with.";

    private static string Title(ImmutableArray<Refusal> refusals) =>
        refusals.Length == 1 ? "Something speaks against this." : $"{refusals.Length} things speak against this.";

    private static string OvertakenBy(string who) =>
        $"{who} has changed this record in the meantime. Nothing of theirs was overwritten, and nothing of yours is lost: look at both and go on.";
}
