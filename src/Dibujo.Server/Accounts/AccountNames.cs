using Dibujo.Core.Values;
using Dibujo.Store.Accounts;

namespace Dibujo.Server.Accounts;

/// <summary>What accounts and the people behind them may be called.</summary>
internal static class AccountNames
{
    private const int Longest = 60;

    /// <summary>What is wrong with a new account's names, with how to mend it; null for nothing.</summary>
    internal static string? Problem(Account account) =>
        account.UserName is not { Length: > 0 and <= Longest } name || !name.All(c => char.IsAsciiLetterOrDigit(c) || c is '.' or '-' or '_' or '@')
            ? $"An account's name has 1 to {Longest} letters, digits, points, hyphens, underscores or @. Choose one of that kind."
            // In addresses points alone stand for folders.
            : !name.Any(char.IsAsciiLetterOrDigit) ? "An account's name has a letter or a digit in it. Choose one of that kind."
            : OfPerson(account.DisplayName);

    /// <summary>What is wrong with how a person is called, with how to mend it; null for nothing.</summary>
    internal static string? OfPerson(string displayName) =>
        displayName.Trim() is not { Length: > 0 and <= Longest } ? $"Say how the person is called, in 1 to {Longest} characters."
        : BlankText.Unseen(displayName) is { } unseen ? $"There is a character in the person's name that nobody can see (U+{unseen.Value:X4}). Type the name anew."
        : null;
}
