using Dibujo.Cli;

return args switch
{
    ["check", var pack] => CheckCommand.Run(pack, Console.Out),
    ["evaluate", var pack, var record] => EvaluateCommand.Run(pack, record, Console.Out),
    ["--help" or "-h" or "help"] => Usage.Print(Console.Out, ExitCode.Fine),
    _ => Usage.Print(Console.Error, ExitCode.Misused),
};
