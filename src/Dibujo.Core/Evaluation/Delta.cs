namespace Dibujo.Core.Evaluation;

/// <summary>What one change of a session altered. The session fills the same delta again at its next change.</summary>
public sealed class Delta
{
    private readonly List<int> elements = [];
    private readonly List<int> values = [];
    private readonly List<int> rules = [];

    /// <summary>Numbers of the elements whose <see cref="ElementState"/> is another now.</summary>
    public IReadOnlyList<int> Elements => elements;

    /// <summary>Numbers of the fields whose value is another now, by the person's hand or by a rule.</summary>
    public IReadOnlyList<int> Values => values;

    /// <summary>Places in the list of the rules of which another case is in force now, or none.</summary>
    public IReadOnlyList<int> Rules => rules;

    internal void Clear()
    {
        elements.Clear();
        values.Clear();
        rules.Clear();
    }

    internal void AddElement(int element) => elements.Add(element);

    internal void AddValue(int field) => values.Add(field);

    internal void AddRule(int rule) => rules.Add(rule);
}
