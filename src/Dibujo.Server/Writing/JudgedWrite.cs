using Dibujo.Core.Evaluation;
using Dibujo.Core.Records;
using Dibujo.Server.RecordTypes;
using Dibujo.Store.Records;

namespace Dibujo.Server.Writing;

/// <summary>What the rules have accepted, ready to be stored.</summary>
/// <param name="Edition">Under which it was judged.</param>
/// <param name="Through">The setting in which it came.</param>
/// <param name="Before">The record as it was; null for a new one.</param>
/// <param name="Record">The record as it will be.</param>
/// <param name="Entry">What goes into its history; null where nothing is other than before, and nothing is to be stored.</param>
/// <param name="Open">The sessions in which it was judged, for whoever goes on with the record: they serve the next judgement of the same service as well.</param>
internal sealed record JudgedWrite(Edition Edition, Setting Through, StoredRecord? Before, StoredRecord Record, HistoryEntry? Entry, WholeRecord Open);
