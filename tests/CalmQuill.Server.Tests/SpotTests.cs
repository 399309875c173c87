using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text;
using System.Text.Json;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;
using CalmQuill.Core.Writing;
using CalmQuill.Store.Documents;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Server.Tests;

/// <summary>Marks, links, own papers and calendars over HTTP: who is told of them, and what is refused.</summary>
public sealed class SpotTests : IAsyncLifetime
{
    private static readonly Guid Notebook = Guid.NewGuid(),
        Page = Guid.NewGuid(),
        Other = Guid.NewGuid(),
        Mark = Guid.NewGuid();
    private readonly TcpListener feed = new(IPAddress.Loopback, 0);
    private QuillHost host = null!;
    private QuillHost.Group group = null!;
    private Caller owner = null!,
        writer = null!,
        stranger = null!;
    private Replica device = null!;
    private long clock = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds() - 100_000;

    public async Task InitializeAsync()
    {
        feed.Start();
        host = await QuillHost.Start(with: settings => settings with { CalendarHosts = feed.LocalEndpoint.ToString()! });
        group = await host.MakeGroup();
        (owner, writer, stranger) = (await host.SignIn(group.Owner), await host.SignIn(group.Writer), await host.SignIn(group.Stranger));
        device = new Replica(7, group.Writer.Id);
        await Do(
            DocumentKind.Library,
            group.Space,
            new Change.PropertySet(Notebook, Property.Name, "Escapements"),
            new Change.NodePlaced(Notebook, NodeKind.Notebook, Guid.Empty, "V")
        );
        await Do(
            DocumentKind.Notebook,
            Notebook,
            new Change.PageAdded(Page, "V", "a4-ruled-710"),
            new Change.PageAdded(Other, "W", "a4-ruled-710")
        );
        await Do(
            DocumentKind.Page,
            Page,
            new Change.SpotAdded(
                Mark,
                SpotKind.Mark,
                new Box(100, 200, 300, 400),
                [],
                [new SpotValue(SpotField.Mark, MarkKinds.Ask), new SpotValue(SpotField.Note, "why 30 teeth")]
            ),
            new Change.SpotAdded(
                Guid.NewGuid(),
                SpotKind.Link,
                new Box(0, 0, 10, 10),
                [],
                [new SpotValue(SpotField.Target, $"page:{group.Space}/{Notebook}/{Other}")]
            ),
            new Change.SpotAdded(
                Guid.NewGuid(),
                SpotKind.Heading,
                new Box(0, 900, 10, 990),
                [],
                [new SpotValue(SpotField.Level, "1"), new SpotValue(SpotField.Title, "Depth")]
            )
        );
    }

    public async Task DisposeAsync()
    {
        feed.Stop();
        foreach (var caller in new[] { owner, writer, stranger })
            caller.Dispose();
        await host.DisposeAsync();
    }

    [Fact]
    public async Task Boxes_to_be_ticked_in_typed_words_are_told_as_marks_and_hide_as_those_do()
    {
        var text = device.Make(
            new Change.TextAdded(
                Transform.Shift(2_000, 3_000),
                9_000,
                0,
                new Passage("oil the pallets\nwind it by 4.12.2026", [new PassageFormat(0, 37, Trait.List, "tick")]),
                []
            ),
            clock += 10
        );
        await writer.Send(group.Space, DocumentKind.Page, Page, text);
        var told = (await List(owner, "/api/follow-ups")).Where(one => one.GetProperty("id").GetGuid() != Mark).ToList();
        Assert.Equal(
            [("oil the pallets", ""), ("wind it by 4.12.2026", "2026-12-04")],
            told.Select(one => (one.GetProperty("note").GetString()!, one.GetProperty("due").GetString()!)).Order()
        );
        Assert.All(told, one => Assert.Equal(group.Writer.Id, one.GetProperty("author").GetGuid()));
        Assert.Empty(await List(stranger, "/api/follow-ups"));
        Assert.Equal(5, (await List(owner, $"/api/spaces/{group.Space}/notebooks/{Notebook}/spots")).Count);

        // Ticked by somebody else where it stands, typed on by the first, and gone with its text.
        var page = new PageDocument();
        page.Apply(text);
        var tick = PageTasks.Tick(page, PageTasks.Of(page).First().Task!.Value, true)!;
        var other = new Replica(8, group.Owner.Id);
        await owner.Send(group.Space, DocumentKind.Page, Page, other.Make(tick, clock += 10));
        Assert.Equal(2, (await List(writer, "/api/follow-ups")).Count);
        var done = (await List(writer, "/api/follow-ups?all=true")).Single(one => one.GetProperty("note").GetString() == "oil the pallets");
        Assert.Equal(group.Owner.Id, done.GetProperty("doneBy").GetGuid());
        var typed = new Change.TextTyped(text.Id, new TextChange([page.Find(text.Id)!.Typed.InsertionAt(7, " well")], [], []));
        await Do(DocumentKind.Page, Page, typed);
        Assert.Contains("wind it by 4.12.2026", (await List(writer, "/api/follow-ups")).Select(one => one.GetProperty("note").GetString()));
        Assert.Contains(
            await List(writer, "/api/follow-ups?all=true"),
            one => one.GetProperty("note").GetString() == "oil the well pallets"
        );
        await Do(DocumentKind.Page, Page, new Change.ItemsRemoved([text.Id]));
        Assert.Single(await List(writer, "/api/follow-ups?all=true"));
    }

