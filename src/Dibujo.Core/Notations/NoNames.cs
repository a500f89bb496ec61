namespace Dibujo.Core.Notations;

/// <summary>Knows nobody and nothing: records are called by their numbers, and people by their accounts.</summary>
public sealed class NoNames : IKnownNames
{
    /// <summary>The one.</summary>
    public static readonly NoNames Instance = new();

    private NoNames()
    {
    }

    /// <inheritdoc/>
    public string? TitleOf(string recordType, int number) => null;

    /// <inheritdoc/>
    public string? NameOf(string userName) => null;

    /// <inheritdoc/>
    public IReadOnlyList<int> RecordsCalled(string recordType, string title) => [];

    /// <inheritdoc/>
    public IReadOnlyList<string> PeopleCalled(string name) => [];
}
