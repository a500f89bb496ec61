using System.Text.Json.Serialization;
using Dibujo.Core.Values;

namespace Dibujo.Core.Records;

/// <summary>A link to a record of another type (or of the same one), by its number.</summary>
/// <param name="RecordType">Key of the other record type.</param>
public sealed record LinkType(string RecordType) : FieldType
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override string Noun => "the number of a record";

    /// <inheritdoc/>
    public override string Display(Value value) => value is Link link ? $"No. {link.Plain}" : value.Plain;

    private protected override Value? FitFilled(Value raw) => raw switch
    {
        Link link => link,
        Number { Amount: > 0 and <= int.MaxValue and var number } when decimal.Truncate(number) == number => new Link((int)number),
        _ => null,
    };
}

/// <summary>A person who can sign in.</summary>
public sealed record PersonType : FieldType
{
    private const int MaxNameLength = 256;

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Noun => "the name by which a person signs in";

    private protected override Value? FitFilled(Value raw) => raw switch
    {
        Person person => person,
        Text { Content: { Length: <= MaxNameLength } name } => new Person(name.Trim()),
        _ => null,
    };
}
