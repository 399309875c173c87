using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using CalmQuill.Testing;

namespace CalmQuill.Server.Tests;

/// <summary>Previews of addresses of the web: what is fetched for whom, and what is not.</summary>
public sealed class PreviewTests : IAsyncLifetime
{
    private static readonly byte[] Dot = Convert.FromBase64String(
        "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="
    );

    private readonly WebStand web = new();
    private readonly WebStand inside = new();
    private QuillHost host = null!;
    private Caller writer = null!;

    public async Task InitializeAsync()
    {
        host = await QuillHost.Start(with: settings => settings with { CalendarHosts = web.Host });
        writer = await host.SignIn((await host.MakeGroup()).Writer);
    }

    public async Task DisposeAsync()
    {
        web.Dispose();
        inside.Dispose();
        writer.Dispose();
        await host.DisposeAsync();
    }

    [Fact]
    public async Task What_a_page_says_of_itself_comes_with_its_picture()
    {
        web.Put(
            "/clocks",
            "text/html; charset=utf-8",
            """
            <!doctype html><html><head><title>Not this</title>
            <meta property="og:title" content="The dead beat &amp; the &lt;verge&gt;"><meta property="og:site_name" content="Clock room">
            <meta name="description" content="How pallets
               are cut."><meta property="og:image" content="/pallets.png"></head><body><title>Nor this</title></body></html>
            """
        );
        web.Put("/pallets.png", "image/png", Dot);
        var preview = await Ask(web.At("/clocks"));
        Assert.Equal("The dead beat & the <verge>", preview.GetProperty("title").GetString());
        Assert.Equal("Clock room", preview.GetProperty("site").GetString());
        Assert.Equal("How pallets are cut.", preview.GetProperty("words").GetString());
        Assert.Equal(Dot, preview.GetProperty("picture").GetProperty("bytes").GetBytesFromBase64());
        // It is fetched when somebody asks, and never by itself.
        Assert.Equal(["/clocks", "/pallets.png"], web.Asked);
    }

    [Fact]
    public async Task A_page_that_says_little_is_shown_by_its_title_or_its_host_and_a_picture_by_its_name()
    {
        web.Put("/plain", "text/html", "<title> Plain </title><p>words");
        web.Put("/bare", "text/html", "words");
        web.Put("/photos/pallets.png", "image/png", Dot);
        var plain = await Ask(web.At("/plain"));
        Assert.Equal(("Plain", "", "127.0.0.1"), Said(plain));
        Assert.Equal(JsonValueKind.Null, plain.GetProperty("picture").ValueKind);
        Assert.Equal(("127.0.0.1", "", "127.0.0.1"), Said(await Ask(web.At("/bare"))));
        Assert.Equal("pallets.png", (await Ask(web.At("/photos/pallets.png"))).GetProperty("title").GetString());
    }

    [Fact]
    public async Task Nobody_reaches_the_servers_own_network_through_it()
    {
        inside.Put("/secret", "text/html", "<title>Secret</title>");
        inside.Put("/secret.png", "image/png", Dot);
        Assert.Contains("own network", await Refused(inside.At("/secret")), StringComparison.Ordinal);
        // Nor by the way of a page that is open to it.
        web.Lead("/there", inside.At("/secret"));
        Assert.Contains("own network", await Refused(web.At("/there")), StringComparison.Ordinal);
        web.Put("/pictured", "text/html", $"<title>Open</title><meta property='og:image' content='{inside.At("/secret.png")}'>");
        var preview = await Ask(web.At("/pictured"));
        Assert.Equal(JsonValueKind.Null, preview.GetProperty("picture").ValueKind);
        Assert.Empty(inside.Asked);
        Assert.Contains("own network", await Refused("http://localhost:1/"), StringComparison.Ordinal);
        Assert.Contains("own network", await Refused("http://[::1]:1/"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_is_no_page_or_too_large_is_refused_in_words()
    {
        web.Put("/notes.txt", "text/plain", "words");
        web.Put("/drawing.svg", "image/svg+xml", "<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>");
        web.Put("/huge.png", "image/png", new byte[3 * 1024 * 1024 + 1]);
        Assert.Contains("no page of the web", await Refused(web.At("/notes.txt")), StringComparison.Ordinal);
        Assert.Contains("no page of the web", await Refused(web.At("/drawing.svg")), StringComparison.Ordinal);
        Assert.Contains("larger than 3 MB", await Refused(web.At("/huge.png")), StringComparison.Ordinal);
        Assert.Contains("answered 404", await Refused(web.At("/gone")), StringComparison.Ordinal);
        foreach (var address in new[] { "", "example.org", "file:///etc/passwd", "ftp://example.org/", "javascript:alert(1)" })
            Assert.Contains("begins with https://", await Refused(address), StringComparison.Ordinal);
        web.Lead("/round", web.At("/round"));
        Assert.Contains("answered 302", await Refused(web.At("/round")), StringComparison.Ordinal);
        // A page without end is read as far as it can say something of itself.
        web.Put("/endless", "text/html", "<title>Endless</title>" + new string('a', 2_000_000));
        Assert.Equal("Endless", (await Ask(web.At("/endless"))).GetProperty("title").GetString());
    }

    [Fact]
    public async Task Only_who_is_signed_in_asks()
    {
        using var nobody = new HttpClient { BaseAddress = writer.Http.BaseAddress };
        var answer = await nobody.PostAsJsonAsync("/api/previews", new { address = web.At("/clocks") });
        Assert.False(answer.IsSuccessStatusCode);
        Assert.Empty(web.Asked);
    }

    private static (string?, string?, string?) Said(JsonElement preview) =>
        (preview.GetProperty("title").GetString(), preview.GetProperty("words").GetString(), preview.GetProperty("site").GetString());

    private async Task<JsonElement> Ask(string address)
    {
        using var answer = await writer.Http.PostAsJsonAsync("/api/previews", new { address });
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private async Task<string> Refused(string address)
    {
        using var answer = await writer.Http.PostAsJsonAsync("/api/previews", new { address });
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        return await answer.Content.ReadAsStringAsync();
    }
}
