using System.IO.Compression;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using Dibujo.Core.Compilation;
using Dibujo.Core.Json;
using Dibujo.Core.Programs;
using Dibujo.Core.Rules;

namespace Dibujo.Server.RecordTypes;

/// <summary>A published definition with what is made of it once: its program, and the document that browsers compile.</summary>
internal sealed class Edition
{
    private static readonly JsonSerializerOptions Options = new(CoreJson.Default.Options)
    {
        TypeInfoResolver = JsonTypeInfoResolver.Combine(CoreJson.Default, new DefaultJsonTypeInfoResolver()),
    };

    private readonly Lazy<RuleProgram> program;
    private readonly Lazy<byte[]> document;
    private readonly Lazy<byte[]> compressed;

    internal Edition(int number, Definition definition)
    {
        (Number, Definition) = (number, definition);
        // What is published has been checked.
        program = new(() => ProgramCompiler.CompileTrusted(definition));
        // Examples are for those who write rules.
        document = new(() => JsonSerializer.SerializeToUtf8Bytes(new EditionView(number, definition with { Examples = [] }), Options));
        compressed = new(() => Compress(document.Value));
    }

    internal int Number { get; }

    internal Definition Definition { get; }

    internal RuleProgram Program => program.Value;

    /// <summary>An <see cref="EditionView"/> in JSON.</summary>
    internal byte[] Document => document.Value;

    /// <summary>The same in the Brotli format.</summary>
    internal byte[] CompressedDocument => compressed.Value;

    /// <summary>Makes everything now, so that no request has to wait for it.</summary>
    internal void Prepare() => _ = (Program, CompressedDocument);

    private static byte[] Compress(byte[] document)
    {
        using var to = new MemoryStream();
        using (var brotli = new BrotliStream(to, CompressionLevel.Optimal))
        {
            brotli.Write(document);
        }

        return to.ToArray();
    }
}
