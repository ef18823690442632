using System.IO.Compression;
using System.Security.Claims;
using System.Threading.RateLimiting;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.DataProtection.AuthenticatedEncryption;
using Microsoft.AspNetCore.DataProtection.AuthenticatedEncryption.ConfigurationModel;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.ResponseCompression;
using Microsoft.AspNetCore.SignalR;
using Microsoft.Extensions.Options;
using NodaTime;
using PoliteTally.Demo;
using PoliteTally.Formats;
using PoliteTally.Store;
using PoliteTally.Store.Model;
using PoliteTally.Store.Writing;
using PoliteTally.Web.Features.Accounts;
using PoliteTally.Web.Features.Board;
using PoliteTally.Web.Features.Classes;
using PoliteTally.Web.Features.Desk;
using PoliteTally.Web.Features.Door;
using PoliteTally.Web.Features.Feed;
using PoliteTally.Web.Features.GroundRules;
using PoliteTally.Web.Features.Help;
using PoliteTally.Web.Features.Keys;
using PoliteTally.Web.Features.Lessons;
using PoliteTally.Web.Features.Live;
using PoliteTally.Web.Features.Objections;
using PoliteTally.Web.Features.Plans;
using PoliteTally.Web.Features.Questions;
using PoliteTally.Web.Features.Register;
using PoliteTally.Web.Features.Reports;
using PoliteTally.Web.Features.Scores;
using PoliteTally.Web.Features.Settling;
using PoliteTally.Web.Features.StudentPage;
using PoliteTally.Web.Features.WordAhead;
using PoliteTally.Web.Hosting;
using PoliteTally.Web.Mail;
using PoliteTally.Web.Publishing;
using PoliteTally.Web.Requests;

namespace PoliteTally.Web;

/// <summary>Puts the application together: one process, one file, one data folder.</summary>
public static class Application
{
    private const int LargestBody = 32_000_000;

    /// <summary>How long the program goes on with what it has begun when it is asked to end. 2 s.</summary>
    private static readonly TimeSpan Ending = TimeSpan.FromSeconds(2);
    private static readonly TimeSpan StampIsAsked = TimeSpan.FromMinutes(30);

