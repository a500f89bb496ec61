namespace Dibujo.Core.Compilation;

/// <summary>The positive tests that the engine evaluates; negative ones are their negation in the condition.</summary>
internal enum ClauseOp : byte
{
    Equal,
    OneOf,
    Contains,
    StartsWith,
    IncludesAny,
    IncludesAll,
    Less,
    AtMost,
    AtLeast,
    More,
    Between,
    FilledIn,
    Complete,
    Changed,
    StageIs,
    StageBefore,
    StageAfter,
    StageFrom,
}

/// <summary>One distinct clause in flat form.</summary>
/// <param name="Op">What is asked.</param>
/// <param name="Slot">The subject's slot, see <see cref="SlotTable"/>.</param>
/// <param name="ComparandStart">Where its comparands begin in <see cref="ClauseTable.Comparands"/>.</param>
/// <param name="ComparandCount">How many it has.</param>
internal readonly record struct ClauseCode(ClauseOp Op, int Slot, int ComparandStart, int ComparandCount);
