namespace Dibujo.Core.Compilation;

/// <summary>The positive tests that the engine evaluates; negative ones are their negation in the condition.</summary>
internal enum ClauseOp : byte
{
    Equal,
    OneOf,
    Contains,
    StartsWith,
    Less,
    AtMost,
    AtLeast,
    More,
    Between,
    FilledIn,
    StageIs,
    StageBefore,
    StageAfter,
    StageFrom,
    HasRole,
}

/// <summary>One distinct clause in flat form.</summary>
/// <param name="Op">What is asked.</param>
/// <param name="Slot">The subject's slot, see <see cref="Slots"/>.</param>
/// <param name="ComparandStart">Where its comparands begin in <see cref="ClauseTable.Comparands"/>.</param>
/// <param name="ComparandCount">How many it has.</param>
internal readonly record struct ClauseCode(ClauseOp Op, int Slot, int ComparandStart, int ComparandCount);

/// <summary>Where the engine finds what clauses look at: live field values first, then saved ones, then the setting.</summary>
internal readonly record struct Slots(int FieldCount)
{
    internal int Stage => 2 * FieldCount;

    internal int Roles => (2 * FieldCount) + 1;

    internal int Count => (2 * FieldCount) + 2;

    internal int Saved(int field) => FieldCount + field;
}
