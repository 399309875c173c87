using CalmQuill.Core.Access;
using CalmQuill.Store.People;
using CalmQuill.Store.Rights;
using Npgsql;
using NpgsqlTypes;

namespace CalmQuill.Store.Groups;

/// <summary>Invitations into groups, and those who ask to be let in. Of links, hashes are kept to find them by, and their secrets enciphered by whoever writes them.</summary>
public sealed class InvitationStore(Database database)
{
    private const string Found = """
        SELECT i.id, i.space_id, s.name, s.colour, p.name, i.role, i.asks, i.until, i.uses, i.most_uses,
            EXISTS (SELECT 1 FROM members m WHERE m.space_id = i.space_id AND m.person_id = @person)
        FROM invitations i JOIN spaces s ON s.id = i.space_id JOIN people p ON p.id = i.made_by
        """;

    /// <summary>Keeps a link, and gives what it is taken back by; null when the group has <see cref="Invitation.MostOpen"/> invitations open.</summary>
    /// <param name="space">The group.</param>
    /// <param name="by">The owner who makes it.</param>
    /// <param name="invitation">What it says.</param>
    /// <param name="person">At whose door it stands as well; null for nobody's. Owners do not see that it does, since they would learn who has an account.</param>
    /// <param name="secret">What it is found by.</param>
    /// <param name="enciphered">The same, enciphered.</param>
    /// <param name="email">Whom it is for; empty for anybody.</param>
    /// <param name="mailed">Whether a letter goes there.</param>
    /// <param name="now">UTC.</param>
    /// <param name="cancel">Gives up.</param>
    public Task<Guid?> WriteLink(
        Guid space,
        Guid by,
        Invitation invitation,
        Guid? person,
        string secret,
        byte[] enciphered,
        string email,
        bool mailed,
        DateTimeOffset now,
        CancellationToken cancel
    ) =>
        Write(
            space,
            by,
            invitation,
            person,
            now,
            "(id, space_id, person_id, hash, secret, email, mailed, role, asks, made_by, made_at, until, most_uses) VALUES (@id, @space, @person, @hash, @secret, @email, @mailed, @role, @asks, @by, @now, @until, @most)",
            cancel,
            ("hash", Secrets.Hash(secret)),
            ("secret", enciphered),
            ("email", email),
            ("mailed", mailed)
        );

    /// <summary>Keeps an invitation for one person, in place of one they have. False when the group has <see cref="Invitation.MostOpen"/> open.</summary>
    public async Task<bool> WriteFor(
        Guid person,
        Guid space,
        Guid by,
        Invitation invitation,
        DateTimeOffset now,
        CancellationToken cancel
    ) =>
        await Write(
            space,
            by,
            invitation,
            person,
            now,
            """
            (id, space_id, person_id, role, asks, made_by, made_at, until, most_uses) VALUES (@id, @space, @person, @role, @asks, @by, @now, @until, @most)
            ON CONFLICT (person_id, space_id) WHERE hash IS NULL
            DO UPDATE SET role = excluded.role, made_by = excluded.made_by, made_at = excluded.made_at, until = excluded.until, uses = 0
            """,
            cancel
        )
            is not null;

