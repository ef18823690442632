using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PoliteTally.Store.Migrations
{
    /// <inheritdoc />
    public partial class LiveLesson : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "LiveKeys",
                table: "AspNetUsers",
                type: "TEXT",
                nullable: false,
                defaultValue: "{}");

            migrationBuilder.CreateTable(
                name: "LessonKeys",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    OwnerId = table.Column<Guid>(type: "TEXT", nullable: false),
                    LessonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Rights = table.Column<int>(type: "INTEGER", nullable: false),
                    KeyHash = table.Column<string>(type: "TEXT", nullable: false),
                    MadeAt = table.Column<long>(type: "INTEGER", nullable: false),
                    TakenBackAt = table.Column<long>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_LessonKeys", x => x.Id);
                    table.ForeignKey(
                        name: "FK_LessonKeys_Lessons_LessonId",
                        column: x => x.LessonId,
                        principalTable: "Lessons",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_LessonKeys_KeyHash",
                table: "LessonKeys",
                column: "KeyHash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_LessonKeys_LessonId",
                table: "LessonKeys",
                column: "LessonId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "LessonKeys");

            migrationBuilder.DropColumn(
                name: "LiveKeys",
                table: "AspNetUsers");
        }
    }
}
