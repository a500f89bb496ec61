namespace Dibujo.Store.Writing;

/// <summary>Another edition was put in force after what was to be saved had been judged. Nothing was saved; judge it again.</summary>
public sealed class EditionSupersededException() : Exception("Another edition is in force by now.");
