namespace Dibujo.Core.Drafts;

/// <summary>The last change of a rule.</summary>
/// <param name="Version">The draft's version that it made.</param>
/// <param name="By">Account name of who made it.</param>
/// <param name="At">When, in UTC.</param>
public sealed record Revision(int Version, string By, DateTime At);
