using System.Globalization;
using System.Runtime.CompilerServices;
using Dibujo.Core.Csv;
using Dibujo.Core.Notations;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using MiniExcelLibs;
using MiniExcelLibs.Attributes;
using MiniExcelLibs.OpenXml;

namespace Dibujo.Server.Exchange;

/// <summary>Records as a workbook: under labels, numbers and days as a spreadsheet has them, everything else as it is written for people.</summary>
internal static class RecordSheet
{
    /// <summary>A workbook has no more rows, and no longer texts in a cell.</summary>
    private const int MostRows = 1_048_575;

    private const int LongestText = 32_767;

    /// <summary>The day from which on all spreadsheets count days alike.</summary>
    private static readonly DateOnly FirstDay = new(1900, 3, 1);

    /// <summary>The workbook, in a file that is gone once it is closed; null and why where it cannot hold the records.</summary>
    /// <param name="type">The record type, with the fields that go out.</param>
    /// <param name="rows">The records.</param>
    /// <param name="writing">How whoever asks writes, and what is called how.</param>
    /// <param name="cancellation">Ends it.</param>
    internal static async Task<(Stream? File, string? Mistake)> WriteAsync(RecordType type, IAsyncEnumerable<RecordRow> rows, TableReading writing, CancellationToken cancellation)
    {
        var file = new FileStream(Path.GetTempFileName(), FileMode.Create, FileAccess.ReadWrite, FileShare.None, 64 * 1024, FileOptions.DeleteOnClose | FileOptions.Asynchronous);
        try
        {
            var headers = RecordTable.HeadersOf(type);
            var form = new OpenXmlConfiguration
            {
                EnableAutoWidth = false,
                AutoFilter = false,
                DynamicColumns = [.. type.Fields.Select((field, i) => new DynamicExcelColumn(headers[i + headers.Length - type.Fields.Length]) { Format = Format(field.Type) }).Where(column => column.Format is not null)],
            };
            await file.SaveAsAsync(Cells(type, [.. headers], rows, writing, cancellation), configuration: form, cancellationToken: cancellation);
            file.Position = 0;
            return (file, null);
        }
        catch (BeyondSheetException beyond)
        {
            await file.DisposeAsync();
            return (null, beyond.Message);
        }
        catch
        {
            await file.DisposeAsync();
            throw;
        }
    }

    private static string? Format(FieldType type) => type switch
    {
        DateType => "yyyy-mm-dd",
        DateTimeType => "yyyy-mm-dd hh:mm",
        _ => null,
    };

    private static async IAsyncEnumerable<Dictionary<string, object?>> Cells(
        RecordType type, string[] headers, IAsyncEnumerable<RecordRow> rows, TableReading writing, [EnumeratorCancellation] CancellationToken cancellation)
    {
        var count = 0;
        await foreach (var row in rows.WithCancellation(cancellation))
        {
            if (++count > MostRows)
            {
                throw new BeyondSheetException($"There are more than {MostRows:N0} of them. Filter the list, or take separated values.");
            }

            object?[] cells =
            [
                row.Id, row.Version, type.FindWorkflow(row.Workflow)?.Label ?? row.Workflow, type.FindStage(row.Stage)?.Label ?? row.Stage,
                .. type.Fields.Select(field => Cell(row.Values[field.Key], field.Type, writing)),
            ];
            if (Array.FindIndex(cells, cell => cell is string { Length: > LongestText }) is >= 0 and var at)
            {
                throw new BeyondSheetException(string.Create(CultureInfo.InvariantCulture, $"{headers[at]} of No. {row.Id} is longer than a cell of a workbook. Leave that column out, or take separated values."));
            }

            yield return headers.Zip(cells).ToDictionary(cell => cell.First, cell => cell.Second, StringComparer.Ordinal);
        }
    }

    private static object? Cell(Value value, FieldType type, TableReading writing) => (value, type) switch
    {
        ({ IsBlank: true }, _) => null,
        (Number { Amount: var amount }, NumberType or MoneyType) when (decimal)(double)amount == amount => amount,
        (Date { Day: var day }, _) when day >= FirstDay => day.ToDateTime(TimeOnly.MinValue),
        (Moment { At: var at }, _) when DateOnly.FromDateTime(at) >= FirstDay => at,
        // Also what a spreadsheet has no number for.
        _ => writing.Notation.Write(value, type, writing.Names),
    };

    /// <summary>More than a workbook holds.</summary>
    private sealed class BeyondSheetException(string message) : Exception(message);
}
