using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using CalmQuill.Core.Access;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;
using CalmQuill.Store.Spaces;
using CalmQuill.Testing;
using Microsoft.AspNetCore.SignalR;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;
using Person = CalmQuill.Store.People.Person;

namespace CalmQuill.Server.Tests;

/// <summary>Teaching from a notebook: who may, what the others and a screen in the room hear, on whichever server they are, and that it ends.</summary>
public sealed class LecternTests : IAsyncLifetime
{
    private const int Followers = 100;
    private readonly Guid notebook = Guid.NewGuid(),
        page = Guid.NewGuid(),
        next = Guid.NewGuid(),
        otherNotebook = Guid.NewGuid(),
        otherPage = Guid.NewGuid(),
        curtain = Guid.NewGuid();
    private RedisProcess redis = null!;
    private QuillHost host = null!,
        another = null!;
    private QuillHost.Group group = null!;
    private Caller owner = null!,
        writer = null!,
        reader = null!;
    private Replica device = null!;
    private long now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();

    private string Notebook => $"{group.Space}/notebook/{notebook}";

    private string Lectern => $"/api/spaces/{group.Space}/notebooks/{notebook}/lectern";

    private string Other => Lectern.Replace(notebook.ToString(), otherNotebook.ToString(), StringComparison.Ordinal);

    private string Shown(Guid page, string lifted = "", string spot = "0 0 0") => $"{notebook} {page} {lifted} {spot}";

    public async Task InitializeAsync()
    {
        redis = await RedisProcess.Start();
        host = await QuillHost.Start(with: settings => settings with { Redis = redis.Address });
        another = await host.Another();
        group = await host.MakeGroup();
        owner = await host.SignIn(group.Owner);
        writer = await host.SignIn(group.Writer);
        reader = await Caller.SignIn(another.Address, group.Reader.Email, QuillHost.Password);
        device = new Replica(21, group.Writer.Id);
        foreach (var (of, name) in new[] { (notebook, "E"), (otherNotebook, "T") })
            await Do(
                DocumentKind.Library,
                group.Space,
                new Change.NodePlaced(of, NodeKind.Notebook, Guid.Empty, name),
                new Change.PropertySet(of, Property.Name, name)
            );
        foreach (var (of, added) in new[] { (notebook, page), (notebook, next), (otherNotebook, otherPage) })
            await Do(DocumentKind.Notebook, of, new Change.PageAdded(added, added == next ? "W" : "V", "a4-ruled-710"));
        await Do(
            DocumentKind.Page,
            page,
            new Change.SpotAdded(curtain, SpotKind.Curtain, new Box(1_000, 1_000, 4_000, 3_000), [], []),
            new Change.SpotSet(curtain, [new SpotValue(SpotField.Note, "why does it tick")])
        );
    }

    public async Task DisposeAsync()
    {
        owner.Dispose();
        writer.Dispose();
        reader.Dispose();
        await another.DisposeAsync();
        await host.DisposeAsync();
        redis.Dispose();
    }

