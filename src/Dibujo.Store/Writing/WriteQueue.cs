using System.Diagnostics;

namespace Dibujo.Store.Writing;

/// <summary>The queue before the database's one writer: first come, first served. Only a <see cref="UnitOfWork"/> stands in it.</summary>
public sealed class WriteQueue : IDisposable
{
    private readonly SemaphoreSlim turns = new(1, 1);

    private (string By, long Since) holder = ("nobody", Stopwatch.GetTimestamp());

    /// <inheritdoc/>
    public void Dispose() => turns.Dispose();

    /// <summary>Waits for one's turn, which ends when the result is disposed.</summary>
    /// <param name="by">Who asks, for whoever waits behind.</param>
    /// <param name="patience">How long one waits.</param>
    /// <param name="cancellation">Ends the waiting.</param>
    /// <exception cref="WriterBusyException">It took longer than that.</exception>
    internal async Task<IDisposable> TurnAsync(string by, TimeSpan patience, CancellationToken cancellation)
    {
        if (!await turns.WaitAsync(patience, cancellation))
        {
            var (who, since) = holder;
            throw new WriterBusyException(who, Stopwatch.GetElapsedTime(since));
        }

        holder = (by, Stopwatch.GetTimestamp());
        return new Turn(turns);
    }

    private sealed class Turn(SemaphoreSlim turns) : IDisposable
    {
        public void Dispose() => turns.Release();
    }
}
