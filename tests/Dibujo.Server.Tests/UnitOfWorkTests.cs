using System.Text.RegularExpressions;
using Dibujo.Server.Hosting;
using Dibujo.Store;
using Dibujo.Store.Writing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Dibujo.Server.Tests;

/// <summary>There is one way to write: a turn, and then a transaction.</summary>
public sealed partial class UnitOfWorkTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public void Nothing_else_in_the_solution_opens_a_transaction_or_saves()
    {
        var elsewhere =
            from file in Directory.EnumerateFiles(Checkout.Path("src"), "*.cs", SearchOption.AllDirectories)
            let path = Path.GetRelativePath(Checkout.Root, file).Replace('\\', '/')
            where !path.Contains("/obj/", StringComparison.Ordinal) && !path.StartsWith("src/Dibujo.Store/Writing/", StringComparison.Ordinal) && path != "src/Dibujo.Store/DibujoDb.cs"
            where Writes().IsMatch(File.ReadAllText(file))
            select path;

        Assert.Empty(elsewhere);
    }

    [Fact]
    public async Task Whoever_writes_without_one_is_refused_before_anything_is_written()
    {
        await using var scope = site.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<DibujoDb>();
        db.Audit.Add(new() { At = DateTime.UtcNow, Event = Store.Auditing.AuditEvent.SignedIn, About = "past the queue" });

        await Assert.ThrowsAsync<InvalidOperationException>(() => db.SaveChangesAsync());
        Assert.Throws<InvalidOperationException>(() => db.SaveChanges());
        await Assert.ThrowsAsync<InvalidOperationException>(() => db.Audit.ExecuteDeleteAsync());
        await Assert.ThrowsAsync<InvalidOperationException>(() => db.Database.ExecuteSqlAsync($"DELETE FROM Audit"));

        db.ChangeTracker.Clear();
        Assert.False(await db.Audit.AnyAsync(entry => entry.About == "past the queue"));
    }

    [Fact]
    public async Task Within_one_another_is_a_part_of_it()
    {
        await using var scope = site.Services.CreateAsyncScope();
        var (db, unit) = (scope.ServiceProvider.GetRequiredService<DibujoDb>(), scope.ServiceProvider.GetRequiredService<UnitOfWork>());
        var told = new List<string>();

        await Assert.ThrowsAsync<TimeoutException>(() => unit.RunAsync(
            async () =>
            {
                await unit.RunAsync(
                    () =>
                    {
                        Note(db, "inner");
                        unit.Afterwards(() => told.Add("inner"));
                        return Task.CompletedTask;
                    },
                    default);
                Assert.True(await db.Audit.AnyAsync(entry => entry.About == "inner"));
                throw new TimeoutException();
            },
            default));

        Assert.False(await db.Audit.AnyAsync(entry => entry.About == "inner"));
        Assert.Empty(told);

        await unit.RunAsync(
            () =>
            {
                Note(db, "outer");
                unit.Afterwards(() => told.Add("outer"));
                Assert.Empty(told);
                return Task.CompletedTask;
            },
            default);
        Assert.Equal(["outer"], told);
    }

    [Fact]
    public async Task Whoever_waits_too_long_is_told_who_writes()
    {
        await using var scope = site.Services.CreateAsyncScope();
        await using var other = site.Services.CreateAsyncScope();
        var (holding, waiting) = (scope.ServiceProvider.GetRequiredService<UnitOfWork>(), other.ServiceProvider.GetRequiredService<UnitOfWork>());
        var (begun, through) = (new TaskCompletionSource(), new TaskCompletionSource());
        var holder = holding.RunAsync(
            async () =>
            {
                begun.SetResult();
                await through.Task;
            },
            default);
        await begun.Task;
        waiting.Patience = TimeSpan.FromMilliseconds(50);

        var refusal = await Assert.ThrowsAsync<WriterBusyException>(() => waiting.SaveAsync(default));

        var fault = StoreFaults.Of(refusal)!;
        Assert.Equal(("UnitOfWorkTests", true), (refusal.Holder, fault.IsPassing));
        Assert.Contains("UnitOfWorkTests has been writing", fault.Detail, StringComparison.Ordinal);
        through.SetResult();
        await holder;
        waiting.Patience = UnitOfWork.PatienceOfRequests;
        await waiting.SaveAsync(default);
    }

    private static void Note(DibujoDb db, string about) => db.Audit.Add(new() { At = DateTime.UtcNow, Event = Store.Auditing.AuditEvent.SignedIn, About = about });

    [GeneratedRegex(@"\bSaveChanges(Async)?\(|\bBeginTransaction(Async)?\(|\bUseTransaction", RegexOptions.ExplicitCapture, matchTimeoutMilliseconds: 5000)]
    private static partial Regex Writes();
}
