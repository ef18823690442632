using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PoliteTally.Store.Migrations
{
    /// <summary>Who took part was there, whatever a list says, and overlapping connections are paired by depth: what was settled before is reckoned anew at the next start.</summary>
    [DbContext(typeof(SchoolDb))]
    [Migration("20261126204500_TookPart")]
    public partial class TookPart : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""UPDATE "Lessons" SET "ReckonAgain" = 1 WHERE "Stage" = 3""");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
        }
    }
}
