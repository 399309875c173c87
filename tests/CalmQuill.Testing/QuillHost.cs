using CalmQuill.Core.Access;
using CalmQuill.Server;
using CalmQuill.Server.Limits;
using CalmQuill.Server.People;
using CalmQuill.Store.Documents;
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

    /// <summary>Limits under which tests can do in a second what people do in an hour.</summary>
    public static readonly QuillLimits Roomy = new()
    {
        SignInsAMinute = 1_000,
        RequestsAMinute = 1_000_000,
        RequestsAMinuteSignedOut = 1_000_000,
    };

    private readonly WebApplication server;
    private readonly Settings settings;
    private readonly TestDatabase? database;

    private QuillHost(WebApplication server, Settings settings, TestDatabase? database)
    {
        (this.server, this.settings, this.database) = (server, settings, database);
        Address = new Uri(server.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First());
    }

    public Uri Address { get; }

    public IServiceProvider Services => server.Services;

    /// <param name="frontEnd">The folder of the front end; a stand-in of one file unless given.</param>
    /// <param name="with">Changes what the server is told.</param>
    /// <param name="limits">How much a document may hold.</param>
    /// <param name="services">Puts other services in place of the usual ones.</param>
    public static async Task<QuillHost> Start(
        string? frontEnd = null,
        Func<Settings, Settings>? with = null,
        DocumentLimits? limits = null,
        Action<IServiceCollection>? services = null
    )
    {
        var database = await TestDatabase.Make();
        var folder = Directory.CreateTempSubdirectory("quill-test").FullName;
        if (frontEnd is null)
            await File.WriteAllTextAsync(Path.Combine(folder, "index.html"), "<!doctype html><title>Calm Quill</title>");
        var settings = new Settings(database.ConnectionString, "http://127.0.0.1:0", frontEnd ?? folder, folder) { Limits = Roomy };
        return await Start(
            with?.Invoke(settings) ?? settings,
            database,
            added =>
            {
                if (limits is not null)
                    added.AddSingleton(limits);
                services?.Invoke(added);
            }
        );
    }

    /// <summary>Another server on the same database, as behind a proxy.</summary>
    /// <param name="with">Changes what that one is told.</param>
    /// <param name="services">Puts other services in place of the usual ones.</param>
    public Task<QuillHost> Another(Func<Settings, Settings>? with = null, Action<IServiceCollection>? services = null) =>
        Start(with?.Invoke(settings) ?? settings, null, services ?? (_ => { }));

    private static async Task<QuillHost> Start(Settings settings, TestDatabase? database, Action<IServiceCollection> configure)
    {
        var server = QuillServer.Build(
            settings,
            services =>
            {
                configure(services);
                // As many rounds as are safe would be most of what the tests do.
                services.Configure<PasswordHasherOptions>(options => options.IterationCount = 1_000);
            }
        );
        await server.StartAsync();
        return new QuillHost(server, settings, database);
    }

    /// <summary>A space with one person of each role, and a stranger who is in none.</summary>
    public async Task<Group> MakeGroup()
    {
        var spaces = Services.GetRequiredService<SpaceStore>();
        var space = Guid.NewGuid();
        await spaces.MakeGroup(space, "Group", CancellationToken.None);
        return new Group(
            space,
            await Person(space, Role.Owner),
            await Person(space, Role.Writer),
            await Person(space, Role.Reader),
            await Person(space, Role.None)
        );
    }

    /// <summary>A new person with a role in a space, named after it.</summary>
    public async Task<Person> Person(Guid space, Role role)
    {
        var person = Accounts.Make(
            Guid.NewGuid(),
            $"{role}-{Guid.NewGuid():N}@test.example".ToLowerInvariant(),
            $"{role} Person",
            Password,
            Services.GetRequiredService<IPasswordHasher<Person>>()
        );
        await Services.GetRequiredService<PersonStore>().Register(person, Guid.NewGuid(), CancellationToken.None);
        if (role != Role.None)
            await Services.GetRequiredService<SpaceStore>().SetRole(space, person.Id, role, CancellationToken.None);
        return person;
    }

    public Task<Caller> SignIn(Person person) => Caller.SignIn(Address, person.Email, Password);

    public async ValueTask DisposeAsync()
    {
        await server.StopAsync();
        await server.DisposeAsync();
        if (database is null)
            return;
        await database.DisposeAsync();
        Directory.Delete(settings.Secrets, recursive: true);
    }

    public sealed record Group(Guid Space, Person Owner, Person Writer, Person Reader, Person Stranger);
}
