using System.Diagnostics;
using CalmQuill.Store;
using Npgsql;

namespace CalmQuill.Testing;

/// <summary>A fresh, migrated database on a real PostgreSQL on loopback, dropped at the end.</summary>
public sealed class TestDatabase : IAsyncDisposable
{
    private static readonly Lazy<string> Server = new(() => Environment.GetEnvironmentVariable("QUILL_TEST_DATABASE") ?? StartServer());
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
        var name = "test_" + Guid.NewGuid().ToString("N");
        await Run($"CREATE DATABASE {name}");
        var made = new TestDatabase(name, new NpgsqlConnectionStringBuilder(Server.Value) { Database = name, MaxPoolSize = 20 }.ToString());
        await made.Database.Migrate();
        return made;
    }

    public async ValueTask DisposeAsync()
    {
        await Database.DisposeAsync();
        await Run($"DROP DATABASE {name} WITH (FORCE)");
    }

    private static async Task Run(string sql)
    {
        await using var source = NpgsqlDataSource.Create(Server.Value);
        await using var command = source.CreateCommand(sql);
        await command.ExecuteNonQueryAsync();
    }

    private static string StartServer()
    {
        using var quill = Process.Start(new ProcessStartInfo(Path.Combine(Repository.Root, "quill"), "test-database") { RedirectStandardOutput = true })!;
        return quill.StandardOutput.ReadToEnd().Trim();
    }
}
