using System.Collections.Concurrent;
using System.Threading.RateLimiting;

namespace Dibujo.Server.Accounts;

/// <summary>
/// Slows down guessing. An attempt is counted before the password is looked at, so that of many at once no more are looked
/// at than of many in a row; a wrong one counts for some minutes, a right one no longer than it takes.
/// </summary>
/// <remarks>
/// Counted by account and by network address. On a browser where the person has signed in before they are counted there
/// alone: whoever guesses elsewhere cannot keep that person out (OWASP, device cookies).
/// </remarks>
internal sealed class SignInThrottle(TimeProvider clock) : IDisposable
{
    /// <summary>How long a wrong attempt counts.</summary>
    internal static readonly TimeSpan Memory = TimeSpan.FromMinutes(5);

    private const int MostForAccount = 5;
    private const int MostForAddress = 30;

    private readonly PartitionedRateLimiter<string> accounts = Limiter(MostForAccount);
    private readonly PartitionedRateLimiter<string> addresses = Limiter(MostForAddress);
    private readonly ConcurrentDictionary<string, DateTimeOffset> told = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>Counts an attempt; null where there have been too many, and the password must not be looked at.</summary>
    /// <param name="account">The name that was given, whether there is such an account or not.</param>
    /// <param name="address">From where.</param>
    /// <param name="knownPlace">Names the browser, where this person has signed in on it before; else null.</param>
    internal Attempt? Begin(string account, string address, string? knownPlace)
    {
        var byAccount = accounts.AttemptAcquire(knownPlace ?? account);
        var byAddress = knownPlace is null && byAccount.IsAcquired ? addresses.AttemptAcquire(address) : null;
        if (byAccount.IsAcquired && byAddress?.IsAcquired != false)
        {
            return new(clock, byAccount, byAddress);
        }

        byAccount.Dispose();
        byAddress?.Dispose();
        return null;
    }

    /// <summary>Whether it has not been told for some minutes that this account or address is slowed down.</summary>
    internal bool IsNews(string whom)
    {
        var now = clock.GetUtcNow();
        foreach (var (old, at) in told)
        {
            if (at + Memory < now)
            {
                told.TryRemove(old, out _);
            }
        }

        return told.TryAdd(whom, now);
    }

    public void Dispose()
    {
        accounts.Dispose();
        addresses.Dispose();
    }

    private static PartitionedRateLimiter<string> Limiter(int most) => PartitionedRateLimiter.Create<string, string>(
        key => RateLimitPartition.GetConcurrencyLimiter(key, _ => new() { PermitLimit = most }), StringComparer.OrdinalIgnoreCase);

    /// <summary>An attempt that has been counted.</summary>
    internal sealed class Attempt(TimeProvider clock, RateLimitLease byAccount, RateLimitLease? byAddress)
    {
        /// <summary>The password was right: the attempt no longer counts.</summary>
        internal void Succeed()
        {
            byAccount.Dispose();
            byAddress?.Dispose();
        }

        /// <summary>The password was wrong, or was not looked at to the end: the attempt counts for a while.</summary>
        internal void Fail()
        {
            ITimer? timer = null;
            timer = clock.CreateTimer(_ =>
            {
                Succeed();
                timer?.Dispose();
            }, null, Memory, Timeout.InfiniteTimeSpan);
        }
    }
}
