using System.Collections.Immutable;
using Dibujo.Core.Analysis;
using Dibujo.Core.Inference;
using Dibujo.Server.Accounts;
using Dibujo.Server.Auditing;
using Dibujo.Server.Exchange;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Dibujo.Store.Definitions;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Tables;

/// <summary>Makes a record type of a table, publishes it, and begins to take its rows in as records; <see cref="ReadImport"/> tells how far that is.</summary>
internal static class TakeTable
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/tables/{id:guid}/record-type", Run).WithName("TakeTable").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status409Conflict).ProducesProblem(StatusCodes.Status422UnprocessableEntity);

    private static async Task<Results<Ok<TableTaken>, ProblemHttpResult>> Run(
        Guid id, TableTaking request, ReadTables tables, DibujoDb db, UnitOfWork unit, Importer importer, HttpContext http, AuditTrail audit, TimeProvider clock, CancellationToken cancellation)
    {
        if (tables.Find(id) is not { } kept || request.Columns.Any(column => column.Column < 0 || column.Column >= kept.Table.Headers.Length))
        {
            return ReadTable.NoSuchTable();
        }

        if (!CreateRecordType.IsNamed(request.Key, request.Label))
        {
            return CreateRecordType.Unnamed();
        }

        var definition = TakenTable.Definition(request.Key, request.Label.Trim(), request.Columns, request.TitleField);
        var problems = PublicationCheck.Of(definition).All();
        if (!problems.IsEmpty)
        {
            return TypedResults.Problem(
                string.Join(' ', problems.Select(problem => $"{problem.What} {problem.Mend}")), statusCode: StatusCodes.Status422UnprocessableEntity, title: "The record type was not begun.");
        }

        db.RecordTypes.Add(new StoredRecordType { Key = request.Key, Draft = definition, Published = 1 });
        db.Editions.Add(new StoredEdition
        {
            RecordType = request.Key,
            Number = 1,
            Definition = definition,
            Note = "Made of a table",
            By = http.User.Identity!.Name!,
            At = clock.GetUtcNow().UtcDateTime,
        });
        audit.Note(http, AuditEvent.RecordTypeBegun, definition.RecordType.Label);
        audit.Note(http, AuditEvent.Published, $"{definition.RecordType.Label}, edition 1");
        try
        {
            await unit.SaveAsync(cancellation);
        }
        catch (DbUpdateException) when (db.RecordTypes.Any(type => type.Key == request.Key))
        {
            return CreateRecordType.Taken(request.Key);
        }

        var rows = TakenTable.Rows(kept.Table, request.Columns, kept.Lookup);
        return importer.Begin(request.Key, new(rows, null) { Headers = [.. kept.Table.Headers] }, http.User, audit.Entry(http, AuditEvent.RecordsImported, definition.RecordType.Label)) is var (import, _)
            ? TypedResults.Ok(new TableTaken(request.Key, import.Id))
            : ImportRecords.TooMany();
    }
}

/// <summary>What is to be made of a table.</summary>
/// <param name="Key">Key of the record type.</param>
/// <param name="Label">What people call one such record.</param>
/// <param name="TitleField">Key of the field by which records are called.</param>
/// <param name="Columns">The columns that are taken.</param>
internal sealed record TableTaking(string Key, string Label, string TitleField, ImmutableArray<TakenColumn> Columns);

/// <summary>The record type that was made, and the import by which its records come in.</summary>
internal sealed record TableTaken(string Key, Guid Import);
