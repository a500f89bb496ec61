using Dibujo.Core.Expressions;
using Dibujo.Core.Records;

namespace Dibujo.Core.Conditions;

/// <summary>What a name in an expression stands for: a field, a part of it, a field over links, today or now.</summary>
internal static class NameResolution
{
    /// <summary>The subject; null for a name that stands for nothing.</summary>
    internal static Subject? Resolve(string name, SubjectTypes subjects)
    {
        switch (name)
        {
            case Expression.Today:
                return new TodaySubject();
            case Expression.Now:
                return new NowSubject();
            default:
                break;
        }

        var steps = name.Split('.');
        if (steps.Length == 1)
        {
            return Known(new FieldSubject(name), subjects);
        }

        var last = steps[^1];
        return subjects.Field(steps[0])?.Type switch
        {
            CompoundType when steps.Length == 2 => Known(new FieldSubject(steps[0], last), subjects),
            LinkType => Known(new LinkedSubject([.. steps[..^1]], last), subjects)
                ?? (steps.Length > 2 ? Known(new LinkedSubject([.. steps[..^2]], steps[^2], last), subjects) : null),
            _ => null,
        };
    }

    private static Subject? Known(Subject subject, SubjectTypes subjects) => subjects.Of(subject) is null ? null : subject;
}
