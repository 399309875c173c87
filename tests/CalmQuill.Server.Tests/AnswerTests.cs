using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Spots;
using CalmQuill.MailServer;
using CalmQuill.Server.Mail;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Library;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace CalmQuill.Server.Tests;

/// <summary>What is said to marks reaches those it is meant for, from readers too, and nobody else.</summary>
public sealed class AnswerTests : IAsyncLifetime
{
    private static readonly Guid Mark = Guid.NewGuid();
    private readonly Guid notebook = Guid.NewGuid(),
        page = Guid.NewGuid();
    private readonly LetterBox letters = new(0);
    private QuillHost host = null!;
    private QuillHost.Group group = null!;
    private Caller owner = null!,
        writer = null!,
        reader = null!,
        stranger = null!;
    private Replica owners = null!,
        writers = null!,
        readers = null!;

    private static long Now => DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();

    /// <summary>A page with an ask of the writer's.</summary>
    public async Task InitializeAsync()
    {
        host = await QuillHost.Start(with: settings => settings with { Mail = new Uri($"smtp://127.0.0.1:{letters.Port}") });
        group = await host.MakeGroup();
        (owner, writer) = (await host.SignIn(group.Owner), await host.SignIn(group.Writer));
        (reader, stranger) = (await host.SignIn(group.Reader), await host.SignIn(group.Stranger));
        (owners, writers, readers) = (new Replica(51, group.Owner.Id), new Replica(52, group.Writer.Id), new Replica(53, group.Reader.Id));
        await owner.Send(
            group.Space,
            DocumentKind.Library,
            group.Space,
            owners.Make(new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V"), Now)
        );
        await owner.Send(group.Space, DocumentKind.Notebook, notebook, owners.Make(new Change.PageAdded(page, "V", "a4-ruled-710"), Now));
        var ask = new Change.SpotAdded(
            Mark,
            SpotKind.Mark,
            new Box(0, 0, 400, 400),
            [],
            [new SpotValue(SpotField.Mark, MarkKinds.Ask), new SpotValue(SpotField.Note, "Why does it recoil?")]
        );
        Assert.Null(await Refused(writer, writers.Make(ask, Now)));
    }

    public async Task DisposeAsync()
    {
        foreach (var caller in new[] { owner, writer, reader, stranger })
            caller.Dispose();
        await host.DisposeAsync();
        letters.Dispose();
    }

    [Fact]
    public async Task A_reader_answers_and_takes_that_back_and_does_nothing_else()
    {
        var answer = readers.Make(Says("The pallet pushes back."), Now);
        Assert.Null(await Refused(reader, answer));
        var mark = Assert.Single(await FollowUps(writer));
        Assert.Equal(
            (1, true, true),
            (mark.GetProperty("answers").GetInt32(), mark.GetProperty("isAnswered").GetBoolean(), mark.GetProperty("isOpen").GetBoolean())
        );

        var theirs = writers.Make(Says("Thank you."), Now);
        Assert.Null(await Refused(writer, theirs));
        Assert.Equal(Refusal.NotAllowedCode, await Refused(reader, readers.Make(new Change.AnswerWithdrawn(theirs.Id), Now)));
        Assert.Equal(Refusal.NotAllowedCode, await Refused(reader, readers.Make(Stroke(), Now)));
        Assert.Equal(
            Refusal.NotAllowedCode,
            await Refused(reader, readers.Make(new Change.SpotSet(Mark, [new SpotValue(SpotField.Done, "1")]), Now))
        );
        Assert.Equal(Refusal.NotAllowedCode, await Refused(reader, readers.Make(new Change.EffectSet(theirs.Id, false), Now)));
        Assert.Equal(
            HttpStatusCode.NotFound,
            (await stranger.Send(group.Space, DocumentKind.Page, page, readers.Make(Says("x"), Now))).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await reader.Send(group.Space, DocumentKind.Notebook, notebook, readers.Make(Says("x"), Now))).StatusCode
        );
        Assert.Equal(2, Assert.Single(await FollowUps(writer)).GetProperty("answers").GetInt32());

        Assert.Null(await Refused(reader, readers.Make(new Change.AnswerWithdrawn(answer.Id), Now)));
        mark = Assert.Single(await FollowUps(writer));
        Assert.Equal((1, false), (mark.GetProperty("answers").GetInt32(), mark.GetProperty("isAnswered").GetBoolean()));
        // An owner takes away what somebody should not have said.
        Assert.Null(await Refused(owner, owners.Make(new Change.AnswerWithdrawn(theirs.Id), Now)));
        Assert.Equal(0, Assert.Single(await FollowUps(writer)).GetProperty("answers").GetInt32());
    }