    private async Task<Guid?> Write(
        Guid space,
        Guid by,
        Invitation invitation,
        Guid? person,
        DateTimeOffset now,
        string values,
        CancellationToken cancel,
        params (string Name, object? Value)[] more
    )
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.Execute("SELECT 1 FROM spaces WHERE id = @space FOR UPDATE", cancel, ("space", space));
        await connection.Execute(
            "DELETE FROM invitations WHERE space_id = @space AND until <= @now - interval '30 days'",
            cancel,
            ("space", space),
            ("now", now.UtcDateTime)
        );
        var open = await new NpgsqlCommand("SELECT count(*) FROM invitations WHERE space_id = @space", connection)
            .With(("space", space))
            .Row(row => row.GetInt64(0), cancel);
        if (open >= Invitation.MostOpen)
            return null;
        var id = Guid.NewGuid();
        await using var insert = new NpgsqlCommand($"INSERT INTO invitations {values}", connection).With([
            ("id", id),
            ("space", space),
            ("by", by),
            ("role", (short)invitation.Role),
            ("asks", invitation.Asks),
            ("now", now.UtcDateTime),
            ("until", now.UtcDateTime.AddDays(invitation.Days)),
            ("most", invitation.Uses),
            .. more,
        ]);
        insert.Parameters.Add(new NpgsqlParameter("person", NpgsqlDbType.Uuid) { Value = (object?)person ?? DBNull.Value });
        await insert.ExecuteNonQueryAsync(cancel);
        if (person is { } invited)
            await connection.Tell(RightsChange.OfPerson(invited), cancel);
        await transaction.CommitAsync(cancel);
        return id;
    }

    /// <summary>All of a group that were not taken back, the newest first; those over for a month are not there any more.</summary>
    public Task<List<OpenInvitation>> Of(Guid space, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT i.id, i.secret, p.name, i.email, i.role, i.asks, i.until, i.most_uses, i.uses, i.mailed, l.given_up, l.tries > 0
                FROM invitations i LEFT JOIN people p ON p.id = i.person_id AND i.hash IS NULL LEFT JOIN mails l ON l.invitation_id = i.id
                WHERE i.space_id = @space ORDER BY i.made_at DESC
                """
            )
            .With(("space", space))
            .Rows(
                row => new OpenInvitation(
                    row.GetGuid(0),
                    row.IsDBNull(1) ? null : row.GetFieldValue<byte[]>(1),
                    row.IsDBNull(2) ? null : row.GetString(2),
                    row.GetString(3),
                    !row.GetBoolean(9) ? null
                        : row.IsDBNull(10) ? LetterState.OnItsWay
                        : row.GetBoolean(10) ? LetterState.Failed
                        : !row.GetBoolean(11) ? LetterState.OnItsWay
                        : LetterState.Waiting,
                    (Role)row.GetInt16(4),
                    row.GetBoolean(5),
                    row.GetFieldValue<DateTimeOffset>(6),
                    row.GetInt32(7),
                    row.GetInt32(8)
                ),
                cancel
            );

    /// <summary>Takes one of a group's back: from now on there is none. False when there was none.</summary>
    public async Task<bool> TakeBack(Guid space, Guid invitation, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        return await connection.Execute(
                "DELETE FROM invitations WHERE space_id = @space AND id = @invitation",
                cancel,
                ("space", space),
                ("invitation", invitation)
            ) == 1;
    }

    /// <summary>What a link leads to; null when it is none, or was taken back, or its group is dissolved.</summary>
    /// <param name="secret">The link's secret.</param>
    /// <param name="person">Who holds it; the empty id for somebody signed out.</param>
    /// <param name="now">UTC.</param>
    /// <param name="cancel">Gives up.</param>
    public Task<FoundInvitation?> Find(string secret, Guid person, DateTimeOffset now, CancellationToken cancel) =>
        database
            .Command($"{Found} WHERE i.hash = @hash AND s.dissolved_at IS NULL")
            .With(("hash", Secrets.Hash(secret)), ("person", person))
            .Row(row => Read(row, now), cancel);

    /// <summary>The open invitations for a person, the newest first.</summary>
    public Task<List<FoundInvitation>> For(Guid person, DateTimeOffset now, CancellationToken cancel) =>
        database
            .Command(
                $"{Found} WHERE i.person_id = @person AND i.until > @now AND i.uses = 0 AND s.dissolved_at IS NULL ORDER BY i.made_at DESC"
            )
            .With(("person", person), ("now", now.UtcDateTime))
            .Rows(row => Read(row, now), cancel);

    /// <summary>Goes in by a link.</summary>
    /// <param name="secret">The link's secret.</param>
    /// <param name="person">Who goes in.</param>
    /// <param name="asking">Whether an owner is asked where the link lets nobody in any more.</param>
    /// <param name="now">UTC.</param>
    /// <param name="cancel">Gives up.</param>
    public async Task<(Joining What, Guid Space)> Join(
        string secret,
        Guid person,
        bool asking,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var joined = await Join(connection, true, Secrets.Hash(secret), person, asking, now, cancel);
        await transaction.CommitAsync(cancel);
        return joined;
    }

    /// <summary>Makes an account, and goes in by a link: both, or neither. <see cref="Joining.NotThere"/> also when the link lets nobody in; null when the e-mail address is taken.</summary>
    public async Task<Joining?> RegisterAndJoin(
        Person person,
        Guid personalSpace,
        string secret,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        if (!await PersonStore.Register(connection, person, personalSpace, cancel))
            return null;
        var (joined, _) = await Join(connection, true, Secrets.Hash(secret), person.Id, false, now, cancel);
        if (joined is not (Joining.Joined or Joining.Asked))
            return joined;
        await transaction.CommitAsync(cancel);
        return joined;
    }

    /// <summary>A person's answer to an invitation for them. It is gone then.</summary>
    public async Task<(Joining What, Guid Space)> Answer(
        Guid invitation,
        Guid person,
        bool yes,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        (Joining What, Guid Space) joined = (Joining.NotThere, Guid.Empty);
        if (yes)
        {
            joined = await Join(connection, false, invitation, person, false, now, cancel);
            if (joined.What is not (Joining.Joined or Joining.WasIn))
                return joined;
        }

        await connection.Execute(
            "DELETE FROM invitations WHERE id = @invitation AND person_id = @person",
            cancel,
            ("invitation", invitation),
            ("person", person)
        );
        await transaction.CommitAsync(cancel);
        return joined;
    }

    /// <summary>Those who ask to be let into groups that a person looks after, the longest waiting first.</summary>
    public Task<List<JoinRequest>> AskingAt(Guid owner, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT r.space_id, s.name, p.id, p.name, p.colour, r.asked_at
                FROM join_requests r JOIN members m ON m.space_id = r.space_id AND m.person_id = @owner AND m.role = @role
                JOIN spaces s ON s.id = r.space_id JOIN people p ON p.id = r.person_id
                ORDER BY r.asked_at
                """
            )
            .With(("owner", owner), ("role", (short)Role.Owner))
            .Rows(
                row => new JoinRequest(
                    row.GetGuid(0),
                    row.GetString(1),
                    row.GetGuid(2),
                    row.GetString(3),
                    row.GetString(4),
                    row.GetFieldValue<DateTimeOffset>(5)
                ),
                cancel
            );

    /// <summary>An owner's answer to somebody who asks. <see cref="Joining.NotThere"/> when nobody asks, or the answer is no.</summary>
    public async Task<Joining> AnswerRequest(Guid space, Guid person, bool yes, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.Execute("SELECT 1 FROM spaces WHERE id = @space FOR UPDATE", cancel, ("space", space));
        var role = await new NpgsqlCommand(
            "DELETE FROM join_requests WHERE space_id = @space AND person_id = @person RETURNING role",
            connection
        )
            .With(("space", space), ("person", person))
            .Row(row => (Role)row.GetInt16(0), cancel);
        var answered = Joining.NotThere;
        if (role != Role.None && yes)
        {
            answered = await LetIn(connection, space, person, role, cancel);
            // Who cannot be let in now goes on asking.
            if (answered == Joining.Full)
                return answered;
        }

        await transaction.CommitAsync(cancel);
        return answered;
    }

    private static async Task<(Joining What, Guid Space)> Join(
        NpgsqlConnection connection,
        bool byLink,
        object key,
        Guid person,
        bool asking,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        var which = byLink ? "hash = @key" : "id = @key AND person_id = @person";
        var found = await new NpgsqlCommand($"SELECT space_id FROM invitations WHERE {which}", connection)
            .With(("key", key), ("person", person))
            .Row(row => (Guid?)row.GetGuid(0), cancel);
        if (found is not { } space)
            return (Joining.NotThere, Guid.Empty);
        // Always the group first, so that nobody waits for each other, and nothing changes of it meanwhile.
        var isDissolved = await new NpgsqlCommand("SELECT dissolved_at IS NOT NULL FROM spaces WHERE id = @space FOR UPDATE", connection)
            .With(("space", space))
            .Row(row => row.GetBoolean(0), cancel);
        var invitation = await new NpgsqlCommand(
            $"SELECT role, asks, until, uses, most_uses, id FROM invitations WHERE {which} FOR UPDATE",
            connection
        )
            .With(("key", key), ("person", person))
            .Row(
                row =>
                    (
                        Role: (Role)row.GetInt16(0),
                        Asks: row.GetBoolean(1),
                        State: Invitation.StateOf(row.GetFieldValue<DateTimeOffset>(2), row.GetInt32(3), row.GetInt32(4), now),
                        Id: row.GetGuid(5)
                    ),
                cancel
            );
        if (invitation.Role == Role.None || isDissolved)
            return (Joining.NotThere, Guid.Empty);
        var isIn = await new NpgsqlCommand("SELECT 1 FROM members WHERE space_id = @space AND person_id = @person", connection)
            .With(("space", space), ("person", person))
            .Row(_ => true, cancel);
        if (isIn)
            return (Joining.WasIn, space);
        // Whom an owner took out comes back by an owner's word, and not by a link that is still about.
        var asksFirst =
            invitation.Asks
            || (
                byLink
                && await new NpgsqlCommand("SELECT 1 FROM taken_out WHERE space_id = @space AND person_id = @person", connection)
                    .With(("space", space), ("person", person))
                    .Row(_ => true, cancel)
            );
        if (invitation.State == InvitationState.Open ? asksFirst : asking)
        {
            await connection.Execute(
                "INSERT INTO join_requests (space_id, person_id, role) VALUES (@space, @person, @role) ON CONFLICT DO NOTHING",
                cancel,
                ("space", space),
                ("person", person),
                ("role", (short)invitation.Role)
            );
            await connection.Tell(RightsChange.OfCompany(space), cancel);
            return (Joining.Asked, space);
        }

        if (invitation.State != InvitationState.Open)
            return (invitation.State == InvitationState.Over ? Joining.Over : Joining.UsedUp, space);
        if (await LetIn(connection, space, person, invitation.Role, cancel) is var let and not Joining.Joined)
            return (let, space);
        await connection.Execute(
            "UPDATE invitations SET uses = uses + 1 WHERE space_id = @space AND id = @id",
            cancel,
            ("space", space),
            ("id", invitation.Id)
        );
        return (Joining.Joined, space);
    }

    /// <summary>Puts somebody into a group, whose row is held.</summary>
    private static async Task<Joining> LetIn(NpgsqlConnection connection, Guid space, Guid person, Role role, CancellationToken cancel)
    {
        var there = await new NpgsqlCommand(
            "SELECT count(*), count(*) FILTER (WHERE person_id = @person) FROM members WHERE space_id = @space",
            connection
        )
            .With(("space", space), ("person", person))
            .Row(row => (All: row.GetInt64(0), Own: row.GetInt64(1)), cancel);
        if (there.Own > 0)
            return Joining.WasIn;
        if (there.All >= Invitation.MostMembers)
            return Joining.Full;
        await connection.Execute(
            "INSERT INTO members (space_id, person_id, role) VALUES (@space, @person, @role)",
            cancel,
            ("space", space),
            ("person", person),
            ("role", (short)role)
        );
        foreach (var table in new[] { "join_requests", "taken_out" })
            await connection.Execute(
                $"DELETE FROM {table} WHERE space_id = @space AND person_id = @person",
                cancel,
                ("space", space),
                ("person", person)
            );
        await connection.Tell(RightsChange.OfCompany(space), cancel);
        await connection.Tell(RightsChange.OfPerson(person), cancel);
        return Joining.Joined;
    }

    private static FoundInvitation Read(NpgsqlDataReader row, DateTimeOffset now) =>
        new(
            row.GetGuid(0),
            row.GetGuid(1),
            row.GetString(2),
            row.GetString(3),
            row.GetString(4),
            (Role)row.GetInt16(5),
            row.GetBoolean(6),
            Invitation.StateOf(row.GetFieldValue<DateTimeOffset>(7), row.GetInt32(8), row.GetInt32(9), now),
            row.GetBoolean(10)
        );
}
