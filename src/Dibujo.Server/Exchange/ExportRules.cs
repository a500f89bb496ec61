using System.Text;
using Dibujo.Core.Compilation;
using Dibujo.Core.Dmn;
using Dibujo.Core.Packs;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Schemas;
using Dibujo.Server.Accounts;
using Dibujo.Server.Auditing;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Exchange;

/// <summary>The draft as a file: a pack, decision tables in DMN, or what must be filled in as a JSON Schema.</summary>
internal static class ExportRules
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/record-types/{key}/draft/exports/{form}", Run).WithName("ExportRules").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status422UnprocessableEntity);

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Run(
        string key, string form, string? stage, HttpContext http, DibujoDb db, UnitOfWork unit, AuditTrail audit, CancellationToken cancellation)
    {
        if (await db.RecordTypes.AsNoTracking().SingleOrDefaultAsync(t => t.Key == key, cancellation) is not { Draft: var draft })
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        if (form is "pack" or "dmn" or "schema")
        {
            audit.Note(http, AuditEvent.RulesExported, $"{draft.RecordType.Label} as {form}");
            await unit.SaveAsync(cancellation);
        }

        switch (form)
        {
            case "pack":
                return TypedResults.File(PackFile.Write(Pack.Of(draft)), "application/json", $"{key}.pack.json");
            case "dmn":
                var (document, _) = DmnWriter.Write(draft);
                return TypedResults.File(Encoding.UTF8.GetBytes(document.Declaration + "\n" + document), "application/xml", $"{key}.dmn");
            case "schema":
                return Schema(key, stage, ProgramCompiler.Compile(draft).Program);
            default:
                return TypedResults.Problem($"There is no export “{form}”. Ask for pack, dmn or schema.", statusCode: StatusCodes.Status404NotFound);
        }
    }

    private static Results<FileContentHttpResult, ProblemHttpResult> Schema(string key, string? stage, RuleProgram? program)
    {
        if (program is null)
        {
            return TypedResults.Problem("Mend the record type's problems first.", statusCode: StatusCodes.Status422UnprocessableEntity);
        }

        var workflow = program.Definition.RecordType.Workflows[0];
        return stage is null || workflow.Position(stage) >= 0
            ? TypedResults.File(
                Encoding.UTF8.GetBytes(SchemaExport.Of(program, new Setting(workflow.Key, stage ?? workflow.Stages[0].Key)).Schema.ToJsonString()),
                "application/schema+json", $"{key}.schema.json")
            : TypedResults.Problem($"{workflow.Label} has no stage “{stage}”. Name one of its stages.", statusCode: StatusCodes.Status404NotFound);
    }
}
