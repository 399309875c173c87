using CalmQuill.Core.Access;
using CalmQuill.Store.Rights;

namespace CalmQuill.Store.Spaces;

/// <summary>Spaces and who is in them.</summary>
public sealed class SpaceStore(Database database)
{
    public Task<List<Space>> Of(Guid person, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT s.id, s.name, s.personal, m.role, s.colour, s.touch, s.past_closed
                FROM members m JOIN spaces s ON s.id = m.space_id
                WHERE m.person_id = @person
                ORDER BY s.personal DESC, s.name
                """
            )
            .With(("person", person))
            .Rows(
                row => new Space(
                    row.GetGuid(0),
                    row.GetString(1),
                    row.GetBoolean(2),
                    (Role)row.GetInt16(3),
                    row.GetString(4),
                    (Touch)row.GetInt16(5),
                    row.GetBoolean(6)
                ),
                cancel
            );

    public Task<List<Member>> Members(Guid space, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT p.id, p.name, p.colour, m.role
                FROM members m JOIN people p ON p.id = m.person_id
                WHERE m.space_id = @space
                ORDER BY m.role DESC, p.name
                """
            )
            .With(("space", space))
            .Rows(row => new Member(row.GetGuid(0), row.GetString(1), row.GetString(2), (Role)row.GetInt16(3)), cancel);

    public Task<Role> RoleIn(Guid space, Guid person, CancellationToken cancel) =>
        database
            .Command("SELECT role FROM members WHERE space_id = @space AND person_id = @person")
            .With(("space", space), ("person", person))
            .Row(row => (Role)row.GetInt16(0), cancel);

    /// <summary>What whoever writes in a space may do to what others wrote.</summary>
    public Task<Touch> TouchIn(Guid space, CancellationToken cancel) =>
        database.Command("SELECT touch FROM spaces WHERE id = @space").With(("space", space)).Row(row => (Touch)row.GetInt16(0), cancel);

    /// <summary>Whether who only reads in a space is shown pages as they are, and not as they were.</summary>
    public Task<bool> IsPastClosed(Guid space, CancellationToken cancel) =>
        database.Command("SELECT past_closed FROM spaces WHERE id = @space").With(("space", space)).Row(row => row.GetBoolean(0), cancel);

    /// <summary>What a space holds now.</summary>
    public async Task<SpaceUsage> Usage(Guid space, CancellationToken cancel) =>
        (
            await database
                .Command(
                    """
                    SELECT coalesce(sum(d.last_seq), 0)::bigint, coalesce(sum(d.size), 0)::bigint,
                        ((SELECT coalesce(sum(a.size), 0) FROM assets a WHERE a.space_id = @space)
                            + (SELECT coalesce(sum(length(p.bytes)), 0) FROM asset_pieces p WHERE p.space_id = @space))::bigint
                    FROM documents d WHERE d.space_id = @space
                    """
                )
                .With(("space", space))
                .Row(row => new SpaceUsage(row.GetInt64(0), row.GetInt64(1), row.GetInt64(2)), cancel)
        )!;

    /// <summary>Makes a group that nobody is in yet.</summary>
    public async Task MakeGroup(Guid id, string name, CancellationToken cancel, string colour = "")
    {
        await using var connection = await database.Connect(cancel);
        await connection.Execute(
            "INSERT INTO spaces (id, name, personal, colour) VALUES (@id, @name, false, @colour)",
            cancel,
            ("id", id),
            ("name", name),
            ("colour", colour)
        );
    }

    /// <summary>A person's own library; null for nobody's.</summary>
    public Task<Guid?> PersonalOf(Guid person, CancellationToken cancel) =>
        database
            .Command("SELECT s.id FROM spaces s JOIN members m ON m.space_id = s.id WHERE m.person_id = @person AND s.personal")
            .With(("person", person))
            .Row<Guid?>(row => row.GetGuid(0), cancel);

