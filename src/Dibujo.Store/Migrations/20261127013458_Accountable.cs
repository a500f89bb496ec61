using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Dibujo.Store.Migrations
{
    /// <inheritdoc />
    public partial class Accountable : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Records_RecordType_Stage",
                table: "Records");

            migrationBuilder.AddColumn<string>(
                name: "Label",
                table: "RecordTypes",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<int>(
                name: "RuleCount",
                table: "RecordTypes",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            // Copies out of the drafts that are there.
            migrationBuilder.Sql(
                "UPDATE RecordTypes SET Label = json_extract(Draft, '$.recordType.label'), RuleCount = json_array_length(Draft, '$.rules')");

            migrationBuilder.CreateTable(
                name: "ApiTokens",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    AccountId = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    MadeAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    ExpiresAt = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ApiTokens", x => x.Id);
                    table.ForeignKey(
                        name: "FK_ApiTokens_AspNetUsers_AccountId",
                        column: x => x.AccountId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Audit",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Event = table.Column<string>(type: "TEXT", nullable: false),
                    Who = table.Column<string>(type: "TEXT", nullable: true),
                    About = table.Column<string>(type: "TEXT", nullable: true),
                    Address = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Audit", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Heartbeats",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Heartbeats", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "KnownPlaces",
                columns: table => new
                {
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    AccountId = table.Column<string>(type: "TEXT", nullable: false),
                    UsedAt = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_KnownPlaces", x => new { x.Hash, x.AccountId });
                    table.ForeignKey(
                        name: "FK_KnownPlaces_AspNetUsers_AccountId",
                        column: x => x.AccountId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Sessions",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                    AccountId = table.Column<string>(type: "TEXT", nullable: false),
                    Stamp = table.Column<string>(type: "TEXT", nullable: false),
                    BegunAt = table.Column<DateTime>(type: "TEXT", nullable: false),
                    UsedAt = table.Column<DateTime>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Sessions", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Sessions_AspNetUsers_AccountId",
                        column: x => x.AccountId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Records_RecordType_ChangedAt_Id_Stage_Title_Workflow_ChangedBy",
                table: "Records",
                columns: new[] { "RecordType", "ChangedAt", "Id", "Stage", "Title", "Workflow", "ChangedBy" });

            migrationBuilder.CreateIndex(
                name: "IX_Records_RecordType_Stage_ChangedAt_Id_Title_Workflow_ChangedBy",
                table: "Records",
                columns: new[] { "RecordType", "Stage", "ChangedAt", "Id", "Title", "Workflow", "ChangedBy" });

            migrationBuilder.CreateIndex(
                name: "IX_ApiTokens_AccountId",
                table: "ApiTokens",
                column: "AccountId");

            migrationBuilder.CreateIndex(
                name: "IX_ApiTokens_Hash",
                table: "ApiTokens",
                column: "Hash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_KnownPlaces_AccountId",
                table: "KnownPlaces",
                column: "AccountId");

            migrationBuilder.CreateIndex(
                name: "IX_Sessions_AccountId",
                table: "Sessions",
                column: "AccountId");

            migrationBuilder.CreateIndex(
                name: "IX_Sessions_Hash",
                table: "Sessions",
                column: "Hash",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "ApiTokens");

            migrationBuilder.DropTable(
                name: "Audit");

            migrationBuilder.DropTable(
                name: "Heartbeats");

            migrationBuilder.DropTable(
                name: "KnownPlaces");

            migrationBuilder.DropTable(
                name: "Sessions");

            migrationBuilder.DropIndex(
                name: "IX_Records_RecordType_ChangedAt_Id_Stage_Title_Workflow_ChangedBy",
                table: "Records");

            migrationBuilder.DropIndex(
                name: "IX_Records_RecordType_Stage_ChangedAt_Id_Title_Workflow_ChangedBy",
                table: "Records");

            migrationBuilder.DropColumn(
                name: "Label",
                table: "RecordTypes");

            migrationBuilder.DropColumn(
                name: "RuleCount",
                table: "RecordTypes");

            migrationBuilder.CreateIndex(
                name: "IX_Records_RecordType_Stage",
                table: "Records",
                columns: new[] { "RecordType", "Stage" });
        }
    }
}
