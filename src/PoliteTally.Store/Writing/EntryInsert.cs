using Microsoft.Data.Sqlite;
using PoliteTally.Core.Ledger;
using PoliteTally.Store.Model;

namespace PoliteTally.Store.Writing;

/// <summary>
/// The one statement on the way of every tap, prepared once. Its names are those of <see cref="EntryRow"/>; a test of
/// the web floor reads what it writes through the model.
/// </summary>
internal sealed class EntryInsert : IDisposable
{
    private readonly SqliteCommand _command;

    public EntryInsert(SqliteConnection connection)
    {
        _command = connection.CreateCommand();
        _command.CommandText = """
            INSERT INTO "Entries" ("Id", "OwnerId", "LessonId", "HappenedAt", "NotedAt", "Source", "By", "Act", "Together")
            VALUES ($id, $owner, $lesson, $happened, $noted, $source, $by, $act, $together)
            ON CONFLICT ("Id") DO NOTHING
            RETURNING "Seq"
            """;
        foreach (var name in (string[])["$id", "$owner", "$lesson", "$happened", "$noted", "$source", "$by", "$act", "$together"])
        {
            _command.Parameters.Add(new SqliteParameter { ParameterName = name });
        }
    }

    public void In(SqliteTransaction transaction) => _command.Transaction = transaction;

    /// <summary>The number of the stored entry; null if one of this id is stored already.</summary>
    /// <exception cref="NotReadBack">Its act could not be read again; nothing was stored.</exception>
    public long? Store(Guid owner, Guid lesson, Entry entry)
    {
        var act = ActJson.Write(entry.Act);
        Documents.ReadBack(typeof(EntryRow), nameof(EntryRow.Act), act);
        object[] values =
        [
            entry.Id, owner, lesson, entry.HappenedAt.ToUnixTimeMilliseconds(), entry.NotedAt.ToUnixTimeMilliseconds(),
            (int)entry.Source, entry.By, act,
            (object?)entry.Together ?? DBNull.Value,
        ];
        for (var i = 0; i < values.Length; i++)
        {
            _command.Parameters[i].Value = values[i];
        }

        return (long?)_command.ExecuteScalar();
    }

    public void Dispose() => _command.Dispose();
}
