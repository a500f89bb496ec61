using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Dibujo.Store.Migrations
{
    /// <inheritdoc />
    public partial class Counted : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "RecordCounts",
                columns: table => new
                {
                    RecordType = table.Column<string>(type: "TEXT", nullable: false),
                    Stage = table.Column<string>(type: "TEXT", nullable: false),
                    Records = table.Column<int>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_RecordCounts", x => new { x.RecordType, x.Stage });
                });

            // The database counts by itself, whoever writes.
            migrationBuilder.Sql("INSERT INTO RecordCounts (RecordType, Stage, Records) SELECT RecordType, Stage, COUNT(*) FROM Records GROUP BY RecordType, Stage");
            migrationBuilder.Sql(
                """
                CREATE TRIGGER RecordBegun AFTER INSERT ON Records BEGIN
                    INSERT INTO RecordCounts (RecordType, Stage, Records) VALUES (NEW.RecordType, NEW.Stage, 1)
                        ON CONFLICT (RecordType, Stage) DO UPDATE SET Records = RecordCounts.Records + 1;
                END
                """);
            migrationBuilder.Sql(
                """
                CREATE TRIGGER RecordMoved AFTER UPDATE OF Stage ON Records WHEN NEW.Stage <> OLD.Stage BEGIN
                    UPDATE RecordCounts SET Records = Records - 1 WHERE RecordType = OLD.RecordType AND Stage = OLD.Stage;
                    INSERT INTO RecordCounts (RecordType, Stage, Records) VALUES (NEW.RecordType, NEW.Stage, 1)
                        ON CONFLICT (RecordType, Stage) DO UPDATE SET Records = RecordCounts.Records + 1;
                END
                """);
            migrationBuilder.Sql(
                """
                CREATE TRIGGER RecordDeleted AFTER DELETE ON Records BEGIN
                    UPDATE RecordCounts SET Records = Records - 1 WHERE RecordType = OLD.RecordType AND Stage = OLD.Stage;
                END
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("DROP TRIGGER RecordBegun; DROP TRIGGER RecordMoved; DROP TRIGGER RecordDeleted;");
            migrationBuilder.DropTable(
                name: "RecordCounts");
        }
    }
}
