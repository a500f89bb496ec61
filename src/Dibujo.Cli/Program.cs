using Dibujo.Cli;

return args switch
{
    ["check", var pack] => CheckCommand.Run(pack, Console.Out),
    ["evaluate", var pack, var records] when records.EndsWith(".csv", StringComparison.OrdinalIgnoreCase) =>
        EvaluateTableCommand.Run(pack, records, Console.Out),
    ["evaluate", var pack, var record] => EvaluateCommand.Run(pack, record, Console.Out),
    ["explain", var pack, var record, var element] => ExplainCommand.Run(pack, record, element, asJson: false, Console.Out),
    ["explain", var pack, var record, var element, "--json"] => ExplainCommand.Run(pack, record, element, asJson: true, Console.Out),
    ["import", var pack, var file] => ImportCommand.Run(pack, file, null, Console.Out),
    ["import", var pack, var file, "--apply", var result] => ImportCommand.Run(pack, file, result, Console.Out),
    ["export", var pack, var form] => ExportCommand.Run(pack, form, null, Console.Out, Console.Error),
    ["export", var pack, "schema", var stage] => ExportCommand.Run(pack, "schema", stage, Console.Out, Console.Error),
    ["read", var pack, "--people", var people, "-"] => ReadCommand.RunEach(pack, Console.In, people, Console.Out, Console.Error),
    ["read", var pack, "--people", var people, var sentence] => ReadCommand.Run(pack, sentence, people, Console.Out, Console.Error),
    ["read", var pack, "-", "--people", var people] => ReadCommand.RunEach(pack, Console.In, people, Console.Out, Console.Error),
    ["read", var pack, var sentence, "--people", var people] => ReadCommand.Run(pack, sentence, people, Console.Out, Console.Error),
    ["read", var pack, "-"] => ReadCommand.RunEach(pack, Console.In, null, Console.Out, Console.Error),
    ["read", var pack, var sentence] => ReadCommand.Run(pack, sentence, null, Console.Out, Console.Error),
    ["test", var pack] => TestCommand.Run(pack, Console.Out),
    ["--help" or "-h" or "help"] => Usage.Print(Console.Out, ExitCode.Fine),
    _ => Usage.Print(Console.Error, ExitCode.Misused),
};
