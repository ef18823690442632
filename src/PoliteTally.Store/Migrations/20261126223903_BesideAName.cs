using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PoliteTally.Store.Migrations
{
    /// <inheritdoc />
    public partial class BesideAName : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropPrimaryKey(
                name: "PK_KnownNames",
                table: "KnownNames");

            migrationBuilder.AddColumn<string>(
                name: "Beside",
                table: "KnownNames",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddPrimaryKey(
                name: "PK_KnownNames",
                table: "KnownNames",
                columns: new[] { "ClassId", "Folded", "Beside" });

            // Connections of no device are paired by depth now, and a drop-in lesson knows an excuse.
            migrationBuilder.Sql("""UPDATE "Lessons" SET "ReckonAgain" = 1 WHERE "Stage" = 3""");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropPrimaryKey(
                name: "PK_KnownNames",
                table: "KnownNames");

            migrationBuilder.DropColumn(
                name: "Beside",
                table: "KnownNames");

            migrationBuilder.AddPrimaryKey(
                name: "PK_KnownNames",
                table: "KnownNames",
                columns: new[] { "ClassId", "Folded" });
        }
    }
}
