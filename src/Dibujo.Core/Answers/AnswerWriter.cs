using System.Buffers;
using System.Diagnostics.CodeAnalysis;
using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using Dibujo.Core.Forms;
using Dibujo.Core.Values;

namespace Dibujo.Core.Answers;

/// <summary>
/// Writes what the browser is told as JSON, member by member: the same documents as <see cref="Json"/> writes, without the
/// metadata of types, which takes the browser's runtime longer to set up than everything else that it does.
/// </summary>
[SuppressMessage("Design", "CA1001", Justification = "What it owns holds nothing but memory.")]
public sealed class AnswerWriter
{
    private readonly ArrayBufferWriter<byte> buffer = new(1024);
    private readonly Utf8JsonWriter json;

    /// <summary>Begins with an empty document.</summary>
    public AnswerWriter() => json = new(buffer, new() { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping, SkipValidation = true });

    internal Utf8JsonWriter Json => json;

    /// <summary>Another document, by the same writer.</summary>
    public string Next(Action<AnswerWriter> write)
    {
        buffer.ResetWrittenCount();
        json.Reset();
        write(this);
        return ToString();
    }

    /// <summary>The document that this writes.</summary>
    public static string Write(Action<AnswerWriter> write)
    {
        var writer = new AnswerWriter();
        write(writer);
        return writer.ToString();
    }

    /// <inheritdoc/>
    public override string ToString()
    {
        json.Flush();
        return Encoding.UTF8.GetString(buffer.WrittenSpan);
    }

    /// <summary>An object with what is written in it.</summary>
    internal void Object(Action members)
    {
        json.WriteStartObject();
        members();
        json.WriteEndObject();
    }

    /// <summary>A list with an item for each.</summary>
    public void List<T>(IEnumerable<T> items, Action<T> write)
    {
        json.WriteStartArray();
        foreach (var item in items)
        {
            write(item);
        }

        json.WriteEndArray();
    }

    /// <summary>A member that is a list.</summary>
    internal void List<T>(string name, IEnumerable<T> items, Action<T> write)
    {
        json.WritePropertyName(name);
        List(items, write);
    }

    internal void Texts(string name, IEnumerable<string> texts) => List(name, texts, json.WriteStringValue);

    internal void Numbers(string name, IEnumerable<int> numbers) => List(name, numbers, json.WriteNumberValue);

    internal void Text(string name, string text) => json.WriteString(name, text);

    /// <summary>A member that is left out where there is nothing to say.</summary>
    internal void TextIfAny(string name, string? text)
    {
        if (text is not null)
        {
            json.WriteString(name, text);
        }
    }

    internal void Number(string name, int number) => json.WriteNumber(name, number);

    internal void Truth(string name, bool truth) => json.WriteBoolean(name, truth);

    internal void Enum<T>(string name, T member)
        where T : struct, Enum => json.WriteString(name, EnumNames<T>.Of(member));

    internal void Element(string name, Element element)
    {
        json.WritePropertyName(name);
        Element(element);
    }

    internal void Element(Element element)
    {
        json.WriteStartObject();
        Enum("kind", element.Kind);
        Text("key", element.Key);
        json.WriteEndObject();
    }

    internal void Value(string name, Value value)
    {
        json.WritePropertyName(name);
        ValueConverter.Write(json, value);
    }

    internal void Value(Value value) => ValueConverter.Write(json, value);
}
