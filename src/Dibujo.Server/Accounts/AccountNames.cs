using Dibujo.Store.Accounts;

namespace Dibujo.Server.Accounts;

/// <summary>What accounts and the people behind them may be called.</summary>
internal static class AccountNames
{
    private const int Longest = 60;

    /// <summary>What is wrong with an account's names, with how to mend it; null for nothing.</summary>
    internal static string? Problem(Account account) =>
        account.UserName is not { Length: > 0 and <= Longest } name || !name.All(c => char.IsAsciiLetterOrDigit(c) || c is '.' or '-' or '_' or '@')
            ? $"An account's name has 1 to {Longest} letters, digits, points, hyphens, underscores or @. Choose one of that kind."
            : account.DisplayName.Trim() is not { Length: > 0 and <= Longest }
                ? $"Say how the person is called, in 1 to {Longest} characters."
                : null;
}
