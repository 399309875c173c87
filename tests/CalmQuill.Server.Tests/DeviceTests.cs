using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
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

    private static async Task<HttpResponseMessage> Ask(Caller caller, HttpMethod method, string path, string person)
    {
        using var request = new HttpRequestMessage(method, path);
        request.Headers.Add("X-Quill-Person", person);
        if (method != HttpMethod.Get)
            request.Content = JsonContent.Create(new { });
        return await caller.Http.SendAsync(request);
    }
}
