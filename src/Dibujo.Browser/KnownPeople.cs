using Dibujo.Core.Notations;

namespace Dibujo.Browser;

/// <summary>The people of whom JavaScript has told; records are called by their numbers here.</summary>
internal sealed class KnownPeople((string Account, string Name)[] people) : IKnownNames
{
    public string? TitleOf(string recordType, int number) => null;

    public string? NameOf(string userName) => Array.Find(people, person => Same(person.Account, userName)).Name;

    public IReadOnlyList<int> RecordsCalled(string recordType, string title) => [];

    public IReadOnlyList<string> PeopleCalled(string name) => [.. people.Where(person => Same(person.Name, name) || Same(person.Account, name)).Select(person => person.Account)];

    private static bool Same(string one, string other) => string.Equals(one.Trim(), other.Trim(), StringComparison.OrdinalIgnoreCase);
}
