using CalmQuill.Store.Rights;
using CalmQuill.Store.Sharing;

namespace CalmQuill.Store.Locks;

/// <summary>A notebook, by its space and id.</summary>
public readonly record struct NotebookRef(Guid Space, Guid Notebook);

/// <summary>A notebook's lock.</summary>
/// <param name="Notebook">The notebook.</param>
/// <param name="Space">Its space.</param>
/// <param name="Hash">The passphrase's hash.</param>
/// <param name="SetBy">Who locked it.</param>
/// <param name="Minutes">After how many minutes it locks again.</param>
public sealed record NotebookLock(Guid Notebook, Guid Space, string Hash, Guid SetBy, int Minutes);

/// <summary>Locks, and for which sign-in each is open until when.</summary>
public sealed class LockStore(Database database)
{
    public Task<NotebookLock?> Find(Guid space, Guid notebook, CancellationToken cancel) =>
        database
            .Command("SELECT notebook_id, space_id, hash, set_by, minutes FROM locks WHERE space_id = @space AND notebook_id = @notebook")
            .With(("space", space), ("notebook", notebook))
            .Row(row => new NotebookLock(row.GetGuid(0), row.GetGuid(1), row.GetString(2), row.GetGuid(3), row.GetInt32(4)), cancel);

    /// <summary>Who made a notebook of a library; null when the library has none of this id.</summary>
    public Task<Guid?> MakerOf(Guid space, Guid notebook, CancellationToken cancel) =>
        database
            .Command("SELECT created_by FROM library_nodes WHERE space_id = @space AND id = @notebook AND kind = 2")
            .With(("space", space), ("notebook", notebook))
            .Row(row => (Guid?)row.GetGuid(0), cancel);

    /// <summary>The locked notebooks of a space, each with the time until which it is open for a sign-in; null where it is shut.</summary>
    public Task<List<(Guid Notebook, DateTimeOffset? OpenUntil)>> Of(Guid space, Guid session, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT l.notebook_id, u.until
                FROM locks l LEFT JOIN unlocks u ON u.space_id = l.space_id AND u.notebook_id = l.notebook_id AND u.session_id = @session AND u.until > now()
                WHERE l.space_id = @space
                """
            )
            .With(("space", space), ("session", session))
            .Rows(row => (row.GetGuid(0), row.IsDBNull(1) ? (DateTimeOffset?)null : row.GetFieldValue<DateTimeOffset>(1)), cancel);

    /// <summary>The notebooks whose inside a sign-in may not see, of one space or of all spaces of its person.</summary>
    public Task<List<NotebookRef>> ShutFor(Guid session, Guid person, Guid? space, CancellationToken cancel)
    {
        var command = database
            .Command(
                """
                SELECT l.space_id, l.notebook_id FROM locks l JOIN members m ON m.space_id = l.space_id AND m.person_id = @person
                WHERE (@space IS NULL OR l.space_id = @space)
                    AND NOT EXISTS (
                        SELECT 1 FROM unlocks u WHERE u.space_id = l.space_id AND u.notebook_id = l.notebook_id AND u.session_id = @session AND u.until > now())
                """
            )
            .With(("session", session), ("person", person));
        // A null needs its type said.
        command.Parameters.Add(
            new Npgsql.NpgsqlParameter("space", NpgsqlTypes.NpgsqlDbType.Uuid) { Value = (object?)space ?? DBNull.Value }
        );
        return command.Rows(row => new NotebookRef(row.GetGuid(0), row.GetGuid(1)), cancel);
    }

    /// <summary>Whether a notebook is shut for a sign-in.</summary>
    public Task<bool> IsShut(Guid space, Guid notebook, Guid session, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT EXISTS (
                    SELECT 1 FROM locks l
                    WHERE l.space_id = @space AND l.notebook_id = @notebook
                        AND NOT EXISTS (
                            SELECT 1 FROM unlocks u WHERE u.space_id = l.space_id AND u.notebook_id = l.notebook_id AND u.session_id = @session AND u.until > now()))
                """
            )
            .With(("space", space), ("notebook", notebook), ("session", session))
            .Row(row => row.GetBoolean(0), cancel);

