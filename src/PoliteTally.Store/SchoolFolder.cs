using System.Runtime.InteropServices;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace PoliteTally.Store;

/// <summary>The application cannot start on this data folder.</summary>
/// <param name="message">What is wrong, and what to do.</param>
/// <param name="inner">What happened underneath.</param>
public sealed class StartProblem(string message, Exception? inner = null) : Exception(message, inner);

/// <summary>
/// The data folder, held by one program at a time. Its file is made, filled and brought up to date beside itself and then put in place as a
/// whole, so that whatever breaks off a start leaves what was there before.
/// </summary>
public sealed class SchoolFolder : IDisposable
{
    // EWOULDBLOCK of Linux, which is how a lock is refused.
    private const int HeldByAnother = 11;

    // 0077 in octal, as umask(2) takes it.
    private const uint NothingForOthers = 63;

    private const string Part = SchoolFile.Name + ".part";

    private readonly string _folder;
    private readonly FileStream _lock;

    private SchoolFolder(string folder, FileStream held) => (_folder, _lock) = (folder, held);

    /// <summary>Takes a data folder, making it if there is none.</summary>
    /// <exception cref="StartProblem">It cannot be had.</exception>
    public static SchoolFolder Take(string folder) => Saying(folder, () =>
    {
        if (File.Exists(folder))
        {
            throw new StartProblem($"{folder} is a file. Choose a folder with --data DIR.");
        }

        OnlyForThisUser();
        Directory.CreateDirectory(folder);
        try
        {
            return new SchoolFolder(folder, new FileStream(Path.Combine(folder, "lock"), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None));
        }
        catch (IOException taken) when (taken.HResult == HeldByAnother)
        {
            throw new StartProblem($"Another Polite Tally is running on {folder}. Use that one, or choose another folder with --data DIR.", taken);
        }
    });

    /// <summary>The file of the school, up to date.</summary>
    /// <param name="fill">Fills a file that has no accounts yet; null to leave it empty.</param>
    /// <param name="say">Is told what was kept of the file as it was.</param>
    /// <exception cref="StartProblem">It is damaged, of a newer version, or cannot be written.</exception>
    public SchoolFile Open(Action<SchoolFile>? fill, Action<string> say) => Saying(_folder, () =>
    {
        var (file, path) = (new SchoolFile(_folder), Path.Combine(_folder, SchoolFile.Name));
        // Said now if it cannot be used, and not in the middle of a lesson.
        _ = file.ShortForms;
        var isNew = !File.Exists(path);
        var pending = isNew ? [] : Pending(file, path);
        var toFill = fill is not null && (isNew || pending.Count > 0 || HasNoAccounts(file));
        if (!isNew && pending.Count == 0 && !toFill)
        {
            return file;
        }

        foreach (var left in Directory.GetFiles(_folder, Part + "*"))
        {
            File.Delete(left);
        }

        var part = new SchoolFile(_folder, Part);
        if (!isNew)
        {
            file.Close();
            File.Copy(path, Path.Combine(_folder, Part));
        }

        part.Migrate();
        if (toFill && HasNoAccounts(part))
        {
            fill!(part);
        }

        part.Close();
        OntoDisk(Path.Combine(_folder, Part));
        if (pending.Count > 0)
        {
            var before = $"polite-tally.before-{pending[0]}.db";
            File.Copy(path, Path.Combine(_folder, before), overwrite: true);
            say($"The file was brought up to date. As it was before, it is kept as {before}.");
        }

        File.Move(Path.Combine(_folder, Part), path, overwrite: true);
        return file;
    });

    /// <summary>Does something that needs what is in the folder; lets go of the folder if that cannot be.</summary>
    /// <exception cref="StartProblem">Something in it cannot be used.</exception>
    public void Using(Action what)
    {
        try
        {
            Saying(_folder, () =>
            {
                what();
                return true;
            });
        }
        catch
        {
            Dispose();
            throw;
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _lock.Dispose();

    // Whatever this program makes from here on is for whoever runs it, and for nobody else on the machine: names, marks, mail, keys.
    private static void OnlyForThisUser()
    {
        if (OperatingSystem.IsLinux())
        {
            _ = SetMask(NothingForOthers);
        }
    }

    [DllImport("libc", EntryPoint = "umask")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern uint SetMask(uint mask);

    private static void OntoDisk(string path)
    {
        using var whole = new FileStream(path, FileMode.Open, FileAccess.ReadWrite);
        whole.Flush(flushToDisk: true);
    }

    private static List<string> Pending(SchoolFile file, string path)
    {
        if (new FileInfo(path).Length == 0)
        {
            throw new StartProblem($"{path} is empty. If there is a copy of the school, put it in its place; if not, take this file away and start again.");
        }

        using var db = file.Open(Guid.Empty);
        var (known, applied) = (db.Database.GetMigrations().ToList(), db.Database.GetAppliedMigrations().ToList());
        if (applied.Except(known).Any())
        {
            throw new StartProblem($"{path} was written by a newer version of Polite Tally. Start that one; this one leaves the file as it is.");
        }

        if (applied.Count == 0)
        {
            throw new StartProblem($"{path} is no file of Polite Tally. Take it away, or choose another folder with --data DIR.");
        }

        return [.. known.Except(applied)];
    }

    private static bool HasNoAccounts(SchoolFile file)
    {
        using var db = file.Open(Guid.Empty);
        return !db.Users.Any();
    }

    private static T Saying<T>(string folder, Func<T> what)
    {
        try
        {
            return what();
        }
        catch (SqliteException failure)
        {
            throw new StartProblem(WordsFor(failure, folder), failure);
        }
        catch (Exception failure) when (failure is IOException or UnauthorizedAccessException)
        {
            throw new StartProblem($"{folder} cannot be used: {failure.Message} Nothing in it was changed.", failure);
        }
    }

    // The result codes of SQLite: https://www.sqlite.org/rescode.html
    private static string WordsFor(SqliteException failure, string folder) => failure.SqliteErrorCode switch
    {
        11 or 26 => $"The file {SchoolFile.Name} in {folder} is damaged. Put a copy of it in its place; it was left as it is.",
        8 or 14 => $"The file {SchoolFile.Name} in {folder} cannot be written. Give this user the right to write in the folder.",
        // Also what SQLite says when there is no room for the files that it keeps beside its own.
        10 => $"The disk of {folder} is full, or it fails. Make room, or look after it, and start again; nothing was lost.",
        13 => $"The disk of {folder} is full. Make room and start again; nothing was lost.",
        _ => $"The file {SchoolFile.Name} in {folder} cannot be opened: {failure.Message}.",
    };
}
