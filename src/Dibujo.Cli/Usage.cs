namespace Dibujo.Cli;

/// <summary>What the process answers to the pipeline that called it.</summary>
internal static class ExitCode
{
    internal const int Fine = 0;

    /// <summary>What was given has problems, all of them printed.</summary>
    internal const int Problems = 1;

    /// <summary>The call itself was wrong.</summary>
    internal const int Misused = 2;
}

internal static class Usage
{
    internal static int Print(TextWriter to, int exitCode)
    {
        to.WriteLine(
            """
            dibujo: record types and their rules on the command line

              dibujo check PACK.json                  compiles the pack and lists every problem with its place
              dibujo evaluate PACK.json RECORD.json   prints the state of every element as JSON

            Exit code 0: fine; 1: problems found; 2: called wrongly.
            The formats are described in docs/pack.schema.json and docs/rule-language.md.
            """);
        return exitCode;
    }
}
