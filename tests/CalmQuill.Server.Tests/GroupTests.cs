using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using CalmQuill.Core.Access;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Spots;
using CalmQuill.MailServer;
using CalmQuill.Server.Mail;
using CalmQuill.Store;
using CalmQuill.Store.Groups;
using CalmQuill.Store.Spaces;
using CalmQuill.Testing;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace CalmQuill.Server.Tests;

/// <summary>Making a group and letting people in, and what goes wrong with it: many at once, links that are over, owners who undo each other, groups that are dissolved.</summary>
public sealed class GroupTests : IAsyncLifetime
{
    private static readonly DateTimeOffset LongAgo = DateTimeOffset.UtcNow.AddDays(-20);
    private readonly LetterBox letters = new(0);
    private readonly ClockAhead clock = new();
    private QuillHost host = null!;
    private QuillHost.Group group = null!;
    private Caller owner = null!,
        stranger = null!;

    private InvitationStore Invitations => host.Services.GetRequiredService<InvitationStore>();

    private SpaceStore Spaces => host.Services.GetRequiredService<SpaceStore>();

    private GroupStore Groups => host.Services.GetRequiredService<GroupStore>();

    public async Task InitializeAsync()
    {
        host = await QuillHost.Start(
            with: settings => settings with { Mail = new Uri($"smtp://127.0.0.1:{letters.Port}") },
            services: added => added.AddSingleton<TimeProvider>(clock)
        );
        group = await host.MakeGroup();
        (owner, stranger) = (await host.SignIn(group.Owner), await host.SignIn(group.Stranger));
    }

    public async Task DisposeAsync()
    {
        owner.Dispose();
        stranger.Dispose();
        await host.DisposeAsync();
        letters.Dispose();
    }

    [Fact]
    public async Task A_newcomer_makes_a_group_and_whoever_opens_the_link_makes_an_account_and_is_in()
    {
        var space = await Made(stranger, "Bell founders", "gold");
        var own = (await stranger.Refresh()).GetProperty("spaces").EnumerateArray().Single(one => one.GetProperty("id").GetGuid() == space);
        Assert.Equal(
            ("Bell founders", "gold", "owner"),
            (own.GetProperty("name").GetString(), own.GetProperty("colour").GetString(), own.GetProperty("role").GetString())
        );
        var secret = await Link(stranger, space, "reader", uses: 2);

        using var newcomer = await Caller.SignedOut(host.Address);
        var seen = await Json(await newcomer.Http.PostAsJsonAsync("/api/joining/look", new { secret }));
        Assert.Equal("Bell founders", seen.GetProperty("group").GetString());
        Assert.Equal(group.Stranger.Name, seen.GetProperty("by").GetString());
        Assert.Equal(JsonValueKind.Null, seen.GetProperty("space").ValueKind);
        await Json(await newcomer.Http.PostAsJsonAsync("/api/people", Form("nela@test.example", secret)));
        var inside = (await newcomer.Refresh())
            .GetProperty("spaces")
            .EnumerateArray()
            .Single(one => one.GetProperty("id").GetGuid() == space);
        Assert.Equal("reader", inside.GetProperty("role").GetString());

        // Whoever has an account goes in as well; then as many came as it was for.
        await Json(await owner.Http.PostAsJsonAsync("/api/joining", new { secret }));
        using var late = await Caller.SignedOut(host.Address);
        var refused = await late.Http.PostAsJsonAsync("/api/people", Form("late@test.example", secret));
        Assert.Equal(HttpStatusCode.Gone, refused.StatusCode);
        // Nobody has an account now that they did not mean to make: the address is free still.
        Assert.Null(await host.Services.GetRequiredService<Store.People.PersonStore>().FindByEmail("late@test.example", default));
        Assert.Equal(HttpStatusCode.OK, (await owner.Http.PostAsJsonAsync("/api/joining", new { secret })).StatusCode);
        Assert.Equal(3, (await Spaces.Members(space, default)).Count);
    }