    [Fact]
    public async Task What_the_leader_shows_is_heard_on_every_server_also_by_who_comes_late_until_it_is_closed()
    {
        var id = await Open(writer);
        await using var leader = await Teach(id);
        await using var early = await Joined(another, reader);
        await leader.Hub.InvokeAsync("Show", page.ToString(), new[] { curtain.ToString() }, 2_000, 3_000, 400);
        await leader.Hub.InvokeAsync("View", Notebook, page.ToString(), 100, 200, 21_000);
        var told = $"lectern {leader.Name} {id} {Shown(page, curtain.ToString(), "2000 3000 400")}";
        await early.Hears(told);
        await using var late = await Joined(another, reader);
        await late.Hears(told);
        await late.Hears($"view {leader.Name} {page} 100 200 21000");
        await leader.Hub.InvokeAsync("Point", new byte[] { 1, 2, 3 });
        await late.Hears($"point {page} 1 2 3");
        // Those who follow the library alone hear that somebody teaches there, and not from which page.
        await using var inLibrary = await LiveDevice.Connect(another, reader);
        await inLibrary.Hub.InvokeAsync("Join", $"{group.Space}/library/{group.Space}");
        await inLibrary.Hears($"lectern {leader.Name} {id} {notebook}   0 0 0");
        Assert.DoesNotContain(inLibrary.Heard, heard => heard.Contains(page.ToString(), StringComparison.Ordinal));

        // Another page: what was seen of the one before is not told to who comes now.
        await leader.Hub.InvokeAsync("Show", next.ToString(), Array.Empty<string>(), 0, 0, 0);
        await late.Hears($"lectern {leader.Name} {id} {Shown(next)}");
        await using var later = await Joined(another, reader);
        await later.Hears($"lectern {leader.Name} {id} {Shown(next)}");
        Assert.DoesNotContain(later.Heard, heard => heard.StartsWith("view", StringComparison.Ordinal));

        // The leader's connection breaks, and another takes its place; the lectern stays.
        await leader.Hub.DisposeAsync();
        await late.Hears($"lectern {leader.Name} {id}    0 0 0");
        await using var again = await Teach(id);
        await late.Hears($"lectern {again.Name} {id} {Shown(next)}");

        using var writerThere = await Caller.SignIn(another.Address, group.Writer.Email, QuillHost.Password);
        // In another window it is taken over; of the one before, nothing is told any more, also not once it goes.
        await using var taken = await Joined(another, writerThere);
        await taken.Hub.InvokeAsync("Teach", Notebook, id.ToString());
        await again.Hears($"lectern {taken.Name} {id} {Shown(next)}");
        await Refused(again, "Show", page.ToString(), Array.Empty<string>(), 0, 0, 0);
        // What another server tells late of the one before changes nothing.
        another
            .Services.GetRequiredService<Live.LiveConnections>()
            .Pass(
                new(
                    new(group.Space, DocumentKind.Notebook, notebook),
                    "lectern",
                    [
                        group.Writer.Id.ToString(),
                        again.Name,
                        id.ToString(),
                        notebook.ToString(),
                        page.ToString(),
                        Array.Empty<string>(),
                        0,
                        0,
                        0,
                        1L,
                    ],
                    200
                )
            );
        await taken.Hub.InvokeAsync("Show", next.ToString(), new[] { curtain.ToString() }, 0, 0, 0);
        await late.Hears($"lectern {taken.Name} {id} {Shown(next, curtain.ToString())}");
        Assert.DoesNotContain($"lectern {again.Name} {id} {Shown(page)}", late.Heard);
        await taken.Hub.InvokeAsync("Show", next.ToString(), Array.Empty<string>(), 0, 0, 0);
        await using var last = await Joined(host, owner);
        await last.Hears($"lectern {taken.Name} {id} {Shown(next)}");
        Assert.DoesNotContain(last.Heard, heard => heard.StartsWith($"lectern {again.Name}", StringComparison.Ordinal));

        Assert.Equal(HttpStatusCode.NoContent, (await writer.Http.DeleteAsync(Lectern)).StatusCode);
        await late.Hears($"closed {id}");
        await inLibrary.Hears($"closed {id}");
        await again.Hears($"closed {id}");
        await Refused(again, "Show", page.ToString(), Array.Empty<string>(), 0, 0, 0);
        await Refused(again, "Teach", Notebook, id.ToString());
        Assert.Equal(HttpStatusCode.NoContent, (await reader.Http.GetAsync(Lectern)).StatusCode);
    }

    [Fact]
    public async Task Hands_are_raised_and_seen_also_by_a_leader_who_comes_later_and_go_down_with_their_connection()
    {
        var id = await Open(writer);
        await using var raises = await Joined(another, reader);
        await raises.Hub.InvokeAsync("Hand", Notebook, true);
        await using var leader = await Teach(id);
        await leader.Hears($"hand {group.Reader.Id} {raises.Name} up");
        await leader.Hub.InvokeAsync("Lower", raises.Name);
        await raises.Hears($"lowered {raises.Name}");
        await raises.Hub.InvokeAsync("Hand", Notebook, false);
        await leader.Hears($"hand {group.Reader.Id} {raises.Name} down");
        leader.Heard.Clear();
        await raises.Hub.InvokeAsync("Hand", Notebook, true);
        await leader.Hears($"hand {group.Reader.Id} {raises.Name} up");
        await raises.Hub.DisposeAsync();
        await leader.Hears($"hand {group.Reader.Id} {raises.Name} down");
        await using var late = await Joined(host, owner);
        await late.Hears($"lectern {leader.Name} {id} {notebook}   0 0 0");
        Assert.DoesNotContain(late.Heard, heard => heard.StartsWith("hand", StringComparison.Ordinal));
    }

