using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;

namespace Dibujo.Endurance;

/// <summary>How long requests took, and how many went wrong.</summary>
internal sealed class Latencies
{
    private readonly ConcurrentBag<double> all = [];
    private readonly ConcurrentDictionary<string, int> wrong = new(StringComparer.Ordinal);

    internal bool HasErrors => !wrong.IsEmpty;

    /// <summary>Sends a request and notes how it went. A conflict is an answer like any other.</summary>
    internal async Task NoteAsync(Func<Task<HttpResponseMessage>> send)
    {
        var begun = Stopwatch.GetTimestamp();
        try
        {
            using var answer = await send();
            await answer.Content.CopyToAsync(Stream.Null);
            if (!answer.IsSuccessStatusCode && answer.StatusCode != System.Net.HttpStatusCode.Conflict)
            {
                wrong.AddOrUpdate(answer.StatusCode.ToString(), 1, (_, count) => count + 1);
            }
        }
        catch (Exception failure) when (failure is HttpRequestException or TaskCanceledException)
        {
            wrong.AddOrUpdate(failure.GetType().Name, 1, (_, count) => count + 1);
        }

        all.Add(Stopwatch.GetElapsedTime(begun).TotalMilliseconds);
    }

    public override string ToString()
    {
        var sorted = all.Order().ToArray();
        return string.Create(CultureInfo.InvariantCulture,
            $"{sorted.Length} requests, median {At(0.5):0} ms, 95 % {At(0.95):0} ms, 99 % {At(0.99):0} ms, longest {At(1):0} ms, wrong: {(wrong.IsEmpty ? "none" : string.Join(", ", wrong))}");

        double At(double part) => sorted.Length == 0 ? 0 : sorted[Math.Min(sorted.Length - 1, (int)(part * sorted.Length))];
    }
}