    /// <summary>Whether somebody's library is their own, or a group's.</summary>
    public Task<bool> IsPersonal(Guid space, CancellationToken cancel) =>
        database.Command("SELECT personal FROM spaces WHERE id = @space").With(("space", space)).Row(row => row.GetBoolean(0), cancel);

    /// <summary>Who made some things of a library; what it does not know is not among them.</summary>
    public async Task<Dictionary<Guid, Guid>> MakersOf(Guid space, IReadOnlyCollection<Guid> nodes, CancellationToken cancel) =>
        (
            await database
                .Command("SELECT id, created_by FROM library_nodes WHERE space_id = @space AND id = ANY(@nodes)")
                .With(("space", space), ("nodes", nodes.ToArray()))
                .Rows(row => (Id: row.GetGuid(0), Maker: row.GetGuid(1)), cancel)
        ).ToDictionary(row => row.Id, row => row.Maker);

    /// <summary>Who made a folder or notebook of a library, and whether it is a folder; null when there is none.</summary>
    public Task<(Guid Maker, bool IsFolder)?> MadeAndKind(Guid space, Guid node, CancellationToken cancel) =>
        database
            .Command(
                "SELECT created_by, kind = 1 FROM library_nodes WHERE space_id = @space AND id = @node AND kind IN (1, 2) AND NOT in_bin"
            )
            .With(("space", space), ("node", node))
            .Row(row => ((Guid, bool)?)(row.GetGuid(0), row.GetBoolean(1)), cancel);

    /// <summary>Gives a person a role in a space; <see cref="Role.None"/> takes the person out. False when that would leave the space without an owner.</summary>
    public Task<bool> SetRole(Guid space, Guid person, Role role, CancellationToken cancel) => SetRole(space, person, role, null, cancel);

    /// <summary>The same by an owner, to somebody who is in: false also when either is not so any more.</summary>
    public Task<bool> SetRoleBy(Guid owner, Guid space, Guid person, Role role, CancellationToken cancel) =>
        SetRole(space, person, role, owner, cancel);

    private async Task<bool> SetRole(Guid space, Guid person, Role role, Guid? by, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.Execute("SELECT 1 FROM spaces WHERE id = @space FOR UPDATE", cancel, ("space", space));
        // Two owners may take each other's role at once: the second is none by now.
        if (by is { } owner && !await new Npgsql.NpgsqlCommand(
                """
                SELECT EXISTS (SELECT 1 FROM members WHERE space_id = @space AND person_id = @owner AND role = 3)
                    AND EXISTS (SELECT 1 FROM members WHERE space_id = @space AND person_id = @person)
                """,
                connection
            ).With(("space", space), ("owner", owner), ("person", person)).Row(row => row.GetBoolean(0), cancel))
            return false;
        if (role == Role.None && by is not null && by != person)
            await connection.Execute(
                "INSERT INTO taken_out (space_id, person_id) VALUES (@space, @person) ON CONFLICT DO NOTHING",
                cancel,
                ("space", space),
                ("person", person)
            );
        if (role == Role.None)
            await connection.Execute(
                "DELETE FROM members WHERE space_id = @space AND person_id = @person",
                cancel,
                ("space", space),
                ("person", person)
            );
        else
        {
            await connection.Execute(
                """
                INSERT INTO members (space_id, person_id, role) VALUES (@space, @person, @role)
                ON CONFLICT (space_id, person_id) DO UPDATE SET role = excluded.role
                """,
                cancel,
                ("space", space),
                ("person", person),
                ("role", (short)role)
            );
        }

        await using var owners = new Npgsql.NpgsqlCommand(
            "SELECT count(*) FROM members WHERE space_id = @space AND role = @owner",
            connection
        ).With(("space", space), ("owner", (short)Role.Owner));
        if (await owners.ExecuteScalarAsync(cancel) is 0L)
            return false;
        await connection.Tell(RightsChange.OfSpace(space), cancel);
        await connection.Tell(RightsChange.OfPerson(person), cancel);
        await transaction.CommitAsync(cancel);
        return true;
    }
}