    [Fact]
    public async Task One_teaches_at_a_time_and_shows_what_lies_in_the_notebook()
    {
        var id = await Open(writer);
        Assert.Equal(id, await Open(writer));
        Assert.Equal(HttpStatusCode.Conflict, (await owner.Http.PostAsync(Lectern, null)).StatusCode);
        await using var stranger = await Joined(host, owner);
        await Refused(stranger, "Teach", Notebook, id.ToString());
        await Refused(stranger, "Show", page.ToString(), Array.Empty<string>(), 0, 0, 0);
        await Refused(stranger, "Point", new byte[] { 1 });
        await Refused(stranger, "Lower", "somebody");
        Assert.Equal(HttpStatusCode.NotFound, (await owner.Http.PostAsync($"{Lectern}/room", null)).StatusCode);

        await using var leader = await Teach(id);
        await Refused(leader, "Show", otherPage.ToString(), Array.Empty<string>(), 0, 0, 0);
        await Refused(leader, "Show", "no page", Array.Empty<string>(), 0, 0, 0);
        await Refused(leader, "Show", page.ToString(), new[] { "no curtain" }, 0, 0, 0);
        await Refused(leader, "Show", page.ToString(), Array.Empty<string>(), 0, 0, -1);
        await Refused(leader, "Show", page.ToString(), Enumerable.Repeat(curtain.ToString(), 1_000).ToArray(), 0, 0, 0);
        await Refused(leader, "Point", new byte[5_000]);
        await leader.Hub.InvokeAsync("Show", page.ToString(), Array.Empty<string>(), 0, 0, 0);

        // Whoever may not write any more teaches no more; an owner closes what somebody else left open.
        await SetRole(group.Writer, Role.Reader);
        await leader.Ended.WaitAsync(TimeSpan.FromSeconds(10));
        await using var again = await Joined(host, writer);
        await Refused(again, "Teach", Notebook, id.ToString());
        Assert.Equal(HttpStatusCode.Forbidden, (await writer.Http.DeleteAsync(Lectern)).StatusCode);
        Assert.Equal(HttpStatusCode.NoContent, (await owner.Http.DeleteAsync(Lectern)).StatusCode);
        await again.Hears($"closed {id}");
        Assert.NotEqual(id, await Open(owner));
    }

