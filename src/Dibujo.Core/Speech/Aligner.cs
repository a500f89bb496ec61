using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Sentences;
using Dibujo.Core.Values;

namespace Dibujo.Core.Speech;

/// <summary>Says for which part of a rule each stretch of the words stands.</summary>
internal sealed class Aligner(string said, ImmutableArray<Word> words, Lexicon lexicon)
{
    private readonly Names names = lexicon.Names;

    /// <summary>What the parts of a reading stand for. Commas stand for nothing.</summary>
    internal ImmutableArray<Alignment> Of(IEnumerable<(int Start, int End, Node Node)> parts) =>
        [.. parts.Where(part => part.Node is not Node.Said { Cue: Cue.Comma }).Select(part => new Alignment(words[part.Start].Start, words[part.End - 1].End, PartOf(part.Node) ?? said[words[part.Start].Start..words[part.End - 1].End]))];

    private string? PartOf(Node node) => node switch
    {
        Node.Said said => CueBook.NameOf(said.Cue),
        Node.Verb { Of: var doing } => NameOf(doing),
        Node.State { Of: [var doing, ..] } => NameOf(doing),
        Node.Targets { Of: var targets } => string.Join(", ", targets.Select(target => new SentenceWriter(names).Target(target))),
        Node.Subjects { Of: var subjects } => string.Join(", ", subjects.Select(subject => lexicon.Subjects.Names.FirstOrDefault(name => name.Thing == subject)?.Text)),
        Node.Choices { Field: var field, Keys: var keys } => Written(new FieldSubject(field.Key), keys),
        Node.Settings { Subject: var subject, Keys: var keys } => Written(subject, keys),
        Node.Holds { Condition: var condition } when !HasIt(condition) => Written(condition),
        Node.When { Condition: var condition } when !HasIt(condition) => Written(condition),
        Node.Does { Effects: [Rules.Message message] } => Wording.Verb(message),
        _ => null,
    };

    private string Written(Subject subject, ImmutableArray<string> keys) =>
        Written(new Clause(subject, keys.Length == 1 ? Test.Is : Test.OneOf) { Comparands = [.. keys.Select(key => new Literal(new Text(key)))] });

    private string Written(Condition condition) => Sentence.Plain(new SentenceWriter(names).Condition(condition));

    /// <summary>Whether it asks something of "it", which has no name yet.</summary>
    private static bool HasIt(Condition condition) => condition switch
    {
        Clause { Subject: FieldSubject { Field: "" } } => true,
        Group { Members: var members } => members.Any(HasIt),
        _ => false,
    };

    /// <summary>The verb, as it stands in a sentence.</summary>
    private static string? NameOf(Doing doing) => EffectGrammar.EffectsOf(doing, []).Select(Wording.Verb).FirstOrDefault();
}
