using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Faults;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Server.Tests;

/// <summary>What a device says of itself: for whom a tab is open, what went wrong in it, and whether a password is the person's.</summary>
public sealed class DeviceTests : IAsyncLifetime
{
    private QuillHost host = null!;
    private QuillHost.Group group = null!;

    public async Task InitializeAsync()
    {
        host = await QuillHost.Start();
        group = await host.MakeGroup();
    }

    public async Task DisposeAsync() => await host.DisposeAsync();

    [Fact]
    public async Task A_tab_that_is_open_for_somebody_else_is_answered_nothing_and_nothing_is_taken_from_it()
    {
        using var caller = await host.SignIn(group.Writer);
        using var own = await Ask(caller, HttpMethod.Get, $"/api/spaces/{group.Space}/members", group.Writer.Id.ToString());
        Assert.Equal(HttpStatusCode.OK, own.StatusCode);
        foreach (var said in new[] { group.Owner.Id.ToString(), Guid.NewGuid().ToString(), "nobody" })
        {
            foreach (
                var (method, path) in new[]
                {
                    (HttpMethod.Get, $"/api/spaces/{group.Space}/members"),
                    (HttpMethod.Get, "/api/follow-ups"),
                    (HttpMethod.Post, $"/api/spaces/{group.Space}/documents/library/{group.Space}/operations"),
                    (HttpMethod.Put, "/api/people/me"),
                }
            )
            {
                using var other = await Ask(caller, method, path, said);
                Assert.Equal(HttpStatusCode.Unauthorized, other.StatusCode);
                Assert.Equal("another-person", (await other.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("code").GetString());
            }
        }

        // The live connection says it in its address.
        using var live = await caller.Http.GetAsync($"/live?person={group.Owner.Id}");
        Assert.Equal(HttpStatusCode.Unauthorized, live.StatusCode);
        // Who is signed in is asked before that is known.
        using var session = await caller.Http.GetAsync("/api/session");
        Assert.Equal(HttpStatusCode.OK, session.StatusCode);
    }

    [Fact]
    public async Task Faults_of_browsers_are_kept_with_what_was_at_fault_and_not_without_end()
    {
        using var caller = await host.SignIn(group.Writer);
        var bytes = new byte[] { 1, 0, 255 };
        using var taken = await caller.Http.PostAsJsonAsync(
            "/api/faults",
            new
            {
                what = "A screen broke.\r\nforged line",
                words = new string('x', 9_000),
                document = "space/page/id",
                build = "abc",
                bytes = Convert.ToBase64String(bytes),
            }
        );
        Assert.Equal(HttpStatusCode.NoContent, taken.StatusCode);
        var faults = host.Services.GetRequiredService<FaultStore>();
        var (at, person, fault) = Assert.Single(await faults.Latest(10, default));
        Assert.Equal(group.Writer.Email, person);
        Assert.Equal(bytes, fault.Bytes);
        Assert.Equal(4_000, fault.Words.Length);
        Assert.DoesNotContain('\r', fault.What);
        Assert.InRange(DateTimeOffset.UtcNow - at, TimeSpan.FromMinutes(-1), TimeSpan.FromMinutes(1));

        foreach (var nonsense in new[] { "%%%", Convert.ToBase64String(new byte[70_000]) })
        {
            using var refused = await caller.Http.PostAsJsonAsync("/api/faults", new { what = "x", bytes = nonsense });
            Assert.Equal(HttpStatusCode.BadRequest, refused.StatusCode);
        }

        for (var i = 1; i < FaultStore.MostADay; i++)
            Assert.True(await faults.Add(group.Writer.Id, fault, default));
        using var tooMany = await caller.Http.PostAsJsonAsync("/api/faults", new { what = "again" });
        Assert.Equal(HttpStatusCode.TooManyRequests, tooMany.StatusCode);
        // Somebody else's are taken all the same.
        using var another = await host.SignIn(group.Reader);
        using var others = await another.Http.PostAsJsonAsync("/api/faults", new { what = "mine" });
        Assert.Equal(HttpStatusCode.NoContent, others.StatusCode);
    }

    [Fact]
    public async Task Whether_a_password_is_the_persons_is_said_to_that_person_alone()
    {
        using var caller = await host.SignIn(group.Writer);
        using var right = await caller.Http.PostAsJsonAsync("/api/people/me/password/check", new { old = QuillHost.Password });
        Assert.Equal(HttpStatusCode.NoContent, right.StatusCode);
        foreach (var wrong in new[] { "", "another-password", null })
        {
            using var answer = await caller.Http.PostAsJsonAsync("/api/people/me/password/check", new { old = wrong });
            Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        }
    }

    [Theory]
    [InlineData(true, true)]
    [InlineData(true, false)]
    [InlineData(false, true)]
    [InlineData(false, false)]
    public async Task What_one_browser_signed_and_another_puts_back_is_there_once_whichever_sends_it_first(
        bool hasWrittenBefore,
        bool isPutBackFirst
    )
    {
        using var laptop = await host.SignIn(group.Writer);
        using var tablet = await host.SignIn(group.Writer);
        var (page, replica) = (Guid.NewGuid(), new Replica(unchecked((ulong)Random.Shared.NextInt64()), group.Writer.Id));
        async Task<List<(long Sequence, string? Code)>> Own(params Operation[] operations) =>
            await Caller.Results(await laptop.Send(group.Space, DocumentKind.Page, page, operations));
        async Task<List<(long Sequence, string? Code)>> PutBack(Caller caller, params Operation[] operations) =>
            await Caller.Results(await caller.PutBack(group.Space, DocumentKind.Page, page, operations));
        var before = hasWrittenBefore ? 1 : 0;
        if (hasWrittenBefore)
            Assert.Equal([(1L, null)], await Own(Stroke(replica)));

        Operation[] waiting = [Stroke(replica), Stroke(replica)];
        (long, string?)[] numbers = [(before + 1, null), (before + 2, null)];
        Assert.Equal(numbers, isPutBackFirst ? await PutBack(tablet, waiting) : await Own(waiting));
        Assert.Equal(numbers, isPutBackFirst ? await Own(waiting) : await PutBack(tablet, waiting));
        // The first goes on signing with its number, and the file may be put back again.
        Assert.Equal([(before + 3, null)], await Own(Stroke(replica)));
        Assert.Equal(numbers, await PutBack(tablet, waiting));
        Assert.Equal(before + 3, (await laptop.After(group.Space, DocumentKind.Page, page)).Count);
    }

    [Fact]
    public async Task Putting_back_gives_nobody_anothers_number_nor_another_content_to_what_stands()
    {
        using var writer = await host.SignIn(group.Writer);
        using var tablet = await host.SignIn(group.Writer);
        using var owner = await host.SignIn(group.Owner);
        using var reader = await host.SignIn(group.Reader);
        var (page, number) = (Guid.NewGuid(), unchecked((ulong)Random.Shared.NextInt64()));
        var replica = new Replica(number, group.Writer.Id);
        var first = Stroke(replica);
        await Caller.Results(await writer.Send(group.Space, DocumentKind.Page, page, first));
        // Another member, under the id that stands and under the next one.
        var stolen = new Replica(number, group.Owner.Id);
        Operation[] theirs = [Stroke(stolen), Stroke(stolen)];
        Assert.Equal(
            ["replica-taken", "replica-taken"],
            (await Caller.Results(await owner.PutBack(group.Space, DocumentKind.Page, page, theirs))).Select(result => result.Code)
        );
        // The person themselves, with other content under an id that stands.
        var another = Stroke(new Replica(number, group.Writer.Id), thickness: 90);
        Assert.Equal(first.Id, another.Id);
        Assert.Equal([(0L, "id-used")], await Caller.Results(await tablet.PutBack(group.Space, DocumentKind.Page, page, another)));
        // Without saying that it is put back, another browser may bring what is stored, and sign nothing new so.
        Assert.Equal(
            [(1L, null), (0L, "replica-taken")],
            await Caller.Results(await tablet.Send(group.Space, DocumentKind.Page, page, first, Stroke(replica)))
        );
        // Who may not write may not put back.
        using var refused = await reader.PutBack(group.Space, DocumentKind.Page, page, Stroke(new Replica(number + 1, group.Reader.Id)));
        Assert.Equal([(0L, Refusal.NotAllowedCode)], await Caller.Results(refused));
        Assert.Equal([first.Id], (await owner.After(group.Space, DocumentKind.Page, page)).Select(operation => operation.Id));
    }

    private static Operation Stroke(Replica replica, int thickness = 40) =>
        replica.Make(
            new Change.StrokeAdded(new Pen(PenKind.Ball, thickness, 0xFF), 0, Generate.Wave(12)),
            DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()
        );

    private static async Task<HttpResponseMessage> Ask(Caller caller, HttpMethod method, string path, string person)
    {
        using var request = new HttpRequestMessage(method, path);
        request.Headers.Add("X-Quill-Person", person);
        if (method != HttpMethod.Get)
            request.Content = JsonContent.Create(new { });
        return await caller.Http.SendAsync(request);
    }
}
