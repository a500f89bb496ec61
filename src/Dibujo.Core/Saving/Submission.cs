using System.Collections.Immutable;
using Dibujo.Core.Notations;
using Dibujo.Core.Values;

namespace Dibujo.Core.Saving;

/// <summary>What somebody asks to be saved.</summary>
/// <param name="Changes">The changed fields with their new values, bare as they came.</param>
/// <param name="Move">Key of the move to be made with it; null for none.</param>
/// <param name="Written">How a person wrote them: then text is read by it where a field does not hold text. Null for a program, which says what it means.</param>
public sealed record Submission(ImmutableDictionary<string, Value> Changes, string? Move = null, Notation? Written = null);
