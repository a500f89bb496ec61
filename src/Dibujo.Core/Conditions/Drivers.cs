namespace Dibujo.Core.Conditions;

/// <summary>The fields on whose answers a condition depends.</summary>
internal static class Drivers
{
    /// <summary>Keys of the fields whose live values are looked at, by themselves or over a link; those of the setting and saved ones are not among them.</summary>
    internal static IEnumerable<string> Of(Condition? condition) => condition switch
    {
        Group group => group.Members.SelectMany(Of),
        Clause { Subject: FieldSubject { Saved: false } field } => [field.Field],
        Clause { Subject: LinkedSubject linked } => linked.Via.Take(1),
        _ => [],
    };
}
