using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PoliteTally.Store.Migrations
{
    /// <inheritdoc />
    public partial class SchemeVersions : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "ChatCredits",
                table: "Summaries");

            migrationBuilder.DropColumn(
                name: "FullTurns",
                table: "Summaries");

            migrationBuilder.DropColumn(
                name: "Nods",
                table: "Summaries");

            migrationBuilder.DropColumn(
                name: "PartialTurns",
                table: "Summaries");

            migrationBuilder.AddColumn<decimal>(
                name: "RestsOn",
                table: "Summaries",
                type: "TEXT",
                nullable: false,
                defaultValue: 0m);

            migrationBuilder.AddColumn<string>(
                name: "Tally",
                table: "Summaries",
                type: "TEXT",
                nullable: false,
                // Until the lesson is reckoned anew, nothing is counted.
                defaultValue: "{}");

            migrationBuilder.AddColumn<decimal>(
                name: "Whole",
                table: "Summaries",
                type: "TEXT",
                nullable: false,
                defaultValue: 0m);

            migrationBuilder.AddColumn<int>(
                name: "ScoredBy",
                table: "Lessons",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "SettledWith",
                table: "Lessons",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.CreateTable(
                name: "SchemeVersions",
                columns: table => new
                {
                    ClassId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Number = table.Column<int>(type: "INTEGER", nullable: false),
                    OwnerId = table.Column<Guid>(type: "TEXT", nullable: false),
                    MadeAt = table.Column<long>(type: "INTEGER", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    Why = table.Column<string>(type: "TEXT", nullable: false),
                    Scheme = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SchemeVersions", x => new { x.ClassId, x.Number });
                    table.ForeignKey(
                        name: "FK_SchemeVersions_Classes_ClassId",
                        column: x => x.ClassId,
                        principalTable: "Classes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade);
                });

            // The chat is a matter of the scheme now.
            foreach (var table in new[] { "Classes", "Lessons" })
            {
                migrationBuilder.Sql($"""
                    UPDATE "{table}" SET "Rules" = json_patch(json_remove("Rules", '$.chatCounts'), json_object('scheme', json_object('chatCounts', json(CASE json_extract("Rules", '$.chatCounts') WHEN 0 THEN 'false' ELSE 'true' END))))
                    WHERE json_extract("Rules", '$.chatCounts') IS NOT NULL
                    """);
            }

            // What was settled keeps the scheme it was settled with, in which an open line was no chance and nothing stood in for anything else. Lessons to come have the new one.
            AddVersion(1, "\"MadeAt\"", "as the class began", """{"openLineIsChance":false,"writtenStandsIn":0,"writtenAtMost":0,"turnInChat":0,"turnsInChatAtMost":0}""");
            AddVersion(2, "CAST(strftime('%s', 'now') AS INTEGER) * 1000", "a new default: an open line is a chance for all who were there, and writing and speaking stand in for each other in part", "{}");
            migrationBuilder.Sql("""UPDATE "Lessons" SET "SettledWith" = 1, "ScoredBy" = 1 WHERE "Stage" = 3 OR "RosterClosedAt" IS NOT NULL""");
            migrationBuilder.Sql("""UPDATE "Lessons" SET "ReckonAgain" = 1 WHERE "Stage" = 3""");

            void AddVersion(int number, string at, string why, string differs) => migrationBuilder.Sql($"""
                INSERT INTO "SchemeVersions" ("ClassId", "Number", "OwnerId", "MadeAt", "By", "Why", "Scheme")
                SELECT "Id", {number}, "OwnerId", {at}, '', '{why}', json_patch(json_patch('{Whole}', '{differs}'), coalesce(json_extract("Rules", '$.scheme'), json_object()))
                FROM "Classes" WHERE "Id" IN (SELECT "ClassId" FROM "Lessons" WHERE "Stage" = 3 OR "RosterClosedAt" IS NOT NULL)
                """);
        }

        private const string Whole = """
            {"attendance":{"lateAfter":300,"lateInDropIn":false,"leftEarlyBefore":300,"bridge":120,"absentBelow":300,"absentBelowShare":0.10,"enoughShare":0.75,"lateCredit":0.75,"creditBy":"status"},"weights":{"attendance":2,"speaking":3,"questions":3,"chat":1,"groupWork":1,"rubric":0},"speakingTarget":1,"uncalledHand":0.5,"signalAnswered":0.25,"openLineIsChance":true,"writtenStandsIn":0.25,"writtenAtMost":0.5,"marksShare":0.5,"signalGiven":0,"chatCounts":true,"chatTarget":2,"turnInChat":0.5,"turnsInChatAtMost":0.5,"nodPoints":1,"nodsAtMost":5,"absenceScoresZero":false,"lowestLeftOut":0,"lessonsWeighTheSame":false,"lessonsForTerm":3,"criteria":[],"bands":[],"places":0}
            """;

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "SchemeVersions");

            migrationBuilder.DropColumn(
                name: "RestsOn",
                table: "Summaries");

            migrationBuilder.DropColumn(
                name: "Tally",
                table: "Summaries");

            migrationBuilder.DropColumn(
                name: "Whole",
                table: "Summaries");

            migrationBuilder.DropColumn(
                name: "ScoredBy",
                table: "Lessons");

            migrationBuilder.DropColumn(
                name: "SettledWith",
                table: "Lessons");

            migrationBuilder.AddColumn<int>(
                name: "ChatCredits",
                table: "Summaries",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "FullTurns",
                table: "Summaries",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Nods",
                table: "Summaries",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "PartialTurns",
                table: "Summaries",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);
        }
    }
}
