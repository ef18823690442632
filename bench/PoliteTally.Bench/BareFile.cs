using System.Diagnostics;
using Microsoft.Data.Sqlite;

namespace PoliteTally.Bench;

/// <summary>A file of SQLite with nothing around it: the least that storing one row for good takes on this disk.</summary>
internal sealed class BareFile : IDisposable
{
    private readonly SqliteConnection _connection;
    private readonly SqliteCommand _insert;

    public BareFile(string folder)
    {
        _connection = new SqliteConnection($"Data Source={Path.Combine(folder, "bare.db")};Pooling=False");
        _connection.Open();
        using var make = _connection.CreateCommand();
        make.CommandText = "PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; CREATE TABLE Entries (Seq INTEGER PRIMARY KEY, Id TEXT UNIQUE, Act TEXT)";
        make.ExecuteNonQuery();
        _insert = _connection.CreateCommand();
        _insert.CommandText = "INSERT INTO Entries (Id, Act) VALUES ($id, $act)";
        _insert.Parameters.AddWithValue("$id", "");
        _insert.Parameters.AddWithValue("$act", """{"type":"nodGiven","student":"01900000-0000-7000-8000-000000000000","reason":"on time"}""");
    }

    /// <summary>One row in a transaction of its own; how long that took in milliseconds.</summary>
    public double Commit()
    {
        var watch = Stopwatch.StartNew();
        using var transaction = _connection.BeginTransaction();
        _insert.Transaction = transaction;
        _insert.Parameters[0].Value = Guid.CreateVersion7();
        _insert.ExecuteNonQuery();
        transaction.Commit();
        return watch.Elapsed.TotalMilliseconds;
    }

    /// <summary>One after the other for a while.</summary>
    public List<double> Commit(TimeSpan time)
    {
        var each = new List<double>();
        for (var whole = Stopwatch.StartNew(); whole.Elapsed < time;)
        {
            each.Add(Commit());
        }

        return each;
    }

    public void Dispose()
    {
        _insert.Dispose();
        _connection.Dispose();
    }
}
