using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;
using NodaTime;
using NodaTime.Text;
using PoliteTally.Store.Model;

namespace PoliteTally.Store;

/// <summary>Whose rows a context sees and makes; set once for a request, before the first query.</summary>
public sealed class Owner
{
    /// <summary>The account's id; the empty id owns nothing.</summary>
    public Guid Id { get; set; }
}

/// <summary>The one SQLite file. Every table of a teacher's data is filtered by its owner here and nowhere else.</summary>
public sealed class SchoolDb(DbContextOptions<SchoolDb> options, Owner owner) : IdentityUserContext<Teacher, Guid>(options)
{
    public DbSet<SchoolClass> Classes => Set<SchoolClass>();
    public DbSet<Student> Students => Set<Student>();
    public DbSet<Enrolment> Enrolments => Set<Enrolment>();
    public DbSet<Stay> Stays => Set<Stay>();
    public DbSet<KnownName> KnownNames => Set<KnownName>();
    public DbSet<KnownLayout> KnownLayouts => Set<KnownLayout>();
    public DbSet<Lesson> Lessons => Set<Lesson>();
    public DbSet<LessonPlan> LessonPlans => Set<LessonPlan>();
    public DbSet<EntryRow> Entries => Set<EntryRow>();
    public DbSet<SchemeVersion> SchemeVersions => Set<SchemeVersion>();
    public DbSet<Summary> Summaries => Set<Summary>();
    public DbSet<LookBackRow> LookBack => Set<LookBackRow>();
    public DbSet<Term> Terms => Set<Term>();
    public DbSet<Series> Series => Set<Series>();
    public DbSet<ShelfQuestion> Shelf => Set<ShelfQuestion>();
    public DbSet<Picture> Pictures => Set<Picture>();
    public DbSet<WordSent> WordsSent => Set<WordSent>();
    public DbSet<HandIn> HandIns => Set<HandIn>();
    public DbSet<LessonKey> LessonKeys => Set<LessonKey>();
    public DbSet<WordOfLesson> WordOfLessons => Set<WordOfLesson>();
    public DbSet<EndedSession> EndedSessions => Set<EndedSession>();
    public DbSet<PageSession> PageSessions => Set<PageSession>();
    public DbSet<Objection> Objections => Set<Objection>();
    public DbSet<ReportText> ReportTexts => Set<ReportText>();
    public DbSet<SentReport> SentReports => Set<SentReport>();

    private Guid OwnerId => owner.Id;

    /// <inheritdoc/>
    public override int SaveChanges(bool acceptAllChangesOnSuccess)
    {
        Ready();
        return base.SaveChanges(acceptAllChangesOnSuccess);
    }

    /// <inheritdoc/>
    public override Task<int> SaveChangesAsync(bool acceptAllChangesOnSuccess, CancellationToken cancellationToken = default)
    {
        Ready();
        return base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
    }

    /// <summary>
    /// Stores what changed, in one transaction; new rows by a statement prepared once for each table, which takes a fraction of the time, and so
    /// keeps others from writing for a fraction of it.
    /// </summary>
    public async Task SaveQuickly()
    {
        ChangeTracker.DetectChanges();
        Ready();
        var fresh = ChangeTracker.Entries<IOwned>().Where(e => e.State == EntityState.Added).ToLookup(e => e.Metadata);
        var inserts = InOrder([.. fresh.Select(f => f.Key)]).Select(table => new BulkInsert(table, fresh[table])).ToList();
        await using var transaction = Database.CurrentTransaction is null ? await Database.BeginTransactionAsync() : null;
        try
        {
            // All changes are known; to look for them again takes time for which others wait.
            ChangeTracker.AutoDetectChangesEnabled = false;
            inserts.ForEach(insert => insert.Into(this));
            await SaveChangesAsync();
        }
        finally
        {
            ChangeTracker.AutoDetectChangesEnabled = true;
        }

        if (transaction is not null)
        {
            await transaction.CommitAsync();
        }
    }

    /// <summary>Makes rows ready to be written in place of those of the same keys, before a transaction begins, so that others wait as short as can be.</summary>
    internal IReadOnlyList<BulkInsert> MadeReady(IEnumerable<IOwned> rows)
    {
        AddRange(rows);
        Ready();
        return [.. ChangeTracker.Entries<IOwned>().Where(e => e.State == EntityState.Added).GroupBy(e => e.Metadata).Select(table => new BulkInsert(table.Key, [.. table], inPlace: true))];
    }

    /// <summary>Tables in such an order that each comes after those that it points to.</summary>
    private static IEnumerable<IEntityType> InOrder(List<IEntityType> tables)
    {
        while (tables.Count > 0)
        {
            var next = tables.First(t => !t.GetForeignKeys().Any(f => f.PrincipalEntityType != t && tables.Contains(f.PrincipalEntityType)));
            tables.Remove(next);
            yield return next;
        }
    }

