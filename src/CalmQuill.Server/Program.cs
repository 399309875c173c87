using CalmQuill.Server;

var settings = Settings.FromEnvironment();
var server = QuillServer.Build(settings);
await server.Services.GetRequiredService<CalmQuill.Store.Database>().Migrate();
await server.Services.GetRequiredService<CalmQuill.Store.Documents.DocumentStore>().BringProjectionsUpToDate(CancellationToken.None);
await server.RunAsync();
