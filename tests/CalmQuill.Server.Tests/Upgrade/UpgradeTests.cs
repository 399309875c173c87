using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using CalmQuill.Core.Operations;
using CalmQuill.Store;
using CalmQuill.Store.Documents;
using CalmQuill.Testing;
using Npgsql;

namespace CalmQuill.Server.Tests.Upgrade;

/// <summary>
/// A data folder from before documents were found by their space: a cluster that lets everybody in, with the demonstration in the tables of then
/// (<c>before-scopes.sql.gz</c>, a dump of that version). It is brought up to date by the command itself, and nothing of it is lost.
/// </summary>
public sealed class UpgradeTests : IDisposable
{
    private readonly string data = Directory.CreateTempSubdirectory("quill-data").FullName;

    public void Dispose()
    {
        Quill("stop-database");
        Directory.Delete(data, recursive: true);
    }

    [Fact]
    public async Task A_data_folder_of_before_is_closed_and_brought_up_to_date_and_keeps_every_operation()
    {
        MakeOldCluster();
        var (super, owner, app) = Quill("database") is [.., var first, var second, var third]
            ? (first, second, third)
            : throw new InvalidOperationException("no connection strings");
        var before = await Contents(
            super,
            "SELECT d.space_id || '/' || d.kind || '/' || d.id, o.seq, md5(o.bytes) FROM documents d JOIN operations o ON o.document_id = d.id ORDER BY d.id, o.seq"
        );
        Assert.True(before.Count > 8_000, $"{before.Count} operations");

        await using (var migrating = new Database(owner))
            await migrating.Migrate(new NpgsqlConnectionStringBuilder(app).Username);
        await using var database = new Database(app);
        await new DocumentStore(database).BringProjectionsUpToDate(default);
        Assert.Equal(
            before,
            await Contents(
                super,
                "SELECT d.space_id || '/' || d.kind || '/' || d.id, o.seq, md5(o.bytes) FROM documents d JOIN operations o ON o.document_key = d.key ORDER BY d.id, o.seq"
            )
        );

        // The role of the application changes no tables, and nobody comes in without a password.
        await Assert.ThrowsAsync<PostgresException>(() => Run(app, "CREATE TABLE mine (id int)"));
        await Assert.ThrowsAsync<PostgresException>(() => Run(app, "ALTER TABLE operations DROP COLUMN bytes"));
        await Assert.ThrowsAsync<PostgresException>(() => Run(app, "DELETE FROM migrations"));
        foreach (var role in new[] { "quill", "quill_owner", "quill_app" })
            await Assert.ThrowsAnyAsync<NpgsqlException>(() =>
                Run(new NpgsqlConnectionStringBuilder(app) { Username = role, Password = "guess" }.ToString(), "SELECT 1")
            );
        Assert.Equal(
            ["f", "f"],
            await Contents(super, "SELECT rolsuper::text FROM pg_roles WHERE rolname LIKE 'quill\\_%'", row => row.GetString(0)[..1])
        );

        await Serves(app);
        // Started again, nothing changes, and the passwords stay.
        Assert.Equal([super, owner, app], Quill("database")[^3..]);
    }

