namespace Dibujo.Server.Hosting;

/// <summary>The process cannot start; the message says why and what to do, for whoever starts it.</summary>
internal sealed class CannotStart(string message, int exitCode) : Exception(message)
{
    /// <summary>The folder cannot be used: it is read only, or somebody else uses it.</summary>
    internal const int Folder = 3;

    /// <summary>The database is broken.</summary>
    internal const int Broken = 4;

    /// <summary>The database is missing where there was one.</summary>
    internal const int Missing = 5;

    internal int ExitCode => exitCode;
}
