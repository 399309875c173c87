using CalmQuill.Core.Access;
using CalmQuill.Demo.Scenario;
using CalmQuill.Store;
using CalmQuill.Store.Assets;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Groups;
using CalmQuill.Store.Locks;
using CalmQuill.Store.People;
using CalmQuill.Store.Sharing;
using CalmQuill.Store.Spaces;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Testing.Fuzz;

/// <summary>A server with the demonstration on it, and people who have no right to change it: a reader, strangers, somebody who may write elsewhere, and nobody.</summary>
public sealed class DemoUnderFire : IAsyncDisposable
{
    private readonly QuillHost host;
    private readonly Guid[] demoSpaces;

    private DemoUnderFire(QuillHost host, Guid[] demoSpaces) => (this.host, this.demoSpaces) = (host, demoSpaces);

    public QuillHost Host => host;

    public static async Task<DemoUnderFire> Make()
    {
        var host = await QuillHost.Start(with: settings => settings with { IsDemonstration = true });
        var database = host.Services.GetRequiredService<Database>();
        var demo = new LanternStreet(
            new PersonStore(database),
            new SpaceStore(database),
            new DocumentStore(database),
            new LockStore(database),
            new AssetStore(database, new DatabaseFiles(database)),
            new InvitationStore(database),
            new ShareStore(database),
            Path.Combine(Repository.Fonts, "svg_fonts"),
            1730,
            DateTimeOffset.UtcNow
        );
        await demo.LayOut(default);
        return new DemoUnderFire(host, [.. await Ids(database, "SELECT id FROM spaces")]);
    }

    /// <summary>Fires at it for a while, and gives what came of it.</summary>
    public async Task<Fuzzed> Fire(TimeSpan time, int seed)
    {
        var elsewhere = await host.MakeGroup();
        var demo = demoSpaces[0];
        var database = host.Services.GetRequiredService<Database>();
        foreach (var space in demoSpaces)
        {
            if (await host.Services.GetRequiredService<SpaceStore>().Members(space, default) is { Count: > 1 })
                demo = space;
        }

        List<Guid> ids =
        [
            .. demoSpaces,
            elsewhere.Space,
            elsewhere.Owner.Id,
            elsewhere.Stranger.Id,
            .. await Ids(database, "SELECT id FROM documents ORDER BY key LIMIT 40"),
            .. await Ids(database, "SELECT id FROM notebook_entries ORDER BY id LIMIT 20"),
            .. await Ids(database, "SELECT id FROM people"),
            .. await Ids(database, "SELECT id FROM assets"),
            .. await Ids(database, "SELECT notebook_id FROM locks"),
        ];
        var reader = await host.Person(demo, Role.Reader);
        var fuzzer = new Fuzzer(
            host,
            [reader, elsewhere.Owner, elsewhere.Writer, elsewhere.Reader, elsewhere.Stranger, null],
            elsewhere.Space,
            ids,
            seed
        );
        return await fuzzer.Run(time);
    }

    /// <summary>A sum over everything the demonstration consists of.</summary>
    public async Task<string> Sum()
    {
        await using var command = host
            .Services.GetRequiredService<Database>()
            .Command(
                """
                SELECT string_agg(md5(part), '' ORDER BY nr) FROM (
                    SELECT 1 AS nr, coalesce((SELECT string_agg(concat_ws('/', d.space_id, d.kind, d.id, d.last_seq, d.erased_at), ',' ORDER BY d.key) FROM documents d WHERE d.space_id = ANY($1)), '') AS part
                    UNION ALL SELECT 2, coalesce((SELECT string_agg(concat_ws('/', d.key, o.seq, o.author, md5(o.bytes)), ',' ORDER BY d.key, o.seq) FROM documents d JOIN operations o ON o.document_key = d.key WHERE d.space_id = ANY($1)), '')
                    UNION ALL SELECT 3, coalesce((SELECT string_agg(concat_ws('/', n.id, n.name, n.parent, n.in_bin), ',' ORDER BY n.space_id, n.id) FROM library_nodes n WHERE n.space_id = ANY($1)), '')
                    UNION ALL SELECT 4, coalesce((SELECT string_agg(concat_ws('/', e.notebook_id, e.id, e.title, e.paper, e.in_bin), ',' ORDER BY e.space_id, e.notebook_id, e.id) FROM notebook_entries e WHERE e.space_id = ANY($1)), '')
                    UNION ALL SELECT 5, coalesce((SELECT string_agg(concat_ws('/', s.page_id, s.id, s.note, s.is_open), ',' ORDER BY s.space_id, s.page_id, s.id) FROM page_spots s WHERE s.space_id = ANY($1)), '')
                    UNION ALL SELECT 6, coalesce((SELECT string_agg(concat_ws('/', l.notebook_id, l.hash), ',' ORDER BY l.space_id, l.notebook_id) FROM locks l WHERE l.space_id = ANY($1)), '')
                    UNION ALL SELECT 7, coalesce((SELECT string_agg(concat_ws('/', a.id, md5((SELECT b.bytes FROM asset_bytes b WHERE b.space_id = a.space_id AND b.id = a.id))), ',' ORDER BY a.id) FROM assets a WHERE a.space_id = ANY($1)), '')
                    UNION ALL SELECT 8, coalesce((SELECT string_agg(concat_ws('/', m.space_id, m.person_id, m.role), ',' ORDER BY m.space_id, m.person_id) FROM members m JOIN people p ON p.id = m.person_id WHERE m.space_id = ANY($1) AND p.email LIKE '%@lantern.example'), '')
                ) parts
                """
            );
        command.Parameters.AddWithValue(demoSpaces);
        return (string)(await command.ExecuteScalarAsync())!;
    }

    public ValueTask DisposeAsync() => host.DisposeAsync();

    private static async Task<List<Guid>> Ids(Database database, string sql)
    {
        await using var command = database.Command(sql);
        await using var reader = await command.ExecuteReaderAsync();
        var ids = new List<Guid>();
        while (await reader.ReadAsync())
            ids.Add(reader.GetGuid(0));
        return ids;
    }
}
