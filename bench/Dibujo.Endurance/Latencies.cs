using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;

namespace Dibujo.Endurance;

/// <summary>How long requests took, and how many went wrong.</summary>
internal sealed class Latencies
{
    /// <summary>What a server takes to get warm, in seconds; it is told of apart.</summary>
    private const double Warm = 10;

    private readonly long began = Stopwatch.GetTimestamp();
    private readonly ConcurrentBag<(double Began, double Took)> all = [];
    private readonly ConcurrentDictionary<string, int> wrong = new(StringComparer.Ordinal);

    internal bool HasErrors => !wrong.IsEmpty;

    internal TimeSpan Longest => TimeSpan.FromMilliseconds(all.Select(one => one.Took).DefaultIfEmpty().Max());

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

        all.Add((Stopwatch.GetElapsedTime(began, begun).TotalSeconds, Stopwatch.GetElapsedTime(begun).TotalMilliseconds));
    }

    public override string ToString()
    {
        double[] sorted = [.. all.Select(one => one.Took).Order()];
        double[] warm = [.. all.Where(one => one.Began > Warm).Select(one => one.Took).Order()];
        return string.Create(CultureInfo.InvariantCulture,
            $"{sorted.Length} requests, median {At(sorted, 0.5):0} ms, 95 % {At(sorted, 0.95):0} ms, 99 % {At(sorted, 0.99):0} ms (after {Warm:0} s {At(warm, 0.99):0} ms), longest {At(sorted, 1):0} ms, wrong: {(wrong.IsEmpty ? "none" : string.Join(", ", wrong))}");

        static double At(double[] sorted, double part) => sorted.Length == 0 ? 0 : sorted[Math.Min(sorted.Length - 1, (int)(part * sorted.Length))];
    }
}
