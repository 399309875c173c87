using CalmQuill.Core.Access;
using CalmQuill.Core.Library;
using CalmQuill.Store.Assets;
using CalmQuill.Store.Rights;
using CalmQuill.Store.Sharing;
using Npgsql;

namespace CalmQuill.Store.Groups;

/// <summary>Making groups, handing them over, leaving and dissolving them.</summary>
/// <remarks>Whoever was in a dissolved group stands in <c>former_members</c> and not in <c>members</c>. So no reader has to ask whether a group is dissolved, and none can forget to.</remarks>
public sealed class GroupStore(Database database, IAssetFiles files)
{
    /// <summary>For so many days a dissolved group can be had back.</summary>
    public const int DaysInBin = 30;

    /// <summary>All that belongs to a space and goes with it, what names others before what is named.</summary>
    private static readonly string[] OfSpace =
    [
        "lecterns",
        "unlocks",
        "locks",
        "deeds",
        "page_answers",
        "page_spots",
        "page_writers",
        "page_homes",
        "notebook_people",
        "notebook_entries",
        "notebooks",
        "library_nodes",
        "visits",
        "bin_receipts",
        "removals",
        "page_assets",
        "asset_pieces",
        "assets",
        "shares",
        "invitations",
        "join_requests",
        "taken_out",
        "former_members",
        "members",
        "documents",
    ];

    /// <summary>Makes a group with one owner. False when the person looks after <see cref="Invitation.MostOwned"/> already.</summary>
    public async Task<bool> Make(Guid id, string name, string colour, Guid owner, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        // One at a time for a person, so that two at once do not both find room.
        await connection.Execute("SELECT 1 FROM people WHERE id = @owner FOR UPDATE", cancel, ("owner", owner));
        var owned = await new NpgsqlCommand(
            "SELECT count(*) FROM members m JOIN spaces s ON s.id = m.space_id WHERE m.person_id = @owner AND m.role = @role AND NOT s.personal",
            connection
        )
            .With(("owner", owner), ("role", (short)Role.Owner))
            .Row(row => row.GetInt64(0), cancel);
        if (owned >= Invitation.MostOwned)
            return false;
        await connection.Execute(
            "INSERT INTO spaces (id, name, personal, colour) VALUES (@id, @name, false, @colour)",
            cancel,
            ("id", id),
            ("name", name),
            ("colour", colour)
        );
        await connection.Execute(
            "INSERT INTO members (space_id, person_id, role) VALUES (@id, @owner, @role)",
            cancel,
            ("id", id),
            ("owner", owner),
            ("role", (short)Role.Owner)
        );
        await connection.Tell(RightsChange.OfPerson(owner), cancel);
        await transaction.CommitAsync(cancel);
        return true;
    }

    /// <summary>
    /// Names a group, gives it a colour, and says what its writers may do to what others wrote, and whether its past is closed to who only reads; null
    /// leaves that as it is.
    /// </summary>
    public async Task Change(Guid group, string name, string colour, Touch? touch, bool? isPastClosed, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.Execute(
            """
            UPDATE spaces SET name = @name, colour = @colour, touch = coalesce(@touch::smallint, touch), past_closed = coalesce(@closed::boolean, past_closed)
            WHERE id = @group
            """,
            cancel,
            ("group", group),
            ("closed", isPastClosed is { } closed ? closed : DBNull.Value),
            ("touch", touch is { } chosen ? (short)chosen : DBNull.Value),
            ("name", name),
            ("colour", colour)
        );
        await connection.Tell(RightsChange.OfSpace(group), cancel);
        await ShareStore.TellIfShared(connection, group, cancel);
        await transaction.CommitAsync(cancel);
    }

    /// <summary>Makes another member the owner, and the one who hands over a writer. False when either is not what they need to be any more.</summary>
    public async Task<bool> HandOver(Guid group, Guid from, Guid to, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.Execute("SELECT 1 FROM spaces WHERE id = @group FOR UPDATE", cancel, ("group", group));
        var done = await connection.Execute(
            """
            UPDATE members SET role = CASE WHEN person_id = @to THEN 3 ELSE 2 END
            WHERE space_id = @group AND person_id IN (@from, @to) AND @from <> @to
                AND EXISTS (SELECT 1 FROM members WHERE space_id = @group AND person_id = @from AND role = 3)
                AND EXISTS (SELECT 1 FROM members WHERE space_id = @group AND person_id = @to)
            """,
            cancel,
            ("group", group),
            ("from", from),
            ("to", to)
        );
        if (done != 2)
            return false;
        await connection.Tell(RightsChange.OfSpace(group), cancel);
        await connection.Tell(RightsChange.OfPerson(from), cancel);
        await connection.Tell(RightsChange.OfPerson(to), cancel);
        await transaction.CommitAsync(cancel);
        return true;
    }

