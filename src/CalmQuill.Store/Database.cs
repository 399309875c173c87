using Npgsql;

namespace CalmQuill.Store;

/// <summary>The PostgreSQL database: connections and migrations.</summary>
public sealed class Database(string connectionString) : IAsyncDisposable
{
    /// <summary>An arbitrary number under which migrating servers wait for each other.</summary>
    private const long MigrationLock = 5480;

    private readonly NpgsqlDataSource source = NpgsqlDataSource.Create(connectionString);

    public NpgsqlCommand Command(string sql) => source.CreateCommand(sql);

    public ValueTask<NpgsqlConnection> Connect(CancellationToken cancel) => source.OpenConnectionAsync(cancel);

    /// <summary>Runs the numbered SQL files that this database has not had yet, each in a transaction.</summary>
    public async Task Migrate(CancellationToken cancel = default)
    {
        await using var connection = await Connect(cancel);
        await connection.Execute("SELECT pg_advisory_lock(@lock)", cancel, ("lock", MigrationLock));
        await connection.Execute("CREATE TABLE IF NOT EXISTS migrations (name text PRIMARY KEY, ran_at timestamptz NOT NULL DEFAULT now())", cancel);
        var assembly = typeof(Database).Assembly;
        foreach (var name in assembly.GetManifestResourceNames().Where(name => name.EndsWith(".sql", StringComparison.Ordinal)).Order(StringComparer.Ordinal))
        {
            await using var transaction = await connection.BeginTransactionAsync(cancel);
            var news = await connection.Execute("INSERT INTO migrations (name) VALUES (@name) ON CONFLICT DO NOTHING", cancel, ("name", name));
            if (news == 1)
            {
                using var reader = new StreamReader(assembly.GetManifestResourceStream(name)!);
                await connection.Execute(await reader.ReadToEndAsync(cancel), cancel);
            }

            await transaction.CommitAsync(cancel);
        }

        await connection.Execute("SELECT pg_advisory_unlock(@lock)", cancel, ("lock", MigrationLock));
    }

    public ValueTask DisposeAsync() => source.DisposeAsync();
}