    [Fact]
    public async Task Marks_and_links_are_told_to_members_follow_undo_and_bin_and_hide_behind_a_lock()
    {
        Assert.Equal("why 30 teeth", (await List(owner, "/api/follow-ups")).Single().GetProperty("note").GetString());
        Assert.Empty(await List(stranger, "/api/follow-ups"));
        Assert.Equal(3, (await List(owner, $"/api/spaces/{group.Space}/notebooks/{Notebook}/spots")).Count);
        Assert.Single(await List(owner, $"/api/spaces/{group.Space}/backlinks?notebook={Notebook}&page={Other}"));
        Assert.Single(await List(owner, $"/api/spaces/{group.Space}/links?notebooks={Notebook}"));

        var headings = $"/api/spaces/{group.Space}/headings?titled=";
        Assert.Equal(Page, (await List(owner, headings + "DEP")).Single().GetProperty("page").GetGuid());
        Assert.Empty(await List(owner, headings + "depths"));
        Assert.Equal(HttpStatusCode.BadRequest, (await owner.Http.GetAsync(headings)).StatusCode);
        Assert.Equal(HttpStatusCode.BadRequest, (await owner.Http.GetAsync(headings + new string('a', 300))).StatusCode);

        // Ticked off by the owner; taken back; on a page in the bin it is not asked for.
        var other = new Replica(8, group.Owner.Id);
        var tick = other.Make(new Change.SpotSet(Mark, [new SpotValue(SpotField.Done, "1")]), clock += 10);
        await owner.Send(group.Space, DocumentKind.Page, Page, tick);
        Assert.Empty(await List(writer, "/api/follow-ups"));
        var done = (await List(writer, "/api/follow-ups?all=true")).Single();
        Assert.Equal(
            (group.Owner.Id, tick.Time.UnixMilliseconds),
            (done.GetProperty("doneBy").GetGuid(), done.GetProperty("doneAt").GetInt64())
        );
        await owner.Send(group.Space, DocumentKind.Page, Page, other.Make(new Change.EffectSet(tick.Id, false), clock += 10));
        Assert.Single(await List(writer, "/api/follow-ups"));
        await Do(DocumentKind.Notebook, Notebook, new Change.PropertySet(Page, Property.Binned, "1700000000000"));
        Assert.Empty(await List(writer, "/api/follow-ups"));
        await Do(DocumentKind.Notebook, Notebook, new Change.PropertySet(Page, Property.Binned, ""));

        Assert.Contains("why 30 teeth", await File(writer, null), StringComparison.Ordinal);
        Assert.Contains("why 30 teeth", await File(writer, [Guid.NewGuid(), Mark]), StringComparison.Ordinal);
        Assert.DoesNotContain("why 30 teeth", await File(writer, [Guid.NewGuid()]), StringComparison.Ordinal);
        Assert.DoesNotContain("why 30 teeth", await File(stranger, [Mark]), StringComparison.Ordinal);
        (
            await owner.Http.PutAsJsonAsync($"/api/spaces/{group.Space}/locks/{Notebook}", new { passphrase = "a-passphrase", minutes = 5 })
        ).EnsureSuccessStatusCode();
        Assert.Empty(await List(writer, "/api/follow-ups"));
        Assert.DoesNotContain("why 30 teeth", await File(writer, null), StringComparison.Ordinal);
        Assert.Equal(
            HttpStatusCode.Locked,
            (await writer.Http.GetAsync($"/api/spaces/{group.Space}/notebooks/{Notebook}/spots")).StatusCode
        );
        Assert.Empty(await List(writer, headings + "depth"));
        Assert.Equal(
            HttpStatusCode.Locked,
            (await writer.Http.GetAsync($"/api/spaces/{group.Space}/notebooks/{Notebook}/pages")).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.Locked,
            (await writer.Http.GetAsync($"/api/spaces/{group.Space}/pages/{Page}/part.svg?area=0,0,900,900")).StatusCode
        );
    }

