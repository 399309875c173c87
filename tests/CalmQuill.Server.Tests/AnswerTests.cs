using System.Net;
using System.Text.Json;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Spots;
using CalmQuill.Testing;

namespace CalmQuill.Server.Tests;

/// <summary>What is said to marks reaches those it is meant for, from readers too, and nobody else.</summary>
public sealed class AnswerTests : IAsyncLifetime
{
    private static readonly Guid Mark = Guid.NewGuid();
    private readonly Guid notebook = Guid.NewGuid(),
        page = Guid.NewGuid();
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
        host = await QuillHost.Start();
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
