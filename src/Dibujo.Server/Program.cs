using Dibujo.Server.Hosting;

try
{
    await using var app = DibujoServer.Build(args);
    await app.PrepareAsync(withDemo: app.Configuration.GetValue("demo", defaultValue: false));
    await app.RunAsync();
    return 0;
}
catch (CannotStart reason)
{
    await Console.Error.WriteLineAsync(reason.Message);
    return reason.ExitCode;
}
