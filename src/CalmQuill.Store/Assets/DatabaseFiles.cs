namespace CalmQuill.Store.Assets;

/// <summary>The bytes of assets in the database itself: nothing else has to be set up, and one backup holds all.</summary>
public sealed class DatabaseFiles(Database database) : IAssetFiles
{
    public async Task Write(Guid space, Guid asset, byte[] bytes, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await connection.Execute(
            "INSERT INTO asset_bytes (space_id, id, bytes) VALUES (@space, @asset, @bytes) ON CONFLICT DO NOTHING",
            cancel,
            ("space", space),
            ("asset", asset),
            ("bytes", bytes)
        );
    }

    public Task<byte[]?> Read(Guid space, Guid asset, CancellationToken cancel) =>
        database
            .Command("SELECT bytes FROM asset_bytes WHERE space_id = @space AND id = @asset")
            .With(("space", space), ("asset", asset))
            .Row(row => row.GetFieldValue<byte[]>(0), cancel);

    public async Task Remove(IReadOnlyList<(Guid Space, Guid Asset)> assets, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await connection.Execute(
            "DELETE FROM asset_bytes WHERE (space_id, id) IN (SELECT * FROM unnest(@spaces, @assets))",
            cancel,
            ("spaces", assets.Select(one => one.Space).ToArray()),
            ("assets", assets.Select(one => one.Asset).ToArray())
        );
    }
}
