using System.Text.Json;
using CalmQuill.Core.Access;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Server.People;
using CalmQuill.Store.People;
using CalmQuill.Store.Spaces;
using Microsoft.AspNetCore.Identity;
using Npgsql;

namespace CalmQuill.Testing.Torture;

/// <summary>
/// People with several devices, tabs and clocks write in one notebook while everything that can break breaks. At the end all devices, the server's operations and
/// its projections must say the same, and whatever any device ever showed as kept or saved must be there.
/// </summary>
/// <param name="seed">From which everything is drawn: the same seed makes the same changes and breaks the same things.</param>
/// <param name="killDatabase">Kills PostgreSQL and starts it again; null where others use it.</param>
public sealed class TortureRun(int seed, Func<Task>? killDatabase = null) : IAsyncDisposable
{
    /// <summary>A device's clock goes right, an hour ahead, or forty days behind.</summary>
    private static readonly long[] Clocks = [0, 3_600_000, -40 * 86_400_000L];

    private readonly Random random = new(seed);
    private readonly TortureReport report = new() { Seed = seed };
    private readonly string folder = Directory.CreateTempSubdirectory("quill-torture").FullName;
    private readonly Guid space = Guid.NewGuid(),
        notebook = Guid.NewGuid();
    private readonly Guid[] pages = [Guid.NewGuid(), Guid.NewGuid()];
    private readonly HashSet<(string Document, OpId Id)> promised = [];
    private readonly List<TortureDevice> devices = [];
    private TestDatabase database = null!;
    private ServerProcess server = null!;

    /// <summary>Runs until so many things were killed.</summary>
    public async Task<TortureReport> Run(int kills, Action<string> say)
    {
        await Begin();
        while (report.Kills < kills)
        {
            foreach (var device in devices)
            {
                report.Acts += device.Act(random.Next(), 1 + random.Next(6));
                Take(device);
            }

            await Break();
            if (report.Kills % 20 == 0)
                say($"  {report.Kills} of {kills} kills, {promised.Count:#,0} operations promised");
        }

        await End();
        return report;
    }

    public async ValueTask DisposeAsync()
    {
        foreach (var device in devices)
            device.Dispose();
        server.Dispose();
        await database.DisposeAsync();
        Directory.Delete(folder, recursive: true);
    }

    private async Task Begin()
    {
        database = await TestDatabase.Make();
        server = new ServerProcess(
            database.ConnectionString,
            Path.Combine(Repository.Root, "src/web/dist-torture"),
            Path.Combine(folder, "secrets")
        );
        await server.Start();
        await new SpaceStore(database.Database).MakeGroup(space, "Group", default);
        // One person with two devices, the first of them with two tabs, and another person.
        Person ines = await Someone("ines"),
            tobias = await Someone("tobias");
        foreach (var person in new[] { ines, ines, tobias })
        {
            var device = new TortureDevice(server.Address, person.Email, Place(), Clocks[devices.Count % Clocks.Length]);
            devices.Add(device);
            device.OpenTab(random.Next());
            if (devices.Count == 1)
                device.OpenTab(random.Next());
        }
    }

    private async Task<Person> Someone(string name)
    {
        var person = Accounts.Make(Guid.NewGuid(), $"{name}@torture.example", name, QuillHost.Password, new PasswordHasher<Person>());
        await new PersonStore(database.Database).Register(person, Guid.NewGuid(), default);
        await new SpaceStore(database.Database).SetRole(space, person.Id, Role.Owner, default);
        return person;
    }

    private string Place() =>
        JsonSerializer.Serialize(
            new
            {
                space,
                notebook,
                pages,
            }
        );

    private async Task Break()
    {
        var device = devices[random.Next(devices.Count)];
        switch (random.Next(killDatabase is null ? 6 : 7))
        {
            case 0 or 1:
                server.Kill();
                report.ServerKills++;
                // Some is made while it is away.
                report.Acts += device.Act(random.Next(), random.Next(4));
                await server.Start();
                break;
            case 2 or 3:
                // In the middle of what it does: nothing of it is waited for.
                device.ActAndClose(random.Next(), 1 + random.Next(5), random);
                report.TabsClosed++;
                device.OpenTab(random.Next());
                break;
            case 4:
                device.Network.Cut();
                report.NetworksCut++;
                report.Acts += device.Act(random.Next(), 1 + random.Next(8));
                device.Network.Mend();
                break;
            case 5:
                device.Turn();
                break;
            default:
                await killDatabase!();
                report.DatabaseKills++;
                await server.Start();
                break;
        }
    }