    /// <summary>The server itself on what was brought up to date: the library, a page's ink, its picture, and a lock that still holds.</summary>
    private async Task Serves(string app)
    {
        await File.WriteAllTextAsync(Path.Combine(data, "index.html"), "<!doctype html>");
        var settings = new Settings(app, "http://127.0.0.1:0", data, data) { IsDemonstration = true };
        await using var server = QuillServer.Build(settings);
        await server.StartAsync();
        var address = new Uri(server.Urls.First());
        using var ines = await Caller.SignIn(address, "ines@lantern.example", "lantern-street");
        var spaces = (await ines.Refresh())
            .GetProperty("spaces")
            .EnumerateArray()
            .ToDictionary(space => space.GetProperty("personal").GetBoolean(), space => space.GetProperty("id").GetGuid());
        var group = spaces[false];
        var found = await (
            await ines.Http.PostAsJsonAsync($"/api/spaces/{group}/entries", new { rule = "{\"kind\":\"page\"}", limit = 500 })
        ).Content.ReadFromJsonAsync<JsonElement>();
        Assert.InRange(found.GetProperty("total").GetInt64(), 200, 250);
        var written = found
            .GetProperty("entries")
            .EnumerateArray()
            .First(entry => entry.GetProperty("sequence").GetInt64() > 50)
            .GetProperty("id")
            .GetGuid();
        Assert.True((await ines.After(group, DocumentKind.Page, written)).Count > 50);
        Assert.Contains(
            "<path",
            await ines.Http.GetStringAsync($"/api/spaces/{group}/pages/{written}/thumbnail.svg"),
            StringComparison.Ordinal
        );
        Assert.NotEmpty((await ines.Http.GetFromJsonAsync<JsonElement>("/api/follow-ups")).EnumerateArray());
        var shut = Assert.Single((await ines.Http.GetFromJsonAsync<JsonElement>($"/api/spaces/{spaces[true]}/locks")).EnumerateArray());
        Assert.Equal(
            HttpStatusCode.Locked,
            (await ines.Http.GetAsync($"/api/spaces/{spaces[true]}/notebooks/{shut.GetProperty("notebook").GetGuid()}/pages")).StatusCode
        );
        var opened = await ines.Http.PostAsJsonAsync(
            $"/api/spaces/{spaces[true]}/locks/{shut.GetProperty("notebook").GetGuid()}/open",
            new { words = "lamp oil" }
        );
        Assert.Equal(HttpStatusCode.OK, opened.StatusCode);
        await server.StopAsync();
    }

    /// <summary>As the command made clusters then: everybody on this machine is trusted, and the one role is a superuser.</summary>
    private void MakeOldCluster() =>
        Bash(
            """
            set -euo pipefail
            . <(sed -n '/^as_pg()/,/^}/p; /^pg_home()/,/^}/p; /^pg_bin()/p; /^free_port()/p' quill)
            root=$PWD data=$QUILL_DATA
            mkdir -p "$data" && chmod 755 "$data"
            home=$(pg_home postgres); bin=$(pg_bin)
            mkdir -p "$home"
            if [ "$(id -u)" -eq 0 ]; then chown postgres "$home"; chmod 700 "$home"; fi
            as_pg "$bin/initdb" -D "$home" -U quill --auth=trust -E UTF8 --locale=C.UTF-8 >/dev/null
            printf "listen_addresses = '127.0.0.1'\nunix_socket_directories = ''\nmax_connections = 200\nfsync = off\n" | as_pg tee -a "$home/postgresql.conf" >/dev/null
            port=$(free_port)
            as_pg "$bin/pg_ctl" -D "$home" -w -o "-p $port" -l "$home/log" start >/dev/null
            gzip -dc tests/CalmQuill.Server.Tests/Upgrade/before-scopes.sql.gz | "$bin/psql" -q -X -v ON_ERROR_STOP=1 -h 127.0.0.1 -p "$port" -U quill -d postgres >/dev/null
            as_pg "$bin/pg_ctl" -D "$home" -m fast -w stop >/dev/null
            """
        );

    private string[] Quill(string command) =>
        Bash($"./quill {command}").Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);

    private string Bash(string script)
    {
        using var bash = Process.Start(
            new ProcessStartInfo("bash", ["-c", script])
            {
                WorkingDirectory = Repository.Root,
                RedirectStandardOutput = true,
                Environment = { ["QUILL_DATA"] = data },
            }
        )!;
        var output = bash.StandardOutput.ReadToEnd();
        bash.WaitForExit();
        Assert.True(bash.ExitCode == 0, $"{script}\nended with {bash.ExitCode}: {output}");
        return output;
    }

    private static Task<List<(string, long, string)>> Contents(string connection, string sql) =>
        Contents(connection, sql, row => (row.GetString(0), row.GetInt64(1), row.GetString(2)));

    private static async Task<List<T>> Contents<T>(string connection, string sql, Func<NpgsqlDataReader, T> read)
    {
        await using var source = NpgsqlDataSource.Create(connection);
        await using var command = source.CreateCommand(sql);
        await using var reader = await command.ExecuteReaderAsync();
        var rows = new List<T>();
        while (await reader.ReadAsync())
            rows.Add(read(reader));
        return rows;
    }

    private static async Task Run(string connection, string sql)
    {
        await using var source = NpgsqlDataSource.Create(connection);
        await using var command = source.CreateCommand(sql);
        await command.ExecuteNonQueryAsync();
    }
}