    [Fact]
    public async Task A_screen_shows_the_page_that_the_leader_shows_and_nothing_else()
    {
        var id = await Open(writer);
        await using var leader = await Teach(id);
        var code = await RoomCode();
        Assert.Equal(code, await RoomCode());
        using var room = await Caller.SignedOut(another.Address);
        Assert.Equal("", (await Sheet(room, code))!.Value.GetProperty("page").GetString());
        await using var screen = await LiveDevice.Screen(another, code);

        await leader.Hub.InvokeAsync("Show", page.ToString(), Array.Empty<string>(), 0, 0, 0);
        await screen.Hears($"lectern {leader.Name} {id} {Shown(page)}");
        await Do(DocumentKind.Page, page, new Change.StrokeAdded(new Pen(PenKind.Ball, 80, 0x22302EFF), now, Generate.Wave(50)));
        await screen.Hears("changed");
        // As people type it.
        var sheet = (await Sheet(room, $" {code[..4].ToLowerInvariant()}-{code[4..]} "))!.Value;
        Assert.Equal(page.ToString(), sheet.GetProperty("page").GetString());
        Assert.Contains("<path", sheet.GetProperty("svg").GetString(), StringComparison.Ordinal);
        Assert.DoesNotContain(group.Writer.Id.ToString(), sheet.GetRawText(), StringComparison.Ordinal);
        var cloth = sheet.GetProperty("curtains").EnumerateArray().Single();
        Assert.Equal("why does it tick", cloth.GetProperty("note").GetString());
        Assert.Equal([1_000, 1_000, 4_000, 3_000], cloth.GetProperty("area").EnumerateArray().Select(side => side.GetInt32()));

        await using var others = await Joined(host, owner);
        await others.Hub.InvokeAsync("Join", $"{group.Space}/page/{page}");
        await others.Hub.InvokeAsync("Join", $"{group.Space}/page/{next}");
        await others.Hub.InvokeAsync("Wet", $"{group.Space}/page/{page}", new byte[] { 7 });
        await screen.Hears("wet 7");
        await leader.Hub.InvokeAsync("View", Notebook, page.ToString(), 1, 2, 3);
        await screen.Hears($"view {leader.Name} {page} 1 2 3");
        await leader.Hub.InvokeAsync("Point", new byte[] { 9 });
        await screen.Hears($"point {page} 9");

        // What others see and do elsewhere in the notebook is not for the room; neither is the page from before once the leader turned.
        await others.Hub.InvokeAsync("View", Notebook, page.ToString(), 4, 5, 6);
        await others.Hub.InvokeAsync("Hand", Notebook, true);
        await others.Hub.InvokeAsync("Wet", $"{group.Space}/page/{next}", new byte[] { 8 });
        await leader.Hub.InvokeAsync("Show", next.ToString(), Array.Empty<string>(), 0, 0, 0);
        await screen.Hears($"lectern {leader.Name} {id} {Shown(next)}");
        await others.Hub.InvokeAsync("Wet", $"{group.Space}/page/{page}", new byte[] { 10 });
        await others.Hub.InvokeAsync("Wet", $"{group.Space}/page/{next}", new byte[] { 11 });
        await screen.Hears("wet 11");
        Assert.Equal(next.ToString(), (await Sheet(room, code))!.Value.GetProperty("page").GetString());
        var whole = string.Join('\n', screen.Heard);
        foreach (var hidden in new[] { "wet 8", "wet 10", " 4 5 6", "hand", "present", "stored", "where", "followed" })
            Assert.DoesNotContain(hidden, whole, StringComparison.Ordinal);
        Assert.DoesNotContain(others.Heard, heard => heard.StartsWith("present", StringComparison.Ordinal));

        // A screen that comes late is in place.
        await using var late = await LiveDevice.Screen(host, code);
        await late.Hears($"lectern {leader.Name} {id} {Shown(next)}");
        await others.Hub.InvokeAsync("Wet", $"{group.Space}/page/{next}", new byte[] { 12 });
        await late.Hears("wet 12");

        // The page goes to the bin under it: nothing of it is shown.
        await Do(DocumentKind.Notebook, notebook, new Change.PropertySet(next, Property.Binned, "1700000000000"));
        Assert.Equal("", (await Sheet(room, code))!.Value.GetProperty("page").GetString());

        await writer.Http.DeleteAsync(Lectern);
        await screen.Hears($"closed {id}");
        await others.Hub.InvokeAsync("Wet", $"{group.Space}/page/{next}", new byte[] { 13 });
        Assert.Null(await Sheet(room, code));
        await Assert.ThrowsAnyAsync<Exception>(() => NewScreen(code));
        Assert.DoesNotContain("wet 13", screen.Heard);
    }

