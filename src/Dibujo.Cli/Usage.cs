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
              dibujo evaluate PACK.json RECORDS.csv   prints in how many records each case of each rule is in force
              dibujo explain PACK.json RECORD.json ELEMENT [--json]
                                                      says why an element, such as field:fee, is as it is
              dibujo read PACK.json "SENTENCE" [--people FILE]
                                                      prints the one sentence for a rule as somebody says it, and
                                                      what was guessed; or why nothing can be made of it. With - in
                                                      place of the sentence, one for each line of what is piped in
              dibujo test PACK.json                   runs the pack's examples
              dibujo import PACK.json FILE [--apply RESULT.json]
                                                      shows what a pack (.json) or decision tables (.dmn) would
                                                      change, and writes the result; of records (.csv) it shows
                                                      which rows the rules would refuse
              dibujo export PACK.json sentences|dmn|schema [STAGE]
                                                      prints rules as plain sentences, decision tables as DMN,
                                                      or what must be filled in as a JSON Schema

            Exit code 0: fine; 1: problems found; 2: called wrongly.
            The formats are described in docs/pack.schema.json and docs/rule-language.md.
            """);
        return exitCode;
    }
}
