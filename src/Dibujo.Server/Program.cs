using Dibujo.Server.Hosting;

try
{
    if (new ConfigurationBuilder().AddCommandLine(args).Build()["backup"] is { Length: > 0 } target)
    {
        Backup.Run(Environment.GetEnvironmentVariable("DIBUJO_DATA") ?? "data", target);
        return 0;
    }

    await using var app = DibujoServer.Build(args);
    if (app.Configuration["administrator"] is { Length: > 0 } name)
    {
        await app.PrepareAsync(withDemo: false);
        await app.RescueAsync(name);
        return 0;
    }

    var preparing = Task.Run(() => app.PrepareAsync(withDemo: app.Configuration.GetValue("demo", defaultValue: false)));
    await app.StartAsync();
    await preparing;
    await app.WaitForShutdownAsync();
    return 0;
}
catch (CannotStart reason)
{
    await Console.Error.WriteLineAsync(reason.Message);
    return reason.ExitCode;
}
