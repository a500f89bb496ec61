using Dibujo.Core.Values;

namespace Dibujo.Core.Evaluation;

/// <summary>How far a form of a record has been filled in.</summary>
/// <param name="Form">Key of the form.</param>
/// <param name="Progress">How far, in a word.</param>
/// <param name="Filled">Of the fields that it asks for, how many are filled in; 0 where it does not apply.</param>
/// <param name="Asked">How many fields it asks for, to save or to move on.</param>
/// <remarks>
/// A form has begun once a field of its own holds something: one that stands on no form before it, so that what is repeated
/// there begins nothing. It is complete once everything that it asks for is there and nothing on it stops the record; a form
/// that asks for nothing, once every field of its own that can be seen is filled in.
/// </remarks>
public sealed record FormProgress(string Form, Progress Progress, int Filled, int Asked)
{
    /// <summary>Of each form, in the record type's order.</summary>
    public static IEnumerable<FormProgress> Of(WholeRecord record)
    {
        var relevant = record.Elsewhere().Append(record.AtHand).ToDictionary(session => session.Form.Key, StringComparer.Ordinal);
        foreach (var form in record.AtHand.Program.Definition.RecordType.Forms)
        {
            yield return relevant.TryGetValue(form.Key, out var session) ? Of(session) : new(form.Key, Progress.NotRelevant, 0, 0);
        }
    }

    private static FormProgress Of(Session session)
    {
        var type = session.Program.Definition.RecordType;
        var before = type.Forms.TakeWhile(form => form != session.Form).SelectMany(form => form.Fields()).ToHashSet(StringComparer.Ordinal);
        int[] all = [.. session.Form.Fields().Select(field => session.Program.Fields[field])];
        int[] own = [.. all.Where(field => !before.Contains(type.Fields[field].Key))];
        var seen = (own.Length == 0 ? all : own)
            .Where(field => session.StateOf(field).IsVisible && session.ValueClaim(field) is not { IsHeld: true }).ToList();
        var filled = seen.Count(field => session.ValueOf(field) is { IsBlank: false } value && !IsGiven(field, value));
        var asked = all.Count(session.IsAskedFor);
        var missing = session.Missing().Count(field => field.Moves.IsEmpty);
        var isThrough = missing == 0 && (asked > 0 ? filled > 0 : seen.TrueForAll(field => !session.ValueOf(field).IsBlank)) && !session.Messages().Any(message => message.Stops);
        return new(session.Form.Key, filled == 0 ? Progress.NotBegun : isThrough ? Progress.Complete : Progress.Begun, Math.Max(0, asked - missing), asked);

        // What every record begins with has been filled in by nobody.
        bool IsGiven(int field, Value value) => type.Fields[field].Default is { } given && given.In(session.Setting, type.Fields[field].Type).Equals(value);
    }
}

/// <summary>How far something has been filled in.</summary>
public enum Progress
{
    /// <summary>It does not apply to the record now.</summary>
    NotRelevant,

    /// <summary>Nothing has been filled in.</summary>
    NotBegun,

    /// <summary>Something has, and not all that is asked for.</summary>
    Begun,

    /// <summary>Everything that is asked for has.</summary>
    Complete,
}
