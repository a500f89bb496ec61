using System.Collections.Immutable;
using Dibujo.Core.Notations;
using Dibujo.Store;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Accounts;

/// <summary>How a person writes dates and numbers: what the browser asks for, until the person sets something.</summary>
internal static class OwnNotation
{
    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/notation", Read).WithName("ReadNotation").RequireAuthorization(Policies.InPerson);
        api.MapPut("/notation", Set).WithName("SetNotation").RequireAuthorization(Policies.InPerson).ProducesProblem(StatusCodes.Status400BadRequest);
    }

    private static async Task<Ok<NotationChoice>> Read(HttpContext http, DibujoDb db, CancellationToken cancellation)
    {
        var own = await db.Users.Where(u => u.Id == http.User.AccountId()).Select(u => new NotationSettings(u.Language, u.DatePattern, u.NumberPattern)).SingleAsync(cancellation);
        return TypedResults.Ok(new NotationChoice(
            own, [.. Languages.All.Select(known => known.Language)], [.. DayPattern.All.Select(pattern => pattern.Text)], [.. NumberMarks.All.Select(marks => marks.Sample)]));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Set(NotationSettings settings, HttpContext http, DibujoDb db, UnitOfWork unit, CancellationToken cancellation)
    {
        if ((settings.Language is { } language && Languages.All.All(known => known.Language != language))
            || (settings.Day is { } day && DayPattern.Find(day) is null) || (settings.Numbers is { } numbers && NumberMarks.Find(numbers) is null))
        {
            return TypedResults.Problem("Take each from what GET offers, or leave it out.", statusCode: StatusCodes.Status400BadRequest, title: "Nobody writes so here.");
        }

        await unit.RunAsync(
            () => db.Users.Where(u => u.Id == http.User.AccountId()).ExecuteUpdateAsync(
                set => set.SetProperty(u => u.Language, settings.Language).SetProperty(u => u.DatePattern, settings.Day).SetProperty(u => u.NumberPattern, settings.Numbers), cancellation),
            cancellation);
        return TypedResults.NoContent();
    }
}

/// <summary>What a person has set.</summary>
/// <param name="Language">Whose months are named and whose habits hold, as a tag of BCP 47; null for the browser's.</param>
/// <param name="Day">How a day is written; null for as the language has it.</param>
/// <param name="Numbers">How 1234.5 is written; null for as the language has it.</param>
internal sealed record NotationSettings(string? Language = null, string? Day = null, string? Numbers = null);

/// <summary>What a person has set, and what there is to choose from.</summary>
internal sealed record NotationChoice(NotationSettings Own, ImmutableArray<string> Languages, ImmutableArray<string> Days, ImmutableArray<string> Numbers);

/// <summary>How a person writes, for pages that show values: see <see cref="Notation"/>.</summary>
/// <param name="Language">A tag of BCP 47.</param>
/// <param name="Day">The pattern of a day.</param>
/// <param name="Is12Hours">Whether the hours of the day are counted twice to twelve.</param>
/// <param name="Numbers">How 1234.5 is written.</param>
/// <param name="Months">Names of the months.</param>
internal sealed record NotationView(string Language, string Day, bool Is12Hours, string Numbers, ImmutableArray<string> Months)
{
    internal static NotationView Of(Notation notation) =>
        new(notation.Language, notation.Days.Text, notation.Clock == Clock.Hours12, notation.Marks.Sample, notation.Months);
}
