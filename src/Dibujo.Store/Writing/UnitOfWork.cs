using System.Runtime.CompilerServices;

namespace Dibujo.Store.Writing;

/// <summary>
/// The one way to write: it takes a turn in the <see cref="WriteQueue"/> and then begins a transaction, always in that order, so that
/// nobody who has the one waits for the other. All that is done in it is there after, or nothing of it.
/// </summary>
/// <remarks>
/// One for each <see cref="DibujoDb"/>, which refuses to be written to in any other way. Within a unit of work another is a part of
/// it, which sends what is tracked to the database and commits nothing. What takes long and writes nothing (hashing, judging) belongs before it.
/// </remarks>
public sealed class UnitOfWork(DibujoDb db, WriteQueue queue, DatabaseFile file)
{
    /// <summary>How long a request waits for its turn before it is told to come again.</summary>
    public static readonly TimeSpan PatienceOfRequests = TimeSpan.FromSeconds(10);

    private readonly List<Action> afterwards = [];
    private bool isOpen;

    /// <summary>How long it waits for its turn. What goes on in the background waits for as long as it takes.</summary>
    public TimeSpan Patience { get; set; } = PatienceOfRequests;

    /// <summary>Does the work in one transaction while everybody else who writes waits. What is tracked at its end is stored with it.</summary>
    /// <param name="work">What is done. What it reads is what is there, and stays so until its end.</param>
    /// <param name="cancellation">Ends it, with nothing done.</param>
    /// <param name="by">Who writes, for the log: by default the file from which it is called.</param>
    /// <exception cref="WriterBusyException">Somebody else has been writing for longer than <see cref="Patience"/>.</exception>
    /// <exception cref="DatabaseGoneException">The database was taken away; what was stored would be gone with the process.</exception>
    public async Task<T> RunAsync<T>(Func<Task<T>> work, CancellationToken cancellation, [CallerFilePath] string by = "")
    {
        T result;
        if (isOpen)
        {
            result = await work();
            await db.SaveChangesAsync(cancellation);
            return result;
        }

        using (await queue.TurnAsync(Path.GetFileNameWithoutExtension(by), Patience, cancellation))
        {
            result = await RunAloneAsync(work, cancellation);
        }

        Action[] news = [.. afterwards];
        afterwards.Clear();
        Array.ForEach(news, tell => tell());
        return result;
    }

    /// <summary>The same without an answer.</summary>
    public Task RunAsync(Func<Task> work, CancellationToken cancellation, [CallerFilePath] string by = "") => RunAsync(
        async () =>
        {
            await work();
            return true;
        },
        cancellation, by);

    /// <summary>Stores what is tracked.</summary>
    public Task SaveAsync(CancellationToken cancellation, [CallerFilePath] string by = "") => RunAsync(() => db.SaveChangesAsync(cancellation), cancellation, by);

    /// <summary>Has something told once all of it is stored, and not where it is not; it must not take long.</summary>
    public void Afterwards(Action tell) => afterwards.Add(tell);

    private async Task<T> RunAloneAsync<T>(Func<Task<T>> work, CancellationToken cancellation)
    {
        file.Demand();
        isOpen = true;
        try
        {
            await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
            var result = await work();
            await db.SaveChangesAsync(cancellation);
            // From here on it happens: whoever leaves now has saved.
            await transaction.CommitAsync(CancellationToken.None);
            file.Demand();
            return result;
        }
        catch
        {
            // What is tracked is not what is stored.
            db.ChangeTracker.Clear();
            afterwards.Clear();
            throw;
        }
        finally
        {
            isOpen = false;
        }
    }
}
