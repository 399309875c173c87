using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using CalmQuill.Core.Access;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Store;
using CalmQuill.Store.Groups;
using CalmQuill.Store.People;
using CalmQuill.Store.Spaces;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Server.Tests;

/// <summary>An account is deleted, had back, and erased: nothing of others is touched, nothing of one's own is lost before its time, and nobody gets in by it.</summary>
public sealed class LeavingTests : IAsyncLifetime
{
    private readonly ClockAhead clock = new();
    private QuillHost host = null!;
    private QuillHost.Group group = null!;
    private Caller writer = null!;

    private LeavingStore Leavings => host.Services.GetRequiredService<LeavingStore>();

    private SpaceStore Spaces => host.Services.GetRequiredService<SpaceStore>();

    private Database Database => host.Services.GetRequiredService<Database>();

    public async Task InitializeAsync()
    {
        host = await QuillHost.Start(services: added => added.AddSingleton<TimeProvider>(clock));
        group = await host.MakeGroup();
        writer = await host.SignIn(group.Writer);
    }

    public async Task DisposeAsync()
    {
        writer.Dispose();
        await host.DisposeAsync();
    }

    [Fact]
    public async Task It_is_said_first_what_becomes_of_what_and_a_wrong_password_does_nothing()
    {
        var own = await Own(writer);
        var (notebook, _) = await Write(writer, group.Writer.Id, own);
        await Share(writer, own, notebook, group.Stranger.Name);
        var alone = await MakeGroup(writer, "Bell founders");
        var would = await writer.Http.GetFromJsonAsync<JsonElement>("/api/people/me/leaving");
        Assert.Equal(
            (1, 1, 30),
            (would.GetProperty("notebooks").GetInt32(), would.GetProperty("shares").GetInt32(), would.GetProperty("days").GetInt32())
        );
        Assert.Equal(
            [(alone, 0), (group.Space, 2)],
            would
                .GetProperty("groups")
                .EnumerateArray()
                .Select(one => (one.GetProperty("id").GetGuid(), one.GetProperty("others").GetInt32()))
        );
        foreach (var password in new[] { "", "another-password", null })
            Assert.Equal("wrong-password", await CodeOf(await writer.Http.PostAsJsonAsync("/api/people/me/leaving", new { password })));
        Assert.Equal(Role.Writer, await Spaces.RoleIn(group.Space, group.Writer.Id, default));
        Assert.Null(await Leavings.Until(group.Writer.Id, default));
    }

    [Fact]
    public async Task Whoever_leaves_is_out_everywhere_and_what_they_wrote_in_groups_stays_with_their_name()
    {
        var own = await Own(writer);
        var (notebook, page) = await Write(writer, group.Writer.Id, own);
        using var stranger = await host.SignIn(group.Stranger);
        await Share(writer, own, notebook, group.Stranger.Name);
        Assert.NotEmpty(await stranger.After(own, DocumentKind.Page, page));
        var (_, inGroup) = await Write(writer, group.Writer.Id, group.Space);
        var alone = await MakeGroup(writer, "Bell founders");
        using var tablet = await host.SignIn(group.Writer);

        await Leave(writer);

        foreach (var device in new[] { writer, tablet })
            Assert.Equal(HttpStatusCode.Unauthorized, (await device.Http.GetAsync("/api/devices")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await stranger.Http.GetAsync(Caller.PathOf(own, DocumentKind.Page, page))).StatusCode);
        using var owner = await host.SignIn(group.Owner);
        Assert.NotEmpty(await owner.After(group.Space, DocumentKind.Page, inGroup));
        Assert.DoesNotContain(await Spaces.Members(group.Space, default), member => member.Id == group.Writer.Id);
        var deeds = await owner.Http.GetStringAsync($"/api/spaces/{group.Space}/deeds");
        Assert.Contains(group.Writer.Name, deeds, StringComparison.Ordinal);
        Assert.Empty(await Spaces.Members(alone, default));
        // Nobody finds them to invite them.
        Assert.Empty(await host.Services.GetRequiredService<PersonStore>().FindByName(group.Writer.Name, default));
    }

