using System.Net;
using System.Net.Http.Json;
using CalmQuill.Testing;

namespace CalmQuill.Server.Tests;

/// <summary>Registering, signing in and out, and changing what an account says.</summary>
public sealed class PeopleTests : IAsyncLifetime
{
    private QuillHost host = null!;

    public async Task InitializeAsync() =>
        host = await QuillHost.Start(with: settings => settings with { Limits = QuillHost.Roomy with { SignInsAMinute = 5 } });

    public async Task DisposeAsync() => await host.DisposeAsync();

    [Fact]
    public async Task A_newcomer_registers_with_a_personal_space_and_signs_in_again()
    {
        using var inviting = await host.SignIn(await host.Person(Guid.Empty, Core.Access.Role.None));
        using var caller = await Caller.SignedOut(host.Address);
        var form = new
        {
            name = "Nela Quist",
            email = "Nela@Test.example",
            password = "clockwork-9",
            invitation = await Invitation(inviting),
        };
        Assert.True((await caller.Http.PostAsJsonAsync("/api/people", form)).IsSuccessStatusCode);
        var session = await caller.Refresh();
        Assert.Equal("Nela Quist", session.GetProperty("person").GetProperty("name").GetString());
        Assert.Equal("owner", session.GetProperty("spaces").EnumerateArray().Single().GetProperty("role").GetString());
        Assert.Equal(HttpStatusCode.NoContent, (await caller.Http.DeleteAsync("/api/session")).StatusCode);
        Assert.False((await caller.Refresh()).TryGetProperty("person", out _));
        using var again = await Caller.SignIn(host.Address, "nela@test.example", "clockwork-9");
        // An invitation is good once; an address that is taken uses none up.
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await again.Http.PostAsJsonAsync("/api/people", form with { email = "other@test.example" })).StatusCode
        );
        var second = await Invitation(inviting);
        Assert.Equal(
            HttpStatusCode.Conflict,
            (await again.Http.PostAsJsonAsync("/api/people", form with { invitation = second })).StatusCode
        );
        Assert.True(
            (
                await again.Http.PostAsJsonAsync("/api/people", form with { email = "other@test.example", invitation = second })
            ).IsSuccessStatusCode
        );
    }

    [Theory]
    [InlineData("", "a@test.example", "long-enough")]
    [InlineData("Name", "no-address", "long-enough")]
    [InlineData("Name", "a@b@c", "long-enough")]
    [InlineData("Name", "a@test.example", "short")]
    [InlineData(null, null, null)]
    public async Task Bad_forms_are_refused_with_a_sentence(string? name, string? email, string? password)
    {
        using var caller = await Caller.SignedOut(host.Address);
        using var answer = await caller.Http.PostAsJsonAsync(
            "/api/people",
            new
            {
                name,
                email,
                password,
            }
        );
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Equal("application/problem+json", answer.Content.Headers.ContentType!.MediaType);
        Assert.Contains(".\"", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        using var broken = await caller.Http.PostAsync("/api/people", new StringContent("{ not json", null, "application/json"));
        Assert.Equal(HttpStatusCode.BadRequest, broken.StatusCode);
    }

    [Fact]
    public async Task Changing_the_password_ends_other_sign_ins_but_not_this_one()
    {
        var person = await host.Person(Guid.Empty, Core.Access.Role.None);
        using var here = await host.SignIn(person);
        using var elsewhere = await host.SignIn(person);
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (
                await here.Http.PutAsJsonAsync(
                    "/api/people/me/password",
                    new Dictionary<string, string> { ["old"] = "wrong", ["new"] = "another-password" }
                )
            ).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await here.Http.PutAsJsonAsync(
                    "/api/people/me/password",
                    new Dictionary<string, string> { ["old"] = QuillHost.Password, ["new"] = "another-password" }
                )
            ).StatusCode
        );
        Assert.True((await here.Refresh()).TryGetProperty("person", out _));
        Assert.False((await elsewhere.Refresh()).TryGetProperty("person", out _));
    }

    [Fact]
    public async Task A_new_address_needs_the_password_and_must_be_free()
    {
        var person = await host.Person(Guid.Empty, Core.Access.Role.None);
        var other = await host.Person(Guid.Empty, Core.Access.Role.None);
        using var caller = await host.SignIn(person);
        Assert.Equal(
            HttpStatusCode.BadRequest,
            (await caller.Http.PutAsJsonAsync("/api/people/me", new { email = "new@test.example" })).StatusCode
        );
        // It is said whether none was given or a wrong one.
        foreach (var (password, words) in new[] { ("", "give your password as well"), ("another-password", "is not your password") })
        {
            var answer = await caller.Http.PutAsJsonAsync("/api/people/me", new { email = "new@test.example", password });
            Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
            Assert.Contains(words, await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        }

        Assert.Equal(
            HttpStatusCode.Conflict,
            (await caller.Http.PutAsJsonAsync("/api/people/me", new { email = other.Email, password = QuillHost.Password })).StatusCode
        );
        Assert.Equal(
            HttpStatusCode.NoContent,
            (
                await caller.Http.PutAsJsonAsync("/api/people/me", new { email = "new@test.example", password = QuillHost.Password })
            ).StatusCode
        );
        using var again = await Caller.SignIn(host.Address, "new@test.example", QuillHost.Password);
    }

    [Fact]
    public async Task Guessing_is_slowed_down()
    {
        var person = await host.Person(Guid.Empty, Core.Access.Role.None);
        using var caller = await Caller.SignedOut(host.Address);
        var answers = new List<HttpStatusCode>();
        // Twice as many as a minute allows, and one: the minute may turn in between.
        for (var i = 0; i < 11; i++)
            answers.Add(
                (await caller.Http.PostAsJsonAsync("/api/session", new { email = person.Email, password = "guess" + i })).StatusCode
            );
        Assert.All(answers[..5], answer => Assert.Equal(HttpStatusCode.Unauthorized, answer));
        Assert.Contains(HttpStatusCode.TooManyRequests, answers);
    }

    [Fact]
    public async Task Every_answer_carries_the_content_policy()
    {
        using var caller = await Caller.SignedOut(host.Address);
        foreach (var path in new[] { "/", "/library", "/api/session", "/api/nothing" })
        {
            using var answer = await caller.Http.GetAsync(path);
            Assert.Contains("default-src 'none'", answer.Headers.GetValues("Content-Security-Policy").Single(), StringComparison.Ordinal);
        }
    }

    private static async Task<string> Invitation(Caller caller)
    {
        var answer = await (
            await caller.Http.PostAsync("/api/invitations", null)
        ).Content.ReadFromJsonAsync<System.Text.Json.JsonElement>();
        var link = answer.GetProperty("link").GetString()!;
        return link[(link.IndexOf("#invitation=", StringComparison.Ordinal) + 12)..];
    }
}
