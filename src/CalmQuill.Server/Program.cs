using CalmQuill.Server;
using CalmQuill.Server.People;
using CalmQuill.Store;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Faults;
using CalmQuill.Store.People;
using Npgsql;

// CalmQuill.Server                  serves
// CalmQuill.Server migrate          brings the database up to date, as the role that owns it, and ends
// CalmQuill.Server password EMAIL   prints an address at which the person sets a new password
// CalmQuill.Server faults           prints the faults that browsers told of last
var settings = Settings.FromEnvironment();
if (args is ["password", var email])
    return await Letters.OfPassword(settings, email);
if (args is ["faults"])
{
    await using var database = new Database(settings.Database);
    foreach (var (at, person, fault) in await new FaultStore(database).Latest(50, CancellationToken.None))
        Console.WriteLine(
            $"{at:u}  {person}  {fault.What}  {fault.Document}  build {fault.Build}\n    {fault.Words.ReplaceLineEndings("\n    ")}"
        );
    return 0;
}

await using (var owner = new Database(settings.OwnerDatabase ?? settings.Database))
    await owner.Migrate(settings.OwnerDatabase is null ? null : new NpgsqlConnectionStringBuilder(settings.Database).Username);
if (args is ["migrate"])
    return 0;

var server = QuillServer.Build(settings);
await server.Services.GetRequiredService<DocumentStore>().BringProjectionsUpToDate(CancellationToken.None);
if (!settings.IsDemonstration && !await server.Services.GetRequiredService<PersonStore>().Any(CancellationToken.None))
    await Letters.OfTheFirst(settings);
await server.RunAsync();
return 0;
