using CalmQuill.Core.Access;
using CalmQuill.Store.People;
using CalmQuill.Store.Rights;
using Npgsql;
using NpgsqlTypes;

namespace CalmQuill.Store.Sharing;

/// <summary>Sharing a folder or notebook, taking it back, and coming by a link. What holds for whom, <see cref="GuestStore"/> reads.</summary>
/// <remarks>A share that is over or taken back is not kept. Whoever may see less for it is told in the same transaction, and devices take off what they hold.</remarks>
public sealed class ShareStore(Database database)
{
    private const string Found = """
        SELECT s.id, s.space_id, s.node_id, n.name, s.page_id, s.with_whom, s.passphrase, s.writes, s.copies, p.name, n.kind = 1
        FROM shares s JOIN spaces l ON l.id = s.space_id AND l.dissolved_at IS NULL
        JOIN library_nodes n ON n.space_id = s.space_id AND n.id = s.node_id AND NOT n.in_bin
        JOIN people p ON p.id = s.made_by
        WHERE s.hash = @hash AND (s.until IS NULL OR s.until > @now)
            AND NOT EXISTS (SELECT 1 FROM locks k WHERE k.space_id = s.space_id AND k.notebook_id = s.node_id)
        """;

    /// <summary>Shares something. A person or group that has it already has it anew, as it is said now. Null when <see cref="Share.MostOpen"/> of the library stand, or there is no such folder or notebook.</summary>
    public async Task<Guid?> Make(MadeShare made, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.Execute("SELECT 1 FROM spaces WHERE id = @space FOR UPDATE", cancel, ("space", made.Space));
        // What was removed for good is shared no more.
        await connection.Execute(
            "DELETE FROM shares s WHERE s.space_id = @space AND NOT EXISTS (SELECT 1 FROM library_nodes n WHERE n.space_id = s.space_id AND n.id = s.node_id)",
            cancel,
            ("space", made.Space)
        );
        var (isThere, open) = await new NpgsqlCommand(
            """
            SELECT EXISTS (SELECT 1 FROM library_nodes WHERE space_id = @space AND id = @node AND kind IN (1, 2) AND NOT in_bin),
                (SELECT count(*) FROM shares WHERE space_id = @space)
            """,
            connection
        ).With(("space", made.Space), ("node", made.Node)).Row(row => (row.GetBoolean(0), row.GetInt64(1)), cancel);
        if (!isThere || open >= Share.MostOpen)
            return null;
        var target = made.With switch
        {
            ShareWith.Person => "(person_id, space_id, node_id) WHERE person_id IS NOT NULL",
            ShareWith.Group => "(group_id, space_id, node_id) WHERE group_id IS NOT NULL",
            _ => "(hash)",
        };
        await using var insert = new NpgsqlCommand(
            $"""
            INSERT INTO shares (id, space_id, node_id, page_id, with_whom, person_id, group_id, hash, secret, passphrase, writes, copies, made_by, until)
            VALUES (@id, @space, @node, @page, @with, @person, @group, @hash, @secret, @passphrase, @writes, @copies, @by, @until)
            ON CONFLICT {target} DO UPDATE SET writes = excluded.writes, made_by = excluded.made_by, made_at = now(), until = excluded.until
            RETURNING id
            """,
            connection
        ).With(
            ("id", Guid.NewGuid()),
            ("space", made.Space),
            ("node", made.Node),
            ("with", (short)made.With),
            ("writes", made.Writes),
            ("copies", made.Copies),
            ("by", made.By)
        );
        void Maybe(string name, NpgsqlDbType type, object? value) =>
            insert.Parameters.Add(new NpgsqlParameter(name, type) { Value = value ?? DBNull.Value });
        Maybe("page", NpgsqlDbType.Uuid, made.Page);
        Maybe("person", NpgsqlDbType.Uuid, made.With is ShareWith.Person ? made.To : null);
        Maybe("group", NpgsqlDbType.Uuid, made.With is ShareWith.Group ? made.To : null);
        Maybe("hash", NpgsqlDbType.Bytea, made.Secret is { } secret ? Secrets.Hash(secret.Plain) : null);
        Maybe("secret", NpgsqlDbType.Bytea, made.Secret?.Enciphered);
        Maybe("passphrase", NpgsqlDbType.Text, made.Passphrase);
        Maybe("until", NpgsqlDbType.TimestampTz, made.Until?.UtcDateTime);
        var id = await insert.Row(row => row.GetGuid(0), cancel);
        // Who had it to write in may only read from now on.
        await TellGuests(connection, [id], cancel);
        await transaction.CommitAsync(cancel);
        return id;
    }

