using Dibujo.Core.Notations;

namespace Dibujo.Core.Tests.Reshaping;

/// <summary>An installation with one person, who is called Yes, and with records up to number 15.</summary>
internal sealed class Few : IKnownNames
{
    internal static readonly Few Names = new();

    public string? TitleOf(string recordType, int number) => number is > 0 and <= 15 ? $"Record {number}" : null;

    public string? NameOf(string userName) => userName == "yes" ? "Yes" : null;

    public IReadOnlyList<int> RecordsCalled(string recordType, string title) => title == "Textile" ? [3] : [];

    public IReadOnlyList<string> PeopleCalled(string name) => name is "yes" or "Yes" ? ["yes"] : [];
}
