using System.Text;
using Dibujo.Core.Csv;
using Dibujo.Server.Accounts;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Dibujo.Server.Exchange;

/// <summary>All records of a type, or those of a list with its columns, as comma-separated values, sent as they are read, or as a workbook.</summary>
internal static class ExportRecords
{
    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/record-types/{key}/records.csv", Separated).WithName("ExportRecords").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound);
        api.MapGet("/record-types/{key}/records.xlsx", Sheet).WithName("ExportSheet").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status409Conflict);
    }

    private static async Task<Results<PushStreamHttpResult, ProblemHttpResult>> Separated(
        string key, string? list, bool? written, RecordExport export, HttpContext http, CancellationToken cancellation)
    {
        if (await export.BeginAsync(key, list, http, cancellation) is { } problem)
        {
            return problem;
        }

        // For people, as they write: records and people by what they are called.
        var writing = written == true ? await export.WritingAsync(http, cancellation) : null;
        return TypedResults.Stream(
            async body =>
            {
                // Spreadsheets take what begins with a byte-order mark for UTF-8; programs do without.
                await using var text = new StreamWriter(body, new UTF8Encoding(encoderShouldEmitUTF8Identifier: writing is not null), 64 * 1024, leaveOpen: true);
                await RecordTable.WriteAsync(export.Type, export.Rows, text, writing, cancellation);
            },
            "text/csv", $"{key}.csv");
    }

    private static async Task<Results<FileStreamHttpResult, ProblemHttpResult>> Sheet(
        string key, string? list, RecordExport export, HttpContext http, CancellationToken cancellation)
    {
        if (await export.BeginAsync(key, list, http, cancellation) is { } problem)
        {
            return problem;
        }

        var (file, mistake) = await RecordSheet.WriteAsync(export.Type, export.Rows, await export.WritingAsync(http, cancellation), cancellation);
        return file is null
            ? TypedResults.Problem(mistake, statusCode: StatusCodes.Status409Conflict, title: "A workbook cannot hold these records.")
            : TypedResults.File(file, ImportRecords.Sheet, $"{key}.xlsx");
    }
}
