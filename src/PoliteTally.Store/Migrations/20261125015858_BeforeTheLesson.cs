using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PoliteTally.Store.Migrations
{
    /// <inheritdoc />
    public partial class BeforeTheLesson : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<Guid>(
                name: "MergedIntoId",
                table: "Students",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "PassHash",
                table: "Students",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "PassMadeAt",
                table: "Students",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "CalendarUid",
                table: "Lessons",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<long>(
                name: "CancelledAt",
                table: "Lessons",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "MeetingLink",
                table: "Lessons",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "Moved",
                table: "Lessons",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Plan",
                table: "Lessons",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<int>(
                name: "PlanVersion",
                table: "Lessons",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<long>(
                name: "RosterClosedAt",
                table: "Lessons",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Rules",
                table: "Lessons",
                type: "TEXT",
                nullable: false,
                defaultValue: "{}");

            migrationBuilder.AddColumn<Guid>(
                name: "SeriesId",
                table: "Lessons",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Origin",
                table: "KnownNames",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

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

            migrationBuilder.AddColumn<long>(
                name: "ArchivedAt",
                table: "Classes",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Rules",
                table: "Classes",
                type: "TEXT",
                nullable: false,
                defaultValue: "{}");

            migrationBuilder.AddColumn<Guid>(
                name: "TermId",
                table: "Classes",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "CalendarKeyHash",
                table: "AspNetUsers",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "Pictures",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    OwnerId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Fingerprint = table.Column<string>(type: "TEXT", nullable: false),
                    Width = table.Column<int>(type: "INTEGER", nullable: false),
                    Height = table.Column<int>(type: "INTEGER", nullable: false),
                    AddedAt = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Pictures", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Series",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    OwnerId = table.Column<Guid>(type: "TEXT", nullable: false),
                    ClassId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Title = table.Column<string>(type: "TEXT", nullable: false),
                    Days = table.Column<string>(type: "TEXT", nullable: false),
                    EveryWeeks = table.Column<int>(type: "INTEGER", nullable: false),
                    Time = table.Column<string>(type: "TEXT", nullable: false),
                    Minutes = table.Column<int>(type: "INTEGER", nullable: false),
                    FirstDay = table.Column<string>(type: "TEXT", nullable: false),
                    LastDay = table.Column<string>(type: "TEXT", nullable: false),
                    Except = table.Column<string>(type: "TEXT", nullable: false),
                    DropIn = table.Column<bool>(type: "INTEGER", nullable: false),
                    MeetingLink = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Series", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Series_Classes_ClassId",
                        column: x => x.ClassId,
                        principalTable: "Classes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "Shelf",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    OwnerId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Question = table.Column<string>(type: "TEXT", nullable: false),
                    KeptAt = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Shelf", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Terms",
                columns: table => new
                {
                    Id = table.Column<Guid>(type: "TEXT", nullable: false),
                    OwnerId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    FirstDay = table.Column<string>(type: "TEXT", nullable: false),
                    LastDay = table.Column<string>(type: "TEXT", nullable: false),
                    DaysOff = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Terms", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "WordOfLessons",
                columns: table => new
                {
                    LessonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    OwnerId = table.Column<Guid>(type: "TEXT", nullable: false),
                    State = table.Column<int>(type: "INTEGER", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Said = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_WordOfLessons", x => x.LessonId);
                    table.ForeignKey(
                        name: "FK_WordOfLessons_Lessons_LessonId",
                        column: x => x.LessonId,
                        principalTable: "Lessons",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateTable(
                name: "WordsSent",
                columns: table => new
                {
                    LessonId = table.Column<Guid>(type: "TEXT", nullable: false),
                    StudentId = table.Column<Guid>(type: "TEXT", nullable: false),
                    OwnerId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Address = table.Column<string>(type: "TEXT", nullable: false),
                    State = table.Column<int>(type: "INTEGER", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    Why = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_WordsSent", x => new { x.LessonId, x.StudentId });
                    table.ForeignKey(
                        name: "FK_WordsSent_Lessons_LessonId",
                        column: x => x.LessonId,
                        principalTable: "Lessons",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "FK_WordsSent_Students_StudentId",
                        column: x => x.StudentId,
                        principalTable: "Students",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Students_OwnerId",
                table: "Students",
                column: "OwnerId");

            migrationBuilder.CreateIndex(
                name: "IX_Students_PassHash",
                table: "Students",
                column: "PassHash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Classes_TermId",
                table: "Classes",
                column: "TermId");

            migrationBuilder.CreateIndex(
                name: "IX_AspNetUsers_CalendarKeyHash",
                table: "AspNetUsers",
                column: "CalendarKeyHash",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Series_ClassId",
                table: "Series",
                column: "ClassId");

            migrationBuilder.CreateIndex(
                name: "IX_WordsSent_StudentId",
                table: "WordsSent",
                column: "StudentId");

            migrationBuilder.AddForeignKey(
                name: "FK_Classes_Terms_TermId",
                table: "Classes",
                column: "TermId",
                principalTable: "Terms",
                principalColumn: "Id",
                onDelete: ReferentialAction.SetNull);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropForeignKey(
                name: "FK_Classes_Terms_TermId",
                table: "Classes");

            migrationBuilder.DropTable(
                name: "Pictures");

            migrationBuilder.DropTable(
                name: "Series");

            migrationBuilder.DropTable(
                name: "Shelf");

            migrationBuilder.DropTable(
                name: "Terms");

            migrationBuilder.DropTable(
                name: "WordOfLessons");

            migrationBuilder.DropTable(
                name: "WordsSent");

            migrationBuilder.DropIndex(
                name: "IX_Students_OwnerId",
                table: "Students");

            migrationBuilder.DropIndex(
                name: "IX_Students_PassHash",
                table: "Students");

            migrationBuilder.DropIndex(
                name: "IX_Classes_TermId",
                table: "Classes");

            migrationBuilder.DropIndex(
                name: "IX_AspNetUsers_CalendarKeyHash",
                table: "AspNetUsers");

            migrationBuilder.DropColumn(
                name: "MergedIntoId",
                table: "Students");

            migrationBuilder.DropColumn(
                name: "PassHash",
                table: "Students");

            migrationBuilder.DropColumn(
                name: "PassMadeAt",
                table: "Students");

            migrationBuilder.DropColumn(
                name: "CalendarUid",
                table: "Lessons");

            migrationBuilder.DropColumn(
                name: "CancelledAt",
                table: "Lessons");

            migrationBuilder.DropColumn(
                name: "MeetingLink",
                table: "Lessons");

            migrationBuilder.DropColumn(
                name: "Moved",
                table: "Lessons");

            migrationBuilder.DropColumn(
                name: "Plan",
                table: "Lessons");

            migrationBuilder.DropColumn(
                name: "PlanVersion",
                table: "Lessons");

            migrationBuilder.DropColumn(
                name: "RosterClosedAt",
                table: "Lessons");

            migrationBuilder.DropColumn(
                name: "Rules",
                table: "Lessons");

            migrationBuilder.DropColumn(
                name: "SeriesId",
                table: "Lessons");

            migrationBuilder.DropColumn(
                name: "Origin",
                table: "KnownNames");

            migrationBuilder.DropColumn(
                name: "JoinedAt",
                table: "Enrolments");

            migrationBuilder.DropColumn(
                name: "LeftAt",
                table: "Enrolments");

            migrationBuilder.DropColumn(
                name: "ArchivedAt",
                table: "Classes");

            migrationBuilder.DropColumn(
                name: "Rules",
                table: "Classes");

            migrationBuilder.DropColumn(
                name: "TermId",
                table: "Classes");

            migrationBuilder.DropColumn(
                name: "CalendarKeyHash",
                table: "AspNetUsers");
        }
    }
}
