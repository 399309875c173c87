namespace CalmQuill.Store.Limits;

/// <summary>Counts what is limited a minute, over all servers that share the database.</summary>
public sealed class CountStore(Database database)
{
    /// <summary>Adds to what a partition used in a minute, and says what that comes to.</summary>
    /// <param name="partition">Whose: a person, an address.</param>
    /// <param name="minute">Minutes since 1970.</param>
    /// <param name="count">How many more.</param>
    /// <param name="cancel">Gives up.</param>
    public Task<int> Add(string partition, long minute, int count, CancellationToken cancel) =>
        database
            .Command(
                """
                INSERT INTO request_counts (partition, minute, used) VALUES (@partition, @minute, @count)
                ON CONFLICT (partition, minute) DO UPDATE SET used = request_counts.used + excluded.used
                RETURNING used
                """
            )
            .With(("partition", partition), ("minute", minute), ("count", count))
            .Row(row => row.GetInt32(0), cancel);

    public async Task Forget(long before, CancellationToken cancel)
    {
        await using var connection = await database.Connect(cancel);
        await connection.Execute("DELETE FROM request_counts WHERE minute < @before", cancel, ("before", before));
    }
}
