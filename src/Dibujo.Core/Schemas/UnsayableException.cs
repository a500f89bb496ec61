namespace Dibujo.Core.Schemas;

/// <summary>Something decides that a schema cannot say; the message is the reason.</summary>
internal sealed class UnsayableException(string reason) : Exception(reason);
