using System.Text.RegularExpressions;
using Dibujo.Core.Checking;
using Dibujo.Core.Packs;
using Dibujo.Core.Rules;
using Dibujo.Server.Accounts;
using Dibujo.Server.Auditing;
using Dibujo.Server.Exchange;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Dibujo.Store.Definitions;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.RecordTypes;

/// <summary>Begins a record type: with one field, one form and two stages, or as a pack has it. Members see nothing of it before it is published.</summary>
internal static partial class CreateRecordType
{
    private const int LongestKey = 60;

    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapPost("/record-types", Run).WithName("CreateRecordType").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status409Conflict);
        api.MapPost("/record-types/packs", RunFromPack).WithName("CreateRecordTypeFromPack").RequireAuthorization(Policies.Administrators)
            .Accepts<Pack>("application/json").ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status409Conflict)
            .WithMetadata(new RequestSizeLimitAttribute(RequestFile.Largest));
    }

    private static Task<Results<Ok<CreatedRecordType>, ProblemHttpResult>> Run(
        NewRecordType request, HttpContext http, DibujoDb db, UnitOfWork unit, AuditTrail audit, CancellationToken cancellation) =>
        IsNamed(request.Key, request.Label)
            ? CreateAsync(Definition.Begun(request.Key, request.Label.Trim()), http, db, unit, audit, cancellation)
            : Task.FromResult<Results<Ok<CreatedRecordType>, ProblemHttpResult>>(Unnamed());

    /// <summary>Whether a record type can be called so.</summary>
    internal static bool IsNamed(string key, string label) => label.Trim().Length > 0 && key.Length <= LongestKey && Keys().IsMatch(key);

    internal static ProblemHttpResult Unnamed() => TypedResults.Problem(
        $"Say what one such record is called, and give a key of at most {LongestKey} small letters, digits and hyphens that begins with a letter.",
        statusCode: StatusCodes.Status400BadRequest,
        title: "The record type was not begun.");

    internal static ProblemHttpResult Taken(string key) => TypedResults.Problem(
        $"There is a record type “{key}” already. Choose another key, or bring the pack into that one.",
        statusCode: StatusCodes.Status409Conflict,
        title: "The record type was not begun.");

    private static async Task<Results<Ok<CreatedRecordType>, ProblemHttpResult>> RunFromPack(
        HttpRequest request, DibujoDb db, UnitOfWork unit, AuditTrail audit, CancellationToken cancellation)
    {
        var (pack, mistake) = PackFile.Read(await RequestFile.ReadAsync(request, cancellation));
        return pack is null
            ? TypedResults.Problem(
                "Nothing was begun.",
                statusCode: StatusCodes.Status400BadRequest,
                title: "The file could not be read.",
                extensions: [KeyValuePair.Create<string, object?>("problems", new List<Problem> { mistake! })])
            : await CreateAsync(pack.ToDefinition(), request.HttpContext, db, unit, audit, cancellation);
    }

    private static async Task<Results<Ok<CreatedRecordType>, ProblemHttpResult>> CreateAsync(
        Definition definition, HttpContext http, DibujoDb db, UnitOfWork unit, AuditTrail audit, CancellationToken cancellation)
    {
        var key = definition.RecordType.Key;
        db.RecordTypes.Add(new StoredRecordType { Key = key, Draft = definition });
        audit.Note(http, AuditEvent.RecordTypeBegun, definition.RecordType.Label);
        try
        {
            await unit.SaveAsync(cancellation);
            return TypedResults.Ok(new CreatedRecordType(key));
        }
        catch (DbUpdateException) when (db.RecordTypes.Any(type => type.Key == key))
        {
            return Taken(key);
        }
    }

    [GeneratedRegex("^[a-z][a-z0-9-]*$", RegexOptions.None, matchTimeoutMilliseconds: 1000)]
    private static partial Regex Keys();
}

/// <summary>A record type to be begun.</summary>
/// <param name="Key">Its short name in addresses and files.</param>
/// <param name="Label">What people call one such record.</param>
internal sealed record NewRecordType(string Key, string Label);

/// <summary>The record type that was begun.</summary>
internal sealed record CreatedRecordType(string Key);
