using System.Collections.Immutable;
using Dibujo.Core.Checking;
using Dibujo.Core.Forms;
using Dibujo.Core.Sentences;

namespace Dibujo.Core.Compilation;

/// <summary>What an editor needs to know of a definition beside the states of its form.</summary>
/// <param name="Problems">Everything that could not be compiled.</param>
/// <param name="Elements">The elements by number; empty if nothing could be compiled.</param>
/// <param name="Sentences">Each rule in words.</param>
/// <param name="Vocabulary">What may be put into the blanks of a sentence.</param>
public sealed record CompilationReport(
    ImmutableArray<Problem> Problems,
    ImmutableArray<Element> Elements,
    ImmutableArray<ImmutableArray<SentencePart>> Sentences,
    Vocabulary Vocabulary);
