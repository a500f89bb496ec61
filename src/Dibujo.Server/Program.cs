using Dibujo.Server.Hosting;

var app = DibujoServer.Build(args);
await app.PrepareAsync(withDemo: args.Contains("--demo"));
await app.RunAsync();