    private void Take(TortureDevice device)
    {
        foreach (var line in device.Take(report))
        {
            var (document, batch) = (
                line[..line.IndexOf(' ', StringComparison.Ordinal)],
                line[(line.IndexOf(' ', StringComparison.Ordinal) + 1)..]
            );
            foreach (var operation in OperationCodec.Decode(Convert.FromBase64String(batch)))
                promised.Add((document, operation.Id));
        }
    }

    /// <summary>All is mended; then everything is compared with everything.</summary>
    private async Task End()
    {
        await server.Start();
        foreach (var device in devices)
        {
            device.Network.Mend();
            Take(device);
            report.Faults.AddRange(device.Settle());
            Take(device);
        }

        // What a later one has sent in settling, those before it ask for once more: how soon they hear of it is not what is tried here.
        foreach (var device in devices)
            report.Faults.AddRange(device.Settle());
        using var caller = await Caller.SignIn(server.Address, "ines@torture.example", QuillHost.Password);
        var stored = new Dictionary<string, List<Operation>>();
        foreach (
            var (kind, id) in new[] { (DocumentKind.Library, space), (DocumentKind.Notebook, notebook) }.Concat(
                pages.Select(page => (DocumentKind.Page, page))
            )
        )
            stored[$"{space}/{kind.ToString().ToLowerInvariant()}/{id}"] = await caller.After(space, kind, id);
        report.Promised = promised.Count;
        report.Stored = stored.Values.Sum(operations => operations.Count);
        var known = stored.SelectMany(entry => entry.Value.Select(operation => (entry.Key, operation.Id))).ToHashSet();
        var lost = promised.Where(one => stored.ContainsKey(one.Document) && !known.Contains(one)).ToList();
        if (lost.Count > 0)
            report.Faults.Add($"{lost.Count} operations are gone, {lost[0].Id} of {lost[0].Document} the first");
        foreach (var device in devices)
        {
            // As it is shown, and as it is after the tabs were opened anew from the device's own store.
            report.Faults.AddRange(device.Differences(stored, "as it is shown"));
            device.Reopen(random.Next());
            report.Faults.AddRange(device.Settle());
            report.Faults.AddRange(device.Differences(stored, "after a reload"));
        }

        await CompareProjections();
    }

    /// <summary>The lists that the server keeps are those that it would make of all operations afresh.</summary>
    private async Task CompareProjections()
    {
        var before = await Projections();
        await using (var connection = new NpgsqlConnection(database.ConnectionString))
        {
            await connection.OpenAsync();
            await using var behind = new NpgsqlCommand("UPDATE projections SET version = 0", connection);
            await behind.ExecuteNonQueryAsync();
        }

        server.Kill();
        await server.Start();
        var afresh = await Projections();
        if (before != afresh)
            report.Faults.Add("the server's lists are not those of its operations");
    }

    private async Task<string> Projections()
    {
        await using var connection = new NpgsqlConnection(database.ConnectionString);
        await connection.OpenAsync();
        var lines = new List<string>();
        foreach (
            var query in new[]
            {
                "SELECT row(id, kind, parent, order_key, name, in_bin)::text FROM library_nodes WHERE space_id = @space",
                "SELECT row(notebook_id, id, kind, parent, title, number, in_bin)::text FROM notebook_entries WHERE space_id = @space",
            }
        )
        {
            await using var command = new NpgsqlCommand(query, connection);
            command.Parameters.AddWithValue("space", space);
            await using var reader = await command.ExecuteReaderAsync();
            while (await reader.ReadAsync())
                lines.Add(reader.GetString(0));
        }

        lines.Sort(StringComparer.Ordinal);
        return string.Join('\n', lines);
    }

    /// <summary>What a document shows by .NET, as the browser's WebAssembly says it.</summary>
    internal static string StateOf(string address, List<Operation> operations)
    {
        LibraryDocument library = new();
        NotebookDocument notebook = new();
        PageDocument page = new();
        var kind = address.Split('/')[1];
        foreach (var operation in operations)
            _ =
                kind == "library" ? library.Apply(operation)
                : kind == "notebook" ? notebook.Apply(operation)
                : page.Apply(operation);
        return Convert.ToBase64String(
            kind == "library" ? library.EncodeState()
            : kind == "notebook" ? notebook.EncodeState()
            : page.EncodeState()
        );
    }
}
