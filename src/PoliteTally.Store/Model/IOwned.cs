namespace PoliteTally.Store.Model;

/// <summary>A row that belongs to one teacher. The owner filter of <see cref="SchoolDb"/> covers every such table.</summary>
public interface IOwned
{
    Guid OwnerId { get; set; }
}
