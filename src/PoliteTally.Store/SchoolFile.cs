using System.Data.Common;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;
using Microsoft.EntityFrameworkCore.Diagnostics;
using PoliteTally.Core.Names;

namespace PoliteTally.Store;

/// <summary>Opens the SQLite file in the data folder, the same way everywhere.</summary>
public sealed class SchoolFile
{
    /// <summary>The name of the file in the data folder.</summary>
    public const string Name = "polite-tally.db";

    private readonly string _path;
    private readonly string _pragmas;
    private readonly Lazy<ShortForms> _shortForms;

    /// <summary>The file in a data folder.</summary>
    /// <param name="dataFolder">The folder.</param>
    /// <param name="name">Another name, for one that is being made.</param>
    public SchoolFile(string dataFolder, string name = Name)
    {
        var isBeingMade = name != Name;
        _path = Path.Combine(dataFolder, name);
        // FULL: an acknowledgement means on the disk, not on its way there. One that is being made goes there as a whole, when it is done.
        // Secure delete: what is taken out of the file is not left lying in it.
        _pragmas = $"PRAGMA synchronous = {(isBeingMade ? "OFF" : "FULL")}; PRAGMA busy_timeout = 5000; PRAGMA foreign_keys = ON; PRAGMA secure_delete = ON";
        _shortForms = new(() => ShortFormTable.Of(dataFolder));
        Options = new DbContextOptionsBuilder<SchoolDb>()
            // One that is being made is moved or taken away, so nobody keeps it open.
            .UseSqlite(new SqliteConnectionStringBuilder { DataSource = _path, Pooling = !isBeingMade }.ToString())
            .AddInterceptors(new OnOpening(_pragmas))
            .Options;
    }

    /// <summary>The options of every context on this file.</summary>
    public DbContextOptions<SchoolDb> Options { get; }

    /// <summary>What names are called for short, at this school.</summary>
    /// <exception cref="StartProblem">The school's own table is not understood.</exception>
    public ShortForms ShortForms => _shortForms.Value;

    /// <summary>A context that sees and makes the rows of one owner.</summary>
    public SchoolDb Open(Guid owner) => new(Options, new Owner { Id = owner });

    /// <summary>A connection of its own, for whoever keeps it.</summary>
    internal SqliteConnection Connect()
    {
        var connection = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = _path, Pooling = false }.ToString());
        connection.Open();
        using var pragmas = connection.CreateCommand();
        pragmas.CommandText = _pragmas;
        pragmas.ExecuteNonQuery();
        return connection;
    }

    /// <summary>Brings the file up to the newest migration, making it if there is none.</summary>
    public void Migrate()
    {
        Directory.CreateDirectory(Path.GetDirectoryName(_path)!);
        using var db = Open(Guid.Empty);
        db.Database.Migrate();
        db.Database.ExecuteSqlRaw("PRAGMA journal_mode = WAL");
    }

    /// <summary>Lets go of the file, with all that was written in its one place and not in a log beside it.</summary>
    internal void Close()
    {
        using (var connection = Connect())
        {
            using var checkpoint = connection.CreateCommand();
            checkpoint.CommandText = "PRAGMA wal_checkpoint(TRUNCATE)";
            checkpoint.ExecuteNonQuery();
        }

        using var db = Open(Guid.Empty);
        SqliteConnection.ClearPool((SqliteConnection)db.Database.GetDbConnection());
    }

    private sealed class OnOpening(string pragmas) : DbConnectionInterceptor
    {
        public override void ConnectionOpened(DbConnection connection, ConnectionEndEventData eventData)
        {
            using var command = connection.CreateCommand();
            command.CommandText = pragmas;
            command.ExecuteNonQuery();
        }

        public override Task ConnectionOpenedAsync(
            DbConnection connection, ConnectionEndEventData eventData, CancellationToken cancellationToken = default)
        {
            ConnectionOpened(connection, eventData);
            return Task.CompletedTask;
        }
    }
}

/// <summary>Lets dotnet-ef make migrations without starting the application.</summary>
public sealed class SchoolDbForMigrations : IDesignTimeDbContextFactory<SchoolDb>
{
    /// <inheritdoc/>
    public SchoolDb CreateDbContext(string[] args) => new SchoolFile(Path.GetTempPath()).Open(Guid.Empty);
}
