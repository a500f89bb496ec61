namespace Dibujo.Core.Notations;

/// <summary>People by account and name; records are called by their numbers here.</summary>
/// <param name="people">Each with the account, and with what they are called.</param>
public sealed class KnownPeople((string Account, string Name)[] people) : IKnownNames
{
    /// <inheritdoc/>
    public string? TitleOf(string recordType, int number) => null;

    /// <inheritdoc/>
    public string? NameOf(string userName) => Array.Find(people, person => Same(person.Account, userName)).Name;

    /// <inheritdoc/>
    public IReadOnlyList<int> RecordsCalled(string recordType, string title) => [];

    /// <inheritdoc/>
    public IReadOnlyList<string> PeopleCalled(string name) => [.. people.Where(person => Same(person.Name, name) || Same(person.Account, name)).Select(person => person.Account)];

    private static bool Same(string one, string other) => string.Equals(one.Trim(), other.Trim(), StringComparison.OrdinalIgnoreCase);
}
