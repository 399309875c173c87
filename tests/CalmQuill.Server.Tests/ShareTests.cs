using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using CalmQuill.Core.Access;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Papers;
using CalmQuill.MailServer;
using CalmQuill.Store.Spaces;
using CalmQuill.Testing;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Server.Tests;

/// <summary>Sharing less than everything: what a guest gets, and all the ways in which they might get more.</summary>
public sealed class ShareTests : IAsyncLifetime
{
    private readonly LetterBox letters = new(0);
    private readonly ClockAhead clock = new();
    private readonly Guid folder = Guid.NewGuid(),
        notebook = Guid.NewGuid(),
        page = Guid.NewGuid(),
        otherNotebook = Guid.NewGuid(),
        otherPage = Guid.NewGuid();
    private Replica writing = null!,
        guests = null!;
    private QuillHost host = null!;
    private QuillHost.Group group = null!;
    private Caller owner = null!,
        writer = null!,
        guest = null!;

    private static long Now => DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();

    /// <summary>A folder with one notebook, and another notebook beside it, each with a page that has a stroke.</summary>
    public async Task InitializeAsync()
    {
        host = await QuillHost.Start(
            with: settings => settings with { Mail = new Uri($"smtp://127.0.0.1:{letters.Port}") },
            services: added => added.AddSingleton<TimeProvider>(clock)
        );
        group = await host.MakeGroup();
        (owner, writer, guest) = (await host.SignIn(group.Owner), await host.SignIn(group.Writer), await host.SignIn(group.Stranger));
        (writing, guests) = (new Replica(11, group.Owner.Id), new Replica(12, group.Stranger.Id));
        await Write(
            DocumentKind.Library,
            group.Space,
            new Change.NodePlaced(folder, NodeKind.Folder, Guid.Empty, "V"),
            new Change.PropertySet(folder, Property.Name, "Escapements"),
            new Change.NodePlaced(notebook, NodeKind.Notebook, folder, "V"),
            new Change.PropertySet(notebook, Property.Name, "Anchor"),
            new Change.NodePlaced(otherNotebook, NodeKind.Notebook, Guid.Empty, "W"),
            new Change.PropertySet(otherNotebook, Property.Name, "Private matters")
        );
        foreach (var (book, inside) in new[] { (notebook, page), (otherNotebook, otherPage) })
        {
            await Write(DocumentKind.Notebook, book, new Change.PageAdded(inside, "V", "a4-ruled-710"));
            await Write(DocumentKind.Page, inside, Stroke());
        }
    }

