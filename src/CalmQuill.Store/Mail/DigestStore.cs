namespace CalmQuill.Store.Mail;

/// <summary>Somebody who may be told by mail now.</summary>
/// <param name="Until">Up to which receipt they were told before, UTC milliseconds.</param>
public sealed record DueDigest(Guid Person, string Name, string Email, long Until);

/// <summary>Who wants by mail, once a day at most, what was said to them. All of it goes by the database's clock.</summary>
public sealed class DigestStore(Database database)
{
    public Task<bool> Wants(Guid person, CancellationToken cancel) =>
        database.Command("SELECT digest FROM people WHERE id = @person").With(("person", person)).Row(row => row.GetBoolean(0), cancel);

    /// <summary>Turns it on or off. What was said before it was turned on is not told; the first letter comes a day later.</summary>
    public async Task Set(Guid person, bool on, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await connection.Execute(
            """
            UPDATE people SET digest = @on,
                digest_at = CASE WHEN @on AND NOT digest THEN now() ELSE digest_at END,
                digest_until = CASE WHEN @on AND NOT digest THEN floor(extract(epoch FROM now()) * 1000)::bigint ELSE digest_until END
            WHERE id = @person
            """,
            cancel,
            ("on", on),
            ("person", person)
        );
    }

    /// <summary>Those who were written to last a day ago or longer, and to whom or to whose marks somebody has said something since; no more than <paramref name="most"/>.</summary>
    public Task<List<DueDigest>> Due(int most, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT p.id, p.name, p.email, p.digest_until FROM people p
                WHERE p.digest AND p.digest_at <= now() - interval '24 hours' AND EXISTS (
                    SELECT 1 FROM page_answers a
                    JOIN members m ON m.space_id = a.space_id AND m.person_id = p.id
                    JOIN page_spots s ON s.space_id = a.space_id AND s.page_id = a.page_id AND s.id = a.spot_id
                    WHERE a.author <> p.id AND a.received > p.digest_until AND (p.id = ANY(a.mentions) OR s.author = p.id OR s.person = p.id)
                )
                ORDER BY p.digest_at LIMIT @most
                """
            )
            .With(("most", most))
            .Rows(row => new DueDigest(row.GetGuid(0), row.GetString(1), row.GetString(2), row.GetInt64(3)), cancel);

    /// <summary>They are told up to a receipt, and written to now. False where another server has done so already, or they turned it off.</summary>
    public async Task<bool> Take(DueDigest due, long until, CancellationToken cancel) =>
        await database
            .Command(
                """
                UPDATE people SET digest_at = now(), digest_until = @until
                WHERE id = @person AND digest AND digest_until = @before AND digest_at <= now() - interval '24 hours'
                RETURNING true
                """
            )
            .With(("until", until), ("person", due.Person), ("before", due.Until))
            .Row(row => row.GetBoolean(0), cancel);
}