    [Fact]
    public async Task A_screen_goes_dark_once_the_leader_may_not_show_it_the_notebook_is_locked_or_its_time_is_over()
    {
        using var room = await Caller.SignedOut(another.Address);
        foreach (var wrong in new[] { "", "ABCD", "ABCD-EFGH", "ABCDEFGH0", new string('A', 1_000), "' OR 1=1" })
            Assert.Null(await Sheet(room, wrong));

        var id = await Open(writer);
        await using var leader = await Teach(id);
        await leader.Hub.InvokeAsync("Show", page.ToString(), Array.Empty<string>(), 0, 0, 0);
        var code = await RoomCode();
        await using (var screen = await LiveDevice.Screen(another, code))
        {
            await SetRole(group.Writer, Role.Reader);
            await screen.Ended.WaitAsync(TimeSpan.FromSeconds(10));
        }

        Assert.Null(await Sheet(room, code));
        await Assert.ThrowsAnyAsync<Exception>(() => NewScreen(code));
        await SetRole(group.Writer, Role.Writer);
        Assert.NotNull(await Sheet(room, code));

        await using (var screen = await LiveDevice.Screen(another, code))
        {
            var lockPath = $"/api/spaces/{group.Space}/locks/{notebook}";
            (await writer.Http.PutAsJsonAsync(lockPath, new { passphrase = "a-passphrase", minutes = 5 })).EnsureSuccessStatusCode();
            await screen.Ended.WaitAsync(TimeSpan.FromSeconds(10));
            Assert.Null(await Sheet(room, code));
            // Also to the leader, who has it open, no code is given for it.
            await writer.Http.PostAsJsonAsync($"{lockPath}/open", new { passphrase = "a-passphrase" });
            Assert.Equal(HttpStatusCode.Locked, (await writer.Http.PostAsync($"{Lectern}/room", null)).StatusCode);
        }

        // One that was left for ten minutes makes room for another writer's, and is closed; one whose leader is seen does not.
        var away = new ClockAhead { Ahead = TimeSpan.FromMinutes(11) };
        await using (var ahead = await host.Another(services: services => services.AddSingleton<TimeProvider>(away)))
        {
            (await writer.Http.PostAsync(Other, null)).EnsureSuccessStatusCode();
            using var second = await Caller.SignIn(ahead.Address, group.Owner.Email, QuillHost.Password);
            away.Ahead = TimeSpan.FromMinutes(9);
            Assert.Equal(HttpStatusCode.Conflict, (await second.Http.PostAsync(Other, null)).StatusCode);
            away.Ahead = TimeSpan.FromMinutes(11);
            Assert.Equal(HttpStatusCode.OK, (await second.Http.PostAsync(Other, null)).StatusCode);
            Assert.Equal(HttpStatusCode.Conflict, (await writer.Http.PostAsync(Other, null)).StatusCode);
            (await second.Http.DeleteAsync(Other)).EnsureSuccessStatusCode();
        }

        // In the bin it goes dark at once, and put back it is shown again.
        (await writer.Http.PostAsync(Other, null)).EnsureSuccessStatusCode();
        var binned = await RoomCode(Other);
        Assert.NotNull(await Sheet(room, binned));
        await using (var screen = await LiveDevice.Screen(another, binned))
        {
            await Do(DocumentKind.Library, group.Space, new Change.PropertySet(otherNotebook, Property.Binned, "1700000000000"));
            await screen.Ended.WaitAsync(TimeSpan.FromSeconds(10));
            Assert.Null(await Sheet(room, binned));
        }

        await Do(DocumentKind.Library, group.Space, new Change.PropertySet(otherNotebook, Property.Binned, ""));
        Assert.NotNull(await Sheet(room, binned));
        (await writer.Http.DeleteAsync(Other)).EnsureSuccessStatusCode();

        // Another one, in a notebook without a lock, whose twelve hours are over.
        var later = await host.Another(services: services =>
            services.AddSingleton<TimeProvider>(new ClockAhead { Ahead = TimeSpan.FromHours(13) })
        );
        (await writer.Http.PostAsync(Other, null)).EnsureSuccessStatusCode();
        code = await RoomCode(Other);
        Assert.NotNull(await Sheet(room, code));
        using var tomorrow = await Caller.SignedOut(later.Address);
        Assert.Null(await Sheet(tomorrow, code));
        await later.DisposeAsync();
    }