    [Fact]
    public async Task It_is_told_on_the_desk_of_who_asked_and_of_whom_it_speaks_to_and_of_nobody_else()
    {
        Assert.Null(await Refused(owner, owners.Make(Says("@Reader, do you know?", group.Reader.Id, group.Stranger.Id), Now)));
        var asked = Assert.Single(await Told(writer));
        Assert.False(asked.GetProperty("mentions").GetBoolean());
        Assert.Equal("Why does it recoil?", asked.GetProperty("note").GetString());
        Assert.Equal(group.Owner.Name, asked.GetProperty("name").GetString());
        Assert.True(Assert.Single(await Told(reader)).GetProperty("mentions").GetBoolean());
        Assert.Empty(await Told(owner));
        // Who is not in the group is told nothing, though somebody spoke to them.
        Assert.Empty(await Told(stranger));

        // Nor is anything told of a page in the bin, or of a mark that was taken away.
        await owner.Send(
            group.Space,
            DocumentKind.Notebook,
            notebook,
            owners.Make(new Change.PropertySet(page, Property.Binned, "1"), Now)
        );
        Assert.Empty(await Told(reader));
        await owner.Send(group.Space, DocumentKind.Notebook, notebook, owners.Make(new Change.PropertySet(page, Property.Binned, ""), Now));
        Assert.Single(await Told(reader));
        Assert.Null(await Refused(writer, writers.Make(new Change.SpotSet(Mark, [new SpotValue(SpotField.Removed, "1")]), Now)));
        Assert.Empty(await Told(reader));
    }

    [Fact]
    public async Task Where_one_only_adds_one_takes_back_what_one_said_and_not_what_others_said()
    {
        using (
            var set = await System.Net.Http.Json.HttpClientJsonExtensions.PutAsJsonAsync(
                owner.Http,
                $"/api/spaces/{group.Space}/group",
                new
                {
                    name = "Clock menders",
                    colour = "gold",
                    touch = "add",
                }
            )
        )
            set.EnsureSuccessStatusCode();
        Operation mine = writers.Make(Says("One."), Now),
            others = owners.Make(Says("Two."), Now);
        Assert.Null(await Refused(writer, mine));
        Assert.Null(await Refused(owner, others));
        Assert.Equal(Refusal.NotAllowedCode, await Refused(writer, writers.Make(new Change.AnswerWithdrawn(others.Id), Now)));
        Assert.Null(await Refused(writer, writers.Make(new Change.AnswerWithdrawn(mine.Id), Now)));
    }

