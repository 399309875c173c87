using System.Collections.Concurrent;
using CalmQuill.Core.Access;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Server.People;
using CalmQuill.Store.People;
using CalmQuill.Store.Spaces;
using CalmQuill.Testing;
using Microsoft.AspNetCore.Identity;

namespace CalmQuill.Server.Tests;

/// <summary>The server is killed in the middle of what several devices send; every acknowledged operation is found afterwards.</summary>
public sealed class KillTests : IAsyncLifetime
{
    private const int Devices = 4;
    private readonly Guid space = Guid.NewGuid();
    private readonly string folder = Directory.CreateTempSubdirectory("quill-kill").FullName;
    private TestDatabase database = null!;
    private Person person = null!;

    public async Task InitializeAsync()
    {
        database = await TestDatabase.Make();
        person = Accounts.Make(Guid.NewGuid(), "kill@test.example", "Kill Test", QuillHost.Password, new PasswordHasher<Person>());
        await new PersonStore(database.Database).Register(person, Guid.NewGuid(), default);
        await new SpaceStore(database.Database).MakeGroup(space, "Group", default);
        await new SpaceStore(database.Database).SetRole(space, person.Id, Role.Owner, default);
        await File.WriteAllTextAsync(Path.Combine(folder, "index.html"), "<!doctype html>");
    }

    public async Task DisposeAsync()
    {
        await database.DisposeAsync();
        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public async Task Nothing_that_was_acknowledged_is_gone_after_kill_9()
    {
        var page = Guid.NewGuid();
        var acknowledged = new ConcurrentBag<OpId>();
        using var server = new ServerProcess(database.ConnectionString, folder, Path.Combine(folder, "secrets"));
        await server.Start();
        using var caller = await Caller.SignIn(server.Address, person.Email, QuillHost.Password);
        var enough = new TaskCompletionSource();
        var sending = Enumerable
            .Range(1, Devices)
            .Select(device =>
                Task.Run(async () =>
                {
                    var replica = new Replica((ulong)device, person.Id);
                    while (true)
                    {
                        var batch = Enumerable
                            .Range(0, 20)
                            .Select(_ => replica.Make(Stroke(), DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()))
                            .ToList();
                        List<(long Sequence, string? Code)> results;
                        try
                        {
                            results = await Caller.Results(await caller.Send(space, DocumentKind.Page, page, batch));
                        }
                        catch (HttpRequestException)
                        {
                            return;
                        }

                        foreach (var (operation, result) in batch.Zip(results))
                        {
                            Assert.Null(result.Code);
                            acknowledged.Add(operation.Id);
                        }

                        if (acknowledged.Count > 400)
                            enough.TrySetResult();
                    }
                })
            )
            .ToList();
        await enough.Task;
        server.Kill();
        await Task.WhenAll(sending);

        await server.Start();
        var stored = (await caller.After(space, DocumentKind.Page, page)).Select(operation => operation.Id).ToHashSet();
        Assert.Subset(stored, acknowledged.ToHashSet());
        Assert.Equal(0, stored.Count % 20);
    }

    private static Change.StrokeAdded Stroke() => new(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(30));
}
