using Microsoft.Data.Sqlite;

namespace Dibujo.Store.Listing;

/// <summary>Operands of a command that is written as text.</summary>
internal static class Parameters
{
    /// <summary>Hands a value over with the command, and answers with the name by which its text calls it.</summary>
    internal static string Parameter(this SqliteCommand command, object value)
    {
        var name = $"$p{command.Parameters.Count}";
        command.Parameters.AddWithValue(name, value);
        return name;
    }
}
