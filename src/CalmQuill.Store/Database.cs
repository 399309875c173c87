using Npgsql;

namespace CalmQuill.Store;

/// <summary>The PostgreSQL database: connections and migrations.</summary>
/// <remarks>No statement waits for a lock, or works, for ever: who waits too long is told that the server is busy, and others are not kept waiting behind it.</remarks>
public sealed class Database(string connectionString) : IAsyncDisposable
{
    /// <summary>An arbitrary number under which migrating servers wait for each other.</summary>
    private const long MigrationLock = 5480;

    private const string Limits = "-c lock_timeout=5000 -c statement_timeout=60000 -c idle_in_transaction_session_timeout=60000";

    private readonly NpgsqlDataSource source = NpgsqlDataSource.Create(WithLimits(connectionString));

    public NpgsqlCommand Command(string sql) => source.CreateCommand(sql);

    public ValueTask<NpgsqlConnection> Connect(CancellationToken cancel) => source.OpenConnectionAsync(cancel);

    /// <summary>Runs the numbered SQL files that this database has not had yet, each in a transaction.</summary>
    /// <param name="application">The role that the application signs in with, when it is another than this one: it gets to read and write, and owns nothing.</param>
    /// <param name="cancel">Gives up.</param>
    public async Task Migrate(string? application = null, CancellationToken cancel = default)
    {
        await using var connection = await Connect(cancel);
        if (application is null && await IsUpToDate(connection, cancel))
            return;
        await connection.Patiently(cancel);
        await connection.Execute("SELECT pg_advisory_lock(@lock)", cancel, ("lock", MigrationLock));
        await connection.Execute(
            "CREATE TABLE IF NOT EXISTS migrations (name text PRIMARY KEY, ran_at timestamptz NOT NULL DEFAULT now())",
            cancel
        );
        foreach (var name in MigrationNames)
        {
            await using var transaction = await connection.BeginTransactionAsync(cancel);
            var news = await connection.Execute(
                "INSERT INTO migrations (name) VALUES (@name) ON CONFLICT DO NOTHING",
                cancel,
                ("name", name)
            );
            if (news == 1)
            {
                using var reader = new StreamReader(typeof(Database).Assembly.GetManifestResourceStream(name)!);
                await connection.Execute(await reader.ReadToEndAsync(cancel), cancel);
            }

            await transaction.CommitAsync(cancel);
        }

        if (application is not null)
            await Grant(connection, application, cancel);
        await connection.Execute("SELECT pg_advisory_unlock(@lock)", cancel, ("lock", MigrationLock));
    }

    public ValueTask DisposeAsync() => source.DisposeAsync();

    private static List<string> MigrationNames =>
        [
            .. typeof(Database)
                .Assembly.GetManifestResourceNames()
                .Where(name => name.EndsWith(".sql", StringComparison.Ordinal))
                .Order(StringComparer.Ordinal),
        ];

    /// <summary>Whether there is nothing to do, which a role that may not change tables can see, too.</summary>
    private static async Task<bool> IsUpToDate(NpgsqlConnection connection, CancellationToken cancel)
    {
        var isThere = await new NpgsqlCommand("SELECT to_regclass('migrations') IS NOT NULL", connection).Row(
            row => row.GetBoolean(0),
            cancel
        );
        if (!isThere)
            return false;
        var ran = await new NpgsqlCommand("SELECT name FROM migrations", connection).Rows(row => row.GetString(0), cancel);
        return MigrationNames.TrueForAll(ran.Contains);
    }

    private static async Task Grant(NpgsqlConnection connection, string application, CancellationToken cancel)
    {
        var role = '"' + application.Replace("\"", "\"\"", StringComparison.Ordinal) + '"';
        await connection.Execute(
            $"""
            GRANT USAGE ON SCHEMA public TO {role};
            GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO {role};
            GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO {role};
            REVOKE INSERT, UPDATE, DELETE ON migrations FROM {role};
            """,
            cancel
        );
    }

    private static string WithLimits(string text)
    {
        var settings = new NpgsqlConnectionStringBuilder(text);
        if (string.IsNullOrEmpty(settings.Options))
            settings.Options = Limits;
        // A request that finds no connection free is told so before its person has given up.
        if (!text.Contains("Timeout=", StringComparison.OrdinalIgnoreCase))
            settings.Timeout = 5;
        return settings.ToString();
    }
}
