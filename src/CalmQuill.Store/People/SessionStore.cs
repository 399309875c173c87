using CalmQuill.Store.Rights;
using Npgsql;

namespace CalmQuill.Store.People;

/// <summary>A sign-in, as its person sees it.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Device">The browser it is in.</param>
/// <param name="Name">What the browser and its machine are called.</param>
/// <param name="Address">The network address it was last seen at.</param>
/// <param name="MadeAt">When it was made.</param>
/// <param name="SeenAt">When it was last used.</param>
public sealed record SignedInDevice(Guid Id, Guid Device, string Name, string Address, DateTimeOffset MadeAt, DateTimeOffset SeenAt);

/// <summary>Sign-ins. One that is ended lets nobody in any more, whoever holds its cookie.</summary>
public sealed class SessionStore(Database database)
{
    private static readonly TimeSpan Lasts = TimeSpan.FromDays(30);

    /// <summary>Begins a sign-in. When a person has too many, the one not used for longest ends.</summary>
    public async Task Begin(Guid session, Guid person, Guid device, string name, string address, int most, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.Execute(
            "INSERT INTO sessions (id, person_id, device_id, name, address, until) VALUES (@session, @person, @device, @name, @address, @until)",
            cancel,
            ("session", session),
            ("person", person),
            ("device", device),
            ("name", name),
            ("address", address),
            ("until", DateTime.UtcNow + Lasts)
        );
        await End(
            connection,
            "id IN (SELECT id FROM sessions WHERE person_id = @person ORDER BY seen_at DESC OFFSET @most)",
            cancel,
            ("person", person),
            ("most", most)
        );
        await transaction.CommitAsync(cancel);
    }

    /// <summary>The person of a sign-in that has not ended; null otherwise. Being used makes it last longer.</summary>
    public async Task<Person?> Enter(Guid session, Guid person, string address, CancellationToken cancel)
    {
        var (found, seen) = await database
            .Command(
                $"SELECT {PersonStore.Columns}, s.seen_at FROM sessions s JOIN people p ON p.id = s.person_id WHERE s.id = @session AND s.person_id = @person AND s.until > now()"
            )
            .With(("session", session), ("person", person))
            .Row(row => (PersonStore.Read(row), row.GetFieldValue<DateTimeOffset>(6)), cancel);
        if (found is not null && seen < DateTimeOffset.UtcNow.AddMinutes(-5))
        {
            await using var connection = await database.Connect(cancel);
            await connection.Execute(
                "UPDATE sessions SET seen_at = now(), address = @address, until = @until WHERE id = @session",
                cancel,
                ("session", session),
                ("address", address),
                ("until", DateTime.UtcNow + Lasts)
            );
        }

        return found;
    }

    /// <summary>The sign-ins of a person, those used last first.</summary>
    public Task<List<SignedInDevice>> Of(Guid person, CancellationToken cancel) =>
        database
            .Command(
                "SELECT id, device_id, name, address, made_at, seen_at FROM sessions WHERE person_id = @person AND until > now() ORDER BY seen_at DESC, made_at DESC"
            )
            .With(("person", person))
            .Rows(
                row => new SignedInDevice(
                    row.GetGuid(0),
                    row.GetGuid(1),
                    row.GetString(2),
                    row.GetString(3),
                    row.GetFieldValue<DateTimeOffset>(4),
                    row.GetFieldValue<DateTimeOffset>(5)
                ),
                cancel
            );

    /// <summary>Ends one sign-in of a person. False when there is none such.</summary>
    public async Task<bool> EndOne(Guid person, Guid session, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var ended = await End(connection, "id = @session AND person_id = @person", cancel, ("session", session), ("person", person));
        await transaction.CommitAsync(cancel);
        return ended > 0;
    }

    /// <summary>Ends all sign-ins of a person but one.</summary>
    public async Task EndOthers(Guid person, Guid but, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await EndAll(connection, person, but, cancel);
        await transaction.CommitAsync(cancel);
    }

    public async Task EndExpired(CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await End(connection, "until <= now()", cancel);
    }

    internal static Task EndAll(NpgsqlConnection connection, Guid person, Guid but, CancellationToken cancel) =>
        End(connection, "person_id = @person AND id <> @but", cancel, ("person", person), ("but", but));

    private static async Task<int> End(
        NpgsqlConnection connection,
        string which,
        CancellationToken cancel,
        params (string, object?)[] parameters
    )
    {
        await using var command = new NpgsqlCommand(
            $"WITH ended AS (DELETE FROM sessions WHERE {which} RETURNING id) SELECT count(pg_notify(@channel, @word || ' ' || id)) FROM ended",
            connection
        ).With([("channel", RightsChange.Channel), ("word", RightsChange.SessionWord), .. parameters]);
        return (int)(long)(await command.ExecuteScalarAsync(cancel))!;
    }
}
