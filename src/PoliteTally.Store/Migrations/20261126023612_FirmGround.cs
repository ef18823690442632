using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PoliteTally.Store.Migrations
{
    /// <inheritdoc />
    public partial class FirmGround : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Ballots");

            migrationBuilder.DropTable(
                name: "BallotsCast");

            migrationBuilder.AddColumn<string>(
                name: "SeriesDay",
                table: "Lessons",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<Guid>(
                name: "LessonId",
                table: "KnownNames",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Stays",
                columns: table => new
                {
                    ClassId = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudentId = table.Column<Guid>(type: "TEXT", nullable: false),
                    From = table.Column<long>(type: "INTEGER", nullable: false),
                    OwnerId = table.Column<Guid>(type: "TEXT", nullable: false),
                    To = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Stays", x => new { x.ClassId, x.StudentId, x.From });
                    table.ForeignKey(
                        name: "FK_Stays_Enrolments_ClassId_StudentId",
                        columns: x => new { x.ClassId, x.StudentId },
                        principalTable: "Enrolments",
                        principalColumns: new[] { "ClassId", "StudentId" },
                        onDelete: ReferentialAction.Cascade);
                });

            // Who was in a class once was there from joining to leaving.
            migrationBuilder.Sql(
                """
                INSERT INTO "Stays" ("ClassId", "StudentId", "OwnerId", "From", "To")
                SELECT "ClassId", "StudentId", "OwnerId", "JoinedAt", "LeftAt" FROM "Enrolments"
                """);
            migrationBuilder.Sql("""ALTER TABLE "Enrolments" DROP COLUMN "JoinedAt" """);
            migrationBuilder.Sql("""ALTER TABLE "Enrolments" DROP COLUMN "LeftAt" """);

            // Until now a remembered name knew its lesson by what that was called.
            migrationBuilder.Sql(
                """
                UPDATE "KnownNames" SET "LessonId" = (
                    SELECT l."Id" FROM "Lessons" l
                    WHERE l."ClassId" = "KnownNames"."ClassId" AND 'lesson ' || l."Number" || ', ' || l."Title" = "KnownNames"."Origin")
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Stays");

            migrationBuilder.DropColumn(
                name: "SeriesDay",
                table: "Lessons");

            migrationBuilder.DropColumn(
                name: "LessonId",
                table: "KnownNames");

            migrationBuilder.AddColumn<long>(
                name: "JoinedAt",
                table: "Enrolments",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0L);

            migrationBuilder.AddColumn<long>(
                name: "LeftAt",
                table: "Enrolments",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Ballots",
                columns: table => new
                {
                    AskingId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    LessonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Answer = table.Column<string>(type: "TEXT", nullable: false),
                    OwnerId = table.Column<Guid>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Ballots", x => new { x.AskingId, x.Id });
                    table.ForeignKey(
                        name: "FK_Ballots_Lessons_LessonId",
                        column: x => x.LessonId,
                        principalTable: "Lessons",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "BallotsCast",
                columns: table => new
                {
                    AskingId = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudentId = table.Column<Guid>(type: "TEXT", nullable: false),
                    LessonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    OwnerId = table.Column<Guid>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BallotsCast", x => new { x.AskingId, x.StudentId });
                    table.ForeignKey(
                        name: "FK_BallotsCast_Lessons_LessonId",
                        column: x => x.LessonId,
                        principalTable: "Lessons",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Ballots_LessonId",
                table: "Ballots",
                column: "LessonId");

            migrationBuilder.CreateIndex(
                name: "IX_BallotsCast_LessonId",
                table: "BallotsCast",
                column: "LessonId");
        }
    }
}
