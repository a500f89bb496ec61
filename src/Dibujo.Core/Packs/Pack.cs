using System.Collections.Immutable;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Packs;

/// <summary>A definition as a file, for moving between installations and pipelines. Its schema: docs/pack.schema.json.</summary>
/// <param name="Format">Always <see cref="FormatName"/>.</param>
/// <param name="Version">Of the format; <see cref="CurrentVersion"/> is read.</param>
/// <param name="RecordType">Fields, forms, workflows and roles.</param>
/// <param name="Rules">Highest first.</param>
public sealed record Pack(string Format, int Version, RecordType RecordType, ImmutableArray<Rule> Rules)
{
    /// <summary>What <see cref="Format"/> says in every pack.</summary>
    public const string FormatName = "dibujo-pack";

    /// <summary>The version that this build reads and writes.</summary>
    public const int CurrentVersion = 1;

    /// <summary>What must hold under the rules.</summary>
    public ImmutableArray<Example> Examples { get; init => field = value.OrEmpty(); } = [];

    /// <summary>The definition that the pack carries.</summary>
    public Definition ToDefinition() => new(RecordType, Rules) { Examples = Examples };

    /// <summary>A pack that carries the definition.</summary>
    public static Pack Of(Definition definition) =>
        new(FormatName, CurrentVersion, definition.RecordType, definition.Rules) { Examples = definition.Examples };
}
