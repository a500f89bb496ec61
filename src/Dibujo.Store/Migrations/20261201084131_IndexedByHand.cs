using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Dibujo.Store.Migrations
{
    /// <inheritdoc />
    public partial class IndexedByHand : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // Whoever stores records one by one keeps their index as well, see RecordIndexing; the triggers go on for everybody else.
            migrationBuilder.Sql("DROP TRIGGER RecordIndexed; DROP TRIGGER RecordIndexedAgain; DROP TRIGGER RecordTextChanged;");
            migrationBuilder.Sql(
                """
                CREATE TRIGGER RecordIndexed AFTER INSERT ON Records WHEN dibujo_by_trigger() BEGIN
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
                CREATE TRIGGER RecordIndexedAgain AFTER UPDATE OF "Values", Standing ON Records WHEN dibujo_by_trigger() BEGIN
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
                CREATE TRIGGER RecordTextChanged AFTER UPDATE OF "Values" ON Records WHEN dibujo_by_trigger() AND dibujo_text(OLD."Values") <> dibujo_text(NEW."Values") BEGIN
                    UPDATE RecordTexts SET "Text" = dibujo_text(NEW."Values") WHERE rowid = NEW.Id;
                END
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("DROP TRIGGER RecordIndexed; DROP TRIGGER RecordIndexedAgain; DROP TRIGGER RecordTextChanged;");
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
        }
    }
}
