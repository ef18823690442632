using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PoliteTally.Store.Migrations
{
    /// <inheritdoc />
    public partial class KindsAndPlans : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Entries_LessonId",
                table: "Entries");

            migrationBuilder.AddColumn<bool>(
                name: "Prepared",
                table: "Lessons",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.CreateTable(
                name: "LessonPlans",
                columns: table => new
                {
                    LessonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    OwnerId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Document = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LessonPlans", x => x.LessonId);
                    table.ForeignKey(
                        name: "FK_LessonPlans_Lessons_LessonId",
                        column: x => x.LessonId,
                        principalTable: "Lessons",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.Sql("""INSERT INTO "LessonPlans" ("LessonId", "OwnerId", "Document") SELECT "Id", "OwnerId", "Plan" FROM "Lessons" WHERE "Plan" <> ''""");
            migrationBuilder.Sql("""UPDATE "Lessons" SET "Prepared" = 1 WHERE "Plan" <> ''""");
            // As a statement of its own: dropped by the tool, the table would be copied first, before its plans are taken out.
            migrationBuilder.Sql("""ALTER TABLE "Lessons" DROP COLUMN "Plan" """);

            migrationBuilder.AddColumn<string>(
                name: "Kind",
                table: "Entries",
                type: "TEXT",
                nullable: false,
                computedColumnSql: "json_extract(\"Act\", '$.type')",
                stored: false);

            migrationBuilder.CreateIndex(
                name: "IX_Entries_LessonId_Kind",
                table: "Entries",
                columns: new[] { "LessonId", "Kind" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Plan",
                table: "Lessons",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.Sql("""UPDATE "Lessons" SET "Plan" = "Document" FROM "LessonPlans" WHERE "LessonId" = "Id" """);
            migrationBuilder.DropTable(
                name: "LessonPlans");

            migrationBuilder.DropIndex(
                name: "IX_Entries_LessonId_Kind",
                table: "Entries");

            migrationBuilder.Sql("""ALTER TABLE "Entries" DROP COLUMN "Kind" """);
            migrationBuilder.Sql("""ALTER TABLE "Lessons" DROP COLUMN "Prepared" """);

            migrationBuilder.CreateIndex(
                name: "IX_Entries_LessonId",
                table: "Entries",
                column: "LessonId");
        }
    }
}
