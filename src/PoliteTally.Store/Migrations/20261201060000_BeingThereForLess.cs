using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace PoliteTally.Store.Migrations
{
    /// <summary>
    /// Leaving early costs as coming late does, and what was missed by either counts as asked. What was settled keeps its scheme, in which neither was so; lessons to come have the new
    /// one. Attendance is reckoned otherwise (what somebody writes moves nothing that was measured), so settled lessons are due.
    /// </summary>
    [DbContext(typeof(SchoolDb))]
    [Migration("20261201060000_BeingThereForLess")]
    public partial class BeingThereForLess : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                UPDATE "SchemeVersions" SET "Scheme" = json_set("Scheme", '$.attendance.leftEarlyCredit', 1, '$.attendance.missedCounts', json('false')) WHERE json_valid("Scheme")
                """);
            migrationBuilder.Sql("""
                INSERT INTO "SchemeVersions" ("ClassId", "Number", "OwnerId", "MadeAt", "By", "Why", "Scheme")
                SELECT "ClassId", "Number" + 1, "OwnerId", CAST(strftime('%s', 'now') AS INTEGER) * 1000, '',
                    'a new default: leaving early costs as coming late does, and what is missed by either counts as asked',
                    json_set("Scheme", '$.attendance.leftEarlyCredit', 0.75, '$.attendance.missedCounts', json('true'))
                FROM "SchemeVersions" AS v WHERE json_valid("Scheme") AND "Number" = (SELECT max("Number") FROM "SchemeVersions" WHERE "ClassId" = v."ClassId")
                """);
            migrationBuilder.Sql("""UPDATE "Lessons" SET "ReckonAgain" = 1 WHERE "Stage" = 3""");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
        }
    }
}
