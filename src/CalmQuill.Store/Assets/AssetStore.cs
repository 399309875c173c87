namespace CalmQuill.Store.Assets;

/// <summary>Pictures and frozen pages; written once, never changed.</summary>
public sealed class AssetStore(Database database)
{
    public async Task Add(Asset asset, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await connection.Execute(
            "INSERT INTO assets (id, space_id, type, width, height, bytes, made_by) VALUES (@id, @space, @type, @width, @height, @bytes, @person)",
            cancel,
            ("id", asset.Id),
            ("space", asset.Space),
            ("type", asset.Type),
            ("width", asset.Width),
            ("height", asset.Height),
            ("bytes", asset.Bytes),
            ("person", asset.MadeBy)
        );
    }

    public Task<Asset?> Find(Guid id, Guid space, CancellationToken cancel) =>
        database
            .Command("SELECT id, space_id, type, width, height, bytes, made_by FROM assets WHERE space_id = @space AND id = @id")
            .With(("id", id), ("space", space))
            .Row(
                row => new Asset(
                    row.GetGuid(0),
                    row.GetGuid(1),
                    row.GetString(2),
                    row.GetInt32(3),
                    row.GetInt32(4),
                    row.GetFieldValue<byte[]>(5),
                    row.GetGuid(6)
                ),
                cancel
            );

    /// <summary>What a paper of one's own is made of, by its node in the library; null where it names nothing.</summary>
    public Task<Asset?> OfPaper(Guid paper, Guid space, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT a.id, a.space_id, a.type, a.width, a.height, a.bytes, a.made_by
                FROM library_nodes n JOIN assets a ON a.space_id = n.space_id AND a.id = n.source
                WHERE n.space_id = @space AND n.id = @paper
                """
            )
            .With(("paper", paper), ("space", space))
            .Row(
                row => new Asset(
                    row.GetGuid(0),
                    row.GetGuid(1),
                    row.GetString(2),
                    row.GetInt32(3),
                    row.GetInt32(4),
                    row.GetFieldValue<byte[]>(5),
                    row.GetGuid(6)
                ),
                cancel
            );

    /// <summary>How many pages that are not in the bin lie on each of a library's own papers.</summary>
    public async Task<Dictionary<Guid, long>> Uses(Guid space, IReadOnlyList<Guid> locked, CancellationToken cancel)
    {
        var rows = await database
            .Command(
                """
                SELECT substring(paper FROM '-own\.([0-9a-f]{32})'), count(*) FROM notebook_entries
                WHERE space_id = @space AND paper ~ '-own\.[0-9a-f]{32}' AND NOT in_bin AND notebook_id <> ALL(@locked)
                GROUP BY 1
                """
            )
            .With(("space", space), ("locked", locked.ToArray()))
            .Rows(row => (Paper: row.GetString(0), Count: row.GetInt64(1)), cancel);
        return rows.ToDictionary(row => Guid.ParseExact(row.Paper, "N"), row => row.Count);
    }
}