    /// <summary>Builds the application, its file brought up to date and, if asked for and empty, filled with the demo school.</summary>
    /// <param name="settings">How it was asked to start.</param>
    /// <param name="given">The time that all of its parts go by; null for that of this machine.</param>
    /// <exception cref="StartProblem">The data folder cannot be used.</exception>
    public static WebApplication Build(Settings settings, TimeProvider? given = null)
    {
        var time = given ?? TimeProvider.System;
        var folder = Path.GetFullPath(settings.DataFolder);
        var held = SchoolFolder.Take(folder);
        SchoolFile file;
        try
        {
            file = held.Open(settings.Demo ? made => DemoSchool.LoadInto(made, folder, new ClockBy(time)) : null, Console.WriteLine);
        }
        catch
        {
            held.Dispose();
            throw;
        }

        var builder = WebApplication.CreateBuilder(new WebApplicationOptions
        {
            ContentRootPath = AppContext.BaseDirectory,
            WebRootPath = FrontEndFolder(),
        });
        var hasStarted = false;
        builder.WebHost.UseUrls($"http://127.0.0.1:{settings.Port}");
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.AddServerHeader = false;
            kestrel.Limits.MaxRequestBodySize = LargestBody;
        });
        // That keys lie unencrypted beside the data they protect is as meant: whoever has the folder has both.
        builder.Logging.SetMinimumLevel(LogLevel.Warning)
            .AddFilter("Microsoft.AspNetCore.DataProtection", LogLevel.Error)
            // Said by RefusedWatch, without what is only refused.
            .AddFilter(RefusedWatch.WrittenDownAs, LogLevel.None)
            // What keeps the application from starting is said in one sentence, or thrown. Afterwards the host says why it stops.
            .AddFilter("Microsoft.Extensions.Hosting.Internal.Host", level => level >= LogLevel.Warning && hasStarted);
        // Made by the services, so that it is let go of when all of them are done.
        builder.Services.AddSingleton(_ => held);
        held.Using(() => AddServices(builder.Services, file, folder, settings, time));

        var app = builder.Build();
        app.Lifetime.ApplicationStarted.Register(() => hasStarted = true);
        _ = app.Services.GetRequiredService<SchoolFolder>();
        Use(app, settings);
        Map(app);
        return app;
    }

    /// <summary>Whether one of the parts that work beside the requests has failed, which stops the host.</summary>
    public static bool APartFailed(IEnumerable<IHostedService> parts) => parts.OfType<BackgroundService>().Any(part => part.ExecuteTask is { IsFaulted: true });

    private static void AddServices(IServiceCollection services, SchoolFile file, string folder, Settings settings, TimeProvider time)
    {
        services.Configure<HostOptions>(host => host.ShutdownTimeout = Ending);
        services.AddSingleton(file);
        services.AddSingleton<IClock>(new ClockBy(time));
        services.AddSingleton(time);
        services.AddSingleton(settings);
        services.AddSingleton<Features.Reports.Replays>();
        services.AddSingleton<Features.Settling.ComingFiles>();
        services.AddSingleton<ReadingLine>();
        services.AddSingleton<Features.Reports.ReportRounds>();
        services.AddSingleton<OpenLessons>();
        services.AddSingleton<LedgerWriter>();
        services.AddSingleton<OpenWindows>();
        services.AddSingleton<LivePublisher>();
        services.AddHostedService(s => s.GetRequiredService<LivePublisher>());
        services.AddSingleton(new Passes(Path.Combine(folder, "keys")));
        services.AddSingleton(new PictureFolder(Path.Combine(folder, "pictures")));
        services.AddSingleton<IMail>(settings.Mail is { } server ? new SmtpMail(server) : new OutboxFolder(Path.Combine(folder, "outbox")));
        services.AddSingleton<WordAheadSender>();
        services.AddHostedService(s => s.GetRequiredService<WordAheadSender>());
        services.AddSingleton<MissingPost>();
        services.AddHttpClient<RegisterDesk>().ConfigurePrimaryHttpMessageHandler(RegisterDesk.Line);
        services.AddScoped<HandingIn>();
        services.AddScoped<AcrossLessons>();
        services.AddSingleton<RegisterSender>();
        services.AddHostedService(s => s.GetRequiredService<RegisterSender>());
        services.AddSingleton<Reckoner>();
        services.AddHostedService(s => s.GetRequiredService<Reckoner>());
        services.AddSingleton<FirstAccount>();
        services.AddSingleton<SignedInSessions>();
        services.AddSingleton<FeedLimits>();
        services.AddSingleton<LessonKeys>();
        services.AddSingleton<StandInPrograms>();
        services.AddSingleton<GuessWatch>();
        services.AddSingleton<SignInWatch>();
        services.AddSingleton<KnockWatch>();
        services.AddSingleton<PageSessions>();
        services.AddSingleton<PagePublisher>();
        services.AddHostedService(s => s.GetRequiredService<PagePublisher>());
        services.AddSingleton<Housekeeping>();
        services.AddHostedService(s => s.GetRequiredService<Housekeeping>());
        services.AddScoped<Owner>();
        services.AddScoped(s => new SchoolDb(s.GetRequiredService<SchoolFile>().Options, s.GetRequiredService<Owner>()));

        // Galois/counter mode, since every tap carries a protected token and the default takes a third of its time.
        services.AddDataProtection()
            .PersistKeysToFileSystem(new DirectoryInfo(Path.Combine(folder, "keys")))
            .UseCryptographicAlgorithms(new AuthenticatedEncryptorConfiguration { EncryptionAlgorithm = EncryptionAlgorithm.AES_256_GCM });
        services.AddAuthentication(IdentityConstants.ApplicationScheme).AddIdentityCookies();
        services.AddAuthorization();
        services.AddIdentityCore<Teacher>(identity =>
            {
                identity.User.RequireUniqueEmail = true;
                identity.Password.RequiredLength = 10;
                identity.Password.RequireDigit = false;
                identity.Password.RequireLowercase = false;
                identity.Password.RequireUppercase = false;
                identity.Password.RequireNonAlphanumeric = false;
            })
            .AddEntityFrameworkStores<SchoolDb>()
            .AddSignInManager();
        services.Configure<SecurityStampValidatorOptions>(stamp =>
        {
            stamp.ValidationInterval = StampIsAsked;
            stamp.OnRefreshingPrincipal = SignedInSessions.GoOn;
        });
        services.ConfigureApplicationCookie(cookie =>
        {
            cookie.Cookie.Name = "polite-tally";
            cookie.Cookie.SameSite = SameSiteMode.Strict;
            cookie.ExpireTimeSpan = SignedInSessions.Lasts;
            cookie.Events.OnValidatePrincipal = async context =>
            {
                // Asked only when due: merely making the validator opens the database, which was a tenth of the time of a tap.
                if (!(context.Options.TimeProvider!.GetUtcNow() - context.Properties.IssuedUtc < context.HttpContext.RequestServices.GetRequiredService<IOptions<SecurityStampValidatorOptions>>().Value.ValidationInterval))
                {
                    await SecurityStampValidator.ValidatePrincipalAsync(context);
                }

                if (!context.HttpContext.RequestServices.GetRequiredService<SignedInSessions>().GoesOn(context.Principal))
                {
                    context.RejectPrincipal();
                }
            };
            // The front end shows its own sign-in page: an API answers with a status, not with a way elsewhere.
            cookie.Events.OnRedirectToLogin = context => Answer(context.Response, StatusCodes.Status401Unauthorized);
            cookie.Events.OnRedirectToAccessDenied = context => Answer(context.Response, StatusCodes.Status403Forbidden);
        });

        services.Configure<JsonOptions>(json => JsonFormat.Configure(json.SerializerOptions));
        services.Configure<RouteHandlerOptions>(route => route.ThrowOnBadRequest = true);
        services.AddValidation();
        services.AddProblemDetails(problems => problems.CustomizeProblemDetails = Problem.InWords);
        services.AddOpenApi(JsonFormat.Describe);
        services.AddResponseCompression(compression => (compression.EnableForHttps, compression.MimeTypes) = (true, ["text/html", "text/css", "text/javascript", "image/svg+xml", "application/json"]));
        // The quickest way leaves scripts a fifth larger than they need be; what a slow line takes for that is more than this takes here.
        services.Configure<BrotliCompressionProviderOptions>(brotli => brotli.Level = CompressionLevel.Optimal);
        services.Configure<GzipCompressionProviderOptions>(gzip => gzip.Level = CompressionLevel.Optimal);
        services.AddSignalR(hubs => hubs.AddFilter<RefusedWatch>()).AddJsonProtocol(json => JsonFormat.Configure(json.PayloadSerializerOptions))
            // A school has many pages that only stand open, and what they do comes by HTTP, which notices a lost line by itself.
            .AddHubOptions<PageHub>(pages => (pages.KeepAliveInterval, pages.ClientTimeoutInterval) = (PageHub.SignOfLife, PageHub.GivenUp));
        services.AddHostFiltering(hosts => hosts.AllowedHosts = ["localhost", "127.0.0.1", "[::1]", .. settings.Address is { } address ? new[] { address.Host } : []]);
        services.AddRateLimiter(limiter =>
        {
            limiter.RejectionStatusCode = StatusCodes.Status429TooManyRequests;
            limiter.AddPolicy(Limits.SignIn, context => PerMinute(CallerNetwork.Of(context), 20));
            // A file is looked at and then brought in; a mail or an archive holds up to twenty.
            limiter.AddPolicy(Limits.Files, context => PerMinute(OwnerOf(context).ToString(), 120));
            // Setting a page takes a moment; a teacher takes a class of reports one by one, but no more.
            limiter.AddPolicy(Limits.Reports, context => PerMinute(OwnerOf(context).ToString(), 600));
            limiter.AddPolicy(Limits.Entries, context => PerMinute(OwnerOf(context).ToString(), 600_000));
            // By session, for a school may come from one address; who has none that is known here is counted by that.
            limiter.AddPolicy(Limits.Page, context => context.Request.Cookies[PageSessions.Cookie] is { } token && context.RequestServices.GetRequiredService<PageSessions>().Knows(token)
                ? PerMinute(token, 6000)
                : PerMinute(CallerNetwork.Of(context), 6000));
            // By address, not by key: whoever guesses keys has a new one each time.
            limiter.AddPolicy(Limits.Keys, context => PerMinute(CallerNetwork.Of(context), 60_000));
        });
    }

    private static RateLimitPartition<string> PerMinute(string who, int requests) =>
        RateLimitPartition.GetFixedWindowLimiter(
            who, _ => new FixedWindowRateLimiterOptions { PermitLimit = requests, Window = TimeSpan.FromMinutes(1) });

    private static Task Answer(HttpResponse response, int status)
    {
        response.StatusCode = status;
        return Task.CompletedTask;
    }

    private static void Use(WebApplication app, Settings settings)
    {
        if (settings.Address is not null)
        {
            // Who really asks, as the web server before this one says; from anywhere but this machine that is not believed.
            app.UseForwardedHeaders(new ForwardedHeadersOptions
            {
                ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto | ForwardedHeaders.XForwardedHost,
            });
        }

        app.UseHostFiltering();
        app.UseExceptionHandler(new ExceptionHandlerOptions
        {
            ExceptionHandler = Problem.Write,
            SuppressDiagnosticsCallback = handled => handled.Exception is BadHttpRequestException or FormatProblem or NotSupportedException { Source: "System.Text.Json" },
        });
        app.UseStatusCodePages();
        app.UseWhen(context => !ReadsPictures(context), pages => pages.UseSecurityHeaders(Headers(readsPictures: false)));
        app.UseWhen(ReadsPictures, reader => reader.UseSecurityHeaders(Headers(readsPictures: true)));
        app.UseWhen(MayBeCompressed, answers => answers.UseResponseCompression());
        app.UseDefaultFiles();
        app.UseStaticFiles(new StaticFileOptions
        {
            OnPrepareResponse = prepared => prepared.Context.Response.Headers.CacheControl =
                prepared.Context.Request.Path.StartsWithSegments("/assets") ? "public, max-age=31536000, immutable" : "no-cache",
        });
        // What is answered is somebody's and of this moment: nobody between keeps it.
        app.UseWhen(context => context.Request.Path.StartsWithSegments("/api"), api => api.Use((context, next) =>
        {
            context.Response.Headers.CacheControl = "no-store";
            return next(context);
        }));
        app.UseRouting();
        app.Use(FromHere.Check);
        app.UseAuthentication();
        app.Use((context, next) =>
        {
            context.RequestServices.GetRequiredService<Owner>().Id = OwnerOf(context);
            return next(context);
        });
        app.UseAuthorization();
        app.UseRateLimiter();
    }

    // For slow lines. The length of what is compressed can tell what is in it, to whoever makes a browser ask for it again and again beside words of their own. No other
    // site can make a browser ask with its cookie (SameSite=Strict); and what holds a secret goes as it is all the same.
    private static bool MayBeCompressed(HttpContext context) => !context.Request.Path.StartsWithSegments("/api", out var what)
        || (HttpMethods.IsGet(context.Request.Method) && !what.StartsWithSegments("/session") && !what.StartsWithSegments("/page")
            && what.Value?.Contains("/keys", StringComparison.OrdinalIgnoreCase) == false && !what.Value.Contains("/passes", StringComparison.OrdinalIgnoreCase));

    // A worker goes by what is sent with it, so pages may run no more than before.
    private static bool ReadsPictures(HttpContext context) => context.Request.Path.StartsWithSegments("/assets/reading");

    private static HeaderPolicyCollection Headers(bool readsPictures) => new HeaderPolicyCollection()
        // Only over HTTPS, as the web server before this one says.
        .AddStrictTransportSecurityMaxAge(maxAgeInSeconds: 365 * 24 * 3600)
        .AddFrameOptionsDeny()
        .AddContentTypeOptionsNoSniff()
        .AddReferrerPolicyNoReferrer()
        .AddCrossOriginOpenerPolicy(policy => policy.SameOrigin())
        .AddPermissionsPolicy(policy => policy.AddCamera().None())
        .AddContentSecurityPolicy(policy =>
        {
            policy.AddDefaultSrc().Self();
            policy.AddImgSrc().Self().Data();
            policy.AddObjectSrc().None();
            policy.AddBaseUri().Self();
            policy.AddFormAction().Self();
            policy.AddFrameAncestors().None();
            if (readsPictures)
            {
                policy.AddScriptSrc().Self().WasmUnsafeEval();
            }
        });

    private static void Map(WebApplication app)
    {
        app.MapOpenApi();
        app.MapGet("/health", (Housekeeping house) => house.IsWell ? Results.Text("well") : Results.Text("not storing", statusCode: StatusCodes.Status503ServiceUnavailable))
            .ExcludeFromDescription();
        app.MapHub<LiveHub>("/live").RequireAuthorization();
        app.MapHub<HelpHub>("/help/live");
        app.MapHub<PageHub>("/page/live");
        var api = app.MapGroup("/api");
        api.MapFeed();
        api.MapHelp();
        api.MapPage();
        api.MapAccounts();
        app.MapPrivateCalendar();
        var signedIn = api.MapGroup("").RequireAuthorization();
        signedIn.MapDesk();
        signedIn.MapClasses();
        signedIn.MapRosters();
        signedIn.MapStudents();
        signedIn.MapKnownNames();
        signedIn.MapKnownLayouts();
        signedIn.MapPasses();
        signedIn.MapGroundRules();
        signedIn.MapSchemes();
        signedIn.MapTerms();
        signedIn.MapLessons();
        signedIn.MapSeries();
        signedIn.MapCalendar();
        signedIn.MapPlans();
        signedIn.MapPictures();
        signedIn.MapShelf();
        signedIn.MapWordAhead();
        signedIn.MapLive();
        signedIn.MapStudentEntries();
        signedIn.MapDraw();
        signedIn.MapGroups();
        signedIn.MapReaching();
        signedIn.MapRollCall();
        signedIn.MapKeys();
        signedIn.MapPlay();
        signedIn.MapLiveKeys();
        signedIn.MapBoard();
        signedIn.MapQuestions();
        signedIn.MapWayIn();
        signedIn.MapSettling();
        signedIn.MapFiles();
        signedIn.MapRegisters();
        signedIn.MapScores();
        signedIn.MapJudged();
        signedIn.MapObjections();
        signedIn.MapClassReport();
        signedIn.MapReports();
        signedIn.MapReplay();
        signedIn.MapRounds();
        signedIn.MapLookBack();
        signedIn.MapMeeting();
        signedIn.MapBundle();
        var current = new StaticFileOptions { OnPrepareResponse = prepared => prepared.Context.Response.Headers.CacheControl = "no-cache" };
        app.MapFallbackToFile("/p/{code?}", "page.html", current);
        // Every other address is a page of the front end; under /api it is a mistake.
        app.MapFallbackToFile("{*path:nonfile:regex(^(?!api(/|$)))}", "index.html", current);
    }

    private static Guid OwnerOf(HttpContext context) =>
        Guid.TryParse(context.User.FindFirstValue(ClaimTypes.NameIdentifier), out var id) ? id : Guid.Empty;

    // In the project when run from its build folder, else beside the program.
    private static string FrontEndFolder()
    {
        for (var folder = new DirectoryInfo(AppContext.BaseDirectory); folder is not null; folder = folder.Parent)
        {
            var inProject = Path.Combine(folder.FullName, "src", "PoliteTally.Web", "wwwroot");
            if (Directory.Exists(inProject))
            {
                return inProject;
            }
        }

        return Path.Combine(AppContext.BaseDirectory, "wwwroot");
    }
}
