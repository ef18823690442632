using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PoliteTally.Store.Migrations
{
    /// <inheritdoc />
    public partial class FilesInTheLedger : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // That a file was brought in is an entry as well, to which what it says belongs: so it can be taken out. Its clock is aligned, and a page that was open over the whole lesson counts: both may change figures.
            migrationBuilder.Sql("""
                UPDATE "Entries" SET "Together" = (SELECT MIN(b."Id") FROM "BroughtIn" b WHERE b."LessonId" = "Entries"."LessonId" AND b."FileName" = "Entries"."By")
                WHERE "Source" = 3
                """);
            migrationBuilder.Sql("""
                INSERT INTO "Entries" ("Id", "OwnerId", "LessonId", "HappenedAt", "NotedAt", "Source", "By", "Act")
                SELECT b."Id", b."OwnerId", b."LessonId", b."NotedAt",
                    (SELECT MAX(e."NotedAt") FROM "Entries" e WHERE e."LessonId" = b."LessonId") + ROW_NUMBER() OVER (PARTITION BY b."LessonId" ORDER BY b."NotedAt"), 3, b."FileName",
                    json_object('type', 'fileBroughtIn', 'kind', 'attendance', 'name', b."FileName", 'rows', b."Entries", 'fingerprint', b."Fingerprint")
                FROM "BroughtIn" b ORDER BY b."NotedAt"
                """);
            migrationBuilder.Sql("""UPDATE "Lessons" SET "ReckonAgain" = 1 WHERE "Stage" = 3""");
            migrationBuilder.DropTable(
                name: "BroughtIn");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "BroughtIn",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    LessonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Entries = table.Column<int>(type: "INTEGER", nullable: false),
                    EntryIds = table.Column<string>(type: "TEXT", nullable: false),
                    FileName = table.Column<string>(type: "TEXT", nullable: false),
                    Fingerprint = table.Column<string>(type: "TEXT", nullable: false),
                    NotedAt = table.Column<long>(type: "INTEGER", nullable: false),
                    OwnerId = table.Column<Guid>(type: "TEXT", nullable: false),
                    TakenOutAt = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BroughtIn", x => x.Id);
                    table.ForeignKey(
                        name: "FK_BroughtIn_Lessons_LessonId",
                        column: x => x.LessonId,
                        principalTable: "Lessons",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_BroughtIn_LessonId_Fingerprint",
                table: "BroughtIn",
                columns: new[] { "LessonId", "Fingerprint" },
                unique: true);
        }
    }
}
