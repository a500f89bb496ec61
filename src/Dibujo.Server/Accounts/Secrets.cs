using System.Security.Cryptography;
using System.Text;

namespace Dibujo.Server.Accounts;

/// <summary>Keys that let somebody in, which are handed out once and kept only as what cannot be turned back.</summary>
internal static class Secrets
{
    private const int Bytes = 32;

    /// <summary>A new key that nobody can guess, fit for headers and cookies.</summary>
    internal static string New() => Convert.ToHexString(RandomNumberGenerator.GetBytes(Bytes));

    /// <summary>What is stored of a key. The keys are random, so a plain hash cannot be searched.</summary>
    internal static string Hash(string key) => Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(key)));
}
