using System.Text.Json.Serialization.Metadata;
using Dibujo.Core.Exchange;
using Dibujo.Server.Accounts;
using Dibujo.Server.Demo;
using Dibujo.Server.Drafts;
using Dibujo.Server.Exchange;
using Dibujo.Server.Records;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.EntityFrameworkCore;
using Serilog;
using Serilog.Events;

namespace Dibujo.Server.Hosting;

/// <summary>Puts the one process together: store, sign-in, API, front end.</summary>
internal static class DibujoServer
{
    internal static WebApplication Build(string[] args)
    {
        var builder = WebApplication.CreateBuilder(args);
        // What the framework does with each request and query is not news; what goes wrong is.
        builder.Host.UseSerilog((context, log) => log
            .MinimumLevel.Override("Microsoft", LogEventLevel.Warning)
            .MinimumLevel.Override("Microsoft.Hosting.Lifetime", LogEventLevel.Information)
            .ReadFrom.Configuration(context.Configuration)
            .WriteTo.Console(formatProvider: System.Globalization.CultureInfo.InvariantCulture));
        builder.WebHost.UseUrls(builder.Configuration["DIBUJO_URLS"] ?? "http://127.0.0.1:5080");

        var data = Path.GetFullPath(builder.Configuration["DIBUJO_DATA"] ?? "data");
        Directory.CreateDirectory(data);
        builder.Services.AddSingleton<Durability>();
        builder.Services.AddDbContext<DibujoDb>((services, options) => options
            .UseSqlite($"Data Source={Path.Combine(data, "dibujo.db")}")
            .AddInterceptors(services.GetRequiredService<Durability>()));
        builder.Services.AddDataProtection().PersistKeysToFileSystem(new(Path.Combine(data, "keys"))).SetApplicationName("Dibujo");
        builder.Services.AddSingleton<Editions>();
        builder.Services.AddSingleton<Circumstances>();
        builder.Services.AddScoped<RecordLookup>();
        builder.Services.AddSingleton(TimeProvider.System);
        builder.Services.AddScoped<DemoWorld>();
        builder.Services.AddSignIn();
        builder.Services.Configure<JsonOptions>(options => Strict(options.SerializerOptions));
        builder.Services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
        builder.Services.AddProblemDetails();
        builder.Services.AddExceptionHandler<BadRequests>();
        builder.Services.AddApiDocument();
        builder.Services.AddHealthChecks().AddCheck<Readiness>("ready");
        builder.Services.AddSingleton<Readiness>();

        var app = builder.Build();
        app.UseExceptionHandler();
        app.UseStatusCodePages();
        app.UseBuiltFiles();
        app.UseAuthentication();
        app.UseAuthorization();
        app.MapHealthChecks("/health").AllowAnonymous();
        app.MapOpenApi().AllowAnonymous();
        var api = app.MapGroup("/api").AddEndpointFilter<AntiforgeryFilter>();
        Sessions.Map(api);
        ReadPeople.Map(api);
        ReadRecordTypes.Map(api);
        ReadDraft.Map(api);
        SaveDraft.Map(api);
        Publish.Map(api);
        ReadEditions.Map(api);
        CheckPack.Map(api);
        ListRecords.Map(api);
        ReadRecord.Map(api);
        CreateRecord.Map(api);
        SaveRecord.Map(api);
        ReadHistory.Map(api);
        ImportRules.Map(api);
        ExportRules.Map(api);
        ImportRecords.Map(api);
        ExportRecords.Map(api);
        api.MapFallback("{**path}", () => TypedResults.Problem("There is nothing at this address.", statusCode: 404)).AllowAnonymous();
        app.MapFrontEnd();
        return app;
    }

    /// <summary>Brings the store up to date and, once, fills it with the demo; only then is the process ready.</summary>
    internal static async Task PrepareAsync(this WebApplication app, bool withDemo)
    {
        await using var scope = app.Services.CreateAsyncScope();
        await scope.ServiceProvider.GetRequiredService<DibujoDb>().Database.MigrateAsync();
        if (withDemo)
        {
            await scope.ServiceProvider.GetRequiredService<DemoWorld>().SeedAsync();
        }

        app.Services.GetRequiredService<Readiness>().IsReady = true;
    }

    /// <summary>The model's own reading and writing first, and the same strictness for everything else.</summary>
    private static void Strict(System.Text.Json.JsonSerializerOptions options)
    {
        options.TypeInfoResolverChain.Insert(0, CoreJson.Default.WithAddedModifier(ListsWithoutNulls.Demand));
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