    [Fact]
    public async Task Who_wants_it_is_mailed_once_a_day_at_most_what_was_said_to_them_and_nothing_of_what_is_locked()
    {
        var digests = host.Services.GetRequiredService<Digests>();
        Assert.Null(await Refused(owner, owners.Make(Says("Before it was turned on."), Now)));
        (await writer.Http.PutAsJsonAsync("/api/people/me/digest", new { on = true })).EnsureSuccessStatusCode();
        Assert.True((await Json(writer, "/api/people/me/digest")).GetProperty("on").GetBoolean());
        // From a device that had no connection: said an hour ago, and come only now.
        Assert.Null(await Refused(owner, owners.Make(Says("It is the pallet."), Now - 3_600_000)));
        Assert.Null(await Refused(owner, owners.Make(Says("@Reader look.", group.Reader.Id), Now)));
        Assert.Equal(0, await digests.SendDue(default));

        await ADayLater();
        Assert.Equal(1, await digests.SendDue(default));
        var letter = await letters.To(group.Writer.Email);
        Assert.Contains("It is the pallet.", letter.Text, StringComparison.Ordinal);
        Assert.Contains($"/page/{group.Space}/{notebook}/{page}?mark={Mark}", letter.Text, StringComparison.Ordinal);
        Assert.DoesNotContain("Before it was turned on.", letter.Text, StringComparison.Ordinal);

        // Another answer the same day waits; a day later it comes alone.
        Assert.Null(await Refused(owner, owners.Make(Says("And the arc."), Now)));
        Assert.Equal(0, await digests.SendDue(default));
        await ADayLater();
        Assert.Equal(1, await digests.SendDue(default));
        while (letters.Arrived.Count < 2)
            await Task.Delay(20);
        letter = letters.Arrived.Last();
        Assert.Contains("And the arc.", letter.Text, StringComparison.Ordinal);
        Assert.DoesNotContain("It is the pallet.", letter.Text, StringComparison.Ordinal);
        await ADayLater();
        Assert.Equal(0, await digests.SendDue(default));

        // Who turned it off gets none; and what lies behind a lock is no letter's.
        Assert.Null(await Refused(owner, owners.Make(Says("Too late."), Now)));
        (await writer.Http.PutAsJsonAsync("/api/people/me/digest", new { on = false })).EnsureSuccessStatusCode();
        await ADayLater();
        Assert.Equal(0, await digests.SendDue(default));
        (await writer.Http.PutAsJsonAsync("/api/people/me/digest", new { on = true })).EnsureSuccessStatusCode();
        Assert.Null(await Refused(owner, owners.Make(Says("Behind the lock."), Now)));
        (
            await owner.Http.PutAsJsonAsync($"/api/spaces/{group.Space}/locks/{notebook}", new { passphrase = "lantern oil", minutes = 15 })
        ).EnsureSuccessStatusCode();
        await ADayLater();
        Assert.Equal(0, await digests.SendDue(default));
    }

    [Fact]
    public async Task What_was_said_came_when_it_came_and_is_gone_when_its_page_was_erased()
    {
        Assert.Null(await Refused(owner, owners.Make(Says("It is the pallet."), Now)));
        var told = Assert.Single(await Told(writer)).GetProperty("received").GetInt64();
        Assert.InRange(told, Now - 60_000, Now + 60_000);
        // Whatever makes the list anew, it came when it came.
        await Task.Delay(50);
        Assert.Null(await Refused(owner, owners.Make(Says("And the arc."), Now)));
        Assert.Equal(told, (await Told(writer)).Min(one => one.GetProperty("received").GetInt64()));

        await owner.Send(
            group.Space,
            DocumentKind.Notebook,
            notebook,
            owners.Make(new Change.PropertySet(page, Property.Erased, "1"), Now)
        );
        Assert.Equal(2L, await Count());
        var removed = await host.Services.GetRequiredService<BinStore>().RemoveData(DateTimeOffset.UtcNow.AddDays(60), default);
        Assert.Contains(DocumentRef.Page(group.Space, page), removed);
        Assert.Equal(0L, await Count());
    }

    private async Task<long> Count()
    {
        await using var connection = new NpgsqlConnection(host.Services.GetRequiredService<Settings>().Database);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand("SELECT count(*) FROM page_answers WHERE page_id = @page", connection);
        command.Parameters.AddWithValue("page", page);
        return (long)(await command.ExecuteScalarAsync())!;
    }

    private async Task ADayLater()
    {
        await using var connection = new NpgsqlConnection(host.Services.GetRequiredService<Settings>().Database);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand("UPDATE people SET digest_at = digest_at - interval '25 hours'", connection);
        await command.ExecuteNonQueryAsync();
    }

    private async Task<List<JsonElement>> FollowUps(Caller caller) => [.. (await Json(caller, "/api/follow-ups")).EnumerateArray()];

    private async Task<List<JsonElement>> Told(Caller caller) =>
        [.. (await Json(caller, "/api/desk")).GetProperty("told").EnumerateArray()];

    private static async Task<JsonElement> Json(Caller caller, string path) =>
        JsonDocument.Parse(await caller.Http.GetStringAsync(path)).RootElement;

    private async Task<string?> Refused(Caller caller, Operation operation) =>
        Assert.Single(await Caller.Results(await caller.Send(group.Space, DocumentKind.Page, page, operation))).Code;

    private static Change.AnswerAdded Says(string text, params Guid[] to) => new(Mark, text, to, ReadOnlyMemory<byte>.Empty);

    private static Change.StrokeAdded Stroke() =>
        new(new Pen(PenKind.Ball, 40, 0x22302EFF), Now, new StrokeSamples([0, 900], [0, 300], [500, 500], [0, 9]));
}
