using CalmQuill.Core.Access;
using CalmQuill.Server;
using CalmQuill.Server.People;
using CalmQuill.Store.People;
using CalmQuill.Store.Spaces;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.AspNetCore.Identity;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Testing;

/// <summary>The real server in this process, on a free port, with a database of its own.</summary>
public sealed class QuillHost : IAsyncDisposable
{
    public const string Password = "a-long-password";
    private readonly WebApplication server;
    private readonly TestDatabase database;
    private readonly string secrets;

    private QuillHost(WebApplication server, TestDatabase database, string secrets)
    {
        (this.server, this.database, this.secrets) = (server, database, secrets);
        Address = new Uri(server.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First());
    }

    public Uri Address { get; }

    public IServiceProvider Services => server.Services;

    public static async Task<QuillHost> Start(string? frontEnd = null, int signInsAMinute = 1000, string calendarHosts = "")
    {
        var database = await TestDatabase.Make();
        var folder = Directory.CreateTempSubdirectory("quill-test").FullName;
        if (frontEnd is null) await File.WriteAllTextAsync(Path.Combine(folder, "index.html"), "<!doctype html><title>Calm Quill</title>");
        var secrets = Path.Combine(folder, "secrets");
        Directory.CreateDirectory(secrets);
        var server = QuillServer.Build(new Settings(database.ConnectionString, "http://127.0.0.1:0", frontEnd ?? folder, secrets, SignInsAMinute: signInsAMinute, CalendarHosts: calendarHosts));
        await server.StartAsync();
        return new QuillHost(server, database, folder);
    }

    /// <summary>A space with one person of each role, and a stranger who is in none.</summary>
    public async Task<Group> MakeGroup()
    {
        var spaces = Services.GetRequiredService<SpaceStore>();
        var space = Guid.NewGuid();
        await spaces.MakeGroup(space, "Group", CancellationToken.None);
        return new Group(space, await Person(space, Role.Owner), await Person(space, Role.Writer), await Person(space, Role.Reader), await Person(space, Role.None));
    }

    /// <summary>A new person with a role in a space, named after it.</summary>
    public async Task<Person> Person(Guid space, Role role)
    {
        var person = Accounts.Make(Guid.NewGuid(), $"{role}-{Guid.NewGuid():N}@test.example".ToLowerInvariant(), $"{role} Person", Password, Services.GetRequiredService<IPasswordHasher<Person>>());
        await Services.GetRequiredService<PersonStore>().Register(person, Guid.NewGuid(), CancellationToken.None);
        if (role != Role.None) await Services.GetRequiredService<SpaceStore>().SetRole(space, person.Id, role, CancellationToken.None);
        return person;
    }

    public Task<Caller> SignIn(Person person) => Caller.SignIn(Address, person.Email, Password);

    public async ValueTask DisposeAsync()
    {
        await server.StopAsync();
        await server.DisposeAsync();
        await database.DisposeAsync();
        Directory.Delete(secrets, recursive: true);
    }

    public sealed record Group(Guid Space, Person Owner, Person Writer, Person Reader, Person Stranger);
}
