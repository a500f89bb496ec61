namespace Dibujo.Store;

/// <summary>The queue before the database's one writer. First come, first served; a turn is short.</summary>
internal static class WriteQueue
{
    private static readonly SemaphoreSlim Turns = new(1, 1);

    /// <summary>Waits for one's turn, which ends when the result is disposed.</summary>
    internal static async Task<IDisposable> TurnAsync(CancellationToken cancellation)
    {
        await Turns.WaitAsync(cancellation);
        return new Turn();
    }

    private sealed class Turn : IDisposable
    {
        public void Dispose() => Turns.Release();
    }
}