    /// <summary>The notebook in which a page is at home, and whose lock keeps it; null when no notebook of the space names it.</summary>
    public Task<Guid?> HomeOf(Guid space, Guid page, CancellationToken cancel) =>
        database
            .Command("SELECT notebook_id FROM page_homes WHERE space_id = @space AND page_id = @page")
            .With(("space", space), ("page", page))
            .Row(row => (Guid?)row.GetGuid(0), cancel);

    /// <summary>Those of some pages that are at home in a notebook that is shut for a sign-in.</summary>
    public async Task<HashSet<Guid>> ShutPages(Guid space, IReadOnlyList<Guid> pages, Guid session, CancellationToken cancel) =>
        [
            .. await database
                .Command(
                    """
                    SELECT h.page_id FROM page_homes h JOIN locks l ON l.space_id = h.space_id AND l.notebook_id = h.notebook_id
                    WHERE h.space_id = @space AND h.page_id = ANY(@pages)
                        AND NOT EXISTS (
                            SELECT 1 FROM unlocks u WHERE u.space_id = l.space_id AND u.notebook_id = l.notebook_id AND u.session_id = @session AND u.until > now())
                    """
                )
                .With(("space", space), ("pages", pages.ToArray()), ("session", session))
                .Rows(row => row.GetGuid(0), cancel),
        ];

    /// <summary>Whether a notebook has a lock, open or shut.</summary>
    public Task<bool> IsLocked(Guid space, Guid notebook, CancellationToken cancel) =>
        database
            .Command("SELECT EXISTS (SELECT 1 FROM locks WHERE space_id = @space AND notebook_id = @notebook)")
            .With(("space", space), ("notebook", notebook))
            .Row(row => row.GetBoolean(0), cancel);

    /// <summary>Locks a notebook. False when it is locked already.</summary>
    public async Task<bool> Set(NotebookLock made, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        var news = await connection.Execute(
            "INSERT INTO locks (space_id, notebook_id, hash, set_by, minutes) VALUES (@space, @notebook, @hash, @by, @minutes) ON CONFLICT DO NOTHING",
            cancel,
            ("notebook", made.Notebook),
            ("space", made.Space),
            ("hash", made.Hash),
            ("by", made.SetBy),
            ("minutes", made.Minutes)
        );
        await connection.Tell(RightsChange.OfSpace(made.Space), cancel);
        // No guest sees a locked notebook.
        await ShareStore.TellIfShared(connection, made.Space, cancel);
        await transaction.CommitAsync(cancel);
        return news == 1;
    }

    public async Task Remove(Guid space, Guid notebook, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await connection.Execute(
            "DELETE FROM locks WHERE space_id = @space AND notebook_id = @notebook",
            cancel,
            ("space", space),
            ("notebook", notebook)
        );
        await ShareStore.TellIfShared(connection, space, cancel);
    }

    /// <summary>Opens a lock for one sign-in until a time; a time that is past shuts it.</summary>
    public async Task Open(Guid space, Guid notebook, Guid session, DateTimeOffset until, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await using var transaction = await connection.BeginTransactionAsync(cancel);
        await connection.Execute(
            """
            INSERT INTO unlocks (space_id, notebook_id, session_id, until) VALUES (@space, @notebook, @session, @until)
            ON CONFLICT (space_id, notebook_id, session_id) DO UPDATE SET until = excluded.until
            """,
            cancel,
            ("space", space),
            ("notebook", notebook),
            ("session", session),
            ("until", until.UtcDateTime)
        );
        if (until <= DateTimeOffset.UtcNow)
            await connection.Tell(RightsChange.OfSession(session), cancel);
        await transaction.CommitAsync(cancel);
    }

    /// <summary>Takes away what is no longer open, and tells all servers for which sign-ins that was so.</summary>
    public async Task ShutExpired(CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await connection.Execute(
            "WITH shut AS (DELETE FROM unlocks WHERE until <= now() RETURNING session_id) SELECT pg_notify(@channel, @word || ' ' || session_id) FROM shut",
            cancel,
            ("channel", RightsChange.Channel),
            ("word", RightsChange.SessionWord)
        );
    }
}