    [Fact]
    public async Task A_hundred_follow_live_and_each_hears_all_of_it_in_order()
    {
        // Whoever comes into the group disturbs who is connected: they come first.
        var pupils = new List<Caller>();
        for (var i = 0; i < 5; i++)
        {
            var pupil = await host.Person(group.Space, Role.Reader);
            pupils.Add(await Caller.SignIn((i % 2 == 0 ? host : another).Address, pupil.Email, QuillHost.Password));
        }

        var id = await Open(writer);
        await using var leader = await Teach(id);
        await leader.Hub.InvokeAsync("Join", $"{group.Space}/page/{page}");
        await leader.Hub.InvokeAsync("Show", page.ToString(), Array.Empty<string>(), 0, 0, 0);
        var followers = await Task.WhenAll(
            Enumerable
                .Range(0, Followers)
                .Select(async i =>
                {
                    var follower = await Joined(i % 5 % 2 == 0 ? host : another, pupils[i % 5]);
                    follower.HearInk();
                    await follower.Hub.InvokeAsync("Join", $"{group.Space}/page/{page}");
                    await follower.Hub.InvokeAsync("Follow", Notebook, leader.Name, true);
                    return follower;
                })
        );
        foreach (var follower in followers)
            await leader.Hears($"followed {follower.Name} {leader.Name} 1");

        var told = new List<string>();
        for (var step = 1; step <= 60; step++)
        {
            await leader.Hub.SendAsync("View", Notebook, page.ToString(), step, 2, 3);
            await leader.Hub.SendAsync("Wet", $"{group.Space}/page/{page}", new[] { (byte)step });
            await leader.Hub.SendAsync("Point", new[] { (byte)step });
            told.AddRange([$"view {leader.Name} {page} {step} 2 3", $"wet {step}", $"point {page} {step}"]);
        }

        foreach (var follower in followers)
        {
            await follower.Hears(told[^1]);
            Assert.Equal(told, follower.Heard.Where(heard => told.Contains(heard)));
        }

        foreach (var follower in followers)
            await follower.DisposeAsync();
        pupils.ForEach(pupil => pupil.Dispose());
    }

    private async Task Do(DocumentKind kind, Guid id, params Change[] changes)
    {
        var sent = changes.Select(change => device.Make(change, now += 10)).ToList();
        Assert.All(await Caller.Results(await writer.Send(group.Space, kind, id, sent)), result => Assert.Null(result.Code));
    }

    private async Task<Guid> Open(Caller caller)
    {
        var answer = await caller.Http.PostAsync(Lectern, null);
        answer.EnsureSuccessStatusCode();
        return (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetGuid();
    }

    private async Task<LiveDevice> Teach(Guid id)
    {
        var leader = await Joined(host, writer);
        await leader.Hub.InvokeAsync("Teach", Notebook, id.ToString());
        return leader;
    }

    private async Task<LiveDevice> Joined(QuillHost to, Caller caller)
    {
        var device = await LiveDevice.Connect(to, caller);
        await device.Hub.InvokeAsync("Join", Notebook);
        return device;
    }

    private async Task<string> RoomCode(string? of = null)
    {
        var answer = await writer.Http.PostAsync($"{of ?? Lectern}/room", null);
        return (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("code").GetString()!;
    }

    /// <summary>A screen's connection is refused once it is there, so that what comes over it is asked for.</summary>
    private async Task NewScreen(string code)
    {
        await using var screen = await LiveDevice.Screen(another, code);
        await screen.Ended.WaitAsync(TimeSpan.FromSeconds(10));
        throw new HubException("It ended.");
    }

    private Task SetRole(Person person, Role role) =>
        host.Services.GetRequiredService<SpaceStore>().SetRole(group.Space, person.Id, role, default);

    /// <summary>Null where no lectern is open under the code.</summary>
    private static async Task<JsonElement?> Sheet(Caller room, string code)
    {
        var answer = await room.Http.PostAsJsonAsync("/api/room", new { code });
        if (answer.StatusCode == HttpStatusCode.NotFound)
            return null;
        answer.EnsureSuccessStatusCode();
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private static async Task Refused(LiveDevice device, string method, params object[] words) =>
        await Assert.ThrowsAsync<HubException>(() => device.Hub.InvokeCoreAsync(method, words));
}
