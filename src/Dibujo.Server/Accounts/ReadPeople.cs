using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Accounts;

/// <summary>Who can sign in, so that a person can be named in a record.</summary>
internal static class ReadPeople
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/people", Read).WithName("ListPeople").RequireAuthorization(Policies.Members);

    private static async Task<Ok<List<PersonEntry>>> Read(DibujoDb db, CancellationToken cancellation) =>
        TypedResults.Ok(await db.Users.OrderBy(u => u.DisplayName).Select(u => new PersonEntry(u.UserName!, u.DisplayName)).ToListAsync(cancellation));
}

/// <summary>A person in the list.</summary>
internal sealed record PersonEntry(string UserName, string DisplayName);
