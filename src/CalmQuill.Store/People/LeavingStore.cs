using CalmQuill.Store.Groups;
using CalmQuill.Store.Rights;
using CalmQuill.Store.Sharing;
using CalmQuill.Store.Spaces;
using Npgsql;

namespace CalmQuill.Store.People;

/// <summary>Deleting accounts, and having them back.</summary>
/// <remarks>
/// What a person wrote in groups is the groups', and stays with the person's name: the row in <c>people</c> is never removed, only emptied of all by which
/// somebody could sign in or be written to.
/// </remarks>
public sealed class LeavingStore(Database database, GroupStore groups, SpaceStore spaces)
{
    /// <summary>For so many days an account can be had back.</summary>
    public const int Days = 30;

    private const string GroupsOf = """
        SELECT s.id, s.name,
            (SELECT count(*)::int FROM members o WHERE o.space_id = s.id AND o.person_id <> @person),
            EXISTS (SELECT 1 FROM members o WHERE o.space_id = s.id AND o.person_id <> @person)
                AND NOT EXISTS (SELECT 1 FROM members o WHERE o.space_id = s.id AND o.person_id <> @person AND o.role = 3)
        FROM members m JOIN spaces s ON s.id = m.space_id
        WHERE m.person_id = @person AND NOT s.personal
        ORDER BY s.name, s.id
        """;

    /// <summary>All of other people and groups that names a person, and goes with the account.</summary>
    private static readonly string[] OfPerson =
    [
        "members",
        "former_members",
        "join_requests",
        "taken_out",
        "invitations",
        "share_guests",
        "shares",
        "recovery_codes",
        "letters",
        "faults",
        "stars",
        "visits",
    ];

    /// <summary>What deleting an account would do now.</summary>
    public async Task<Leaving> Of(Guid person, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        var (notebooks, shares) = await new NpgsqlCommand(
            """
            SELECT (SELECT count(*)::int FROM library_nodes n WHERE n.space_id = s.id AND n.kind = 2 AND NOT n.in_bin),
                (SELECT count(*)::int FROM shares h WHERE h.space_id = s.id)
            FROM members m JOIN spaces s ON s.id = m.space_id WHERE m.person_id = @person AND s.personal
            """,
            connection
        ).With(("person", person)).Row(row => (row.GetInt32(0), row.GetInt32(1)), cancel);
        return new Leaving(notebooks, shares, await Groups(connection, person, cancel));
    }

    /// <summary>
    /// Begins to delete an account: its sign-ins end, it leaves its groups, dissolves those in which it is alone, and takes back what it shared. Does
    /// nothing as long as a group would be left without an owner.
    /// </summary>
    /// <returns>The groups that have to be handed over first; none when it is done.</returns>
    public async Task<IReadOnlyList<LeftGroup>> Leave(Guid person, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.Execute("SELECT 1 FROM people WHERE id = @person FOR UPDATE", cancel, ("person", person));
        // In one order, so that two who leave the same groups at once wait for each other; each then sees what the other left.
        await connection.Execute(
            "SELECT 1 FROM spaces WHERE id IN (SELECT space_id FROM members WHERE person_id = @person) ORDER BY id FOR UPDATE",
            cancel,
            ("person", person)
        );
        var left = await Groups(connection, person, cancel);
        List<LeftGroup> leaderless = [.. left.Where(group => group.IsLeaderless)];
        if (leaderless.Count > 0)
            return leaderless;
        foreach (var alone in left.Where(group => group.Others == 0))
            await GroupStore.Dissolve(connection, alone.Id, now, cancel);
        await connection.Execute(
            "DELETE FROM members m USING spaces s WHERE s.id = m.space_id AND NOT s.personal AND m.person_id = @person",
            cancel,
            ("person", person)
        );
        await connection.Execute("DELETE FROM join_requests WHERE person_id = @person", cancel, ("person", person));
        await ShareStore.EndAllOf(connection, person, cancel);
        foreach (var group in left)
            await connection.Tell(RightsChange.OfSpace(group.Id), cancel);
        await connection.Tell(RightsChange.OfPerson(person), cancel);
        await connection.Execute(
            "UPDATE people SET leaving_at = @now WHERE id = @person",
            cancel,
            ("person", person),
            ("now", now.UtcDateTime)
        );
        await SessionStore.EndAll(connection, person, Guid.Empty, cancel);
        await transaction.CommitAsync(cancel);
        return [];
    }

    /// <summary>The last moment in which somebody can have their account back; null when it is not to be deleted.</summary>
    public Task<DateTimeOffset?> Until(Guid person, CancellationToken cancel) =>
        database
            .Command("SELECT leaving_at + make_interval(days => @days) FROM people WHERE id = @person AND leaving_at IS NOT NULL")
            .With(("person", person), ("days", Days))
            .Row<DateTimeOffset?>(row => row.GetFieldValue<DateTimeOffset>(0), cancel);

    /// <summary>Has an account back, with its own library as it was. False when there is nothing to have back, or its days are over.</summary>
    public async Task<bool> HaveBack(Guid person, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        return await connection.Execute(
                "UPDATE people SET leaving_at = NULL WHERE id = @person AND leaving_at + make_interval(days => @days) > @now",
                cancel,
                ("person", person),
                ("days", Days),
                ("now", now.UtcDateTime)
            ) == 1;
    }

    /// <summary>Erases accounts whose days, and the days of grace after them, are over, with their own libraries and all in them.</summary>
    /// <returns>The accounts that are gone.</returns>
    public async Task<List<Guid>> EraseOver(DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await connection.Patiently(cancel);
        var over = await new NpgsqlCommand(
            "SELECT id FROM people WHERE leaving_at + make_interval(days => @days) <= @now ORDER BY leaving_at",
            connection
        )
            .With(("days", Days + Core.Library.Bin.GraceDays), ("now", now.UtcDateTime))
            .Rows(row => row.GetGuid(0), cancel);
        foreach (var person in over)
            await Erase(connection, person, cancel);
        return over;
    }

    private async Task Erase(NpgsqlConnection connection, Guid person, CancellationToken cancel)
    {
        if (await spaces.PersonalOf(person, cancel) is { } own)
            await groups.Remove(connection, own, cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        foreach (var table in OfPerson)
            await connection.Execute($"DELETE FROM {table} WHERE person_id = @person", cancel, ("person", person));
        await connection.Execute("DELETE FROM letters WHERE made_by = @person", cancel, ("person", person));
        // No address has a space in it, and no password this hash: nobody signs in by them, and nobody is written to.
        await connection.Execute(
            """
            UPDATE people SET email = 'erased ' || id, password_hash = '', second_factor = NULL, digest = false, leaving_at = NULL WHERE id = @person
            """,
            cancel,
            ("person", person)
        );
        await SessionStore.EndAll(connection, person, Guid.Empty, cancel);
        await transaction.CommitAsync(cancel);
    }

    private static Task<List<LeftGroup>> Groups(NpgsqlConnection connection, Guid person, CancellationToken cancel) =>
        new NpgsqlCommand(GroupsOf, connection)
            .With(("person", person))
            .Rows(row => new LeftGroup(row.GetGuid(0), row.GetString(1), row.GetInt32(2), row.GetBoolean(3)), cancel);
}
