using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Dibujo.Store.Migrations
{
    /// <inheritdoc />
    public partial class DraftSteps : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Revisions",
                table: "RecordTypes",
                type: "TEXT",
                nullable: false,
                defaultValueSql: "'{}'");

            migrationBuilder.AddColumn<int>(
                name: "TypeRevision",
                table: "RecordTypes",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.CreateTable(
                name: "Collisions",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    RecordType = table.Column<string>(type: "TEXT", nullable: false),
                    Step = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Collisions", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Collisions_RecordTypes_RecordType",
                        column: x => x.RecordType,
                        principalTable: "RecordTypes",
                        principalColumn: "Key",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateTable(
                name: "DraftSteps",
                columns: table => new
                {
                    Id = table.Column<long>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    RecordType = table.Column<string>(type: "TEXT", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    Step = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_DraftSteps", x => x.Id);
                    table.ForeignKey(
                        name: "FK_DraftSteps_RecordTypes_RecordType",
                        column: x => x.RecordType,
                        principalTable: "RecordTypes",
                        principalColumn: "Key",
                        onDelete: ReferentialAction.Restrict);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Collisions_RecordType",
                table: "Collisions",
                column: "RecordType");

            migrationBuilder.CreateIndex(
                name: "IX_DraftSteps_RecordType_Version",
                table: "DraftSteps",
                columns: new[] { "RecordType", "Version" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Collisions");

            migrationBuilder.DropTable(
                name: "DraftSteps");

            migrationBuilder.DropColumn(
                name: "Revisions",
                table: "RecordTypes");

            migrationBuilder.DropColumn(
                name: "TypeRevision",
                table: "RecordTypes");
        }
    }
}
