using System.Text.Json.Serialization.Metadata;
using Dibujo.Core.Drafts;
using Dibujo.Core.Json;
using Dibujo.Core.Packs;
using Dibujo.Server.Accounts;
using Dibujo.Server.Auditing;
using Dibujo.Server.Demo;
using Dibujo.Server.Drafts;
using Dibujo.Server.Exchange;
using Dibujo.Server.Live;
using Dibujo.Server.Publications;
using Dibujo.Server.Records;
using Dibujo.Server.RecordTypes;
using Dibujo.Server.Tables;
using Dibujo.Server.Writing;
using Dibujo.Store;
using Dibujo.Store.Listing;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.AspNetCore.SignalR;
using Microsoft.EntityFrameworkCore;
using Serilog;
using Serilog.Events;

namespace Dibujo.Server.Hosting;

/// <summary>Puts the one process together: store, sign-in, API, front end.</summary>
internal static class DibujoServer
{
    internal const string DefaultAddress = "http://127.0.0.1:5080";

    internal static WebApplication Build(string[] args)
    {
        var builder = WebApplication.CreateBuilder(args);
        // What the framework does with each request and query is not news; what goes wrong is.
        builder.Host.UseSerilog((context, log) => log
            .MinimumLevel.Override("Microsoft", LogEventLevel.Warning)
            .MinimumLevel.Override("Microsoft.Hosting.Lifetime", LogEventLevel.Information)
            // Two who save at once are no news either; what else goes wrong in the store is told by whoever called it.
            .MinimumLevel.Override("Microsoft.EntityFrameworkCore", LogEventLevel.Fatal)
            .MinimumLevel.Override("Microsoft.Extensions.Diagnostics.HealthChecks", LogEventLevel.Fatal)
            .ReadFrom.Configuration(context.Configuration)
            .WriteTo.Console(formatProvider: System.Globalization.CultureInfo.InvariantCulture));
        builder.LimitReach();
        builder.WebHost.UseUrls(builder.Configuration["DIBUJO_URLS"] ?? DefaultAddress);

        var data = DataFolder.Open(builder.Configuration["DIBUJO_DATA"] ?? "data");
        builder.Services.AddSingleton(_ => data);
        builder.Services.AddSingleton<Durability>();
        builder.Services.AddDbContextPool<DibujoDb>((services, options) => options
            .UseSqlite(data.ConnectionString)
            .AddInterceptors(services.GetRequiredService<Durability>(), new OnlyInUnits()));
        builder.Services.AddSingleton<WriteQueue>();
        builder.Services.AddSingleton(_ => new DatabaseFile(data.Database));
        builder.Services.AddScoped<UnitOfWork>();
        builder.Services.AddDataProtection().PersistKeysToFileSystem(new(data.Keys)).SetApplicationName("Dibujo");
        builder.Services.AddSingleton<Editions>();
        builder.Services.AddSingleton<Circumstances>();
        builder.Services.AddScoped<RecordLookup>();
        builder.Services.AddScoped<RecordWriting>();
        builder.Services.AddScoped<RecordRemoval>();
        builder.Services.AddScoped<RecordExport>();
        builder.Services.AddSingleton(TimeProvider.System);
        builder.Services.AddScoped<DemoWorld>();
        builder.Services.AddSignIn();
        builder.Services.Configure<JsonOptions>(options => Strict(options.SerializerOptions));
        builder.Services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
        builder.Services.AddProblemDetails();
        builder.Services.AddExceptionHandler<BadRequests>();
        builder.Services.AddExceptionHandler<Faults>();
        builder.Services.AddScoped<AuditTrail>();
        builder.Services.AddScoped<DraftEdits>();
        builder.Services.AddScoped<DraftChange>();
        builder.Services.AddSingleton<Publisher>();
        builder.Services.AddHttpContextAccessor();
        builder.Services.AddSingleton<LiveConnections>();
        builder.Services.AddSingleton<Sender>();
        builder.Services.AddSingleton<Rights>();
        builder.Services.AddSingleton<RecordNews>();
        builder.Services.AddSingleton<Restanding>();
        builder.Services.AddHostedService(services => services.GetRequiredService<Restanding>());
        builder.Services.AddScoped<IndexCheck>();
        builder.Services.AddScoped<RecordIndexing>();
        builder.Services.AddSingleton<Reindexing>();
        builder.Services.AddHostedService(services => services.GetRequiredService<Reindexing>());
        builder.Services.AddSingleton<ReadTables>();
        builder.Services.AddSingleton<Courtesy>();
        builder.Services.AddSingleton<Importer>();
        builder.Services.AddScoped<Invitations>();
        builder.Services.AddSignalR(options =>
        {
            options.MaximumReceiveMessageSize = LiveHub.LargestMessage;
            options.AddFilter<RightsAtCalls>();
        });
        builder.Services.AddApiDocument();
        builder.Services.AddHealthChecks().AddCheck<Readiness>("ready");
        builder.Services.AddSingleton<Readiness>();

        var app = builder.Build();
        app.UseReach();
        app.UseOwnOrigin();
        app.UseSecurityHeaders();
        app.UseExceptionHandler();
        app.UseStatusCodePages();
        app.UseReadiness();
        app.UseBuiltFiles();
        app.UseCourtesy();
        app.UseAuthentication();
        app.UseAuthorization();
        app.MapHealthChecks("/health").AllowAnonymous();
        app.MapOpenApi().RequireAuthorization(Policies.Members);
        var api = app.MapGroup("/api").AddEndpointFilter<AntiforgeryFilter>();
        SignIns.Map(api);
        OwnSignIns.Map(api);
        OwnNotation.Map(api);
        Tokens.Map(api);
        ReadAudit.Map(api);
        ReadPeople.Map(api);
        ManageAccounts.Map(api);
        Access.Map(api);
        Welcome.Map(api);
        ReadRecordTypes.Map(api);
        CreateRecordType.Map(api);
        ReadTable.Map(api);
        ReadColumn.Map(api);
        TakeTable.Map(api);
        ReadImport.Map(api);
        TakeImportBack.Map(api);
        ReadDraft.Map(api);
        SaveDraft.Map(api);
        MakeDraftStep.Map(api);
        ReadDraftSteps.Map(api);
        SettleCollision.Map(api);
        CompareEditions.Map(api);
        ReshapeDraft.Map(api);
        Publish.Map(api);
        ReadPublication.Map(api);
        ForeseeConsequences.Map(api);
        CountInForce.Map(api);
        ReadEditions.Map(api);
        CheckPack.Map(api);
        ListRecords.Map(api);
        ReadColumns.Map(api);
        ListRows.Map(api);
        ChangeRows.Map(api);
        ListViews.Map(api);
        ReadRecord.Map(api);
        CreateRecord.Map(api);
        SaveRecord.Map(api);
        ReadHistory.Map(api);
        ReadFormerRecord.Map(api);
        CountHoldings.Map(api);
        ImportRules.Map(api);
        ExportRules.Map(api);
        ImportRecords.Map(api);
        ExportRecords.Map(api);
        api.MapFallback("{**path}", () => TypedResults.Problem("There is nothing at this address.", statusCode: 404)).AllowAnonymous();
        app.MapHub<DraftHub>(DraftHub.Address, LiveHub.Limit);
        app.MapHub<RecordHub>(RecordHub.Address, LiveHub.Limit);
        app.MapFrontEnd();
        return app;
    }

