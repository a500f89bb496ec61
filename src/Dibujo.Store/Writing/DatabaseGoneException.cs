namespace Dibujo.Store.Writing;

/// <summary>The database file was taken away, replaced or cut while the process had it open: what is written now goes with the process.</summary>
public sealed class DatabaseGoneException(string path) : Exception($"{path} has been taken away, replaced or cut.");