    [Theory]
    [InlineData("area=0,0,10")]
    [InlineData("area=0,0,0,0")]
    [InlineData("area=a,b,c,d")]
    [InlineData("area=0,0,99999999999,5")]
    [InlineData("")]
    public async Task A_part_of_a_page_that_is_none_is_refused(string query) =>
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await writer.Http.GetAsync($"/api/spaces/{group.Space}/pages/{Page}/part.svg?{query}")).StatusCode
        );

    [Fact]
    public async Task A_page_that_is_frozen_lies_under_others_and_is_counted()
    {
        await Do(DocumentKind.Page, Other, new Change.StrokeAdded(new Pen(PenKind.Ball, 80, 0x22302EFF), clock, Generate.Wave(50)));
        var page = await host.Services.GetRequiredService<DocumentStore>().Page(group.Space, Other, CancellationToken.None);
        var asset = await writer.SendAsset(group.Space, FrozenPage.Write(page, "a4-ruled-710"));
        Assert.Contains(
            "<path",
            await owner.Http.GetStringAsync($"/api/spaces/{group.Space}/assets/{asset}/picture"),
            StringComparison.Ordinal
        );
        var paper = Guid.NewGuid();
        await Do(
            DocumentKind.Library,
            group.Space,
            new Change.PropertySet(paper, Property.Name, "Waves"),
            new Change.NodePlaced(paper, NodeKind.Paper, Guid.Empty, "X"),
            new Change.PropertySet(paper, Property.Source, asset.ToString())
        );
        await Do(DocumentKind.Notebook, Notebook, new Change.PropertySet(Page, Property.Paper, $"a5-blank-710-own.{paper:N}"));
        var picture = await owner.Http.GetStringAsync(
            $"/api/spaces/{group.Space}/pages/{Page}/thumbnail.svg?paper=a5-blank-710-own.{paper:N}"
        );
        Assert.Contains("scale(0.70", picture, StringComparison.Ordinal);
        Assert.Equal(1, (await owner.Http.GetFromJsonAsync<Dictionary<Guid, long>>($"/api/spaces/{group.Space}/paper-uses"))![paper]);
        Assert.StartsWith(
            "%PDF",
            Encoding.Latin1.GetString(await owner.Http.GetByteArrayAsync($"/api/spaces/{group.Space}/pages/{Page}/export.pdf")),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task Calendars_are_fetched_from_where_it_is_allowed_and_nowhere_inside()
    {
        const string calendar =
            "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTART:20261008T190000\r\nSUMMARY:Class\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
        async Task<string> Ask(string? address, string? text = null, string last = "2026-10-31")
        {
            var answer = await writer.Http.PostAsJsonAsync(
                "/api/calendar-entries",
                new
                {
                    address,
                    text,
                    first = "2026-10-01",
                    last,
                    zone = "Europe/Berlin",
                }
            );
            return System.Text.RegularExpressions.Regex.Unescape(await answer.Content.ReadAsStringAsync());
        }

        Assert.Contains("Class", await Ask(null, calendar), StringComparison.Ordinal);
        Assert.Contains("at most 800 days", await Ask(null, calendar, "2106-01-01"), StringComparison.Ordinal);
        Assert.Contains("Choose a calendar file", await Ask(null), StringComparison.Ordinal);
        Assert.Contains("begins with https", await Ask("file:///etc/passwd"), StringComparison.Ordinal);
        // The server itself is on loopback, too, and is not to be reached.
        Assert.Contains("own network", await Ask($"{host.Address}health"), StringComparison.Ordinal);
        foreach (
            var inside in new[]
            {
                "http://localhost:1/",
                "http://[::1]:1/",
                "http://10.0.0.1/",
                "http://192.168.1.1/",
                "http://169.254.169.254/latest",
                "http://[::ffff:127.0.0.1]:1/",
                "http://0.0.0.0:1/",
            }
        )
            Assert.Contains("own network", await Ask(inside), StringComparison.Ordinal);

        var serving = Serve(
            $"HTTP/1.1 200 OK\r\nContent-Type: text/calendar\r\nContent-Length: {calendar.Length}\r\nConnection: close\r\n\r\n{calendar}"
        );
        Assert.Contains("Class", await Ask($"http://{feed.LocalEndpoint}/lantern.ics"), StringComparison.Ordinal);
        await serving;
        // Sent on from an allowed place to one inside.
        serving = Serve($"HTTP/1.1 302 Found\r\nLocation: {host.Address}health\r\nContent-Length: 0\r\nConnection: close\r\n\r\n");
        Assert.Contains("own network", await Ask($"http://{feed.LocalEndpoint}/lantern.ics"), StringComparison.Ordinal);
        await serving;
    }

    private async Task Serve(string answer)
    {
        using var client = await feed.AcceptTcpClientAsync();
        await using var stream = client.GetStream();
        _ = await stream.ReadAsync(new byte[4096]);
        await stream.WriteAsync(Encoding.ASCII.GetBytes(answer));
    }

    private async Task Do(DocumentKind kind, Guid document, params Change[] changes)
    {
        var results = await Caller.Results(
            await writer.Send(group.Space, kind, document, changes.Select(change => device.Make(change, clock += 10)))
        );
        Assert.All(results, result => Assert.Null(result.Code));
    }

    private static async Task<string> File(Caller caller, Guid[]? ids) =>
        await (await caller.Http.PostAsJsonAsync("/api/follow-ups.md", new { all = true, ids })).Content.ReadAsStringAsync();

    private static async Task<List<JsonElement>> List(Caller caller, string path) =>
        [.. (await caller.Http.GetFromJsonAsync<JsonElement>(path)).EnumerateArray()];
}
