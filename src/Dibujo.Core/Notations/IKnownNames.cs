namespace Dibujo.Core.Notations;

/// <summary>What people and records are called, for values that name them.</summary>
public interface IKnownNames
{
    /// <summary>What a record is called; null where nobody here knows.</summary>
    string? TitleOf(string recordType, int number);

    /// <summary>What a person is called; null where nobody here knows.</summary>
    string? NameOf(string userName);

    /// <summary>The numbers of the records of that type that are called so, no more than a few.</summary>
    IReadOnlyList<int> RecordsCalled(string recordType, string title);

    /// <summary>The account names of the people who are called so, or have that account.</summary>
    IReadOnlyList<string> PeopleCalled(string name);
}
