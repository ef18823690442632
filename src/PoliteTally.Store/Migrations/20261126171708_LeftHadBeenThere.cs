using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace PoliteTally.Store.Migrations
{
    /// <summary>Who left had been there from the start, if nothing says that they came later: what was settled before is reckoned anew at the next start.</summary>
    public partial class LeftHadBeenThere : Migration
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