    /// <summary>Dissolves a group: nobody is in it any more, and nothing of it is touched until its time in the bin is over.</summary>
    public async Task Dissolve(Guid group, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await Dissolve(connection, group, now, cancel);
        await transaction.CommitAsync(cancel);
    }

    /// <summary>The same within a transaction of the caller's.</summary>
    internal static async Task Dissolve(NpgsqlConnection connection, Guid group, DateTimeOffset now, CancellationToken cancel)
    {
        await connection.Execute(
            "UPDATE spaces SET dissolved_at = @now WHERE id = @group AND NOT personal AND dissolved_at IS NULL",
            cancel,
            ("group", group),
            ("now", now.UtcDateTime)
        );
        await Move(connection, group, "members", "former_members", cancel);
        await ShareStore.TellIfShared(connection, group, cancel);
    }

    /// <summary>The dissolved groups that somebody can have back.</summary>
    public Task<List<DissolvedGroup>> DissolvedOf(Guid person, DateTimeOffset now, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT s.id, s.name, s.colour, s.dissolved_at + make_interval(days => @days)
                FROM former_members f JOIN spaces s ON s.id = f.space_id
                WHERE f.person_id = @person AND f.role = @owner AND s.dissolved_at + make_interval(days => @days) > @now
                ORDER BY s.dissolved_at DESC
                """
            )
            .With(("person", person), ("owner", (short)Role.Owner), ("now", now.UtcDateTime), ("days", DaysInBin))
            .Rows(
                row => new DissolvedGroup(row.GetGuid(0), row.GetString(1), row.GetString(2), row.GetFieldValue<DateTimeOffset>(3)),
                cancel
            );

    /// <summary>Has a group back as it was, with all who were in it. False when the person did not own it, or its time is over.</summary>
    public async Task<bool> HaveBack(Guid group, Guid person, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var back = await connection.Execute(
            """
            UPDATE spaces s SET dissolved_at = NULL
            WHERE s.id = @group AND s.dissolved_at + make_interval(days => @days) > @now
                AND EXISTS (SELECT 1 FROM former_members f WHERE f.space_id = s.id AND f.person_id = @person AND f.role = @owner)
            """,
            cancel,
            ("group", group),
            ("person", person),
            ("owner", (short)Role.Owner),
            ("now", now.UtcDateTime),
            ("days", DaysInBin)
        );
        if (back == 0)
            return false;
        await Move(connection, group, "former_members", "members", cancel);
        await transaction.CommitAsync(cancel);
        return true;
    }

    /// <summary>Removes, with all that is in them, groups whose time in the bin, and the days of grace after it, are over.</summary>
    /// <returns>The groups that are gone.</returns>
    public async Task<List<Guid>> RemoveOver(DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await connection.Patiently(cancel);
        var over = await new NpgsqlCommand(
            "SELECT id FROM spaces WHERE NOT personal AND dissolved_at + make_interval(days => @days) <= @now",
            connection
        )
            .With(("days", DaysInBin + Bin.GraceDays), ("now", now.UtcDateTime))
            .Rows(row => row.GetGuid(0), cancel);
        foreach (var group in over)
            await Remove(connection, group, cancel);
        return over;
    }

    /// <summary>Removes a space with all that is in it, for good.</summary>
    internal async Task Remove(NpgsqlConnection connection, Guid group, CancellationToken cancel)
    {
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var assets = await new NpgsqlCommand("SELECT id FROM assets WHERE space_id = @group", connection)
            .With(("group", group))
            .Rows(row => (group, row.GetGuid(0)), cancel);
        foreach (var table in new[] { "operations", "snapshots" })
            await connection.Execute(
                $"DELETE FROM {table} WHERE document_key IN (SELECT key FROM documents WHERE space_id = @group)",
                cancel,
                ("group", group)
            );
        foreach (var table in OfSpace)
            await connection.Execute($"DELETE FROM {table} WHERE space_id = @group", cancel, ("group", group));
        await connection.Execute("DELETE FROM spaces WHERE id = @group", cancel, ("group", group));
        // Before it is settled: were the group gone first, nothing would know of the files any more. What fails here is done again the next time.
        if (assets.Count > 0)
            await files.Remove(assets, cancel);
        await transaction.CommitAsync(cancel);
    }

    /// <summary>Moves all who are in a group from one table to the other, and tells that their rights have changed.</summary>
    private static async Task Move(NpgsqlConnection connection, Guid group, string from, string to, CancellationToken cancel)
    {
        var people = await new NpgsqlCommand(
            $"""
            WITH moved AS (DELETE FROM {from} WHERE space_id = @group RETURNING space_id, person_id, role)
            INSERT INTO {to} (space_id, person_id, role) SELECT * FROM moved RETURNING person_id
            """,
            connection
        ).With(("group", group)).Rows(row => row.GetGuid(0), cancel);
        await connection.Tell(RightsChange.OfSpace(group), cancel);
        foreach (var person in people)
            await connection.Tell(RightsChange.OfPerson(person), cancel);
    }
}
