namespace CalmQuill.Store.Locks;

/// <summary>A notebook's lock.</summary>
/// <param name="Notebook">The notebook.</param>
/// <param name="Space">Its space.</param>
/// <param name="Hash">The passphrase's hash.</param>
/// <param name="SetBy">Who locked it.</param>
/// <param name="Minutes">After how many minutes it locks again.</param>
public sealed record NotebookLock(Guid Notebook, Guid Space, string Hash, Guid SetBy, int Minutes);

/// <summary>Locks, and on which device each is open until when.</summary>
public sealed class LockStore(Database database)
{
    public Task<NotebookLock?> Find(Guid notebook, CancellationToken cancel) =>
        database.Command("SELECT notebook_id, space_id, hash, set_by, minutes FROM locks WHERE notebook_id = @notebook").With(("notebook", notebook))
            .Row(row => new NotebookLock(row.GetGuid(0), row.GetGuid(1), row.GetString(2), row.GetGuid(3), row.GetInt32(4)), cancel);

    /// <summary>The locked notebooks of a space, each with the time until which it is open on a device; null where it is shut.</summary>
    public Task<List<(Guid Notebook, DateTimeOffset? OpenUntil)>> Of(Guid space, Guid device, CancellationToken cancel) =>
        database.Command(
            """
            SELECT l.notebook_id, u.until
            FROM locks l LEFT JOIN unlocks u ON u.notebook_id = l.notebook_id AND u.device = @device AND u.until > now()
            WHERE l.space_id = @space
            """)
            .With(("space", space), ("device", device))
            .Rows(row => (row.GetGuid(0), row.IsDBNull(1) ? (DateTimeOffset?)null : row.GetFieldValue<DateTimeOffset>(1)), cancel);

    /// <summary>The notebooks whose inside a device may not see, of one space or of all.</summary>
    public Task<List<Guid>> ShutOn(Guid device, Guid? space, CancellationToken cancel) =>
        database.Command(
            """
            SELECT l.notebook_id FROM locks l
            WHERE (@space::uuid IS NULL OR l.space_id = @space)
                AND NOT EXISTS (SELECT 1 FROM unlocks u WHERE u.notebook_id = l.notebook_id AND u.device = @device AND u.until > now())
            """)
            .With(("space", space), ("device", device)).Rows(row => row.GetGuid(0), cancel);

    /// <summary>The locked notebook that a document is or lies in, when it is shut on a device; null otherwise.</summary>
    public Task<Guid?> ShutAround(Guid document, Guid device, CancellationToken cancel) =>
        database.Command(
            """
            SELECT l.notebook_id FROM locks l
            WHERE (l.notebook_id = @document OR EXISTS (SELECT 1 FROM notebook_entries e WHERE e.notebook_id = l.notebook_id AND e.id = @document))
                AND NOT EXISTS (SELECT 1 FROM unlocks u WHERE u.notebook_id = l.notebook_id AND u.device = @device AND u.until > now())
            LIMIT 1
            """)
            .With(("document", document), ("device", device)).Row(row => (Guid?)row.GetGuid(0), cancel);

    /// <summary>Whether a document is, or lies in, a notebook with a lock, open or shut.</summary>
    public Task<bool> IsAround(Guid document, CancellationToken cancel) =>
        database.Command(
            "SELECT EXISTS (SELECT 1 FROM locks l WHERE l.notebook_id = @document OR EXISTS (SELECT 1 FROM notebook_entries e WHERE e.notebook_id = l.notebook_id AND e.id = @document))")
            .With(("document", document)).Row(row => row.GetBoolean(0), cancel);

    /// <summary>Locks a notebook. False when it is locked already.</summary>
    public async Task<bool> Set(NotebookLock made, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        return await connection.Execute(
            "INSERT INTO locks (notebook_id, space_id, hash, set_by, minutes) VALUES (@notebook, @space, @hash, @by, @minutes) ON CONFLICT DO NOTHING",
            cancel, ("notebook", made.Notebook), ("space", made.Space), ("hash", made.Hash), ("by", made.SetBy), ("minutes", made.Minutes)) == 1;
    }

    public async Task Remove(Guid notebook, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await connection.Execute("DELETE FROM locks WHERE notebook_id = @notebook", cancel, ("notebook", notebook));
    }

    /// <summary>Opens a lock on one device until a time; a time that is past shuts it.</summary>
    public async Task Open(Guid notebook, Guid device, DateTimeOffset until, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await connection.Execute(
            """
            INSERT INTO unlocks (notebook_id, device, until) VALUES (@notebook, @device, @until)
            ON CONFLICT (notebook_id, device) DO UPDATE SET until = excluded.until
            """,
            cancel, ("notebook", notebook), ("device", device), ("until", until.UtcDateTime));
    }
}
