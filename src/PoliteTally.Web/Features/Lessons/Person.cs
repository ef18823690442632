namespace PoliteTally.Web.Features.Lessons;

/// <summary>A student to choose from.</summary>
public sealed record Person(Guid Id, string ShortName, string FullName);
