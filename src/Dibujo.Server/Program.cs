using Dibujo.Server.Hosting;

var app = DibujoServer.Build(args);
await app.PrepareAsync(withDemo: app.Configuration.GetValue("demo", defaultValue: false));
await app.RunAsync();
