using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using CalmQuill.Core.Access;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Server.Limits;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Library;
using CalmQuill.Store.Spaces;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Server.Tests;

/// <summary>What a stranger, a hostile member or a careless program might try against what others wrote; each test is named after what is tried.</summary>
public sealed class AttackTests : IAsyncLifetime
{
    private readonly Guid notebook = Guid.NewGuid(),
        page = Guid.NewGuid();
    private QuillHost host = null!;
    private QuillHost.Group group = null!;
    private Caller owner = null!,
        writer = null!,
        stranger = null!;
    private Replica owners = null!,
        writers = null!,
        strangers = null!;
    private Guid strangersSpace;

    public async Task InitializeAsync()
    {
        host = await QuillHost.Start();
        group = await host.MakeGroup();
        (owner, writer, stranger) = (await host.SignIn(group.Owner), await host.SignIn(group.Writer), await host.SignIn(group.Stranger));
        (owners, writers, strangers) = (NewReplica(group.Owner.Id), NewReplica(group.Writer.Id), NewReplica(group.Stranger.Id));
        strangersSpace = await OwnSpace(stranger);
        await Do(
            owner,
            owners,
            DocumentKind.Library,
            group.Space,
            new Change.PropertySet(notebook, Property.Name, "Escapements"),
            new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V")
        );
        await Do(owner, owners, DocumentKind.Notebook, notebook, new Change.PageAdded(page, "V", "a4-ruled-710"));
        await Do(owner, owners, DocumentKind.Page, page, Stroke());
    }

    public async Task DisposeAsync()
    {
        foreach (var caller in new[] { owner, writer, stranger })
            caller.Dispose();
        await host.DisposeAsync();
    }

