using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Dibujo.Store.Migrations
{
    /// <inheritdoc />
    public partial class Tickets : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "Ticket",
                table: "History",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "DatePattern",
                table: "AspNetUsers",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Language",
                table: "AspNetUsers",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "NumberPattern",
                table: "AspNetUsers",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_History_By_Ticket",
                table: "History",
                columns: new[] { "By", "Ticket" },
                unique: true,
                filter: "\"Ticket\" IS NOT NULL");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_History_By_Ticket",
                table: "History");

            migrationBuilder.DropColumn(
                name: "Ticket",
                table: "History");

            migrationBuilder.DropColumn(
                name: "DatePattern",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "Language",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "NumberPattern",
                table: "AspNetUsers");
        }
    }
}
