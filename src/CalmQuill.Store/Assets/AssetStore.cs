using System.Security.Cryptography;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Pages;
using Npgsql;

namespace CalmQuill.Store.Assets;

/// <summary>
/// Pictures, files and frozen pages of spaces: kept once however often they come, never changed, and removed when nothing has named them for long.
/// </summary>
public sealed class AssetStore(Database database, IAssetFiles files)
{
    /// <summary>
    /// So long nothing must have named an asset before it goes, days: a step that is taken back may name it again, and a device may have been away.
    /// </summary>
    public const int GraceDays = 60;

    /// <summary>What has come of a file whose sender never went on is kept so long, days.</summary>
    public const int PieceDays = 7;

    /// <summary>Keeps an asset. One with the same bytes is there already, or comes to be: both are the same.</summary>
    /// <exception cref="InvalidOperationException">Other bytes are kept under this id.</exception>
    public async Task Add(Asset asset, CancellationToken cancel)
    {
        var digest = SHA256.HashData(asset.Bytes);
        if (await DigestOf(asset.Space, asset.Id, cancel) is { } kept && !kept.AsSpan().SequenceEqual(digest))
            throw new InvalidOperationException($"Asset {asset.Id} is something else already.");
        // The bytes first: a row says that they can be had.
        await files.Write(asset.Space, asset.Id, asset.Bytes, cancel);
        await using var connection = await database.Connect(cancel);
        await connection.Execute(
            """
            INSERT INTO assets (id, space_id, type, width, height, size, digest, made_by)
            VALUES (@id, @space, @type, @width, @height, @size, @digest, @person)
            ON CONFLICT (space_id, id) DO UPDATE SET unused_since = NULL
            """,
            cancel,
            ("id", asset.Id),
            ("space", asset.Space),
            ("type", asset.Type),
            ("width", asset.Width),
            ("height", asset.Height),
            ("size", (long)asset.Bytes.Length),
            ("digest", digest),
            ("person", asset.MadeBy)
        );
        if (asset.Type == FrozenPage.MediaType && FrozenPage.Read(asset.Bytes) is { } frozen)
            await AssetProjection.Write(connection, asset.Space, AssetProjection.Frozen, asset.Id, frozen.Page.Operations(), cancel);
    }

    /// <summary>
    /// The files that pages of a space name and that it does not have, but another space: what has to be carried when pages were copied, and how many
    /// bytes it is.
    /// </summary>
    public async Task<(List<Guid> Assets, long Bytes)> Missing(Guid from, Guid into, IReadOnlyList<Guid> pages, CancellationToken cancel)
    {
        var missing = await database
            .Command(
                """
                SELECT DISTINCT a.id, a.size FROM page_assets p JOIN assets a ON a.space_id = @from AND a.id = p.asset
                WHERE p.space_id = @from AND p.kind = 3 AND p.page_id = ANY(@pages)
                    AND NOT EXISTS (SELECT FROM assets b WHERE b.space_id = @into AND b.id = p.asset)
                """
            )
            .With(("from", from), ("into", into), ("pages", pages.ToArray()))
            .Rows(row => (Id: row.GetGuid(0), Size: row.GetInt64(1)), cancel);
        return ([.. missing.Select(one => one.Id)], missing.Sum(one => one.Size));
    }

    /// <summary>Keeps files of one space in another as well.</summary>
    public async Task Carry(Guid from, Guid into, IReadOnlyList<Guid> assets, CancellationToken cancel)
    {
        foreach (var asset in assets)
        {
            if (await Find(asset, from, cancel) is { } found)
                await Add(found with { Space = into }, cancel);
        }
    }

    public async Task<Asset?> Find(Guid id, Guid space, CancellationToken cancel) =>
        await WithBytes(
            await database
                .Command("SELECT id, space_id, type, width, height, made_by FROM assets WHERE space_id = @space AND id = @id")
                .With(("id", id), ("space", space))
                .Row(Read, cancel),
            cancel
        );

    /// <summary>What a paper of one's own is made of, by its node in the library; null where it names nothing, or what has not come yet.</summary>
    public async Task<Asset?> OfPaper(Guid paper, Guid space, CancellationToken cancel) =>
        await WithBytes(
            await database
                .Command(
                    """
                    SELECT a.id, a.space_id, a.type, a.width, a.height, a.made_by
                    FROM library_nodes n JOIN assets a ON a.space_id = n.space_id AND a.id = n.source
                    WHERE n.space_id = @space AND n.id = @paper
                    """
                )
                .With(("paper", paper), ("space", space))
                .Row(Read, cancel),
            cancel
        );

