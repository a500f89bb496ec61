namespace Dibujo.Core.Records;

/// <summary>A part that a person plays, such as registrar. A person may have several.</summary>
public sealed record Role(string Key, string Label);