    [Fact]
    public async Task A_taken_address_uses_up_no_place()
    {
        var secret = await Link(owner, group.Space, "writer", uses: 1);
        using var newcomer = await Caller.SignedOut(host.Address);
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await newcomer.Http.PostAsJsonAsync("/api/people", Form(group.Writer.Email, secret))).StatusCode
        );
        await Json(await newcomer.Http.PostAsJsonAsync("/api/people", Form("nela@test.example", secret)));
    }

    [Fact]
    public async Task However_many_open_a_link_at_once_it_lets_in_as_many_as_it_is_for()
    {
        var secret = await Link(owner, group.Space, "writer", uses: 7);
        var people = await Task.WhenAll(Enumerable.Range(0, 30).Select(_ => host.Person(Guid.Empty, Role.None)));
        var came = await Task.WhenAll(
            people
                .Concat(people)
                .Select(person => Task.Run(() => Invitations.Join(secret, person.Id, false, DateTimeOffset.UtcNow, default)))
        );
        Assert.Equal(7, came.Count(one => one.What == Joining.Joined));
        Assert.All(came, one => Assert.Contains(one.What, new[] { Joining.Joined, Joining.WasIn, Joining.UsedUp }));
        Assert.Equal(3 + 7, (await Spaces.Members(group.Space, default)).Count);
        Assert.Equal(7, Assert.Single(await Invitations.Of(group.Space, default)).Uses);
    }

    [Fact]
    public async Task After_its_last_day_or_taken_back_a_link_lets_nobody_in_and_the_owners_can_be_asked_unless_it_was_taken_back()
    {
        await Invitations.WriteLink(
            group.Space,
            group.Owner.Id,
            new(Role.Writer, 9, 14, false),
            null,
            "an-old-one",
            [1],
            "",
            false,
            LongAgo,
            default
        );
        var refused = await stranger.Http.PostAsJsonAsync("/api/joining", new { secret = "an-old-one" });
        Assert.Equal(HttpStatusCode.Gone, refused.StatusCode);
        Assert.Contains(
            "last day",
            (await refused.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("title").GetString()!,
            StringComparison.Ordinal
        );
        var asked = await Json(await stranger.Http.PostAsJsonAsync("/api/joining", new { secret = "an-old-one", ask = true }));
        Assert.Equal("asked", asked.GetProperty("state").GetString());
        Assert.Equal(Role.None, await Spaces.RoleIn(group.Space, group.Stranger.Id, default));

        // Who looks after the group sees who asks; others do not.
        using var writer = await host.SignIn(group.Writer);
        Assert.Empty((await Door(writer)).GetProperty("asking").EnumerateArray());
        var asks = Assert.Single((await Door(owner)).GetProperty("asking").EnumerateArray());
        Assert.Equal(group.Stranger.Id, asks.GetProperty("person").GetGuid());
        await Answer(group.Stranger.Id, yes: false);
        Assert.Equal(Role.None, await Spaces.RoleIn(group.Space, group.Stranger.Id, default));
        await stranger.Http.PostAsJsonAsync("/api/joining", new { secret = "an-old-one", ask = true });
        await Answer(group.Stranger.Id, yes: true);
        Assert.Equal(Role.Writer, await Spaces.RoleIn(group.Space, group.Stranger.Id, default));
        Assert.Empty((await Door(owner)).GetProperty("asking").EnumerateArray());

        var secret = await Link(owner, group.Space, "writer", uses: 9);
        var open = (await Json(await owner.Http.GetAsync($"/api/spaces/{group.Space}/invitations"))).EnumerateArray().First();
        Assert.EndsWith(secret, open.GetProperty("link").GetString()!, StringComparison.Ordinal);
        await owner.Http.DeleteAsync($"/api/spaces/{group.Space}/invitations/{open.GetProperty("id").GetGuid()}");
        Assert.Equal(HttpStatusCode.NotFound, (await owner.Http.PostAsJsonAsync("/api/joining/look", new { secret })).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await stranger.Http.PostAsJsonAsync("/api/joining", new { secret, ask = true })).StatusCode);

        async Task Answer(Guid person, bool yes) =>
            Assert.Equal(
                HttpStatusCode.NoContent,
                (await owner.Http.PostAsJsonAsync($"/api/spaces/{group.Space}/requests/{person}", new { answer = yes })).StatusCode
            );
    }

    [Fact]
    public async Task By_a_link_that_asks_first_nobody_is_in_before_an_owner_says_so()
    {
        var secret = await Link(owner, group.Space, "writer", uses: 1, asks: true);
        using var newcomer = await Caller.SignedOut(host.Address);
        await Json(await newcomer.Http.PostAsJsonAsync("/api/people", Form("nela@test.example", secret)));
        Assert.Single((await newcomer.Refresh()).GetProperty("spaces").EnumerateArray());
        Assert.Equal(HttpStatusCode.NotFound, (await newcomer.Http.GetAsync($"/api/spaces/{group.Space}/members")).StatusCode);
        // Somebody who asks twice asks once.
        await Json(await newcomer.Http.PostAsJsonAsync("/api/joining", new { secret }));
        Assert.Single((await Door(owner)).GetProperty("asking").EnumerateArray());
    }

    [Fact]
    public async Task Whom_an_owner_took_out_comes_back_by_an_owners_word_and_not_by_a_link_that_is_still_about()
    {
        var secret = await Link(owner, group.Space, "writer", uses: 9);
        using var writer = await host.SignIn(group.Writer);
        var members = $"/api/spaces/{group.Space}/members/{group.Writer.Id}";
        Assert.Equal(HttpStatusCode.NoContent, (await owner.Http.PutAsJsonAsync(members, new { role = "none" })).StatusCode);
        var asked = await Json(await writer.Http.PostAsJsonAsync("/api/joining", new { secret }));
        Assert.Equal("asked", asked.GetProperty("state").GetString());
        Assert.Equal(Role.None, await Spaces.RoleIn(group.Space, group.Writer.Id, default));
        await Json(await Invite(owner, new { role = "reader", who = "writer person" }));
        var invited = Assert.Single((await Door(writer)).GetProperty("invited").EnumerateArray()).GetProperty("id").GetGuid();
        await Json(await writer.Http.PostAsJsonAsync($"/api/door/{invited}", new { answer = true }));
        Assert.Equal(Role.Reader, await Spaces.RoleIn(group.Space, group.Writer.Id, default));
        // Whoever left of their own will comes back by it.
        Assert.Equal(HttpStatusCode.NoContent, (await writer.Http.DeleteAsync($"/api/spaces/{group.Space}/group/me")).StatusCode);
        var back = await Json(await writer.Http.PostAsJsonAsync("/api/joining", new { secret }));
        Assert.Equal("in", back.GetProperty("state").GetString());
    }

    [Fact]
    public async Task By_name_it_stands_at_their_door_and_nobody_else_can_take_it()
    {
        await Json(await Invite(owner, new { role = "reader", who = " none PERSON " }));
        var invited = Assert.Single((await Door(stranger)).GetProperty("invited").EnumerateArray());
        Assert.Equal("Group", invited.GetProperty("group").GetString());
        var id = invited.GetProperty("id").GetGuid();
        var other = await host.Person(Guid.Empty, Role.None);
        using var thief = await host.SignIn(other);
        Assert.Equal(HttpStatusCode.NotFound, (await thief.Http.PostAsJsonAsync($"/api/door/{id}", new { answer = true })).StatusCode);
        await thief.Http.PostAsJsonAsync($"/api/door/{id}", new { answer = false });
        await Json(await stranger.Http.PostAsJsonAsync($"/api/door/{id}", new { answer = true }));
        Assert.Equal(Role.Reader, await Spaces.RoleIn(group.Space, group.Stranger.Id, default));
        Assert.Equal(Role.None, await Spaces.RoleIn(group.Space, other.Id, default));

        // There are two of this name now, oneself, somebody who is in, and nobody at all.
        foreach (var who in new[] { "None Person", "Owner Person", "Writer Person", "Somebody Else", new string('x', 301) })
            Assert.Equal(HttpStatusCode.BadRequest, (await Invite(owner, new { role = "reader", who })).StatusCode);
    }

    [Fact]
    public async Task By_mail_the_letter_leads_in_and_the_answer_does_not_tell_who_has_an_account()
    {
        var known = await Json(await Invite(owner, new { role = "writer", who = group.Stranger.Email }));
        var unknown = await Json(await Invite(owner, new { role = "writer", who = "nobody@test.example" }));
        Assert.Equal(Shape(known), Shape(unknown));
        Assert.Single((await Door(stranger)).GetProperty("invited").EnumerateArray());
        // Nor does the list of the group's invitations.
        var listed = (await Json(await owner.Http.GetAsync($"/api/spaces/{group.Space}/invitations"))).EnumerateArray().ToList();
        Assert.Equal(2, listed.Count);
        Assert.All(listed, one => Assert.Equal(JsonValueKind.Null, one.GetProperty("for").ValueKind));
        var letter = await letters.To("nobody@test.example");
        Assert.Contains("Owner Person", letter.Subject, StringComparison.Ordinal);
        var secret = letter.Text.Split("/join#group=")[1].Split('\n')[0].Trim();
        using var newcomer = await Caller.SignedOut(host.Address);
        await Json(await newcomer.Http.PostAsJsonAsync("/api/people", Form("nobody@test.example", secret)));
        Assert.Equal(2, (await newcomer.Refresh()).GetProperty("spaces").GetArrayLength());
        // It was for one.
        Assert.Equal(HttpStatusCode.Gone, (await stranger.Http.PostAsJsonAsync("/api/joining", new { secret })).StatusCode);

        static string Shape(JsonElement answer) =>
            string.Join(' ', answer.EnumerateObject().Select(one => $"{one.Name}:{one.Value.ValueKind}"));
    }

    [Fact]
    public async Task Whoever_comes_in_disturbs_nobody_who_writes_and_all_of_the_group_hear_of_it_on_every_server()
    {
        await using var another = await host.Another();
        using var writer = await host.SignIn(group.Writer);
        await using var hub = writer.Live(another.Address);
        var (heard, ended) = (new TaskCompletionSource<string>(), new TaskCompletionSource());
        hub.On<string>("company", address => heard.TrySetResult(address));
        hub.Closed += _ =>
        {
            ended.TrySetResult();
            return Task.CompletedTask;
        };
        await hub.StartAsync();
        await hub.InvokeAsync("Join", $"{group.Space}/library/{group.Space}");
        var secret = await Link(owner, group.Space, "writer", uses: 2);
        await Json(await stranger.Http.PostAsJsonAsync("/api/joining", new { secret }));
        Assert.Equal($"{group.Space}/library/{group.Space}", await heard.Task.WaitAsync(TimeSpan.FromSeconds(10)));
        Assert.False(ended.Task.IsCompleted);
        // What takes a right away ends it as before.
        await owner.Http.PutAsJsonAsync($"/api/spaces/{group.Space}/members/{group.Reader.Id}", new { role = "none" });
        await ended.Task.WaitAsync(TimeSpan.FromSeconds(10));
    }

    [Fact]
    public async Task What_each_wrote_last_is_shown_to_the_group_but_for_what_lies_in_the_bin()
    {
        var (page, _) = await Written(group.Space, owner, group.Owner.Id);
        using var writer = await host.SignIn(group.Writer);
        var device = new Replica(77, group.Writer.Id);
        await writer.Send(group.Space, DocumentKind.Page, page, device.Make(Stroke(), DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()));
        using var reader = await host.SignIn(group.Reader);
        var last = (await Json(await reader.Http.GetAsync($"/api/spaces/{group.Space}/members/pages"))).EnumerateArray().ToList();
        Assert.Equal(new[] { group.Owner.Id, group.Writer.Id }.Order(), last.Select(one => one.GetProperty("person").GetGuid()).Order());
        Assert.All(last, one => Assert.Equal(page, Assert.Single(one.GetProperty("pages").EnumerateArray()).GetProperty("id").GetGuid()));
        var notebook = last[0].GetProperty("pages")[0].GetProperty("notebook").GetGuid();
        var owners = new Replica(78, group.Owner.Id);
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        (
            await owner.Send(
                group.Space,
                DocumentKind.Library,
                group.Space,
                owners.Make(new Change.PropertySet(notebook, Property.Binned, $"{now}"), now)
            )
        ).EnsureSuccessStatusCode();
        Assert.Empty((await Json(await reader.Http.GetAsync($"/api/spaces/{group.Space}/members/pages"))).EnumerateArray());
    }

    [Fact]
    public async Task While_the_mail_server_is_away_a_letter_waits_is_told_of_and_is_sent_once_it_is_back_also_by_another_server()
    {
        var port = letters.Port;
        letters.Dispose();
        await Json(await Invite(owner, new { role = "writer", who = "nobody@test.example" }));
        await Told("waiting");
        // What it holds lies enciphered.
        await using var database = new Database(host.Services.GetRequiredService<Settings>().Database);
        await using (var connection = await database.Connect(default))
        {
            await using var look = new NpgsqlCommand("SELECT content, tries FROM mails", connection);
            await using var row = await look.ExecuteReaderAsync();
            Assert.True(await row.ReadAsync());
            Assert.DoesNotContain(
                "nobody@test.example",
                System.Text.Encoding.Latin1.GetString(row.GetFieldValue<byte[]>(0)),
                StringComparison.Ordinal
            );
        }

        using var back = new LetterBox(port);
        clock.Ahead = TimeSpan.FromMinutes(2);
        await using var another = await host.Another(services: added => added.AddSingleton<TimeProvider>(clock));
        Assert.Contains("/join#group=", (await back.To("nobody@test.example")).Text, StringComparison.Ordinal);
        await Told("on-its-way");
        Assert.Single(back.Arrived);

        async Task Told(string state)
        {
            for (var tried = 0; ; tried++)
            {
                var list = await Json(await owner.Http.GetAsync($"/api/spaces/{group.Space}/invitations"));
                if (Assert.Single(list.EnumerateArray()).GetProperty("letter").GetString() == state)
                    return;
                Assert.True(tried < 200, $"The letter is not {state}.");
                await Task.Delay(50);
            }
        }
    }

    [Fact]
    public void A_letter_is_tried_for_three_days_ever_more_rarely()
    {
        var pauses = Enumerable
            .Range(0, 1_000)
            .Select(MailSender.PauseAfter)
            .TakeWhile(pause => pause is not null)
            .Select(pause => pause!.Value)
            .ToList();
        Assert.Equal(pauses.Order(), pauses);
        Assert.InRange(
            pauses.Aggregate(TimeSpan.Zero, (all, pause) => all + pause),
            TimeSpan.FromDays(3),
            TimeSpan.FromDays(3) + TimeSpan.FromHours(1)
        );
    }

    [Fact]
    public async Task Two_owners_who_take_each_others_role_at_once_leave_one()
    {
        for (var i = 0; i < 20; i++)
        {
            var (space, one, two, three) = (Guid.NewGuid(), group.Owner.Id, group.Writer.Id, group.Reader.Id);
            await Spaces.MakeGroup(space, "Two", default);
            foreach (var person in new[] { one, two, three })
                await Spaces.SetRole(space, person, Role.Owner, default);
            var done = await Task.WhenAll(
                Task.Run(() => Spaces.SetRoleBy(one, space, two, Role.Reader, default)),
                Task.Run(() => Spaces.SetRoleBy(two, space, one, Role.Reader, default))
            );
            // Whoever came second was none by then, though a third owner is left.
            Assert.Single(done, taken => taken);
            Assert.Equal(2, (await Spaces.Members(space, default)).Count(member => member.Role == Role.Owner));
        }
    }

    [Fact]
    public async Task The_last_owner_stays_until_the_group_is_handed_over_and_handing_it_over_twice_makes_one_heir()
    {
        var leaving = $"/api/spaces/{group.Space}/group/me";
        var refused = await owner.Http.DeleteAsync(leaving);
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        foreach (var role in new[] { "writer", "none" })
            Assert.Equal(
                HttpStatusCode.BadRequest,
                (await owner.Http.PutAsJsonAsync($"/api/spaces/{group.Space}/members/{group.Owner.Id}", new { role })).StatusCode
            );
        Assert.Equal("last-owner", (await refused.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("code").GetString());
        var handed = await Task.WhenAll(
            new[] { group.Writer, group.Reader }.Select(heir =>
                Task.Run(() => Groups.HandOver(group.Space, group.Owner.Id, heir.Id, default))
            )
        );
        Assert.Single(handed, one => one);
        Assert.Single(await Spaces.Members(group.Space, default), member => member.Role == Role.Owner);
        Assert.False(await Groups.HandOver(group.Space, group.Owner.Id, group.Writer.Id, default));
        Assert.Equal(HttpStatusCode.NoContent, (await owner.Http.DeleteAsync(leaving)).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await owner.Http.GetAsync($"/api/spaces/{group.Space}/members")).StatusCode);
        // One's own library is no group.
        var own = (await owner.Refresh()).GetProperty("spaces").EnumerateArray().Single().GetProperty("id").GetGuid();
        Assert.Equal(HttpStatusCode.BadRequest, (await owner.Http.DeleteAsync($"/api/spaces/{own}/group/me")).StatusCode);
        Assert.Equal(HttpStatusCode.BadRequest, (await owner.Http.DeleteAsync($"/api/spaces/{own}/group")).StatusCode);
    }

    [Fact]
    public async Task A_group_of_five_hundred_takes_no_more_and_whoever_asks_goes_on_asking()
    {
        await using var database = new Database(host.Services.GetRequiredService<Settings>().Database);
        await using (var connection = await database.Connect(default))
        {
            await using var fill = new NpgsqlCommand(
                """
                WITH made AS (
                    INSERT INTO people (id, email, name, colour, password_hash)
                    SELECT gen_random_uuid(), 'member-' || n || '@test.example', 'Member ' || n, 'sky', '' FROM generate_series(1, 496) n RETURNING id
                ) INSERT INTO members (space_id, person_id, role) SELECT @space, id, 1 FROM made
                """,
                connection
            );
            fill.Parameters.AddWithValue("space", group.Space);
            await fill.ExecuteNonQueryAsync();
        }

        var secret = await Link(owner, group.Space, "reader", uses: 5);
        await Json(await stranger.Http.PostAsJsonAsync("/api/joining", new { secret }));
        Assert.Equal(
            Invitation.MostMembers,
            (await Json(await owner.Http.GetAsync($"/api/spaces/{group.Space}/members"))).GetArrayLength()
        );
        var late = await host.Person(Guid.Empty, Role.None);
        using var caller = await host.SignIn(late);
        var refused = await caller.Http.PostAsJsonAsync("/api/joining", new { secret });
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        Assert.Contains(
            "500",
            (await refused.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("title").GetString()!,
            StringComparison.Ordinal
        );

        await Invitations.WriteLink(
            group.Space,
            group.Owner.Id,
            new(Role.Reader, 9, 14, true),
            null,
            "asking",
            [1],
            "",
            false,
            DateTimeOffset.UtcNow,
            default
        );
        await Json(await caller.Http.PostAsJsonAsync("/api/joining", new { secret = "asking" }));
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await owner.Http.PostAsJsonAsync($"/api/spaces/{group.Space}/requests/{late.Id}", new { answer = true })).StatusCode
        );
        Assert.Single((await Door(owner)).GetProperty("asking").EnumerateArray());
    }

    [Fact]
    public async Task A_dissolved_group_is_nobodys_until_it_is_had_back_as_it_was()
    {
        var (page, secret) = await Written(group.Space, owner, group.Owner.Id);
        using var writer = await host.SignIn(group.Writer);
        var operations = Caller.PathOf(group.Space, DocumentKind.Page, page);
        Assert.Equal(HttpStatusCode.NoContent, (await owner.Http.DeleteAsync($"/api/spaces/{group.Space}/group")).StatusCode);
        foreach (var caller in new[] { owner, writer })
        {
            Assert.Equal(HttpStatusCode.NotFound, (await caller.Http.GetAsync(operations)).StatusCode);
            Assert.Single((await caller.Refresh()).GetProperty("spaces").EnumerateArray());
        }

        // Neither a link nor an invitation leads into it meanwhile.
        Assert.Equal(HttpStatusCode.NotFound, (await stranger.Http.PostAsJsonAsync("/api/joining", new { secret })).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await stranger.Http.PostAsJsonAsync("/api/joining/look", new { secret })).StatusCode);
        Assert.Empty((await Json(await writer.Http.GetAsync("/api/groups/dissolved"))).EnumerateArray());
        Assert.Equal(HttpStatusCode.NotFound, (await writer.Http.PostAsync($"/api/groups/dissolved/{group.Space}", null)).StatusCode);
        var dissolved = Assert.Single((await Json(await owner.Http.GetAsync("/api/groups/dissolved"))).EnumerateArray());
        Assert.Equal(group.Space, dissolved.GetProperty("id").GetGuid());

        Assert.Equal(HttpStatusCode.NoContent, (await owner.Http.PostAsync($"/api/groups/dissolved/{group.Space}", null)).StatusCode);
        Assert.Equal(
            [Role.Owner, Role.Writer, Role.Reader],
            (await Spaces.Members(group.Space, default)).Select(member => member.Role).OrderDescending()
        );
        Assert.NotEmpty(await writer.After(group.Space, DocumentKind.Page, page));
        await Json(await stranger.Http.PostAsJsonAsync("/api/joining", new { secret }));
    }

    [Fact]
    public async Task When_its_time_is_over_nothing_of_it_is_left_and_nothing_of_another_is_touched()
    {
        var other = await host.MakeGroup();
        using var others = await host.SignIn(other.Owner);
        await Written(group.Space, owner, group.Owner.Id);
        var (kept, _) = await Written(other.Space, others, other.Owner.Id);
        var now = DateTimeOffset.UtcNow;
        await Groups.Dissolve(group.Space, now, default);
        await Groups.Dissolve(other.Space, now.AddDays(Bin.GraceDays), default);

        // A moment before, and a moment after, it can no longer be had back; and before and after the days of grace.
        Assert.Empty(await Groups.DissolvedOf(group.Owner.Id, now.AddDays(GroupStore.DaysInBin).AddSeconds(1), default));
        Assert.False(await Groups.HaveBack(group.Space, group.Owner.Id, now.AddDays(GroupStore.DaysInBin).AddSeconds(1), default));
        var over = now.AddDays(GroupStore.DaysInBin + Bin.GraceDays);
        Assert.Empty(await Groups.RemoveOver(over.AddSeconds(-1), default));
        Assert.NotEmpty(await Rows(group.Space));
        Assert.Equal([group.Space], await Groups.RemoveOver(over.AddSeconds(1), default));
        Assert.Empty(await Rows(group.Space));

        Assert.True(await Groups.HaveBack(other.Space, other.Owner.Id, over.AddSeconds(-1), default));
        Assert.NotEmpty(await others.After(other.Space, DocumentKind.Page, kept));
        Assert.NotEmpty(await Rows(other.Space));
    }

    [Fact]
    public async Task What_a_group_is_called_is_refused_with_a_sentence_and_stays_as_it_was()
    {
        foreach (
            var (name, colour) in new[] { ("", "sky"), ("two\nlines", "sky"), (new string('n', 201), "sky"), ("Fine", "red"), ("Fine", "") }
        )
        {
            Assert.Equal(
                HttpStatusCode.BadRequest,
                (await owner.Http.PutAsJsonAsync($"/api/spaces/{group.Space}/group", new { name, colour })).StatusCode
            );
            if (colour.Length > 0)
                Assert.Equal(HttpStatusCode.BadRequest, (await owner.Http.PostAsJsonAsync("/api/groups", new { name, colour })).StatusCode);
        }

        Assert.Equal("Group", (await Spaces.Of(group.Owner.Id, default)).Single(space => !space.Personal).Name);
        await owner.Http.PutAsJsonAsync($"/api/spaces/{group.Space}/group", new { name = " 時計の会 ", colour = "plum" });
        Assert.Equal(
            ("時計の会", "plum"),
            (await Spaces.Of(group.Owner.Id, default)).Where(space => !space.Personal).Select(space => (space.Name, space.Colour)).Single()
        );
    }

    [Fact]
    public async Task Nobody_looks_after_more_groups_than_a_person_can_also_when_they_are_made_at_once()
    {
        var made = await Task.WhenAll(
            Enumerable
                .Range(0, Invitation.MostOwned + 5)
                .Select(i => Task.Run(() => Groups.Make(Guid.NewGuid(), $"Group {i}", "sky", group.Stranger.Id, default)))
        );
        Assert.Equal(Invitation.MostOwned, made.Count(one => one));
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await stranger.Http.PostAsJsonAsync("/api/groups", new { name = "One more", colour = "sky" })).StatusCode
        );
    }

    private async Task<Guid> Made(Caller by, string name, string colour) =>
        (await Json(await by.Http.PostAsJsonAsync("/api/groups", new { name, colour }))).GetProperty("id").GetGuid();

    private async Task<string> Link(Caller by, Guid space, string role, int uses, bool asks = false) => (
            await Json(
                await by.Http.PostAsJsonAsync(
                    $"/api/spaces/{space}/invitations",
                    new
                    {
                        role,
                        uses,
                        days = 3,
                        asks,
                    }
                )
            )
        ).GetProperty("link").GetString()!.Split("#group=")[1];

    private Task<HttpResponseMessage> Invite(Caller by, object form) =>
        by.Http.PostAsJsonAsync($"/api/spaces/{group.Space}/invitations", form);

    private static async Task<JsonElement> Door(Caller caller) => await Json(await caller.Http.GetAsync("/api/door"));

    private static object Form(string email, string secret) =>
        new
        {
            name = "Nela Quist",
            email,
            password = "clockwork-9",
            group = secret,
        };

    private static async Task<JsonElement> Json(HttpResponseMessage answer)
    {
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, $"{answer.StatusCode}: {text}");
        return JsonDocument.Parse(text).RootElement;
    }

    private static Change.StrokeAdded Stroke() =>
        new(
            new Core.Ink.Pen(Core.Ink.PenKind.Ball, 40, 0x22302EFF),
            DateTimeOffset.UtcNow.ToUnixTimeMilliseconds(),
            new Core.Ink.StrokeSamples([0, 900], [0, 300], [500, 500], [0, 9])
        );

    /// <summary>A notebook with a page and a stroke, an asset, a lock, a visit and a link into the group.</summary>
    private async Task<(Guid Page, string Secret)> Written(Guid space, Caller by, Guid person)
    {
        var (notebook, page, locked) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        var device = new Replica(unchecked((ulong)Random.Shared.NextInt64()), person);
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        foreach (
            var (kind, id, changes) in new (DocumentKind, Guid, Change[])[]
            {
                (
                    DocumentKind.Library,
                    space,
                    [
                        new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V"),
                        new Change.NodePlaced(locked, NodeKind.Notebook, Guid.Empty, "W"),
                    ]
                ),
                (DocumentKind.Notebook, notebook, [new Change.PageAdded(page, "V", "a4-ruled-710")]),
                (
                    DocumentKind.Page,
                    page,
                    [
                        Stroke(),
                        new Change.SpotAdded(
                            notebook,
                            SpotKind.Mark,
                            new Box(0, 0, 9, 9),
                            [],
                            [new SpotValue(SpotField.Mark, MarkKinds.Ask)]
                        ),
                        new Change.AnswerAdded(notebook, "It is the pallet.", [person], ReadOnlyMemory<byte>.Empty),
                    ]
                ),
            }
        )
            (await by.Send(space, kind, id, changes.Select(change => device.Make(change, now)))).EnsureSuccessStatusCode();
        await by.SendAsset(space, MadePictures.Png(12, 9));
        (
            await by.Http.PutAsJsonAsync($"/api/spaces/{space}/locks/{locked}", new { passphrase = "a-passphrase", minutes = 5 })
        ).EnsureSuccessStatusCode();
        (
            await by.Http.PostAsJsonAsync($"/api/spaces/{space}/locks/{locked}/open", new { words = "a-passphrase" })
        ).EnsureSuccessStatusCode();
        return (page, await Link(by, space, "writer", uses: 5));
    }

    /// <summary>The tables in which anything of a space stands.</summary>
    private async Task<List<string>> Rows(Guid space)
    {
        await using var connection = new NpgsqlConnection(host.Services.GetRequiredService<Settings>().Database);
        await connection.OpenAsync();
        var tables = new List<string>();
        await using (
            var list = new NpgsqlCommand(
                "SELECT table_name FROM information_schema.columns WHERE table_schema = 'public' AND column_name = 'space_id'",
                connection
            )
        )
        await using (var reader = await list.ExecuteReaderAsync())
        {
            while (await reader.ReadAsync())
                tables.Add(reader.GetString(0));
        }

        Assert.Contains("asset_bytes", tables);
        var found = new List<string>();
        foreach (var where in tables.Select(table => $"{table} WHERE space_id").Append("spaces WHERE id"))
        {
            await using var count = new NpgsqlCommand($"SELECT count(*) FROM {where} = @space", connection);
            count.Parameters.AddWithValue("space", space);
            if (await count.ExecuteScalarAsync() is > 0L)
                found.Add(where);
        }

        return found;
    }
}
