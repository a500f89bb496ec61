using Dibujo.Core.Operands;

namespace Dibujo.Core.Programs;

/// <summary>One distinct clause in flat form.</summary>
/// <param name="Op">What is asked.</param>
/// <param name="Slot">The subject's slot, see <see cref="SlotTable"/>.</param>
/// <param name="ComparandStart">Where its comparands begin in <see cref="ClauseTable.Comparands"/>.</param>
/// <param name="ComparandCount">How many it has.</param>
internal readonly record struct ClauseCode(ClauseOp Op, int Slot, int ComparandStart, int ComparandCount);
