using System.Collections.Immutable;

namespace Dibujo.Server.Live;

/// <summary>All open connections, by what they want to be told of and by whose they are, so that each ends with the right by which it was let in.</summary>
internal sealed class LiveConnections
{
    /// <summary>Of how much a connection is told at most.</summary>
    internal const int MostTopics = 100;

    private const int MostForAccount = 200;

    private readonly Lock turn = new();
    private readonly Dictionary<string, LiveConnection> connections = new(StringComparer.Ordinal);
    private readonly Dictionary<string, HashSet<LiveConnection>> byTopic = new(StringComparer.Ordinal);

    /// <summary>Takes one in; false where the person has too many.</summary>
    internal bool Add(string id, LiveConnection connection)
    {
        lock (turn)
        {
            if (connections.Values.Count(one => one.AccountId == connection.AccountId) >= MostForAccount)
            {
                return false;
            }

            connections[id] = connection;
            return true;
        }
    }

    /// <summary>The connection of that number; null for one that is closed.</summary>
    internal LiveConnection? Find(string id)
    {
        lock (turn)
        {
            return connections.GetValueOrDefault(id);
        }
    }

    /// <summary>Forgets one that is closed, and answers with what it was told of.</summary>
    internal ImmutableArray<string> Remove(string id)
    {
        lock (turn)
        {
            if (!connections.Remove(id, out var connection))
            {
                return [];
            }

            ImmutableArray<string> topics = [.. connection.Topics];
            foreach (var topic in topics)
            {
                Leave(connection, topic);
            }

            return topics;
        }
    }

    /// <summary>Has a connection be told of something; false where that is too much, or the connection is closed.</summary>
    internal bool Watch(string id, string topic)
    {
        lock (turn)
        {
            if (!connections.TryGetValue(id, out var connection) || (connection.Topics.Count >= MostTopics && !connection.Topics.Contains(topic)))
            {
                return false;
            }

            connection.Topics.Add(topic);
            if (!byTopic.TryGetValue(topic, out var watching))
            {
                byTopic[topic] = watching = [];
            }

            watching.Add(connection);
            return true;
        }
    }

    /// <summary>Has it be told of nothing any more that begins so, and answers with what that was.</summary>
    internal ImmutableArray<string> Leave(string id, string beginning)
    {
        lock (turn)
        {
            ImmutableArray<string> left = connections.TryGetValue(id, out var connection)
                ? [.. connection.Topics.Where(topic => topic.StartsWith(beginning, StringComparison.Ordinal))] : [];
            foreach (var topic in left)
            {
                Leave(connection!, topic);
            }

            return left;
        }
    }

    /// <summary>Tells all who want to know; waits for nobody.</summary>
    internal void Tell(string topic, string what, params object?[] of) => Tell(null, topic, what, of);

    /// <summary>Tells all who want to know but the page that has done it; waits for nobody.</summary>
    internal void Tell(Sender? sender, string topic, string what, params object?[] of)
    {
        foreach (var connection in Watching(topic).Where(one => sender?.Has(one) != true))
        {
            connection.Tell(what, of);
        }
    }

    /// <summary>Account names of those who are told of it, each once, in the order of the alphabet.</summary>
    internal ImmutableArray<string> People(string topic) =>
        [.. Watching(topic).Where(one => !one.IsEnded).Select(one => one.Person).Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal)];

    /// <summary>Who is told of it, and where they are: each place of a person once.</summary>
    internal ImmutableArray<PersonAt> Places(string topic) =>
        [.. Watching(topic).Where(one => !one.IsEnded).Select(one => new PersonAt(one.Person, one.Place)).Distinct().OrderBy(one => one.Person, StringComparer.Ordinal)];

    /// <summary>Closes what was let in by that sign-in.</summary>
    internal void EndSignIn(int signIn) => End(one => one.SignIn == signIn.ToString(System.Globalization.CultureInfo.InvariantCulture));

    /// <summary>Closes what was let in by that token.</summary>
    internal void EndToken(int token) => End(one => one.Token == token.ToString(System.Globalization.CultureInfo.InvariantCulture));

    /// <summary>Closes all of an account's: it has other roles now, another password, or is disabled. Who may come again does so.</summary>
    internal void EndAccount(string accountId) => End(one => one.AccountId == accountId);

    private void End(Func<LiveConnection, bool> which)
    {
        List<LiveConnection> ending;
        lock (turn)
        {
            ending = [.. connections.Values.Where(which)];
        }

        ending.ForEach(one => one.End());
    }

    private ImmutableArray<LiveConnection> Watching(string topic)
    {
        lock (turn)
        {
            return byTopic.TryGetValue(topic, out var watching) ? [.. watching] : [];
        }
    }

    private void Leave(LiveConnection connection, string topic)
    {
        connection.Topics.Remove(topic);
        if (byTopic.TryGetValue(topic, out var watching) && watching.Remove(connection) && watching.Count == 0)
        {
            byTopic.Remove(topic);
        }
    }
}

/// <summary>Somebody, and where they are.</summary>
internal sealed record PersonAt(string Person, string Place);
