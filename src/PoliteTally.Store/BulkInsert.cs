using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata;
using Microsoft.EntityFrameworkCore.Storage;

namespace PoliteTally.Store;

/// <summary>
/// Many new rows of a table, to be stored by one prepared statement. What the columns are, and how values are written, the model says. The values
/// are made ready beforehand: while rows are stored nobody else can write.
/// </summary>
internal sealed class BulkInsert
{
    private readonly string _statement;
    private readonly List<object[]> _rows = [];

    /// <summary>Makes rows ready. The context takes them for stored from here on.</summary>
    /// <param name="type">Their table.</param>
    /// <param name="rows">The rows.</param>
    /// <param name="inPlace">Whether a row of the same key is written over.</param>
    public BulkInsert(IEntityType type, IEnumerable<EntityEntry> rows, bool inPlace = false)
    {
        var table = StoreObjectIdentifier.Create(type, StoreObjectType.Table)!.Value;
        var columns = type.GetProperties().Where(p => p.GetComputedColumnSql() is null).Select(p => (Property: p, Name: p.GetColumnName(table)!, p.GetTypeMapping().Converter)).ToList();
        _statement = $"""
            INSERT INTO "{table.Name}" ({string.Join(", ", columns.Select(c => $"\"{c.Name}\""))}) VALUES ({string.Join(", ", columns.Select((_, i) => $"$p{i}"))})
            """;
        if (inPlace)
        {
            var key = type.FindPrimaryKey()!.Properties;
            _statement += $"""
                 ON CONFLICT ({string.Join(", ", key.Select(k => $"\"{k.GetColumnName(table)}\""))})
                DO UPDATE SET {string.Join(", ", columns.Where(c => !key.Contains(c.Property)).Select(c => $"\"{c.Name}\" = excluded.\"{c.Name}\""))}
                """;
        }

        foreach (var row in rows)
        {
            _rows.Add([.. columns.Select(c => Written(row.Property(c.Property).CurrentValue, c.Converter))]);
            row.State = EntityState.Unchanged;
        }

        static object Written(object? value, Microsoft.EntityFrameworkCore.Storage.ValueConversion.ValueConverter? converter) =>
            (converter is not null ? converter.ConvertToProvider(value) : value is Enum ? Convert.ToInt64(value, null) : value) ?? DBNull.Value;
    }

    /// <summary>Stores them, as part of the context's transaction.</summary>
    public void Into(SchoolDb db)
    {
        using var insert = ((SqliteConnection)db.Database.GetDbConnection()).CreateCommand();
        insert.Transaction = (SqliteTransaction)db.Database.CurrentTransaction!.GetDbTransaction();
        insert.CommandText = _statement;
        foreach (var row in _rows)
        {
            for (var i = 0; i < row.Length; i++)
            {
                if (insert.Parameters.Count == i)
                {
                    insert.Parameters.Add(new SqliteParameter { ParameterName = $"$p{i}" });
                }

                insert.Parameters[i].Value = row[i];
            }

            insert.ExecuteNonQuery();
        }
    }
}
