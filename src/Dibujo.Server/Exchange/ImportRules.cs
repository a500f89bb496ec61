using Dibujo.Core.Checking;
using Dibujo.Core.Dmn;
using Dibujo.Core.Packs;
using Dibujo.Core.Rules;
using Dibujo.Server.Accounts;
using Dibujo.Server.Auditing;
using Dibujo.Server.Drafts;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Exchange;

/// <summary>Shows what a pack or DMN tables would change in the draft, and changes it when told to.</summary>
internal static class ImportRules
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/record-types/{key}/draft/imports", Run).WithName("ImportRules").RequireAuthorization(Policies.Administrators)
            .Accepts<Pack>("application/json", "application/xml").ProducesProblem(StatusCodes.Status400BadRequest)
            .ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status409Conflict)
            .WithMetadata(new RequestSizeLimitAttribute(RequestFile.Largest));

    /// <param name="key">Key of the record type.</param>
    /// <param name="apply">The draft's version that is to be changed; null to only look.</param>
    /// <param name="request">The file: a pack as JSON, or DMN as XML.</param>
    /// <param name="db">The store.</param>
    /// <param name="unit">How it is stored.</param>
    /// <param name="change">How it is changed.</param>
    /// <param name="audit">Where it is noted.</param>
    /// <param name="cancellation">Ends the request.</param>
    private static async Task<Results<Ok<ImportView>, ProblemHttpResult>> Run(
        string key, int? apply, HttpRequest request, DibujoDb db, UnitOfWork unit, DraftChange change, AuditTrail audit, CancellationToken cancellation)
    {
        if (await db.RecordTypes.SingleOrDefaultAsync(t => t.Key == key, cancellation) is not { } type)
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        var (then, problems) = Read(type.Draft, await RequestFile.ReadAsync(request, cancellation), request.ContentType ?? "");
        if (then is null || then.RecordType.Key != key)
        {
            return TypedResults.Problem(
                then is null ? "Nothing was changed." : $"The pack is of “{then.RecordType.Key}”. Import it there; nothing was changed.",
                statusCode: StatusCodes.Status400BadRequest,
                title: "The file could not be read.",
                extensions: [KeyValuePair.Create<string, object?>("problems", problems)]);
        }

        var comparison = Comparison.Between(type.Draft, then);
        if (apply is null)
        {
            return TypedResults.Ok(new ImportView(comparison, type.DraftVersion, IsApplied: false));
        }

        if (apply != type.DraftVersion)
        {
            return SaveDraft.Overtaken();
        }

        change.Replace(type, then, request.HttpContext.User.Identity!.Name!);
        audit.Note(request.HttpContext, AuditEvent.RulesImported, then.RecordType.Label);
        try
        {
            await unit.SaveAsync(cancellation);
        }
        catch (DbUpdateConcurrencyException)
        {
            return SaveDraft.Overtaken();
        }

        change.Tell(type);
        return TypedResults.Ok(new ImportView(comparison, type.DraftVersion, IsApplied: true));
    }

    private static (Definition? Then, IReadOnlyList<Problem> Problems) Read(Definition now, byte[] file, string contentType)
    {
        if (contentType.Contains("xml", StringComparison.OrdinalIgnoreCase))
        {
            var (rules, problems) = DmnReader.Read(new MemoryStream(file), now.RecordType);
            return problems.IsEmpty ? (Merge.Rules(now, rules), []) : (null, problems);
        }

        var (pack, mistake) = PackFile.Read(file);
        return (pack?.ToDefinition(), mistake is null ? [] : [mistake]);
    }
}

/// <summary>What an import changes.</summary>
/// <param name="Comparison">Everything that is other than before, and what cannot be applied.</param>
/// <param name="Version">The draft's version now, to be sent to apply the import.</param>
/// <param name="IsApplied">Whether the draft has been changed.</param>
internal sealed record ImportView(Comparison Comparison, int Version, bool IsApplied);
