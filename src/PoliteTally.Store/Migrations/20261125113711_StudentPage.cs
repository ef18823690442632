using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PoliteTally.Store.Migrations
{
    /// <inheritdoc />
    public partial class StudentPage : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "Code",
                table: "Lessons",
                type: "TEXT",
                nullable: true);

            // Without a row id, no number tells the order in which rows came.
            migrationBuilder.Sql(
                """
                CREATE TABLE "Ballots" (
                    "AskingId" TEXT NOT NULL, "Id" TEXT NOT NULL, "OwnerId" TEXT NOT NULL, "LessonId" TEXT NOT NULL, "Answer" TEXT NOT NULL,
                    CONSTRAINT "PK_Ballots" PRIMARY KEY ("AskingId", "Id"),
                    CONSTRAINT "FK_Ballots_Lessons_LessonId" FOREIGN KEY ("LessonId") REFERENCES "Lessons" ("Id") ON DELETE CASCADE
                ) WITHOUT ROWID
                """);

            migrationBuilder.Sql(
                """
                CREATE TABLE "BallotsCast" (
                    "AskingId" TEXT NOT NULL, "StudentId" TEXT NOT NULL, "OwnerId" TEXT NOT NULL, "LessonId" TEXT NOT NULL,
                    CONSTRAINT "PK_BallotsCast" PRIMARY KEY ("AskingId", "StudentId"),
                    CONSTRAINT "FK_BallotsCast_Lessons_LessonId" FOREIGN KEY ("LessonId") REFERENCES "Lessons" ("Id") ON DELETE CASCADE
                ) WITHOUT ROWID
                """);

            migrationBuilder.CreateTable(
                name: "PageSessions",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    OwnerId = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudentId = table.Column<Guid>(type: "TEXT", nullable: true),
                    LessonId = table.Column<Guid>(type: "TEXT", nullable: true),
                    TokenHash = table.Column<string>(type: "TEXT", nullable: false),
                    Device = table.Column<string>(type: "TEXT", nullable: false),
                    MadeAt = table.Column<long>(type: "INTEGER", nullable: false),
                    EndedAt = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PageSessions", x => x.Id);
                    table.ForeignKey(
                        name: "FK_PageSessions_Lessons_LessonId",
                        column: x => x.LessonId,
                        principalTable: "Lessons",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_PageSessions_Students_StudentId",
                        column: x => x.StudentId,
                        principalTable: "Students",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Lessons_Code",
                table: "Lessons",
                column: "Code",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Ballots_LessonId",
                table: "Ballots",
                column: "LessonId");

            migrationBuilder.CreateIndex(
                name: "IX_BallotsCast_LessonId",
                table: "BallotsCast",
                column: "LessonId");

            migrationBuilder.CreateIndex(
                name: "IX_PageSessions_LessonId",
                table: "PageSessions",
                column: "LessonId");

            migrationBuilder.CreateIndex(
                name: "IX_PageSessions_StudentId",
                table: "PageSessions",
                column: "StudentId");

            migrationBuilder.CreateIndex(
                name: "IX_PageSessions_TokenHash",
                table: "PageSessions",
                column: "TokenHash",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Ballots");

            migrationBuilder.DropTable(
                name: "BallotsCast");

            migrationBuilder.DropTable(
                name: "PageSessions");

            migrationBuilder.DropIndex(
                name: "IX_Lessons_Code",
                table: "Lessons");

            migrationBuilder.DropColumn(
                name: "Code",
                table: "Lessons");
        }
    }
}
