using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PoliteTally.Store.Migrations
{
    /// <inheritdoc />
    public partial class FilesTakenOut : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "EntryIds",
                table: "BroughtIn",
                type: "TEXT",
                nullable: false,
                defaultValue: "[]");

            migrationBuilder.AddColumn<long>(
                name: "TakenOutAt",
                table: "BroughtIn",
                type: "INTEGER",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "EntryIds",
                table: "BroughtIn");

            migrationBuilder.DropColumn(
                name: "TakenOutAt",
                table: "BroughtIn");
        }
    }
}
