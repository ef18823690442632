namespace PoliteTally.Web.Tests.Circle.One
{
    /// <summary>Half of a circle, so that the rule against them is seen to find one.</summary>
    internal sealed record Egg(Two.Hen LaidBy);
}

namespace PoliteTally.Web.Tests.Circle.Two
{
    /// <summary>The other half.</summary>
    internal sealed record Hen(One.Egg HatchedFrom);
}