    // 1
    [Fact]
    public async Task Locking_a_groups_library_by_naming_it_as_a_page_locks_nothing()
    {
        var mine = Guid.NewGuid();
        await Do(writer, writers, DocumentKind.Library, group.Space, new Change.NodePlaced(mine, NodeKind.Notebook, Guid.Empty, "W"));
        await Do(
            writer,
            writers,
            DocumentKind.Notebook,
            mine,
            new Change.PageAdded(group.Space, "V", "a4-ruled-710"),
            new Change.PageAdded(page, "W", "a4-ruled-710"),
            new Change.PageAdded(notebook, "X", "a4-ruled-710")
        );
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await writer.Http.PutAsJsonAsync(
                    $"/api/spaces/{group.Space}/locks/{mine}",
                    new { passphrase = "a-passphrase", minutes = 5 }
                )
            ).StatusCode
        );
        Assert.NotEmpty(await owner.After(group.Space, DocumentKind.Library, group.Space));
        Assert.NotEmpty(await owner.After(group.Space, DocumentKind.Notebook, notebook));
        Assert.NotEmpty(await owner.After(group.Space, DocumentKind.Page, page));
        Assert.Equal(HttpStatusCode.OK, (await owner.Http.GetAsync($"/api/spaces/{group.Space}/pages/{page}/thumbnail.svg")).StatusCode);
    }

    // 1, the other way round
    [Fact]
    public async Task Naming_a_locked_page_in_a_notebook_of_ones_own_does_not_open_it()
    {
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await owner.Http.PutAsJsonAsync(
                    $"/api/spaces/{group.Space}/locks/{notebook}",
                    new { passphrase = "a-passphrase", minutes = 5 }
                )
            ).StatusCode
        );
        var mine = Guid.NewGuid();
        await Do(writer, writers, DocumentKind.Library, group.Space, new Change.NodePlaced(mine, NodeKind.Notebook, Guid.Empty, "W"));
        await Do(writer, writers, DocumentKind.Notebook, mine, new Change.PageAdded(page, "V", "a4-ruled-710"));
        foreach (var path in new[] { "thumbnail.svg", "export.pdf", "export.svg", "part.svg?area=0,0,9000,9000" })
            Assert.Equal(HttpStatusCode.Locked, (await writer.Http.GetAsync($"/api/spaces/{group.Space}/pages/{page}/{path}")).StatusCode);
        Assert.Equal(HttpStatusCode.Locked, (await writer.Http.GetAsync(Caller.PathOf(group.Space, DocumentKind.Page, page))).StatusCode);
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await writer.Http.GetAsync($"/api/spaces/{group.Space}/notebooks/{mine}/export.pdf")).StatusCode
        );
        var copied = await (
            await writer.Http.PostAsJsonAsync($"/api/spaces/{group.Space}/copies", new { node = mine })
        ).Content.ReadFromJsonAsync<JsonElement>();
        var pages = await writer.Http.GetFromJsonAsync<JsonElement>(
            $"/api/spaces/{group.Space}/notebooks/{copied.GetProperty("copy").GetGuid()}/pages"
        );
        Assert.Empty(await writer.After(group.Space, DocumentKind.Page, pages[0].GetProperty("id").GetGuid()));
    }

    // 2
    [Fact]
    public async Task Writing_first_under_an_id_that_a_groups_page_is_going_to_have_blocks_nothing()
    {
        var coming = Guid.NewGuid();
        await Do(stranger, strangers, DocumentKind.Page, coming, Stroke());
        // Also from inside: as another kind of document.
        await Do(writer, writers, DocumentKind.Notebook, coming, new Change.PageAdded(Guid.NewGuid(), "V", "a4-ruled-710"));
        await Do(owner, owners, DocumentKind.Notebook, notebook, new Change.PageAdded(coming, "W", "a4-ruled-710"));
        await Do(owner, owners, DocumentKind.Page, coming, Stroke());
        Assert.Equal(owners.Id, Assert.Single(await owner.After(group.Space, DocumentKind.Page, coming)).Id.Replica);
    }

    // 3
    [Fact]
    public async Task Writing_under_anothers_replica_is_refused_and_takes_no_number_from_its_owner()
    {
        var stolen = new Replica(owners.Id, group.Writer.Id);
        for (var i = 0; i < 20; i++)
            stolen.Make(Stroke(), 1);
        var results = await Caller.Results(
            await writer.Send(
                group.Space,
                DocumentKind.Page,
                page,
                stolen.Make(Stroke(), Now),
                writers.Make(Stroke(), Now),
                new Replica(owners.Id, group.Writer.Id).Make(Stroke(), Now)
            )
        );
        Assert.Equal(["replica-taken", null, "replica-taken"], results.Select(result => result.Code));
        await Do(owner, owners, DocumentKind.Page, page, Stroke(), Stroke());
        Assert.Equal(4, (await owner.After(group.Space, DocumentKind.Page, page)).Count);
    }

    // 4
    [Fact]
    public async Task Binning_and_erasing_with_a_time_long_past_removes_nothing_early()
    {
        await Do(
            writer,
            writers,
            DocumentKind.Notebook,
            notebook,
            new Change.PropertySet(page, Property.Binned, "0"),
            new Change.PropertySet(page, Property.Erased, "0")
        );
        foreach (var lie in new[] { "0", "-5" })
            await Do(
                writer,
                writers,
                DocumentKind.Library,
                group.Space,
                new Change.PropertySet(notebook, Property.Binned, lie),
                new Change.PropertySet(notebook, Property.Erased, lie)
            );
        var bin = host.Services.GetRequiredService<BinStore>();
        Assert.Empty(await bin.RemoveData(DateTimeOffset.UtcNow.AddDays(Bin.GraceDays - 1), default));
        await Do(
            owner,
            owners,
            DocumentKind.Library,
            group.Space,
            new Change.PropertySet(notebook, Property.Binned, ""),
            new Change.PropertySet(notebook, Property.Erased, "")
        );
        await Do(
            owner,
            owners,
            DocumentKind.Notebook,
            notebook,
            new Change.PropertySet(page, Property.Binned, ""),
            new Change.PropertySet(page, Property.Erased, "")
        );
        Assert.Empty(await bin.RemoveData(DateTimeOffset.UtcNow.AddDays(1000), default));
        Assert.Single(await owner.After(group.Space, DocumentKind.Page, page));
    }

    // 5
    [Fact]
    public async Task Placing_with_an_old_stamp_does_not_take_over_who_made_a_notebook()
    {
        var old = NewReplica(group.Writer.Id);
        var placing = old.Make(new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "A"), 1_000);
        Assert.Null(Assert.Single(await Caller.Results(await writer.Send(group.Space, DocumentKind.Library, group.Space, placing))).Code);
        Assert.Equal(
            group.Owner.Id,
            await host.Services.GetRequiredService<Store.Locks.LockStore>().MakerOf(group.Space, notebook, default)
        );
        // So it is not theirs to lock either.
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (
                await writer.Http.PutAsJsonAsync(
                    $"/api/spaces/{group.Space}/locks/{notebook}",
                    new { passphrase = "a-passphrase", minutes = 5 }
                )
            ).StatusCode
        );
        // A device that gets the operations in the server's order says the same, in whatever order their stamps are.
        var library = new LibraryDocument();
        foreach (var operation in await owner.After(group.Space, DocumentKind.Library, group.Space))
            library.Apply(operation);
        Assert.Equal(group.Owner.Id, library.Nodes().Single(node => node.Id == notebook).CreatedBy);
    }

    // 8
    [Fact]
    public async Task Only_who_made_a_notebook_or_an_owner_of_the_group_locks_it()
    {
        var mine = Guid.NewGuid();
        await Do(writer, writers, DocumentKind.Library, group.Space, new Change.NodePlaced(mine, NodeKind.Notebook, Guid.Empty, "W"));
        using var reader = await host.SignIn(group.Reader);
        async Task<HttpStatusCode> Lock(Caller caller, Guid which, Guid space) =>
            (
                await caller.Http.PutAsJsonAsync($"/api/spaces/{space}/locks/{which}", new { passphrase = "a-passphrase", minutes = 5 })
            ).StatusCode;
        Assert.Equal(HttpStatusCode.Forbidden, await Lock(writer, notebook, group.Space));
        Assert.Equal(HttpStatusCode.Forbidden, await Lock(reader, mine, group.Space));
        Assert.Equal(HttpStatusCode.NotFound, await Lock(owner, page, group.Space));
        Assert.Equal(HttpStatusCode.NotFound, await Lock(owner, group.Space, group.Space));
        Assert.Equal(HttpStatusCode.NoContent, await Lock(writer, mine, group.Space));
        Assert.Equal(HttpStatusCode.NoContent, await Lock(owner, notebook, group.Space));
    }

    // 9
    [Fact]
    public async Task Thirty_five_thousand_folders_in_each_other_and_sections_pages_and_tags_end_nothing()
    {
        async Task Nest(DocumentKind kind, Guid document, NodeKind node, int depth)
        {
            var parent = Guid.Empty;
            for (var made = 0; made < depth; made += 5_000)
            {
                var changes = new List<Operation>();
                for (var i = 0; i < 5_000; i++)
                {
                    var id = Guid.NewGuid();
                    changes.Add(writers.Make(new Change.NodePlaced(id, node, parent, "V"), Now));
                    parent = id;
                }

                (await writer.Send(group.Space, kind, document, changes)).EnsureSuccessStatusCode();
            }
        }

        await Nest(DocumentKind.Library, group.Space, NodeKind.Folder, 35_000);
        await Nest(DocumentKind.Library, group.Space, NodeKind.Tag, 5_000);
        await Nest(DocumentKind.Notebook, notebook, NodeKind.Section, 10_000);
        await Nest(DocumentKind.Notebook, notebook, NodeKind.Page, 5_000);
        // All of it is read again, by a server that remembers nothing, and asked for.
        await using var another = await host.Another();
        using var reader = await Caller.SignIn(another.Address, group.Reader.Email, QuillHost.Password);
        foreach (var path in new[] { "summaries", $"notebooks/{notebook}/pages", "tag-uses", $"pages/{page}/thumbnail.svg" })
            Assert.Equal(HttpStatusCode.OK, (await reader.Http.GetAsync($"/api/spaces/{group.Space}/{path}")).StatusCode);
        var entries = await reader.Http.PostAsJsonAsync($"/api/spaces/{group.Space}/entries", new { rule = "{\"kind\":\"folder\"}" });
        Assert.Equal(HttpStatusCode.OK, entries.StatusCode);
        var top = (await another.Services.GetRequiredService<DocumentStore>().Library(group.Space, default))
            .Nodes()
            .First(node => node is { Kind: NodeKind.Folder, Parent: var parent } && parent == Guid.Empty);
        var copy = await writer.Http.PostAsJsonAsync($"/api/spaces/{group.Space}/copies", new { node = top.Id });
        Assert.Equal(HttpStatusCode.OK, copy.StatusCode);
        await another.Services.GetRequiredService<BinStore>().RemoveData(DateTimeOffset.UtcNow.AddDays(1000), default);
        await Do(owner, owners, DocumentKind.Library, group.Space, new Change.PropertySet(notebook, Property.Name, "Still here"));
    }

    // 10
    [Fact]
    public async Task Filling_a_page_ends_with_a_sentence_and_the_page_still_opens()
    {
        await using var small = await QuillHost.Start(limits: new DocumentLimits(600, 10_000_000));
        var own = await small.MakeGroup();
        using var caller = await small.SignIn(own.Writer);
        var replica = NewReplica(own.Writer.Id);
        var full = Guid.NewGuid();
        Task<HttpResponseMessage> Send(int count) =>
            caller.Send(own.Space, DocumentKind.Page, full, Enumerable.Range(0, count).Select(_ => replica.Make(Stroke(), Now)));
        Assert.False((await (await Send(500)).Content.ReadFromJsonAsync<JsonElement>()).GetProperty("nearlyFull").GetBoolean());
        Assert.True((await (await Send(50)).Content.ReadFromJsonAsync<JsonElement>()).GetProperty("nearlyFull").GetBoolean());
        var refused = await Send(100);
        Assert.Equal(HttpStatusCode.Conflict, refused.StatusCode);
        Assert.Contains(
            "new page",
            (await refused.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("title").GetString(),
            StringComparison.Ordinal
        );
        Assert.Equal(550, (await caller.After(own.Space, DocumentKind.Page, full)).Count);
    }

    // 10
    [Fact]
    public async Task A_document_that_cannot_be_read_keeps_no_other_from_its_snapshot()
    {
        var broken = Guid.NewGuid();
        var documents = host.Services.GetRequiredService<DocumentStore>();
        await Do(
            writer,
            writers,
            DocumentKind.Page,
            broken,
            [.. Enumerable.Range(0, DocumentStore.SnapshotEvery - 1).Select(_ => Stroke())]
        );
        await Execute(
            $"UPDATE operations SET bytes = '\\x07' WHERE document_key = (SELECT key FROM documents WHERE id = '{broken}') AND seq = 3"
        );
        await writer.Send(group.Space, DocumentKind.Page, broken, writers.Make(Stroke(), Now));
        await Do(writer, writers, DocumentKind.Page, page, [.. Enumerable.Range(0, DocumentStore.SnapshotEvery).Select(_ => Stroke())]);
        await Until(
            async () =>
                await Count($"SELECT count(*) FROM snapshots s JOIN documents d ON d.key = s.document_key WHERE d.id = '{page}'") == 1,
            "the other document's snapshot"
        );
        Assert.Equal(HttpStatusCode.OK, (await owner.Http.GetAsync("/health")).StatusCode);
    }

    // 11
    [Fact]
    public async Task Ink_twenty_metres_off_on_a_growing_paper_prints_as_two_sheets_and_draws_no_ruling_without_end()
    {
        var far = Guid.NewGuid();
        await Do(writer, writers, DocumentKind.Notebook, notebook, new Change.PageAdded(far, "X", "a6-dotted-100-around"));
        await Do(writer, writers, DocumentKind.Page, far, Stroke(), StrokeAt(1_990_000, 1_990_000), StrokeAt(-1_990_000, 3_000));
        var clock = Stopwatch.StartNew();
        foreach (var path in new[] { "export.pdf", "export.svg", "thumbnail.svg", "part.svg?area=-2000000,-2000000,2000000,2000000" })
        {
            var answer = await writer.Http.GetAsync($"/api/spaces/{group.Space}/pages/{far}/{path}");
            Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
            var bytes = await answer.Content.ReadAsByteArrayAsync();
            Assert.True(bytes.Length < 3_000_000, $"{path}: {bytes.Length} bytes");
            if (path == "export.pdf")
                Assert.InRange(Encoding.Latin1.GetString(bytes).Split("/Type /Page /Parent").Length - 1, 3, 6);
        }

        Assert.True(clock.Elapsed < TimeSpan.FromSeconds(30), clock.Elapsed.ToString());
    }

    // 11
    [Fact]
    public async Task Forms_of_megabytes_and_pictures_with_something_behind_them_are_refused()
    {
        var huge = new string('a', 6_000_000);
        using var nobody = await Caller.SignedOut(host.Address);
        foreach (
            var (path, form) in new (string, object)[]
            {
                ("/api/session", new { email = huge, password = "x" }),
                (
                    "/api/people",
                    new
                    {
                        name = huge,
                        email = "a@b.example",
                        password = "x",
                    }
                ),
                ("/api/people/forgotten", new { email = huge }),
            }
        )
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, path)
            {
                Content = new ByteArrayContent(JsonSerializer.SerializeToUtf8Bytes(form)),
            };
            request.Content.Headers.ContentType = new System.Net.Http.Headers.MediaTypeHeaderValue("application/json");
            request.Headers.ExpectContinue = true;
            Assert.Equal(HttpStatusCode.RequestEntityTooLarge, (await nobody.Http.SendAsync(request)).StatusCode);
        }

        byte[] picture =
        [
            0xFF,
            0xD8,
            0xFF,
            0xC0,
            0,
            17,
            8,
            1,
            44,
            2,
            88,
            3,
            1,
            0x11,
            0,
            2,
            0x11,
            0,
            3,
            0x11,
            0,
            0xFF,
            0xDA,
            0,
            12,
            3,
            1,
            0,
            2,
            0x11,
            3,
            0x11,
            0,
            63,
            0,
            0xA5,
            0xFF,
            0x00,
            0xFF,
            0xD3,
            7,
            0xFF,
            0xD9,
        ];
        async Task<HttpStatusCode> Kept(byte[] file) =>
            (await writer.SendPiece(group.Space, Core.Assets.AssetId.Of(file), 0, file.Length, file)).StatusCode;
        Assert.Equal(HttpStatusCode.OK, await Kept(picture));
        byte[][] bad =
        [
            [.. picture, .. Encoding.ASCII.GetBytes("<script>")],
            picture[..^2],
            picture[..24],
            [.. picture[..^2], 0xFF, 0xDA, 0xFF, 0xFF, 0xFF, 0xD9],
        ];
        foreach (var one in bad)
            Assert.Equal(HttpStatusCode.BadRequest, await Kept(one));
    }

    // 11
    [Fact]
    public async Task A_paper_in_capitals_and_a_nul_in_a_text_break_no_list()
    {
        var upper = $"a4-blank-710-own.{Guid.NewGuid().ToString("N").ToUpperInvariant()}";
        var results = await Caller.Results(
            await writer.Send(
                group.Space,
                DocumentKind.Notebook,
                notebook,
                writers.Make(new Change.PropertySet(page, Property.Paper, upper), Now),
                writers.Make(new Change.PageAdded(Guid.NewGuid(), "W", upper), Now),
                writers.Make(new Change.PropertySet(page, Property.Name, "a\0b"), Now)
            )
        );
        Assert.All(results, result => Assert.NotNull(result.Code));
        var spots = await Caller.Results(
            await writer.Send(
                group.Space,
                DocumentKind.Page,
                page,
                writers.Make(
                    new Change.SpotAdded(
                        Guid.NewGuid(),
                        Core.Spots.SpotKind.Mark,
                        new Box(0, 0, 9, 9),
                        [],
                        [
                            new Core.Spots.SpotValue(Core.Spots.SpotField.Mark, "ask"),
                            new Core.Spots.SpotValue(Core.Spots.SpotField.Note, "a\0b"),
                        ]
                    ),
                    Now
                )
            )
        );
        Assert.NotNull(Assert.Single(spots).Code);
        Assert.Equal(HttpStatusCode.OK, (await writer.Http.GetAsync($"/api/spaces/{group.Space}/paper-uses")).StatusCode);
        // One that came in before it was refused.
        await Execute($"UPDATE notebook_entries SET paper = '{upper}' WHERE id = '{page}'");
        Assert.Equal(HttpStatusCode.OK, (await writer.Http.GetAsync($"/api/spaces/{group.Space}/paper-uses")).StatusCode);
    }

    // 11
    [Fact]
    public async Task A_page_with_very_much_on_it_is_given_up_when_nobody_waits_for_its_print()
    {
        var full = Guid.NewGuid();
        for (var i = 0; i < 6; i++)
            await Do(
                writer,
                writers,
                DocumentKind.Page,
                full,
                [
                    .. Enumerable
                        .Range(0, 100)
                        .Select(_ => new Change.StrokeAdded(
                            new Pen(PenKind.Fountain, 40, 0xFF),
                            0,
                            Generate.Wave(3_000, Random.Shared.Next(10_000), Random.Shared.Next(20_000))
                        )),
                ]
            );
        // Four that nobody waits for, on a server that prints two at a time: they make room at once for one that somebody waits for.
        using var impatient = new CancellationTokenSource();
        var given = Enumerable
            .Range(0, 4)
            .Select(_ => writer.Http.GetAsync($"/api/spaces/{group.Space}/pages/{full}/export.svg", impatient.Token))
            .ToList();
        await impatient.CancelAsync();
        foreach (var one in given)
            await Assert.ThrowsAnyAsync<OperationCanceledException>(() => one);
        var clock = Stopwatch.StartNew();
        Assert.Equal(HttpStatusCode.OK, (await owner.Http.GetAsync($"/api/spaces/{group.Space}/pages/{page}/export.pdf")).StatusCode);
        Assert.True(clock.Elapsed < TimeSpan.FromSeconds(3), $"waited {clock.Elapsed}");
    }

    // 12
    [Fact]
    public async Task A_library_that_holds_as_much_as_it_may_takes_no_more_and_says_so()
    {
        await using var small = await QuillHost.Start(with: settings =>
            settings with
            {
                Limits = QuillHost.Roomy with { BytesOfASpace = 3_000, AssetBytesOfASpace = 10 },
            }
        );
        var own = await small.MakeGroup();
        using var caller = await small.SignIn(own.Writer);
        var replica = NewReplica(own.Writer.Id);
        var answers = new List<HttpStatusCode>();
        for (var i = 0; i < 30; i++)
            answers.Add(
                (
                    await caller.Send(own.Space, DocumentKind.Page, page, Enumerable.Range(0, 3).Select(_ => replica.Make(Stroke(), Now)))
                ).StatusCode
            );
        Assert.Equal(HttpStatusCode.OK, answers[0]);
        Assert.Equal(HttpStatusCode.InsufficientStorage, answers[^1]);
        var usage = await caller.Http.GetFromJsonAsync<JsonElement>($"/api/spaces/{own.Space}/usage");
        Assert.Equal(3_000, usage.GetProperty("mostBytes").GetInt64());
        Assert.InRange(usage.GetProperty("bytes").GetInt64(), 100, 4_000);
        // Another space is not concerned.
        using var other = await small.SignIn(own.Stranger);
        Assert.Equal(
            HttpStatusCode.OK,
            (await other.Send(await OwnSpace(other), DocumentKind.Page, page, NewReplica(own.Stranger.Id).Make(Stroke(), Now))).StatusCode
        );
    }

    // 12
    [Fact]
    public async Task Requests_a_minute_are_counted_by_person_over_all_servers()
    {
        await using var first = await QuillHost.Start(with: settings =>
            settings with
            {
                Limits = QuillHost.Roomy with { RequestsAMinute = 60, RequestsAMinuteSignedOut = 10_000 },
            }
        );
        await using var second = await first.Another();
        var own = await first.MakeGroup();
        using var here = await Caller.SignIn(first.Address, own.Writer.Email, QuillHost.Password);
        using var there = await Caller.SignIn(second.Address, own.Writer.Email, QuillHost.Password);
        var served = 0;
        HttpResponseMessage? refused = null;
        // Twice as many as a minute allows: the minute may turn in between.
        for (var i = 0; i < 130; i++)
        {
            var answer = await (i % 2 == 0 ? here : there).Http.GetAsync("/api/desk");
            if (answer.StatusCode == HttpStatusCode.OK)
                served++;
            else
                refused = answer;
        }

        Assert.Equal(HttpStatusCode.TooManyRequests, refused!.StatusCode);
        Assert.Equal("5", refused.Headers.GetValues("Retry-After").Single());
        Assert.InRange(served, 40, 120);
        using var other = await Caller.SignIn(first.Address, own.Owner.Email, QuillHost.Password);
        Assert.Equal(HttpStatusCode.OK, (await other.Http.GetAsync("/api/desk")).StatusCode);
    }

    // 13
    [Fact]
    public async Task A_hundred_and_forty_posts_at_once_hit_nobody_else()
    {
        await using var blocked = await OpenConnection();
        // Somebody holds the page's row for as long as it takes.
        await using var transaction = await blocked.BeginTransactionAsync();
        await using (var hold = new Npgsql.NpgsqlCommand($"SELECT 1 FROM documents WHERE id = '{page}' FOR UPDATE", blocked))
            await hold.ExecuteScalarAsync();
        var posts = Enumerable
            .Range(0, 140)
            .Select(_ => writer.Send(group.Space, DocumentKind.Page, page, writers.Make(Stroke(), Now)))
            .ToList();
        var clock = Stopwatch.StartNew();
        Assert.Equal(HttpStatusCode.OK, (await owner.Http.GetAsync("/api/desk")).StatusCode);
        await Do(owner, owners, DocumentKind.Page, Guid.NewGuid(), Stroke());
        Assert.True(clock.Elapsed < TimeSpan.FromSeconds(4), $"an innocent waited {clock.Elapsed}");
        // Who waits too long for the row is told to come again.
        var first = await await Task.WhenAny(posts);
        Assert.Equal(HttpStatusCode.ServiceUnavailable, first.StatusCode);
        Assert.Equal("2", first.Headers.GetValues("Retry-After").Single());
        await transaction.RollbackAsync();
        var answers = await Task.WhenAll(posts);
        Assert.All(
            answers,
            answer => Assert.True(answer.StatusCode is HttpStatusCode.OK or HttpStatusCode.ServiceUnavailable, answer.StatusCode.ToString())
        );
        Assert.Contains(answers, answer => answer.StatusCode == HttpStatusCode.OK);
    }

    private static long Now => DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();

    private static Replica NewReplica(Guid person) => new(unchecked((ulong)Random.Shared.NextInt64()), person);

    private async Task Do(Caller caller, Replica replica, DocumentKind kind, Guid document, params Change[] changes)
    {
        var space = caller == stranger ? strangersSpace : group.Space;
        var results = await Caller.Results(await caller.Send(space, kind, document, changes.Select(change => replica.Make(change, Now))));
        Assert.All(results, result => Assert.Null(result.Code));
    }

    private static async Task<Guid> OwnSpace(Caller caller) =>
        (await caller.Refresh())
            .GetProperty("spaces")
            .EnumerateArray()
            .Single(space => space.GetProperty("personal").GetBoolean())
            .GetProperty("id")
            .GetGuid();

    private async Task<Npgsql.NpgsqlConnection> OpenConnection() =>
        await host.Services.GetRequiredService<Store.Database>().Connect(default);

    private async Task Execute(string sql)
    {
        await using var command = host.Services.GetRequiredService<Store.Database>().Command(sql);
        await command.ExecuteNonQueryAsync();
    }

    private async Task<long> Count(string sql)
    {
        await using var command = host.Services.GetRequiredService<Store.Database>().Command(sql);
        return (long)(await command.ExecuteScalarAsync())!;
    }

    private static async Task Until(Func<Task<bool>> holds, string what)
    {
        for (var clock = Stopwatch.StartNew(); !await holds(); )
        {
            Assert.True(clock.Elapsed < TimeSpan.FromSeconds(20), $"waited for {what}");
            await Task.Delay(20);
        }
    }

    private static Change.StrokeAdded Stroke() => StrokeAt(3000, 5000);

    private static Change.StrokeAdded StrokeAt(int x, int y) => new(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(12, x, y));
}
