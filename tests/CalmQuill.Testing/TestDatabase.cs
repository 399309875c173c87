using System.Diagnostics;
using CalmQuill.Store;
using Npgsql;

namespace CalmQuill.Testing;

/// <summary>A fresh, migrated database on a real PostgreSQL on loopback, dropped at the end.</summary>
public sealed class TestDatabase : IAsyncDisposable
{
    private static readonly Lazy<string> Server = new(() => Environment.GetEnvironmentVariable("QUILL_TEST_DATABASE") ?? StartServer());

    /// <summary>A database that is migrated once, from which the others are copied.</summary>
    private static readonly Lazy<Task<string>> Template = new(MakeTemplate);
    private readonly string name;

    private TestDatabase(string name, string connectionString)
    {
        this.name = name;
        ConnectionString = connectionString;
        Database = new Database(connectionString);
    }

    public string ConnectionString { get; }

    public Database Database { get; }

    public static async Task<TestDatabase> Make()
    {
        var template = await Template.Value;
        var name = "test_" + Guid.NewGuid().ToString("N");
        await Run($"CREATE DATABASE {name} TEMPLATE {template}");
        return new TestDatabase(name, ConnectionStringOf(name));
    }

    /// <summary>One without anything in it, not even tables.</summary>
    public static async Task<TestDatabase> MakeEmpty()
    {
        var name = "test_" + Guid.NewGuid().ToString("N");
        await Run($"CREATE DATABASE {name}");
        return new TestDatabase(name, ConnectionStringOf(name));
    }

    public async ValueTask DisposeAsync()
    {
        await Database.DisposeAsync();
        await Run($"DROP DATABASE {name} WITH (FORCE)");
    }

    private static string ConnectionStringOf(string name) =>
        new NpgsqlConnectionStringBuilder(Server.Value)
        {
            Database = name,
            MaxPoolSize = 20,
            // A machine that is busy with browsers may be long in letting a connection in.
            Timeout = 60,
        }.ToString();

    private static async Task<string> MakeTemplate()
    {
        var name = "template_" + Guid.NewGuid().ToString("N");
        await Run($"CREATE DATABASE {name}");
        await using (var database = new Database(ConnectionStringOf(name)))
            await database.Migrate();
        // What is copied must have nobody on it.
        NpgsqlConnection.ClearAllPools();
        AppDomain.CurrentDomain.ProcessExit += (_, _) => Run($"DROP DATABASE IF EXISTS {name} WITH (FORCE)").Wait(TimeSpan.FromSeconds(5));
        return name;
    }

    private static async Task Run(string sql)
    {
        await using var source = NpgsqlDataSource.Create(Server.Value);
        await using var command = source.CreateCommand(sql);
        await command.ExecuteNonQueryAsync();
    }

    private static string StartServer()
    {
        using var quill = Process.Start(
            new ProcessStartInfo(Path.Combine(Repository.Root, "quill"), "test-database") { RedirectStandardOutput = true }
        )!;
        return quill.StandardOutput.ReadToEnd().Trim();
    }
}