    /// <summary>The files that the pages of a notebook name which are not in the bin, and that have come.</summary>
    public Task<List<Guid>> OfNotebook(Guid space, Guid notebook, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT DISTINCT p.asset
                FROM notebook_entries e JOIN page_assets p ON p.space_id = e.space_id AND p.kind = 3 AND p.page_id = e.id
                JOIN assets a ON a.space_id = p.space_id AND a.id = p.asset
                WHERE e.space_id = @space AND e.notebook_id = @notebook AND NOT e.in_bin
                """
            )
            .With(("space", space), ("notebook", notebook))
            .Rows(row => row.GetGuid(0), cancel);

    /// <summary>
    /// How much of a file has come from a person, bytes; and whether a space has all of it, from whomever. What is asked for is wanted: its time begins
    /// anew.
    /// </summary>
    public async Task<(long Size, bool IsWhole)> Received(Guid space, Guid asset, Guid person, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        return await new NpgsqlCommand(
            """
            WITH known AS (UPDATE assets SET unused_since = NULL WHERE space_id = @space AND id = @asset RETURNING size)
            SELECT coalesce((SELECT size FROM known), (SELECT sum(length(bytes)) FROM asset_pieces
                WHERE space_id = @space AND asset = @asset AND person_id = @person), 0)::bigint, EXISTS (SELECT FROM known)
            """,
            connection
        ).With(("space", space), ("asset", asset), ("person", person)).Row(row => (row.GetInt64(0), row.GetBoolean(1)), cancel);
    }

    /// <summary>Keeps the next piece of a file. False where it is not the next one.</summary>
    public async Task<bool> AddPiece(Guid space, Guid asset, Guid person, long at, byte[] bytes, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        return await connection.Execute(
                """
                INSERT INTO asset_pieces (space_id, asset, person_id, at, bytes)
                SELECT @space, @asset, @person, @at, @bytes
                WHERE @at = (SELECT coalesce(sum(length(bytes)), 0) FROM asset_pieces WHERE space_id = @space AND asset = @asset AND person_id = @person)
                ON CONFLICT DO NOTHING
                """,
                cancel,
                ("space", space),
                ("asset", asset),
                ("person", person),
                ("at", at),
                ("bytes", bytes)
            ) == 1;
    }

    /// <summary>All pieces that have come, one behind the other.</summary>
    public async Task<byte[]> Pieces(Guid space, Guid asset, Guid person, CancellationToken cancel)
    {
        var pieces = await database
            .Command("SELECT bytes FROM asset_pieces WHERE space_id = @space AND asset = @asset AND person_id = @person ORDER BY at")
            .With(("space", space), ("asset", asset), ("person", person))
            .Rows(row => row.GetFieldValue<byte[]>(0), cancel);
        using var whole = new MemoryStream(pieces.Sum(piece => piece.Length));
        foreach (var piece in pieces)
            whole.Write(piece);
        return whole.ToArray();
    }

    public async Task ForgetPieces(Guid space, Guid asset, Guid person, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await connection.Execute(
            "DELETE FROM asset_pieces WHERE space_id = @space AND asset = @asset AND person_id = @person",
            cancel,
            ("space", space),
            ("asset", asset),
            ("person", person)
        );
    }

    /// <summary>
    /// Removes what nothing has named for <see cref="GraceDays"/>, and pieces of files that nobody went on sending. What lies in the bin still names its
    /// own.
    /// </summary>
    /// <param name="now">UTC.</param>
    /// <param name="cancel">Gives up.</param>
    /// <returns>How many were removed.</returns>
    public async Task<int> Collect(DateTimeOffset now, CancellationToken cancel)
    {
        const string used = """
            (EXISTS (SELECT FROM library_nodes n WHERE n.space_id = a.space_id AND n.source = a.id)
                OR EXISTS (SELECT FROM page_assets p WHERE p.space_id = a.space_id AND p.asset = a.id))
            """;
        await using var connection = await database.Connect(cancel);
        (string, object?)[] times = [("now", now.UtcDateTime), ("grace", GraceDays), ("pieces", PieceDays)];
        await connection.Execute($"UPDATE assets a SET unused_since = NULL WHERE unused_since IS NOT NULL AND {used}", cancel);
        var gone = await new NpgsqlCommand(
            $"DELETE FROM assets a WHERE unused_since <= @now - make_interval(days => @grace) AND NOT {used} RETURNING space_id, id",
            connection
        )
            .With(times)
            .Rows(row => (Space: row.GetGuid(0), Asset: row.GetGuid(1)), cancel);
        await connection.Execute($"UPDATE assets a SET unused_since = @now WHERE unused_since IS NULL AND NOT {used}", cancel, times);
        await connection.Execute("DELETE FROM asset_pieces WHERE received_at <= @now - make_interval(days => @pieces)", cancel, times);
        if (gone.Count > 0)
        {
            await connection.Execute(
                "DELETE FROM page_assets WHERE kind = @frozen AND (space_id, page_id) IN (SELECT * FROM unnest(@spaces, @assets))",
                cancel,
                ("frozen", AssetProjection.Frozen),
                ("spaces", gone.Select(one => one.Space).ToArray()),
                ("assets", gone.Select(one => one.Asset).ToArray())
            );
            await files.Remove(gone, cancel);
        }

        return gone.Count;
    }

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

    private Task<byte[]?> DigestOf(Guid space, Guid asset, CancellationToken cancel) =>
        database
            .Command("SELECT digest FROM assets WHERE space_id = @space AND id = @asset")
            .With(("space", space), ("asset", asset))
            .Row(row => row.GetFieldValue<byte[]>(0), cancel);

    private static Asset Read(NpgsqlDataReader row) =>
        new(row.GetGuid(0), row.GetGuid(1), row.GetString(2), row.GetInt32(3), row.GetInt32(4), [], row.GetGuid(5));

    private async Task<Asset?> WithBytes(Asset? found, CancellationToken cancel) =>
        found is not null && await files.Read(found.Space, found.Id, cancel) is { } bytes ? found with { Bytes = bytes } : null;
}
