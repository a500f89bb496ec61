using System.Diagnostics;

namespace Dibujo.Server.Hosting;

/// <summary>
/// Has long work make way for people: where anybody asked for something while a piece of it was done, it rests for as long as the
/// piece took, so that it takes half of a processor at most. Where nobody asks it goes on at once.
/// </summary>
internal sealed class Courtesy
{
    private static readonly TimeSpan LongestRest = TimeSpan.FromSeconds(1);

    private long requests;

    /// <summary>Somebody asks for something.</summary>
    internal void Note() => Interlocked.Increment(ref requests);

    /// <summary>A piece of long work begins.</summary>
    internal Piece Begin() => new(this, Interlocked.Read(ref requests), Stopwatch.GetTimestamp());

    /// <summary>A piece of long work.</summary>
    internal readonly struct Piece(Courtesy courtesy, long before, long begun)
    {
        /// <summary>It is done: rests where others came meanwhile.</summary>
        internal async Task RestAsync(CancellationToken cancellation)
        {
            if (Interlocked.Read(ref courtesy.requests) == before)
            {
                await Task.Yield();
                return;
            }

            var took = Stopwatch.GetElapsedTime(begun);
            await Task.Delay(took < LongestRest ? took : LongestRest, cancellation);
        }
    }
}
