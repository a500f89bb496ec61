using System.Collections.Immutable;
using Dibujo.Core.Records;

namespace Dibujo.Core.Rules;

/// <summary>A record type with its rules: what a draft is of, and what an edition freezes.</summary>
/// <param name="RecordType">Fields, forms, workflows and roles.</param>
/// <param name="Rules">Highest first: where two disagree, the one higher in the list wins.</param>
public sealed record Definition(RecordType RecordType, ImmutableArray<Rule> Rules)
{
    /// <summary>What must hold under these rules.</summary>
    public ImmutableArray<Example> Examples { get; init => field = value.OrEmpty(); } = [];
}
