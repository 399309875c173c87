using Npgsql;

namespace CalmQuill.Store.Lecterns;

/// <summary>Which notebooks somebody teaches from at this moment. One that is closed, or whose time is over, is not kept.</summary>
public sealed class LecternStore(Database database)
{
    /// <summary>A lectern that nobody closed is closed after this.</summary>
    public static readonly TimeSpan Lasts = TimeSpan.FromHours(12);

    /// <summary>So long after the leader was seen last it is left, and somebody else may open one in its place.</summary>
    public static readonly TimeSpan LeftAfter = TimeSpan.FromMinutes(10);

    private const string Columns = "id, space_id, notebook_id, leader_id, page_id, opened_at, room_code";

    /// <summary>Opens one; the one that stands there already where there is one, whoever opened it. One that is over, or that somebody else left, makes room for it and is given back as closed.</summary>
    public async Task<(OpenLectern Open, OpenLectern? Closed)> Open(
        Guid space,
        Guid notebook,
        Guid leader,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var closed = await new NpgsqlCommand(
            $"""
            DELETE FROM lecterns WHERE space_id = @space AND notebook_id = @notebook AND (until <= @now OR leader_id <> @leader AND seen_at < @left)
            RETURNING {Columns}
            """,
            connection
        ).With(("space", space), ("notebook", notebook), ("leader", leader), ("now", now.UtcDateTime), ("left", now.Subtract(LeftAfter).UtcDateTime)).Row(Read, cancel);
        var open = await new NpgsqlCommand(
            $"""
            INSERT INTO lecterns (id, space_id, notebook_id, leader_id, opened_at, seen_at, until)
            VALUES (@id, @space, @notebook, @leader, @now, @now, @until)
            ON CONFLICT (space_id, notebook_id) DO UPDATE SET space_id = excluded.space_id
            RETURNING {Columns}
            """,
            connection
        ).With(("id", Guid.NewGuid()), ("space", space), ("notebook", notebook), ("leader", leader), ("now", now.UtcDateTime), ("until", now.Add(Lasts).UtcDateTime)).Row(Read, cancel);
        await transaction.CommitAsync(cancel);
        return (open!, closed);
    }

    /// <summary>That its leader stands there. Null when it is closed, or somebody else's.</summary>
    public Task<OpenLectern?> Stand(Guid lectern, Guid leader, DateTimeOffset now, CancellationToken cancel) =>
        database
            .Command($"UPDATE lecterns SET seen_at = @now WHERE id = @lectern AND leader_id = @leader AND until > @now RETURNING {Columns}")
            .With(("lectern", lectern), ("leader", leader), ("now", now.UtcDateTime))
            .Row(Read, cancel);

    /// <summary>The one that is open in a notebook; null where there is none.</summary>
    public Task<OpenLectern?> In(Guid space, Guid notebook, DateTimeOffset now, CancellationToken cancel) =>
        database
            .Command($"SELECT {Columns} FROM lecterns WHERE space_id = @space AND notebook_id = @notebook AND until > @now")
            .With(("space", space), ("notebook", notebook), ("now", now.UtcDateTime))
            .Row(Read, cancel);

    /// <summary>The one that a screen's code belongs to; null where there is none, or not any more.</summary>
    public Task<OpenLectern?> OfRoom(string code, DateTimeOffset now, CancellationToken cancel) =>
        database
            .Command($"SELECT {Columns} FROM lecterns WHERE room_hash = @hash AND until > @now")
            .With(("hash", Secrets.Hash(code)), ("now", now.UtcDateTime))
            .Row(Read, cancel);

    /// <summary>Gives it a code for a screen in the room; one that it has already stays. Null when it is closed.</summary>
    public Task<byte[]?> SetRoom(Guid lectern, string code, byte[] enciphered, CancellationToken cancel) =>
        database
            .Command(
                """
                UPDATE lecterns SET room_hash = coalesce(room_hash, @hash), room_code = coalesce(room_code, @code)
                WHERE id = @lectern RETURNING room_code
                """
            )
            .With(("lectern", lectern), ("hash", Secrets.Hash(code)), ("code", enciphered))
            .Row(row => row.GetFieldValue<byte[]>(0), cancel);

    /// <summary>Notes which page is shown. False when it is closed, or somebody else's.</summary>
    public async Task<bool> Turn(Guid lectern, Guid leader, Guid page, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        return await connection.Execute(
                "UPDATE lecterns SET page_id = @page WHERE id = @lectern AND leader_id = @leader",
                cancel,
                ("lectern", lectern),
                ("leader", leader),
                ("page", page)
            ) > 0;
    }

    /// <summary>Closes the one of a notebook; null when there is none.</summary>
    public Task<OpenLectern?> Close(Guid space, Guid notebook, CancellationToken cancel) =>
        database
            .Command($"DELETE FROM lecterns WHERE space_id = @space AND notebook_id = @notebook RETURNING {Columns}")
            .With(("space", space), ("notebook", notebook))
            .Row(Read, cancel);

    /// <summary>Closes those whose time is over, and says which.</summary>
    public Task<List<OpenLectern>> CloseExpired(CancellationToken cancel) =>
        database.Command($"DELETE FROM lecterns WHERE until <= now() RETURNING {Columns}").Rows(Read, cancel);

    private static OpenLectern Read(NpgsqlDataReader row) =>
        new(
            row.GetGuid(0),
            row.GetGuid(1),
            row.GetGuid(2),
            row.GetGuid(3),
            row.IsDBNull(4) ? null : row.GetGuid(4),
            row.GetFieldValue<DateTimeOffset>(5),
            row.IsDBNull(6) ? null : row.GetFieldValue<byte[]>(6)
        );
}
