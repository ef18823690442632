using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PoliteTally.Store.Migrations
{
    /// <summary>
    /// Ground rules in which a weight was left out were stored with no weights at all, and could not be read again. Those of a class are in the newest version of its scheme;
    /// what is left out there weighs nothing. A lesson follows its class again.
    /// </summary>
    [DbContext(typeof(SchoolDb))]
    [Migration("20261201030000_WeightsLeftOut")]
    public partial class WeightsLeftOut : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""
                UPDATE "Classes" SET "Rules" = json_set("Rules", '$.scheme.weights', json(json_patch(
                    '{"attendance":0,"speaking":0,"questions":0,"chat":0,"groupWork":0,"rubric":0}',
                    (SELECT json_extract(v."Scheme", '$.weights') FROM "SchemeVersions" v WHERE v."ClassId" = "Classes"."Id" ORDER BY v."Number" DESC LIMIT 1))))
                WHERE json_valid("Rules") AND json_type("Rules", '$.scheme.weights') = 'null'
                    AND EXISTS (SELECT 1 FROM "SchemeVersions" v WHERE v."ClassId" = "Classes"."Id" AND json_valid(v."Scheme") AND json_type(v."Scheme", '$.weights') = 'object')
                """);
            migrationBuilder.Sql("""UPDATE "Classes" SET "Rules" = json_remove("Rules", '$.scheme.weights') WHERE json_valid("Rules") AND json_type("Rules", '$.scheme.weights') = 'null'""");
            migrationBuilder.Sql("""UPDATE "Lessons" SET "Rules" = json_remove("Rules", '$.scheme.weights') WHERE json_valid("Rules") AND json_type("Rules", '$.scheme.weights') = 'null'""");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
        }
    }
}
