using System.Collections;
using Dibujo.Core.Conditions;
using Dibujo.Core.Listing;
using Microsoft.Data.Sqlite;

namespace Dibujo.Store.Listing;

/// <summary>The records that pass a query's filter and may have in them what it searches for, in whatever order.</summary>
internal sealed class Passing
{
    private const int ShortestIndexed = 3;

    private readonly RecordQuery query;

    /// <summary>Null for all.</summary>
    private readonly BitArray? passing;

    private readonly (string Fields, string Text)? searched;

    /// <summary>A byte for each number, as the database can look into bytes and not into bits.</summary>
    private readonly Lazy<byte[]> bytes;

    private readonly Lazy<Passing> blank;

    private Passing(RecordQuery query, RecordSets sets, BitArray? passing, (string Fields, string Text)? searched)
    {
        (this.query, Sets, this.passing, this.searched) = (query, sets, passing, searched);
        bytes = new(BytesOf);
        blank = new(BlankOf);
    }

    /// <summary>The sets of which they are.</summary>
    internal RecordSets Sets { get; }

    /// <summary>Those among them in which the column that is sorted by is blank.</summary>
    internal Passing Blank => blank.Value;

    /// <summary>Whether there are none for certain.</summary>
    internal bool IsEmpty => passing?.HasAnySet() == false;

    /// <summary>Asks the index for them.</summary>
    internal static Passing Of(RecordQuery query, RecordSets sets)
    {
        var found = query.Filter is null ? null : sets.Of(query.Filter);
        if (string.IsNullOrWhiteSpace(query.Search))
        {
            return new(query, sets, found, null);
        }

        // Three letters in a row are looked up; a query of that index ends at a NUL.
        var text = ListKey.Folded(query.Search);
        using var search = sets.Command();
        search.CommandText = $"""SELECT rowid FROM "RecordTexts" WHERE {(text.Length >= ShortestIndexed && !text.Contains('\0', StringComparison.Ordinal)
            ? $"\"Text\" MATCH {search.Parameter($"\"{text.Replace("\"", "\"\"", StringComparison.Ordinal)}\"")}"
            : $"instr(\"Text\", {search.Parameter(text)}) > 0")}""";
        var having = sets.Found(search);
        return new(query, sets, found is null ? having : found.And(having), (string.Join(',', query.Searched), text));
    }

    /// <summary>The condition, with AND before it, that the record of that number is among them: quick to tell.</summary>
    internal string Has(string id, SqliteCommand command) => passing is null ? "" : $" AND substr({command.Parameter(bytes.Value)}, {id} + 1, 1) = x'01'";

    /// <summary>The condition, with AND before it, that a record which is among them has what is searched for in a text, and not in a key. It has to be read for that.</summary>
    internal string Holds(string id, SqliteCommand command) => searched is not var (fields, text)
        ? ""
        : $""" AND dibujo_holds((SELECT CAST("Values" AS BLOB) FROM "Records" WHERE "Records"."Id" = {id}), {command.Parameter(fields)}, {command.Parameter(text)})""";

    private Passing BlankOf()
    {
        var found = Sets.Of(new FilterClause(query.SortBy, Test.Blank));
        return new(query, Sets, passing is null ? found : found.And(passing), searched);
    }

    private byte[] BytesOf()
    {
        var each = new byte[passing!.Count];
        for (var record = 0; record < each.Length; record++)
        {
            each[record] = passing[record] ? (byte)1 : (byte)0;
        }

        return each;
    }
}