    /// <inheritdoc/>
    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        configurationBuilder.Properties<Instant>().HaveConversion<Milliseconds>();
        configurationBuilder.Properties<LocalDate>().HaveConversion<IsoDay>();
        configurationBuilder.Properties<LocalTime>().HaveConversion<IsoTime>();
    }

    /// <inheritdoc/>
    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.Entity<Enrolment>().HasKey(e => new { e.ClassId, e.StudentId });
        builder.Entity<Stay>().HasKey(s => new { s.ClassId, s.StudentId, s.From });
        builder.Entity<Enrolment>().HasMany(e => e.Stays).WithOne().HasForeignKey(s => new { s.ClassId, s.StudentId });
        builder.Entity<KnownName>().HasKey(n => new { n.ClassId, n.Folded, n.Beside });
        builder.Entity<KnownLayout>().HasKey(l => new { l.ClassId, l.Layout });
        builder.Entity<Lesson>().HasIndex(l => new { l.OwnerId, l.PlannedStart });
        builder.Entity<LessonPlan>().HasKey(p => p.LessonId);
        builder.Entity<Lesson>().HasOne(l => l.Plan).WithOne().HasForeignKey<LessonPlan>(p => p.LessonId);
        builder.Entity<SchoolClass>().HasOne(c => c.Term).WithMany().HasForeignKey(c => c.TermId).OnDelete(DeleteBehavior.SetNull);
        builder.Entity<Teacher>().HasIndex(t => t.CalendarKeyHash).IsUnique();
        builder.Entity<Student>().HasIndex(s => s.PassHash).IsUnique();
        builder.Entity<Student>().HasIndex(s => s.OwnerId);
        builder.Entity<WordSent>().HasKey(w => new { w.LessonId, w.StudentId });
        builder.Entity<WordOfLesson>().HasKey(w => w.LessonId);
        builder.Entity<WordOfLesson>().HasOne(w => w.Lesson).WithOne().HasForeignKey<WordOfLesson>(w => w.LessonId);
        builder.Entity<HandIn>().HasIndex(h => new { h.LessonId, h.Version }).IsUnique();
        builder.Entity<HandIn>().HasIndex(h => h.State);
        builder.Entity<LessonKey>().HasIndex(k => k.KeyHash).IsUnique();
        builder.Entity<Lesson>().HasIndex(l => l.Code).IsUnique();
        builder.Entity<PageSession>().HasIndex(s => s.TokenHash).IsUnique();
        builder.Entity<PageSession>().HasOne(s => s.Lesson).WithMany().OnDelete(DeleteBehavior.Cascade);
        builder.Entity<PageSession>().HasOne(s => s.Student).WithMany().OnDelete(DeleteBehavior.Cascade);
        builder.Entity<EntryRow>(entry =>
        {
            entry.ToTable("Entries").HasKey(e => e.Seq);
            entry.HasIndex(e => e.Id).IsUnique();
            entry.Property(e => e.Kind).HasComputedColumnSql("""json_extract("Act", '$.type')""", stored: false);
            entry.HasIndex(e => new { e.LessonId, e.Kind });
        });
        builder.Entity<Objection>().HasIndex(o => new { o.OwnerId, o.AnsweredAt });
        builder.Entity<ReportText>().HasIndex(t => new { t.ClassId, t.Report, t.Part }).IsUnique();
        builder.Entity<SentReport>().HasIndex(r => new { r.ClassId, r.At });
        builder.Entity<Summary>().HasKey(s => new { s.LessonId, s.StudentId });
        // By student first: of one student many lessons are read.
        builder.Entity<LookBackRow>().HasKey(k => new { k.StudentId, k.LessonId });
        builder.Entity<SchemeVersion>().HasKey(v => new { v.ClassId, v.Number });

        builder.Entity<SchoolClass>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<Student>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<Enrolment>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<Stay>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<KnownName>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<KnownLayout>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<Lesson>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<LessonPlan>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<EntryRow>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<SchemeVersion>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<Summary>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<LookBackRow>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<Term>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<Series>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<ShelfQuestion>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<Picture>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<WordSent>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<HandIn>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<LessonKey>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<WordOfLesson>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<PageSession>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<Objection>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<ReportText>().HasQueryFilter(e => e.OwnerId == OwnerId);
        builder.Entity<SentReport>().HasQueryFilter(e => e.OwnerId == OwnerId);
    }

    /// <summary>Gives new rows their owner, and reads every document back that is to be stored.</summary>
    private void Ready()
    {
        foreach (var row in ChangeTracker.Entries())
        {
            if (row.State is EntityState.Added or EntityState.Modified)
            {
                Documents.ReadBack(row);
            }
        }

        foreach (var row in ChangeTracker.Entries<IOwned>())
        {
            if (row.State == EntityState.Added)
            {
                row.Entity.OwnerId = OwnerId;
            }
            else if (row.Entity.OwnerId != OwnerId)
            {
                throw new InvalidOperationException("A row of another owner reached the change tracker.");
            }
        }
    }

    private sealed class Milliseconds() : ValueConverter<Instant, long>(
        instant => instant.ToUnixTimeMilliseconds(), number => Instant.FromUnixTimeMilliseconds(number));

    private sealed class IsoDay() : ValueConverter<LocalDate, string>(
        day => LocalDatePattern.Iso.Format(day), text => LocalDatePattern.Iso.Parse(text).Value);

    private sealed class IsoTime() : ValueConverter<LocalTime, string>(
        time => LocalTimePattern.ExtendedIso.Format(time), text => LocalTimePattern.ExtendedIso.Parse(text).Value);
}
