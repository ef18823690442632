using System.Data;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace PoliteTally.Store;

/// <summary>Holds what a context reads to one moment, without keeping anybody from writing.</summary>
internal sealed class Moment : IDisposable
{
    private readonly SchoolDb _db;
    private readonly SqliteTransaction _transaction;

    private Moment(SchoolDb db)
    {
        db.Database.OpenConnection();
        (_db, _transaction) = (db, ((SqliteConnection)db.Database.GetDbConnection()).BeginTransaction(IsolationLevel.Serializable, deferred: true));
        db.Database.UseTransaction(_transaction);
    }

    /// <summary>From now until it is disposed of; null if the context is in a transaction already.</summary>
    public static Moment? Of(SchoolDb db) => db.Database.CurrentTransaction is null ? new Moment(db) : null;

    /// <inheritdoc/>
    public void Dispose()
    {
        _db.Database.UseTransaction(null);
        _transaction.Dispose();
        _db.Database.CloseConnection();
    }
}