    /// <summary>What is shared out of a library, the newest first.</summary>
    public Task<List<OpenShare>> Of(Guid space, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT s.id, s.node_id, n.name, s.page_id, s.with_whom, coalesce(t.name, g.name, ''), s.secret, s.passphrase IS NOT NULL, s.writes, s.copies, s.made_by, p.name, s.until,
                    ARRAY(SELECT c.name FROM share_guests h JOIN people c ON c.id = h.person_id WHERE h.share_id = s.id ORDER BY c.name)
                FROM shares s JOIN people p ON p.id = s.made_by JOIN library_nodes n ON n.space_id = s.space_id AND n.id = s.node_id
                LEFT JOIN people t ON t.id = s.person_id LEFT JOIN spaces g ON g.id = s.group_id
                WHERE s.space_id = @space AND (s.until IS NULL OR s.until > now())
                ORDER BY s.made_at DESC
                """
            )
            .With(("space", space))
            .Rows(
                row => new OpenShare(
                    row.GetGuid(0),
                    row.GetGuid(1),
                    row.GetString(2),
                    row.IsDBNull(3) ? null : row.GetGuid(3),
                    (ShareWith)row.GetInt16(4),
                    row.GetString(5),
                    row.IsDBNull(6) ? null : row.GetFieldValue<byte[]>(6),
                    row.GetBoolean(7),
                    row.GetBoolean(8),
                    row.GetBoolean(9),
                    row.GetGuid(10),
                    row.GetString(11),
                    row.IsDBNull(12) ? null : row.GetFieldValue<DateTimeOffset>(12),
                    row.GetFieldValue<string[]>(13)
                ),
                cancel
            );

    /// <summary>Takes one back; it is over at once. False when there is none.</summary>
    public async Task<bool> TakeBack(Guid space, Guid share, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var ended = await End(connection, "space_id = @space AND id = @share", cancel, ("space", space), ("share", share));
        await transaction.CommitAsync(cancel);
        return ended > 0;
    }

    /// <summary>A guest lets go of what was shared with them: given to them alone it is over, come by a link they are gone from it. What a group has, they have as long as they are in it.</summary>
    public async Task<bool> LetGo(Guid share, Guid person, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var gone = await connection.Execute(
            "DELETE FROM share_guests WHERE share_id = @share AND person_id = @person",
            cancel,
            ("share", share),
            ("person", person)
        );
        if (gone > 0)
            await connection.Tell(RightsChange.OfPerson(person), cancel);
        gone += await End(connection, "id = @share AND person_id = @person", cancel, ("share", share), ("person", person));
        await transaction.CommitAsync(cancel);
        return gone > 0;
    }

    /// <summary>Ends all that is shared out of a person's own library, and all that was shared with them alone, within a transaction of the caller's.</summary>
    internal static async Task EndAllOf(NpgsqlConnection connection, Guid person, CancellationToken cancel)
    {
        await End(
            connection,
            """
            person_id = @person
                OR space_id IN (SELECT m.space_id FROM members m JOIN spaces l ON l.id = m.space_id WHERE m.person_id = @person AND l.personal)
            """,
            cancel,
            ("person", person)
        );
        await connection.Execute("DELETE FROM share_guests WHERE person_id = @person", cancel, ("person", person));
    }

    /// <summary>Ends those whose last day is over, on every device.</summary>
    public async Task EndExpired(CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        var over = await new NpgsqlCommand("SELECT 1 FROM shares WHERE until <= now() LIMIT 1", connection).Row(
            row => row.GetInt32(0),
            cancel
        );
        if (over == 0)
            return;
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await End(connection, "until <= now()", cancel);
        await transaction.CommitAsync(cancel);
    }

    /// <summary>What a secret leads to; null when there is nothing, or not any more.</summary>
    public Task<FoundShare?> Find(string secret, DateTimeOffset now, CancellationToken cancel) =>
        database.Command(Found).With(("hash", Secrets.Hash(secret)), ("now", now.UtcDateTime)).Row(Read, cancel);

    /// <summary>Comes by a link: from now on it is shared with this person. False when there is no such link, or <see cref="Share.MostGuests"/> came by it.</summary>
    public async Task<bool> Come(string secret, Guid person, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var came = await Come(connection, secret, person, now, cancel);
        await transaction.CommitAsync(cancel);
        return came;
    }

    /// <summary>Makes an account, and comes by a link: both, or neither. Null when the e-mail address is taken.</summary>
    public async Task<bool?> RegisterAndCome(Person person, Guid personalSpace, string secret, DateTimeOffset now, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        if (!await PersonStore.Register(connection, person, personalSpace, cancel))
            return null;
        if (!await Come(connection, secret, person.Id, now, cancel))
            return false;
        await transaction.CommitAsync(cancel);
        return true;
    }

    private static async Task<bool> Come(
        NpgsqlConnection connection,
        string secret,
        Guid person,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        var found = await new NpgsqlCommand(Found + " AND s.with_whom = 3 FOR UPDATE OF s", connection)
            .With(("hash", Secrets.Hash(secret)), ("now", now.UtcDateTime))
            .Row(Read, cancel);
        if (found is null)
            return false;
        await connection.Execute(
            """
            INSERT INTO share_guests (share_id, person_id)
            SELECT @share, @person WHERE (SELECT count(*) FROM share_guests WHERE share_id = @share) < @most
            ON CONFLICT DO NOTHING
            """,
            cancel,
            ("share", found.Id),
            ("person", person),
            ("most", Share.MostGuests)
        );
        await connection.Tell(RightsChange.OfCompany(found.Space), cancel);
        return await new NpgsqlCommand(
            "SELECT EXISTS (SELECT 1 FROM share_guests WHERE share_id = @share AND person_id = @person)",
            connection
        )
            .With(("share", found.Id), ("person", person))
            .Row(row => row.GetBoolean(0), cancel);
    }

    /// <summary>Something of a library lies elsewhere, or in the bin: guests, and screens in rooms, may see less of it, or more.</summary>
    internal static async Task TellIfShared(NpgsqlConnection connection, Guid space, CancellationToken cancel)
    {
        var shares = await new NpgsqlCommand("SELECT id FROM shares WHERE space_id = @space", connection)
            .With(("space", space))
            .Rows(row => row.GetGuid(0), cancel);
        if (shares.Count > 0)
            await TellGuests(connection, shares, cancel);
        var hasRooms = await new NpgsqlCommand(
            "SELECT EXISTS (SELECT 1 FROM lecterns WHERE space_id = @space AND room_hash IS NOT NULL)",
            connection
        )
            .With(("space", space))
            .Row(row => row.GetBoolean(0), cancel);
        if (hasRooms)
            await connection.Tell(RightsChange.OfGuests(space), cancel);
    }

    private static async Task<int> End(
        NpgsqlConnection connection,
        string which,
        CancellationToken cancel,
        params (string Name, object? Value)[] parameters
    )
    {
        var ended = await new NpgsqlCommand($"SELECT id FROM shares WHERE {which} FOR UPDATE", connection)
            .With(parameters)
            .Rows(row => row.GetGuid(0), cancel);
        if (ended.Count == 0)
            return 0;
        await TellGuests(connection, ended, cancel);
        return await connection.Execute("DELETE FROM shares WHERE id = ANY(@ids)", cancel, ("ids", ended.ToArray()));
    }

    /// <summary>Guests' connections on the libraries end, and whoever has one of these asks anew what is shared.</summary>
    private static async Task TellGuests(NpgsqlConnection connection, IReadOnlyCollection<Guid> shares, CancellationToken cancel)
    {
        var concerned = await new NpgsqlCommand(
            """
            SELECT DISTINCT 1, s.space_id FROM shares s WHERE s.id = ANY(@ids)
            UNION SELECT DISTINCT 2, s.person_id FROM shares s WHERE s.id = ANY(@ids) AND s.person_id IS NOT NULL
            UNION SELECT DISTINCT 2, g.person_id FROM share_guests g WHERE g.share_id = ANY(@ids)
            UNION SELECT DISTINCT 3, s.group_id FROM shares s WHERE s.id = ANY(@ids) AND s.group_id IS NOT NULL
            """,
            connection
        ).With(("ids", shares.ToArray())).Rows(row => (Kind: row.GetInt32(0), Id: row.GetGuid(1)), cancel);
        foreach (var (kind, id) in concerned)
            await connection.Tell(
                kind switch
                {
                    1 => RightsChange.OfGuests(id),
                    2 => RightsChange.OfPerson(id),
                    _ => RightsChange.OfCompany(id),
                },
                cancel
            );
    }

    private static FoundShare Read(NpgsqlDataReader row) =>
        new(
            row.GetGuid(0),
            row.GetGuid(1),
            row.GetGuid(2),
            row.GetString(3),
            row.IsDBNull(4) ? null : row.GetGuid(4),
            (ShareWith)row.GetInt16(5),
            row.IsDBNull(6) ? null : row.GetString(6),
            row.GetBoolean(7),
            row.GetBoolean(8),
            row.GetString(9),
            row.GetBoolean(10)
        );
}
