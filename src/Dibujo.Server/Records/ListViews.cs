using System.ComponentModel.DataAnnotations;
using System.Security.Claims;
using System.Text.Json;
using Dibujo.Server.Accounts;
using Dibujo.Server.Auditing;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Dibujo.Store.Listing;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Records;

/// <summary>Views of lists: a person's own, and those that others share. Only the owner changes or removes one.</summary>
internal static class ListViews
{
    private const int MostViews = 100;
    private const int LongestName = 60;
    private const int LongestLayout = 20_000;

    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/record-types/{key}/views", Read).WithName("ReadViews").RequireAuthorization(Policies.Members);
        api.MapPut("/record-types/{key}/views", Keep).WithName("KeepView").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound);
        api.MapDelete("/record-types/{key}/views/{id:int}", Remove).WithName("RemoveView").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);
    }

    private static async Task<Ok<List<ViewEntry>>> Read(string key, DibujoDb db, ClaimsPrincipal user, CancellationToken cancellation)
    {
        var name = user.Identity!.Name;
        var views = await db.Views.AsNoTracking().Where(v => v.RecordType == key && (v.Owner == name || v.IsShared)).OrderBy(v => v.Name).ToListAsync(cancellation);
        return TypedResults.Ok(views.ConvertAll(v => new ViewEntry(v.Id, v.Name, v.Owner, v.IsShared, JsonDocument.Parse(v.Layout).RootElement)));
    }

    private static async Task<Results<Ok<ViewEntry>, ProblemHttpResult>> Keep(
        string key, ViewToKeep request, HttpContext http, DibujoDb db, UnitOfWork unit, AuditTrail audit, ClaimsPrincipal user, CancellationToken cancellation)
    {
        var (owner, name) = (user.Identity!.Name!, request.Name.Trim());
        if (Text(request.Layout) is not { } layout)
        {
            return TypedResults.Problem("It holds half of a character, which nobody can be shown.", statusCode: StatusCodes.Status400BadRequest, title: "The view cannot be kept.");
        }

        if (name.Length > LongestName || layout.Length > LongestLayout || (name.Length == 0 && request.IsShared))
        {
            return TypedResults.Problem($"Give it a name of at most {LongestName} characters, and fewer columns and tests.", statusCode: StatusCodes.Status400BadRequest);
        }

        if (await db.RecordTypes.Where(t => t.Key == key).Select(t => t.Label).FirstOrDefaultAsync(cancellation) is not { } label)
        {
            return RecordTypes.ReadRecordTypes.NoSuchRecordType(key);
        }

        return await unit.RunAsync<Results<Ok<ViewEntry>, ProblemHttpResult>>(() => KeepAsync(), cancellation);

        async Task<Results<Ok<ViewEntry>, ProblemHttpResult>> KeepAsync()
        {
            var view = await db.Views.SingleOrDefaultAsync(v => v.RecordType == key && v.Owner == owner && v.Name == name, cancellation);
            if (view is null)
            {
                if (await db.Views.CountAsync(v => v.RecordType == key && v.Owner == owner, cancellation) >= MostViews)
                {
                    return TypedResults.Problem($"You have {MostViews} views of this list. Remove one first.", statusCode: StatusCodes.Status400BadRequest);
                }

                db.Views.Add(view = new StoredView { RecordType = key, Owner = owner, Name = name, Layout = layout });
            }

            if (request.IsShared || view.IsShared)
            {
                audit.Note(http, request.IsShared ? AuditEvent.ViewShared : AuditEvent.ViewWithdrawn, $"{label}: “{name}”");
            }

            (view.Layout, view.IsShared) = (layout, request.IsShared);
            await unit.SaveAsync(cancellation);
            return TypedResults.Ok(new ViewEntry(view.Id, view.Name, view.Owner, view.IsShared, request.Layout));
        }
    }

    /// <summary>The layout as it is kept; null where it could not be read again, by anybody.</summary>
    private static string? Text(JsonElement layout)
    {
        try
        {
            return JsonSerializer.Serialize(layout);
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Remove(string key, int id, HttpContext http, DibujoDb db, UnitOfWork unit, AuditTrail audit, ClaimsPrincipal user, CancellationToken cancellation)
    {
        var owner = user.Identity!.Name;
        if (await db.Views.SingleOrDefaultAsync(v => v.Id == id && v.RecordType == key && v.Owner == owner, cancellation) is not { } view)
        {
            return TypedResults.Problem("It is gone, or somebody else's.", statusCode: StatusCodes.Status404NotFound, title: "There is no such view of yours.");
        }

        if (view.IsShared)
        {
            var label = await db.RecordTypes.Where(t => t.Key == key).Select(t => t.Label).FirstOrDefaultAsync(cancellation) ?? key;
            audit.Note(http, AuditEvent.ViewWithdrawn, $"{label}: “{view.Name}”");
        }

        db.Views.Remove(view);
        await unit.SaveAsync(cancellation);
        return TypedResults.NoContent();
    }
}

/// <summary>A view to be kept: in place of the one of that name, if there is one.</summary>
/// <param name="Name">What it is called; empty for how the list is left.</param>
/// <param name="IsShared">Whether everybody may use it.</param>
/// <param name="Layout">Columns, widths, filter and order, as the list writes them.</param>
internal sealed record ViewToKeep([property: MaxLength(60)] string Name, bool IsShared, JsonElement Layout);

/// <summary>A view of a list.</summary>
internal sealed record ViewEntry(int Id, string Name, string Owner, bool IsShared, JsonElement Layout);