    /// <summary>Checks the store, brings it up to date and, once, fills it with the demo; only then is the process ready.</summary>
    internal static async Task PrepareAsync(this WebApplication app, bool withDemo)
    {
        var (data, readiness) = (app.Services.GetRequiredService<DataFolder>(), app.Services.GetRequiredService<Readiness>());
        if (data.IsLarge)
        {
            // Reading it all takes a while: the first requests need not wait for that.
            _ = Task.Run(() => readiness.Damage = DamageOf(data));
        }
        else
        {
            data.Check();
        }

        await using var scope = app.Services.CreateAsyncScope();
        try
        {
            await scope.ServiceProvider.GetRequiredService<DibujoDb>().Database.MigrateAsync();
        }
        catch (Exception failure) when (StoreFaults.Of(failure) is { } fault)
        {
            throw new CannotStart($"The database {data.Database} cannot be used. {fault.Detail}", fault.IsDamage ? CannotStart.Broken : CannotStart.Folder);
        }

        app.Services.GetRequiredService<DatabaseFile>().Hold();
        if (withDemo)
        {
            await scope.ServiceProvider.GetRequiredService<DemoWorld>().SeedAsync();
        }

        await app.Services.GetRequiredService<Importer>().TellOfBrokenAsync(default);
        await app.InviteFirstAsync(scope.ServiceProvider);
        readiness.Ready();
        _ = CompileAsync(app);
    }