    [Fact]
    public async Task Signing_in_asks_first_and_then_gives_ones_own_library_back_as_it_was()
    {
        var own = await Own(writer);
        var (_, page) = await Write(writer, group.Writer.Id, own);
        var alone = await MakeGroup(writer, "Bell founders");
        await Leave(writer);

        using var again = await Caller.SignedOut(host.Address);
        Assert.Equal("wrong-sign-in", await CodeOf(await SignIn(again, "another-password", keep: true)));
        Assert.Equal("leaving", await CodeOf(await SignIn(again, QuillHost.Password)));
        Assert.Equal("leaving", await CodeOf(await SignIn(again, QuillHost.Password)));
        Assert.Equal(HttpStatusCode.OK, (await SignIn(again, QuillHost.Password, keep: true)).StatusCode);
        await again.Refresh();
        Assert.Equal(own, await Own(again));
        Assert.NotEmpty(await again.After(own, DocumentKind.Page, page));
        Assert.Equal(Role.None, await Spaces.RoleIn(group.Space, group.Writer.Id, default));
        Assert.Equal(HttpStatusCode.NoContent, (await again.Http.PostAsync($"/api/groups/dissolved/{alone}", null)).StatusCode);
        Assert.Equal(Role.Owner, await Spaces.RoleIn(alone, group.Writer.Id, default));
        // From now on it is an account as any.
        using var third = await host.SignIn(group.Writer);
        Assert.Equal(HttpStatusCode.OK, (await third.Http.GetAsync("/api/devices")).StatusCode);
    }

    [Fact]
    public async Task The_last_owner_of_a_group_that_others_are_in_hands_it_over_first()
    {
        using var owner = await host.SignIn(group.Owner);
        using var refused = await owner.Http.PostAsJsonAsync("/api/people/me/leaving", new { password = QuillHost.Password });
        Assert.Equal("last-owner", await CodeOf(refused));
        Assert.Equal(Role.Owner, await Spaces.RoleIn(group.Space, group.Owner.Id, default));
        Assert.Equal(HttpStatusCode.OK, (await owner.Http.GetAsync("/api/devices")).StatusCode);

        Assert.Equal(
            HttpStatusCode.NoContent,
            (await owner.Http.PostAsJsonAsync($"/api/spaces/{group.Space}/group/heir", new { person = group.Reader.Id })).StatusCode
        );
        await Leave(owner);
        Assert.Equal(Role.Owner, await Spaces.RoleIn(group.Space, group.Reader.Id, default));
    }

    [Fact]
    public async Task Two_owners_who_leave_at_once_do_not_leave_a_group_without_one()
    {
        for (var round = 0; round < 10; round++)
        {
            var together = await host.MakeGroup();
            await Spaces.SetRole(together.Space, together.Writer.Id, Role.Owner, default);
            var results = await Task.WhenAll(
                Leavings.Leave(together.Owner.Id, DateTimeOffset.UtcNow, default),
                Leavings.Leave(together.Writer.Id, DateTimeOffset.UtcNow, default)
            );
            Assert.Single(results, leaderless => leaderless.Count == 0);
            Assert.Single(await Spaces.Members(together.Space, default), member => member.Role == Role.Owner);
        }
    }

