using CalmQuill.Demo.Scenario;
using CalmQuill.Store;
using CalmQuill.Store.Assets;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Groups;
using CalmQuill.Store.Locks;
using CalmQuill.Store.People;
using CalmQuill.Store.Sharing;
using CalmQuill.Store.Spaces;

// Lays the demonstration out in the database of QUILL_DATABASE: CalmQuill.Demo FOLDER-OF-HERSHEYTEXT [SEED]
const int defaultSeed = 1730;
await using var database = new Database(
    Environment.GetEnvironmentVariable("QUILL_DATABASE")
        ?? throw new InvalidOperationException("QUILL_DATABASE is not set; ./quill sets it.")
);
await database.Migrate();
var seed = args.Length > 1 ? int.Parse(args[1], System.Globalization.CultureInfo.InvariantCulture) : defaultSeed;
var group = new LanternStreet(
    new PersonStore(database),
    new SpaceStore(database),
    new DocumentStore(database),
    new LockStore(database),
    new AssetStore(database, new DatabaseFiles(database)),
    new InvitationStore(database),
    new ShareStore(database),
    Path.Combine(args[0], "svg_fonts"),
    seed,
    DateTimeOffset.UtcNow
);
Console.WriteLine(await group.LayOut(CancellationToken.None) ? "  the demonstration is laid out" : "  the demonstration is there already");
