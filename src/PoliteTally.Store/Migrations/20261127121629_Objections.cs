using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PoliteTally.Store.Migrations
{
    /// <inheritdoc />
    public partial class Objections : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "Objections",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    OwnerId = table.Column<Guid>(type: "TEXT", nullable: false),
                    LessonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudentId = table.Column<Guid>(type: "TEXT", nullable: false),
                    EntryId = table.Column<Guid>(type: "TEXT", nullable: true),
                    About = table.Column<string>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    MadeAt = table.Column<long>(type: "INTEGER", nullable: false),
                    Answer = table.Column<string>(type: "TEXT", nullable: false),
                    AnsweredBy = table.Column<string>(type: "TEXT", nullable: false),
                    AnsweredAt = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Objections", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Objections_Lessons_LessonId",
                        column: x => x.LessonId,
                        principalTable: "Lessons",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_Objections_Students_StudentId",
                        column: x => x.StudentId,
                        principalTable: "Students",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Objections_LessonId",
                table: "Objections",
                column: "LessonId");

            migrationBuilder.CreateIndex(
                name: "IX_Objections_OwnerId_AnsweredAt",
                table: "Objections",
                columns: new[] { "OwnerId", "AnsweredAt" });

            migrationBuilder.CreateIndex(
                name: "IX_Objections_StudentId",
                table: "Objections",
                column: "StudentId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Objections");
        }
    }
}