    [Fact]
    public async Task When_its_days_are_over_all_of_it_is_gone_but_what_is_the_groups()
    {
        var own = await Own(writer);
        await Write(writer, group.Writer.Id, own);
        var (_, inGroup) = await Write(writer, group.Writer.Id, group.Space);
        using var owner = await host.SignIn(group.Owner);
        var others = await Own(owner);
        await Write(owner, group.Owner.Id, others);
        var now = DateTimeOffset.UtcNow;
        Assert.Empty(await Leavings.Leave(group.Writer.Id, now, default));
        var last = now.AddDays(LeavingStore.Days);
        Assert.False(await Leavings.HaveBack(group.Writer.Id, last.AddSeconds(1), default));
        clock.Ahead = TimeSpan.FromDays(LeavingStore.Days) + TimeSpan.FromMinutes(1);
        using var late = await Caller.SignedOut(host.Address);
        Assert.Equal("wrong-sign-in", await CodeOf(await SignIn(late, QuillHost.Password, keep: true)));

        var over = last.AddDays(Bin.GraceDays);
        Assert.Empty(await Leavings.EraseOver(over.AddSeconds(-1), default));
        Assert.NotEqual(0, await CountOf("documents", "space_id", own));
        Assert.Equal([group.Writer.Id], await Leavings.EraseOver(over.AddSeconds(1), default));
        foreach (var table in new[] { "documents", "library_nodes", "notebooks", "members", "assets", "deeds", "shares" })
            Assert.Equal(0, await CountOf(table, "space_id", own));
        foreach (var table in new[] { "members", "sessions", "recovery_codes", "share_guests", "stars", "visits" })
            Assert.Equal(0, await CountOf(table, "person_id", group.Writer.Id));
        Assert.NotEqual(0, await CountOf("documents", "space_id", others));
        using var later = await host.SignIn(group.Owner);
        Assert.NotEmpty(await later.After(group.Space, DocumentKind.Page, inGroup));

        // The address is free again, and whoever has it next is somebody else.
        Assert.Null(await host.Services.GetRequiredService<PersonStore>().FindByEmail(group.Writer.Email, default));
        Assert.Equal("wrong-sign-in", await CodeOf(await SignIn(late, QuillHost.Password, keep: true)));
        foreach (var password in new[] { "", QuillHost.Password })
        {
            using var answer = await late.Http.PostAsJsonAsync(
                "/api/session",
                new
                {
                    email = $"erased {group.Writer.Id}",
                    password,
                    keep = true,
                }
            );
            Assert.Equal("wrong-sign-in", await CodeOf(answer));
        }

        Assert.Empty(await Leavings.EraseOver(over.AddYears(1), default));
    }

    private async Task Leave(Caller caller)
    {
        using var answer = await caller.Http.PostAsJsonAsync("/api/people/me/leaving", new { password = QuillHost.Password });
        Assert.Equal(HttpStatusCode.NoContent, answer.StatusCode);
    }

    private Task<HttpResponseMessage> SignIn(Caller caller, string password, bool keep = false) =>
        caller.Http.PostAsJsonAsync(
            "/api/session",
            new
            {
                email = group.Writer.Email,
                password,
                keep,
            }
        );

    private static async Task<Guid> Own(Caller caller) =>
        (await caller.Refresh())
            .GetProperty("spaces")
            .EnumerateArray()
            .Single(space => space.GetProperty("personal").GetBoolean())
            .GetProperty("id")
            .GetGuid();

    private static async Task<Guid> MakeGroup(Caller caller, string name)
    {
        using var answer = await caller.Http.PostAsJsonAsync("/api/groups", new { name, colour = "gold" });
        return (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetGuid();
    }

    private static async Task Share(Caller caller, Guid space, Guid node, string with)
    {
        using var answer = await caller.Http.PostAsJsonAsync(
            $"/api/spaces/{space}/shares",
            new
            {
                node,
                with = "person",
                who = with,
                days = 7,
            }
        );
        answer.EnsureSuccessStatusCode();
    }

    /// <summary>A notebook with a page that something is written on.</summary>
    private static async Task<(Guid Notebook, Guid Page)> Write(Caller caller, Guid person, Guid space)
    {
        var (notebook, page, device) = (Guid.NewGuid(), Guid.NewGuid(), new Replica(unchecked((ulong)Random.Shared.NextInt64()), person));
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        await caller.Send(
            space,
            DocumentKind.Library,
            space,
            device.Make(new Change.PropertySet(notebook, Property.Name, "Escapements"), now),
            device.Make(new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V"), now)
        );
        await caller.Send(space, DocumentKind.Notebook, notebook, device.Make(new Change.PageAdded(page, "V", "a4-ruled-710"), now));
        using var written = await caller.Send(
            space,
            DocumentKind.Page,
            page,
            device.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), now, Generate.Wave(20)), now)
        );
        written.EnsureSuccessStatusCode();
        return (notebook, page);
    }

    private static async Task<string?> CodeOf(HttpResponseMessage answer) =>
        (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("code").GetString();

    private async Task<long> CountOf(string table, string column, Guid id)
    {
        await using var connection = await Database.Connect(default);
        await using var command = new Npgsql.NpgsqlCommand($"SELECT count(*) FROM {table} WHERE {column} = @id", connection);
        command.Parameters.AddWithValue("id", id);
        return (long)(await command.ExecuteScalarAsync())!;
    }
}