    /// <summary>Compiles what is in force, so that nobody's first request has to wait for it.</summary>
    private static async Task CompileAsync(WebApplication app)
    {
        await using var scope = app.Services.CreateAsyncScope();
        try
        {
            await app.Services.GetRequiredService<Editions>().PrepareAllAsync(scope.ServiceProvider.GetRequiredService<DibujoDb>(), app.Lifetime.ApplicationStopping);
        }
        catch (Exception failure) when (failure is not OutOfMemoryException)
        {
            // Whoever asks for the edition is told of what is wrong with it.
            app.Logger.LogWarning(failure, "An edition could not be compiled beforehand.");
        }
    }

    /// <summary>Listening begins while the store is brought up to date; who is that early waits a moment.</summary>
    private static void UseReadiness(this WebApplication app)
    {
        var readiness = app.Services.GetRequiredService<Readiness>();
        app.Use(async (http, next) =>
        {
            if (!readiness.WhenReady.IsCompleted && http.Request.Path != "/health")
            {
                await readiness.WhenReady.WaitAsync(http.RequestAborted);
            }

            await next(http);
        });
    }

    private static void UseCourtesy(this WebApplication app)
    {
        var courtesy = app.Services.GetRequiredService<Courtesy>();
        app.Use((http, next) =>
        {
            courtesy.Note();
            return next(http);
        });
    }

    private static string? DamageOf(DataFolder data)
    {
        try
        {
            data.Check();
            return null;
        }
        catch (CannotStart damage)
        {
            return damage.Message;
        }
    }

    /// <summary>The model's own reading and writing first, and the same strictness for everything else.</summary>
    private static void Strict(System.Text.Json.JsonSerializerOptions options)
    {
        options.TypeInfoResolverChain.Insert(0, CoreJson.Default);
        options.TypeInfoResolverChain.Insert(1, DraftJson.Default);
        options.TypeInfoResolverChain.Insert(2, PackJson.Default);
        options.TypeInfoResolver = options.TypeInfoResolver!.WithAddedModifier(ListsWithoutNulls.Demand).WithAddedModifier(KindsNamed.Demand);
        options.UnmappedMemberHandling = System.Text.Json.Serialization.JsonUnmappedMemberHandling.Disallow;
        options.DefaultIgnoreCondition = System.Text.Json.Serialization.JsonIgnoreCondition.WhenWritingNull;
        options.RespectNullableAnnotations = true;
        options.RespectRequiredConstructorParameters = true;
        options.AllowOutOfOrderMetadataProperties = true;
        options.AllowDuplicateProperties = false;
        options.NumberHandling = System.Text.Json.Serialization.JsonNumberHandling.Strict;
        options.MaxDepth = 64;
    }
}
