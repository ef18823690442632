using NetArchTest.Rules;

namespace PoliteTally.Web.Tests;

/// <summary>Four floors; each imports only from below.</summary>
public sealed class FloorTests
{
    [Theory]
    [InlineData("PoliteTally.Core", "PoliteTally.Formats,PoliteTally.Store,PoliteTally.Demo,PoliteTally.Web,Microsoft.EntityFrameworkCore,Microsoft.AspNetCore,Microsoft.Data,System.Text.Json,System.IO,System.Net")]
    [InlineData("PoliteTally.Formats", "PoliteTally.Store,PoliteTally.Demo,PoliteTally.Web,Microsoft.EntityFrameworkCore,Microsoft.AspNetCore,Microsoft.Data")]
    [InlineData("PoliteTally.Store", "PoliteTally.Formats,PoliteTally.Demo,PoliteTally.Web,Microsoft.AspNetCore.Http,Microsoft.AspNetCore.SignalR")]
    [InlineData("PoliteTally.Demo", "PoliteTally.Web,Microsoft.AspNetCore.Http")]
    public void A_floor_imports_only_from_below(string floor, string above)
    {
        var result = Types.InAssembly(System.Reflection.Assembly.Load(floor)).That().ResideInNamespaceStartingWith(floor)
            .ShouldNot().HaveDependencyOnAny(above.Split(',')).GetResult();
        result.IsSuccessful.ShouldBeTrue(string.Join(", ", result.FailingTypeNames ?? []));
    }

    [Fact]
    public void The_core_asks_no_clock()
    {
        var result = Types.InAssembly(System.Reflection.Assembly.Load("PoliteTally.Core")).ShouldNot()
            .HaveDependencyOnAny("NodaTime.SystemClock", "System.DateTime", "System.DateTimeOffset", "System.TimeProvider").GetResult();
        result.IsSuccessful.ShouldBeTrue(string.Join(", ", result.FailingTypeNames ?? []));
    }

    [Fact]
    public void The_stand_ins_know_nothing_of_the_application()
    {
        var root = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(root!.FullName, "PoliteTally.slnx")))
        {
            root = root.Parent;
        }

        File.ReadAllText(Path.Combine(root.FullName, "src", "PoliteTally.StandIns", "PoliteTally.StandIns.csproj")).ShouldNotContain("ProjectReference");
    }
}
