using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata;
using Microsoft.EntityFrameworkCore.Storage;

namespace PoliteTally.Store;

/// <summary>Puts many rows into a table by one prepared statement. What the columns are, and how values are written, the model says.</summary>
internal static class BulkInsert
{
    /// <summary>Stores new rows as part of the context's transaction; the context takes them for stored from then on.</summary>
    public static void Into(SchoolDb db, IEntityType type, IEnumerable<EntityEntry> rows)
    {
        var table = StoreObjectIdentifier.Create(type, StoreObjectType.Table)!.Value;
        var columns = type.GetProperties().Select(p => (Property: p, Name: p.GetColumnName(table)!, p.GetTypeMapping().Converter)).ToList();
        using var insert = ((SqliteConnection)db.Database.GetDbConnection()).CreateCommand();
        insert.Transaction = (SqliteTransaction)db.Database.CurrentTransaction!.GetDbTransaction();
        insert.CommandText = $"""
            INSERT INTO "{table.Name}" ({string.Join(", ", columns.Select(c => $"\"{c.Name}\""))}) VALUES ({string.Join(", ", columns.Select((_, i) => $"$p{i}"))})
            """;
        for (var i = 0; i < columns.Count; i++)
        {
            insert.Parameters.Add(new SqliteParameter { ParameterName = $"$p{i}" });
        }

        foreach (var row in rows)
        {
            for (var i = 0; i < columns.Count; i++)
            {
                var value = row.Property(columns[i].Property).CurrentValue;
                insert.Parameters[i].Value = (columns[i].Converter is { } converter ? converter.ConvertToProvider(value) : value is Enum ? Convert.ToInt64(value, null) : value) ?? DBNull.Value;
            }

            insert.ExecuteNonQuery();
            row.State = EntityState.Unchanged;
        }
    }
}
