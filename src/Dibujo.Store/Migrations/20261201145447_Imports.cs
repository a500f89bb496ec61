using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Dibujo.Store.Migrations
{
    /// <inheritdoc />
    public partial class Imports : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<DateTime>(
                name: "BegunAt",
                table: "Imports",
                type: "TEXT",
                nullable: false,
                defaultValue: new DateTime(1, 1, 1, 0, 0, 0, 0, DateTimeKind.Unspecified));

            migrationBuilder.AddColumn<string>(
                name: "Details",
                table: "Imports",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Outcome",
                table: "Imports",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "TakesBack",
                table: "Imports",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<DateTime>(
                name: "ThroughAt",
                table: "Imports",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "Import",
                table: "History",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_Imports_By_BegunAt",
                table: "Imports",
                columns: new[] { "By", "BegunAt" });

            migrationBuilder.CreateIndex(
                name: "IX_History_Import",
                table: "History",
                column: "Import",
                filter: "\"Import\" IS NOT NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Imports_By_BegunAt",
                table: "Imports");

            migrationBuilder.DropIndex(
                name: "IX_History_Import",
                table: "History");

            migrationBuilder.DropColumn(
                name: "BegunAt",
                table: "Imports");

            migrationBuilder.DropColumn(
                name: "Details",
                table: "Imports");

            migrationBuilder.DropColumn(
                name: "Outcome",
                table: "Imports");

            migrationBuilder.DropColumn(
                name: "TakesBack",
                table: "Imports");

            migrationBuilder.DropColumn(
                name: "ThroughAt",
                table: "Imports");

            migrationBuilder.DropColumn(
                name: "Import",
                table: "History");
        }
    }
}
