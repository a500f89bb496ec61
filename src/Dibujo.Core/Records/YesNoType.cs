using System.Text.Json.Serialization;
using Dibujo.Core.Values;

namespace Dibujo.Core.Records;

/// <summary>A question that is answered with yes or no, or not yet.</summary>
public sealed record YesNoType : FieldType
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override string Noun => "yes or no";

    private protected override Value? FitFilled(Value raw) => raw as YesNo;
}
