using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Dibujo.Store.Migrations
{
    /// <inheritdoc />
    public partial class Indexed : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Standing",
                table: "Records",
                type: "TEXT",
                nullable: false,
                defaultValueSql: "'{}'");

            migrationBuilder.AddColumn<DateOnly>(
                name: "StandingDay",
                table: "Records",
                type: "TEXT",
                nullable: false,
                defaultValue: new DateOnly(1, 1, 1));

            migrationBuilder.AddColumn<int>(
                name: "StandingEdition",
                table: "Records",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            // The index of values: by field, in the order in which values sort. The functions are this application's own; what is blank
            // has no key and is ignored. Joined crosswise, since the planner would go through all fields for each value.
            migrationBuilder.Sql(
                """
                CREATE TABLE IndexedFields (Id INTEGER NOT NULL PRIMARY KEY, RecordType TEXT NOT NULL, Field TEXT NOT NULL, UNIQUE (RecordType, Field))
                """);
            migrationBuilder.Sql(
                """
                CREATE TABLE IndexedValues (Field INTEGER NOT NULL, "Key" BLOB NOT NULL, Record INTEGER NOT NULL, PRIMARY KEY (Field, "Key", Record)) WITHOUT ROWID
                """);
            migrationBuilder.Sql(
                """
                CREATE VIRTUAL TABLE RecordTexts USING fts5 ("Text", tokenize = 'trigram case_sensitive 1')
                """);
            // Taking rows out one by one, each by its whole key: a deletion by a list of keys would go through all rows of a field.
            migrationBuilder.Sql("""CREATE VIEW UnindexedValues AS SELECT Field, "Key", Record FROM IndexedValues""");
            migrationBuilder.Sql(
                """
                CREATE TRIGGER ValueUnindexed INSTEAD OF INSERT ON UnindexedValues BEGIN
                    DELETE FROM IndexedValues WHERE Field = NEW.Field AND "Key" = NEW."Key" AND Record = NEW.Record;
                END
                """);
            migrationBuilder.Sql(
                """
                CREATE TRIGGER RecordIndexed AFTER INSERT ON Records BEGIN
                    INSERT OR IGNORE INTO IndexedFields (RecordType, Field) SELECT NEW.RecordType, v."key" FROM (
                    SELECT "key", "type", "value" FROM json_each(NEW."Values")
                    UNION ALL SELECT "key", "type", "value" FROM json_each(NEW.Standing)) AS v;
                    INSERT OR IGNORE INTO IndexedValues (Field, "Key", Record) SELECT f.Id, dibujo_key(v."value", v."type"), NEW.Id FROM (
                    SELECT "key", "type", "value" FROM json_each(NEW."Values")
                    UNION ALL SELECT "key", "type", "value" FROM json_each(NEW.Standing)) AS v
                    CROSS JOIN IndexedFields AS f ON f.RecordType = NEW.RecordType AND f.Field = v."key";
                    INSERT INTO RecordTexts (rowid, "Text") VALUES (NEW.Id, dibujo_text(NEW."Values"));
                END
                """);
            migrationBuilder.Sql(
                """
                CREATE TRIGGER RecordIndexedAgain AFTER UPDATE OF "Values", Standing ON Records BEGIN
                    INSERT INTO UnindexedValues (Field, "Key", Record) SELECT f.Id, dibujo_key(v."value", v."type"), OLD.Id FROM (
                    SELECT * FROM (SELECT "key", "type", "value" FROM json_each(OLD."Values") EXCEPT SELECT "key", "type", "value" FROM json_each(NEW."Values"))
                    UNION ALL SELECT * FROM (SELECT "key", "type", "value" FROM json_each(OLD.Standing) EXCEPT SELECT "key", "type", "value" FROM json_each(NEW.Standing))) AS v
                    CROSS JOIN IndexedFields AS f ON f.RecordType = OLD.RecordType AND f.Field = v."key";
                    INSERT OR IGNORE INTO IndexedFields (RecordType, Field) SELECT NEW.RecordType, v."key" FROM (
                    SELECT * FROM (SELECT "key", "type", "value" FROM json_each(NEW."Values") EXCEPT SELECT "key", "type", "value" FROM json_each(OLD."Values"))
                    UNION ALL SELECT * FROM (SELECT "key", "type", "value" FROM json_each(NEW.Standing) EXCEPT SELECT "key", "type", "value" FROM json_each(OLD.Standing))) AS v;
                    INSERT OR IGNORE INTO IndexedValues (Field, "Key", Record) SELECT f.Id, dibujo_key(v."value", v."type"), NEW.Id FROM (
                    SELECT * FROM (SELECT "key", "type", "value" FROM json_each(NEW."Values") EXCEPT SELECT "key", "type", "value" FROM json_each(OLD."Values"))
                    UNION ALL SELECT * FROM (SELECT "key", "type", "value" FROM json_each(NEW.Standing) EXCEPT SELECT "key", "type", "value" FROM json_each(OLD.Standing))) AS v
                    CROSS JOIN IndexedFields AS f ON f.RecordType = NEW.RecordType AND f.Field = v."key";
                END
                """);
            migrationBuilder.Sql(
                """
                CREATE TRIGGER RecordTextChanged AFTER UPDATE OF "Values" ON Records WHEN dibujo_text(OLD."Values") <> dibujo_text(NEW."Values") BEGIN
                    UPDATE RecordTexts SET "Text" = dibujo_text(NEW."Values") WHERE rowid = NEW.Id;
                END
                """);
            migrationBuilder.Sql(
                """
                CREATE TRIGGER RecordUnindexed AFTER DELETE ON Records BEGIN
                    INSERT INTO UnindexedValues (Field, "Key", Record) SELECT f.Id, dibujo_key(v."value", v."type"), OLD.Id FROM (
                    SELECT "key", "type", "value" FROM json_each(OLD."Values")
                    UNION ALL SELECT "key", "type", "value" FROM json_each(OLD.Standing)) AS v
                    CROSS JOIN IndexedFields AS f ON f.RecordType = OLD.RecordType AND f.Field = v."key";
                    DELETE FROM RecordTexts WHERE rowid = OLD.Id;
                END
                """);
            // What is there already.
            migrationBuilder.Sql(
                """
                INSERT OR IGNORE INTO IndexedFields (RecordType, Field) SELECT DISTINCT r.RecordType, j.key FROM Records AS r, json_each(r."Values") AS j
                """);
            migrationBuilder.Sql(
                """
                INSERT OR IGNORE INTO IndexedValues (Field, "Key", Record)
                SELECT f.Id, dibujo_key(j."value", j."type"), r.Id FROM Records AS r CROSS JOIN json_each(r."Values") AS j
                CROSS JOIN IndexedFields AS f ON f.RecordType = r.RecordType AND f.Field = j.key ORDER BY 1, 2, 3
                """);
            migrationBuilder.Sql(
                """
                INSERT INTO RecordTexts (rowid, "Text") SELECT Id, dibujo_text("Values") FROM Records
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("DROP TRIGGER RecordIndexed; DROP TRIGGER RecordIndexedAgain; DROP TRIGGER RecordTextChanged; DROP TRIGGER RecordUnindexed;");
            migrationBuilder.Sql("DROP VIEW UnindexedValues; DROP TABLE IndexedValues; DROP TABLE IndexedFields; DROP TABLE RecordTexts;");
            migrationBuilder.DropColumn(
                name: "Standing",
                table: "Records");

            migrationBuilder.DropColumn(
                name: "StandingDay",
                table: "Records");

            migrationBuilder.DropColumn(
                name: "StandingEdition",
                table: "Records");
        }
    }
}