    public async Task DisposeAsync()
    {
        foreach (var caller in new[] { owner, writer, guest })
            caller.Dispose();
        await host.DisposeAsync();
        letters.Dispose();
    }

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task A_guest_gets_the_notebook_and_its_part_of_the_library_and_taken_back_all_of_it_is_gone(bool byFolder)
    {
        var made = await Shared(
            new
            {
                node = byFolder ? folder : notebook,
                with = "person",
                who = group.Stranger.Name,
            }
        );
        var seen = Assert.Single((await Json(await guest.Http.GetAsync("/api/shared"))).EnumerateArray());
        Assert.Equal(group.Space, seen.GetProperty("space").GetGuid());
        Assert.Equal(group.Owner.Name, seen.GetProperty("things")[0].GetProperty("by").GetString());
        Assert.Equal("reader", Assert.Single(seen.GetProperty("notebooks").EnumerateArray()).GetProperty("role").GetString());
        var library = Library(seen);
        Assert.Equal(
            byFolder ? ["Anchor", "Escapements"] : ["Anchor"],
            library.Nodes().Select(node => node.Name).Order(StringComparer.Ordinal)
        );
        Assert.Equal(byFolder ? folder : Guid.Empty, library.Nodes().Single(node => node.Id == notebook).Parent);
        Assert.Single(await guest.After(group.Space, DocumentKind.Page, page));
        Assert.Equal(HttpStatusCode.NotFound, await Status(guest, DocumentKind.Library, group.Space));
        Assert.Equal(HttpStatusCode.NotFound, await Status(guest, DocumentKind.Page, otherPage));
        Assert.Equal(HttpStatusCode.NotFound, await Status(guest, DocumentKind.Notebook, otherNotebook));
        Assert.Equal(
            Refusal.NotAllowedCode,
            Assert.Single(await Caller.Results(await guest.Send(group.Space, DocumentKind.Page, page, guests.Make(Stroke(), Now)))).Code
        );

        var shares = await Json(await owner.Http.GetAsync($"/api/spaces/{group.Space}/shares"));
        Assert.Equal(group.Stranger.Name, Assert.Single(shares.EnumerateArray()).GetProperty("to").GetString());
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await owner.Http.DeleteAsync($"/api/spaces/{group.Space}/shares/{made.GetProperty("id").GetGuid()}")).StatusCode
        );
        await IsNothing();
    }

    [Fact]
    public async Task What_is_moved_out_of_a_shared_folder_or_binned_or_locked_is_shared_no_more_and_connections_end()
    {
        await Shared(
            new
            {
                node = folder,
                with = "person",
                who = group.Stranger.Name,
            }
        );
        foreach (
            var (away, back) in new (Func<Task>, Func<Task>)[]
            {
                (
                    () => Write(DocumentKind.Library, group.Space, new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V")),
                    () => Write(DocumentKind.Library, group.Space, new Change.NodePlaced(notebook, NodeKind.Notebook, folder, "V"))
                ),
                (
                    () => Write(DocumentKind.Library, group.Space, new Change.PropertySet(folder, Property.Binned, "5")),
                    () => Write(DocumentKind.Library, group.Space, new Change.PropertySet(folder, Property.Binned, ""))
                ),
                (
                    () =>
                        owner.Http.PutAsJsonAsync(
                            $"/api/spaces/{group.Space}/locks/{notebook}",
                            new { passphrase = "a-passphrase", minutes = 5 }
                        ),
                    () =>
                        owner.Http.PostAsJsonAsync(
                            $"/api/spaces/{group.Space}/locks/{notebook}/remove",
                            new { password = QuillHost.Password }
                        )
                ),
            }
        )
        {
            await using var live = await Follow(guest, $"{group.Space}/page/{page}");
            await away();
            await live.Ended.WaitAsync(TimeSpan.FromSeconds(10));
            Assert.Equal(HttpStatusCode.NotFound, await Status(guest, DocumentKind.Page, page));
            Assert.Empty(
                (await Json(await guest.Http.GetAsync("/api/shared")))
                    .EnumerateArray()
                    .SelectMany(one => one.GetProperty("notebooks").EnumerateArray())
            );
            await back();
            Assert.Equal(HttpStatusCode.OK, await Status(guest, DocumentKind.Page, page));
        }
    }

    [Fact]
    public async Task A_page_that_is_moved_to_another_notebook_leaves_with_it()
    {
        await Shared(
            new
            {
                node = notebook,
                with = "person",
                who = group.Stranger.Name,
            }
        );
        await using var live = await Follow(guest, $"{group.Space}/page/{page}");
        await Write(DocumentKind.Notebook, otherNotebook, new Change.PageAdded(page, "X", "a4-ruled-710"));
        // Another notebook names it as well: it is at home where it was.
        Assert.Equal(HttpStatusCode.OK, await Status(guest, DocumentKind.Page, page));
        await Write(DocumentKind.Notebook, notebook, new Change.PropertySet(page, Property.MovedTo, otherNotebook.ToString()));
        await live.Ended.WaitAsync(TimeSpan.FromSeconds(10));
        Assert.Equal(HttpStatusCode.NotFound, await Status(guest, DocumentKind.Page, page));
        Assert.Equal(HttpStatusCode.OK, await Status(guest, DocumentKind.Notebook, notebook));
    }

    [Fact]
    public async Task Whoever_writes_there_is_disturbed_by_no_change_of_a_share()
    {
        await using var live = await Follow(writer, $"{group.Space}/page/{page}");
        var made = await Shared(
            new
            {
                node = notebook,
                with = "person",
                who = group.Stranger.Name,
            }
        );
        await using var guestLive = await Follow(guest, $"{group.Space}/page/{page}");
        await owner.Http.DeleteAsync($"/api/spaces/{group.Space}/shares/{made.GetProperty("id").GetGuid()}");
        await guestLive.Ended.WaitAsync(TimeSpan.FromSeconds(10));
        Assert.False(live.Ended.IsCompleted);
    }

    [Fact]
    public async Task A_guest_who_writes_adds_pages_and_takes_none_from_elsewhere()
    {
        await Shared(
            new
            {
                node = notebook,
                with = "person",
                who = group.Stranger.Name,
                writes = true,
            }
        );
        var added = Guid.NewGuid();
        // The page first, as devices may send it.
        Assert.True(await Stored(guest, DocumentKind.Page, added, Stroke()));
        Assert.True(await Stored(guest, DocumentKind.Notebook, notebook, new Change.PageAdded(added, "W", "a4-ruled-710")));
        Assert.True(await Stored(guest, DocumentKind.Page, page, Stroke()));
        Assert.Equal(2, (await owner.After(group.Space, DocumentKind.Page, page)).Count);
        Assert.Single(await owner.After(group.Space, DocumentKind.Page, added));

        // A page of another notebook, a page that somebody else began and no notebook names yet, carrying away, erasing, tagging: each is refused, and nothing of it comes to be.
        var begun = Guid.NewGuid();
        await Write(DocumentKind.Page, begun, Stroke());
        foreach (
            var change in new Change[]
            {
                new Change.PageAdded(otherPage, "X", "a4-ruled-710"),
                new Change.NodePlaced(otherPage, NodeKind.Page, Guid.Empty, "X"),
                new Change.PageAdded(begun, "X", "a4-ruled-710"),
                new Change.PropertySet(page, Property.MovedTo, otherNotebook.ToString()),
                new Change.PropertySet(page, Property.Erased, "1"),
                new Change.TagSet(page, Guid.NewGuid(), true),
            }
        )
            Assert.False(await Stored(guest, DocumentKind.Notebook, notebook, change), change.ToString());
        Assert.Equal(HttpStatusCode.NotFound, await Status(guest, DocumentKind.Page, otherPage));
        Assert.Equal(HttpStatusCode.NotFound, await Status(guest, DocumentKind.Page, begun));
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await guest.Send(group.Space, DocumentKind.Page, begun, guests.Make(Stroke(), Now))).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await guest.Send(
                    group.Space,
                    DocumentKind.Notebook,
                    otherNotebook,
                    guests.Make(new Change.PageAdded(Guid.NewGuid(), "V", "a4-ruled-710"), Now)
                )
            ).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NotFound,
            (
                await guest.Send(
                    group.Space,
                    DocumentKind.Library,
                    group.Space,
                    guests.Make(new Change.PropertySet(notebook, Property.Name, "Mine now"), Now)
                )
            ).StatusCode
        );
        // Whom a guest meets there has a name for them, and nobody else has one: neither strangers nor, unasked, those who are in the library.
        var other = await host.MakeGroup();
        var named = await Json(
            await guest.Http.GetAsync(
                $"/api/spaces/{group.Space}/notebooks/{notebook}/people?of={group.Writer.Id},{other.Owner.Id},{group.Stranger.Id}"
            )
        );
        Assert.Equal(
            new[] { group.Writer.Id, group.Stranger.Id }.Order(),
            named.EnumerateArray().Select(one => one.GetProperty("id").GetGuid()).Order()
        );
        Assert.DoesNotContain(group.Reader.Name, await guest.Http.GetStringAsync("/api/shared"), StringComparison.Ordinal);
        // Whoever is in the library knows whose ink it is.
        Assert.Contains(
            (await Json(await writer.Http.GetAsync($"/api/spaces/{group.Space}/guests"))).EnumerateArray(),
            one => one.GetProperty("id").GetGuid() == group.Stranger.Id
        );
    }

    [Fact]
    public async Task What_was_given_to_write_in_is_only_read_once_it_is_given_so()
    {
        await Shared(
            new
            {
                node = notebook,
                with = "person",
                who = group.Stranger.Name,
                writes = true,
            }
        );
        await using var live = await Follow(guest, $"{group.Space}/page/{page}");
        await Shared(
            new
            {
                node = notebook,
                with = "person",
                who = group.Stranger.Name,
            }
        );
        await live.Ended.WaitAsync(TimeSpan.FromSeconds(10));
        Assert.Single((await Json(await owner.Http.GetAsync($"/api/spaces/{group.Space}/shares"))).EnumerateArray());
        Assert.Equal(
            Refusal.NotAllowedCode,
            Assert.Single(await Caller.Results(await guest.Send(group.Space, DocumentKind.Page, page, guests.Make(Stroke(), Now)))).Code
        );
    }

    [Fact]
    public async Task A_group_has_it_as_long_as_somebody_is_in_it()
    {
        var other = Guid.NewGuid();
        var spaces = host.Services.GetRequiredService<SpaceStore>();
        await spaces.MakeGroup(other, "Tower clocks", default);
        await spaces.SetRole(other, group.Owner.Id, Role.Owner, default);
        await spaces.SetRole(other, group.Stranger.Id, Role.Reader, default);
        await Shared(
            new
            {
                node = notebook,
                with = "group",
                group = other,
                writes = true,
            }
        );
        var thing = (await Json(await guest.Http.GetAsync("/api/shared")))[0].GetProperty("things")[0];
        Assert.Equal("Tower clocks", thing.GetProperty("through").GetString());
        Assert.True(await Stored(guest, DocumentKind.Page, page, Stroke()));
        // What a group has, nobody lets go of alone.
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await guest.Http.DeleteAsync($"/api/shared/{thing.GetProperty("share").GetGuid()}")).StatusCode
        );
        await spaces.SetRole(other, group.Stranger.Id, Role.None, default);
        await IsNothing();
        // A group that one is not in is not shared with.
        using var alone = await host.SignIn(group.Writer);
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (
                await owner.Http.PostAsJsonAsync(
                    $"/api/spaces/{group.Space}/shares",
                    new
                    {
                        node = notebook,
                        with = "group",
                        group = Guid.NewGuid(),
                    }
                )
            ).StatusCode
        );
    }

    [Fact]
    public async Task By_a_link_with_a_passphrase_whoever_has_both_comes_in_until_its_last_day()
    {
        var made = await Shared(
            new
            {
                node = notebook,
                with = "link",
                days = 3,
                passphrase = "verge and foliot",
            }
        );
        var secret = SecretOf(made);
        using var newcomer = await Caller.SignedOut(host.Address);
        Assert.Equal("passphrase-needed", await Code(newcomer.Http.PostAsJsonAsync("/api/sharing/look", new { secret })));
        Assert.Equal(
            "wrong-passphrase",
            await Code(newcomer.Http.PostAsJsonAsync("/api/sharing/look", new { secret, passphrase = "verge" }))
        );
        var form = new
        {
            name = "Nela",
            email = "nela@test.example",
            password = QuillHost.Password,
            share = secret,
        };
        Assert.Equal("passphrase-needed", await Code(newcomer.Http.PostAsJsonAsync("/api/people", form)));
        Assert.Null(await host.Services.GetRequiredService<Store.People.PersonStore>().FindByEmail("nela@test.example", default));
        await Json(
            await newcomer.Http.PostAsJsonAsync(
                "/api/people",
                new
                {
                    form.name,
                    form.email,
                    form.password,
                    form.share,
                    passphrase = "verge and foliot",
                }
            )
        );
        await newcomer.Refresh();
        Assert.Single(await newcomer.After(group.Space, DocumentKind.Page, page));
        // Twice by the same link is once; and whoever comes may let go again.
        foreach (var _ in new[] { 1, 2 })
            await Json(await guest.Http.PostAsJsonAsync("/api/sharing/come", new { secret, passphrase = "verge and foliot" }));
        var share = Assert.Single((await Json(await owner.Http.GetAsync($"/api/spaces/{group.Space}/shares"))).EnumerateArray());
        Assert.Equal(2, share.GetProperty("guests").GetArrayLength());
        Assert.Equal(
            HttpStatusCode.NoContent,
            (await guest.Http.DeleteAsync($"/api/shared/{share.GetProperty("id").GetGuid()}")).StatusCode
        );
        await IsNothing();
        // An owner sees the link again; nobody guesses on without end.
        Assert.Equal(secret, SecretOf(share));
        // A minute may end meanwhile, and with it the count.
        var isRefused = false;
        for (var i = 0; i <= 2 * QuillHost.Roomy.SignInsAMinute && !isRefused; i++)
            isRefused =
                (await guest.Http.PostAsJsonAsync("/api/sharing/look", new { secret, passphrase = $"a-guess-{i}" })).StatusCode
                == HttpStatusCode.TooManyRequests;
        Assert.True(isRefused);
        clock.Ahead = TimeSpan.FromDays(3);
        Assert.Equal("nothing-shared", await Code(guest.Http.PostAsJsonAsync("/api/sharing/look", new { secret })));
    }

    /// <summary>The database's own clock ends it, on connections that are there as well.</summary>
    [Fact]
    public async Task When_its_last_day_is_over_connections_end_and_nothing_is_left()
    {
        var shares = host.Services.GetRequiredService<Store.Sharing.ShareStore>();
        // That something is shared ends the connections of whom it is shared with, and they are made anew: as here, once it did.
        await using var before = await Follow(guest);
        await shares.Make(
            new(
                group.Space,
                notebook,
                null,
                ShareWith.Person,
                group.Stranger.Id,
                null,
                null,
                true,
                false,
                group.Owner.Id,
                DateTimeOffset.UtcNow.AddSeconds(3)
            ),
            default
        );
        await before.Ended.WaitAsync(TimeSpan.FromSeconds(10));
        await using var live = await Follow(guest, $"{group.Space}/page/{page}");
        await live.Ended.WaitAsync(TimeSpan.FromSeconds(10));
        await IsNothing();
    }

    [Fact]
    public async Task Everybody_sees_the_pages_that_were_shown_and_no_others()
    {
        var second = Guid.NewGuid();
        await Write(DocumentKind.Notebook, notebook, new Change.PageAdded(second, "W", "a4-ruled-710"));
        var one = await Shared(
            new
            {
                node = notebook,
                page,
                with = "everybody",
            }
        );
        var all = await Shared(
            new
            {
                node = notebook,
                with = "everybody",
                copies = true,
                passphrase = "pallets and pins",
            }
        );
        using var nobody = await Caller.SignedOut(host.Address);
        var secret = SecretOf(one);
        var seen = await Json(await nobody.Http.PostAsJsonAsync("/api/sharing/look", new { secret }));
        Assert.Equal([page], seen.GetProperty("pages").EnumerateArray().Select(shown => shown.GetProperty("id").GetGuid()));
        var picture = await nobody.Http.PostAsJsonAsync("/api/sharing/page", new { secret, page });
        Assert.Equal("image/svg+xml", picture.Content.Headers.ContentType!.MediaType);
        Assert.Contains("<path", await picture.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        foreach (var hidden in new[] { second, otherPage })
            Assert.Equal(
                HttpStatusCode.NotFound,
                (await nobody.Http.PostAsJsonAsync("/api/sharing/page", new { secret, page = hidden })).StatusCode
            );
        Assert.Equal(HttpStatusCode.NotFound, (await nobody.Http.PostAsJsonAsync("/api/sharing/copy", new { secret })).StatusCode);

        // With a passphrase a ticket stands for it, and for nothing else.
        var guarded = SecretOf(all);
        var given = await Json(
            await nobody.Http.PostAsJsonAsync("/api/sharing/look", new { secret = guarded, passphrase = "pallets and pins" })
        );
        var ticket = given.GetProperty("ticket").GetString();
        Assert.Equal(2, given.GetProperty("pages").GetArrayLength());
        var copy = await nobody.Http.PostAsJsonAsync("/api/sharing/copy", new { secret = guarded, ticket });
        Assert.Equal("application/pdf", copy.Content.Headers.ContentType!.MediaType);
        Assert.Equal(
            HttpStatusCode.Unauthorized,
            (await nobody.Http.PostAsJsonAsync("/api/sharing/copy", new { secret = guarded, ticket = ticket + "x" })).StatusCode
        );
        // It is only looked at: nobody comes in by it, with an account or without.
        Assert.Equal("nothing-shared", await Code(guest.Http.PostAsJsonAsync("/api/sharing/come", new { secret })));
        Assert.Equal(
            "nothing-shared",
            await Code(
                nobody.Http.PostAsJsonAsync(
                    "/api/people",
                    new
                    {
                        name = "Nela",
                        email = "nela@test.example",
                        password = QuillHost.Password,
                        share = secret,
                    }
                )
            )
        );
        await IsNothing();
        foreach (var made in new[] { one, all })
            await owner.Http.DeleteAsync($"/api/spaces/{group.Space}/shares/{made.GetProperty("id").GetGuid()}");
        Assert.Equal("nothing-shared", await Code(nobody.Http.PostAsJsonAsync("/api/sharing/page", new { secret, page })));
        Assert.Equal(
            "nothing-shared",
            await Code(
                nobody.Http.PostAsJsonAsync(
                    "/api/sharing/page",
                    new
                    {
                        secret = guarded,
                        page,
                        ticket,
                    }
                )
            )
        );
    }

    [Fact]
    public async Task An_address_gets_a_letter_with_a_link_whoever_it_belongs_to()
    {
        var stranger = await Shared(
            new
            {
                node = notebook,
                with = "person",
                who = "somebody@test.example",
            }
        );
        var known = await Shared(
            new
            {
                node = notebook,
                with = "person",
                who = group.Stranger.Email,
            }
        );
        Assert.True(stranger.GetProperty("mailed").GetBoolean());
        Assert.True(known.GetProperty("mailed").GetBoolean());
        var letter = await letters.To("somebody@test.example");
        Assert.Contains(SecretOf(stranger), letter.Text, StringComparison.Ordinal);
        await IsNothing();
    }

    [Fact]
    public async Task A_writer_shares_what_they_made_and_nothing_of_others()
    {
        var own = Guid.NewGuid();
        var device = new Replica(13, group.Writer.Id);
        await writer.Send(
            group.Space,
            DocumentKind.Library,
            group.Space,
            device.Make(new Change.NodePlaced(own, NodeKind.Notebook, Guid.Empty, "X"), Now)
        );
        var path = $"/api/spaces/{group.Space}/shares";
        foreach (var node in new[] { notebook, folder })
            Assert.Equal(
                HttpStatusCode.Forbidden,
                (
                    await writer.Http.PostAsJsonAsync(
                        path,
                        new
                        {
                            node,
                            with = "person",
                            who = group.Stranger.Name,
                        }
                    )
                ).StatusCode
            );
        await Json(
            await writer.Http.PostAsJsonAsync(
                path,
                new
                {
                    node = own,
                    with = "person",
                    who = group.Stranger.Name,
                }
            )
        );
        var theirs = await Shared(new { node = notebook, with = "link" });
        // Each sees what they shared; owners see all of it.
        Assert.Equal(own, Assert.Single((await Json(await writer.Http.GetAsync(path))).EnumerateArray()).GetProperty("node").GetGuid());
        Assert.Equal(2, (await Json(await owner.Http.GetAsync(path))).GetArrayLength());
        Assert.Equal(HttpStatusCode.NotFound, (await writer.Http.DeleteAsync($"{path}/{theirs.GetProperty("id").GetGuid()}")).StatusCode);
    }

    [Fact]
    public async Task What_cannot_be_shared_so_is_refused_with_a_sentence()
    {
        foreach (
            var asked in new object[]
            {
                new
                {
                    node = notebook,
                    with = "person",
                    who = "",
                },
                new
                {
                    node = notebook,
                    with = "person",
                    who = "Nobody of that name",
                },
                new
                {
                    node = notebook,
                    with = "person",
                    who = group.Writer.Name,
                },
                new
                {
                    node = notebook,
                    with = "person",
                    who = group.Owner.Name,
                },
                new
                {
                    node = notebook,
                    with = "group",
                    group = group.Space,
                },
                new
                {
                    node = notebook,
                    with = "everybody",
                    writes = true,
                },
                new { node = folder, with = "everybody" },
                new
                {
                    node = notebook,
                    page,
                    with = "link",
                },
                new
                {
                    node = notebook,
                    with = "link",
                    days = 366,
                },
                new
                {
                    node = notebook,
                    with = "link",
                    passphrase = "short",
                },
                new { node = notebook, with = "somehow" },
            }
        )
        {
            var refused = await owner.Http.PostAsJsonAsync($"/api/spaces/{group.Space}/shares", asked);
            Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
            Assert.NotEmpty((await refused.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("title").GetString()!);
        }

        Assert.Equal(
            HttpStatusCode.NotFound,
            (await owner.Http.PostAsJsonAsync($"/api/spaces/{group.Space}/shares", new { node = Guid.NewGuid(), with = "link" })).StatusCode
        );
        Assert.Empty((await Json(await owner.Http.GetAsync($"/api/spaces/{group.Space}/shares"))).EnumerateArray());
    }

    [Fact]
    public async Task A_picture_under_a_shared_page_is_seen_by_guests_and_one_under_another_is_not()
    {
        var (under, elsewhere) = (
            await owner.SendAsset(group.Space, MadePictures.Png(12, 9)),
            await owner.SendAsset(group.Space, MadePictures.Png(13, 9))
        );
        foreach (var (book, asset) in new[] { (notebook, under), (otherNotebook, elsewhere) })
        {
            var paper = Guid.NewGuid();
            await Write(
                DocumentKind.Library,
                group.Space,
                new Change.NodePlaced(paper, NodeKind.Paper, Guid.Empty, "V"),
                new Change.PropertySet(paper, Property.Name, "Dial"),
                new Change.PropertySet(paper, Property.Source, asset.ToString())
            );
            await Write(
                DocumentKind.Notebook,
                book,
                new Change.PageAdded(Guid.NewGuid(), "X", (Paper.ParseOrDefault("a4-ruled-710") with { Own = paper }).ToString())
            );
        }

        await Shared(
            new
            {
                node = notebook,
                with = "person",
                who = group.Stranger.Name,
            }
        );
        Assert.Equal(HttpStatusCode.OK, (await guest.Http.GetAsync($"/api/spaces/{group.Space}/assets/{under}")).StatusCode);
        Assert.Equal(HttpStatusCode.NotFound, (await guest.Http.GetAsync($"/api/spaces/{group.Space}/assets/{elsewhere}")).StatusCode);
        var seen = Library((await Json(await guest.Http.GetAsync("/api/shared")))[0]);
        Assert.Equal(under, Assert.Single(seen.Nodes(), node => node.Kind == NodeKind.Paper).Source);
    }

    [Fact]
    public async Task Of_a_dissolved_group_nothing_is_shared()
    {
        await Shared(
            new
            {
                node = notebook,
                with = "person",
                who = group.Stranger.Name,
            }
        );
        var secret = SecretOf(await Shared(new { node = notebook, with = "everybody" }));
        await using var live = await Follow(guest, $"{group.Space}/page/{page}");
        await owner.Http.DeleteAsync($"/api/spaces/{group.Space}/group");
        await live.Ended.WaitAsync(TimeSpan.FromSeconds(10));
        await IsNothing();
        Assert.Equal("nothing-shared", await Code(guest.Http.PostAsJsonAsync("/api/sharing/page", new { secret, page })));
    }

    private async Task IsNothing()
    {
        Assert.Empty((await Json(await guest.Http.GetAsync("/api/shared"))).EnumerateArray());
        Assert.Equal(HttpStatusCode.NotFound, await Status(guest, DocumentKind.Page, page));
        Assert.Equal(HttpStatusCode.NotFound, await Status(guest, DocumentKind.Notebook, notebook));
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await guest.Send(group.Space, DocumentKind.Page, page, guests.Make(Stroke(), Now))).StatusCode
        );
    }

    private async Task<JsonElement> Shared(object asked) =>
        await Json(await owner.Http.PostAsJsonAsync($"/api/spaces/{group.Space}/shares", asked));

    private static LibraryDocument Library(JsonElement shared)
    {
        var library = new LibraryDocument();
        foreach (var operation in OperationCodec.Decode(shared.GetProperty("library").GetBytesFromBase64()))
            library.Apply(operation);
        return library;
    }

    private static string SecretOf(JsonElement made) => made.GetProperty("link").GetString()!.Split('#', '=')[^1];

    private async Task Write(DocumentKind kind, Guid id, params Change[] changes)
    {
        var results = await Caller.Results(await owner.Send(group.Space, kind, id, changes.Select(change => writing.Make(change, Now))));
        Assert.All(results, result => Assert.Null(result.Code));
    }

    private async Task<bool> Stored(Caller caller, DocumentKind kind, Guid id, Change change) =>
        (await Caller.Results(await caller.Send(group.Space, kind, id, guests.Make(change, Now))))[0].Code is null;

    private async Task<HttpStatusCode> Status(Caller caller, DocumentKind kind, Guid id) =>
        (await caller.Http.GetAsync(Caller.PathOf(group.Space, kind, id))).StatusCode;

    private static async Task<string?> Code(Task<HttpResponseMessage> asked) =>
        (await (await asked).Content.ReadFromJsonAsync<JsonElement>()).GetProperty("code").GetString();

    private static async Task<JsonElement> Json(HttpResponseMessage answer)
    {
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, $"{answer.StatusCode}: {text}");
        return JsonDocument.Parse(text).RootElement;
    }

    private static Change.StrokeAdded Stroke() =>
        new(new Pen(PenKind.Ball, 40, 0x22302EFF), Now, new StrokeSamples([0, 900], [0, 300], [500, 500], [0, 9]));

    /// <param name="caller">Who connects.</param>
    /// <param name="address">The document that is followed; none for a connection alone.</param>
    private async Task<Device> Follow(Caller caller, string? address = null)
    {
        var hub = caller.Live(host.Address);
        var ended = new TaskCompletionSource();
        hub.Closed += _ =>
        {
            ended.TrySetResult();
            return Task.CompletedTask;
        };
        await hub.StartAsync();
        if (address is not null)
            await hub.InvokeAsync("Join", address);
        return new Device(hub, ended.Task);
    }

    /// <summary>A live connection on one document.</summary>
    private sealed record Device(HubConnection Hub, Task Ended) : IAsyncDisposable
    {
        public ValueTask DisposeAsync() => Hub.DisposeAsync();
    }
}
