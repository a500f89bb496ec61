using Dibujo.Core.Values;

namespace Dibujo.Core.Records;

/// <summary>Values brought into the form that a record type's fields hold.</summary>
public static class Fitting
{
    /// <summary>These values fitted to the record type's fields; what fits none of them, or is blank, is left out.</summary>
    public static RecordValues FittedTo(this RecordValues values, RecordType type)
    {
        var fitted = new Dictionary<string, Value>(values.ByField.Count);
        foreach (var field in type.Fields)
        {
            if (field.Type.Fit(values[field.Key]) is { IsBlank: false } value)
            {
                fitted[field.Key] = value;
            }
        }

        return new(fitted);
    }
}
