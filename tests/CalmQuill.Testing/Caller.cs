using System.Buffers.Binary;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Operations;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Testing;

/// <summary>A device that talks to the server as the front end does: cookies, antiforgery token, framed operations.</summary>
public sealed class Caller : IDisposable
{
    private Caller(Uri address)
    {
        Cookies = new CookieContainer();
        Http = new HttpClient(new HttpClientHandler { CookieContainer = Cookies }) { BaseAddress = address };
    }

    public HttpClient Http { get; }

    public CookieContainer Cookies { get; }

    /// <summary>An owner closes a group's past to its readers, or opens it.</summary>
    public async Task ClosePast(Guid space, bool isClosed = true)
    {
        using var set = await Http.PutAsJsonAsync(
            $"/api/spaces/{space}/group",
            new
            {
                name = "Clock menders",
                colour = "gold",
                isPastClosed = isClosed,
            }
        );
        set.EnsureSuccessStatusCode();
    }

    public static async Task<Caller> SignedOut(Uri address)
    {
        var caller = new Caller(address);
        await caller.Refresh();
        return caller;
    }

    public static async Task<Caller> SignIn(Uri address, string email, string password)
    {
        var caller = await SignedOut(address);
        using var answer = await caller.Http.PostAsJsonAsync("/api/session", new { email, password });
        answer.EnsureSuccessStatusCode();
        await caller.Refresh();
        return caller;
    }

    /// <summary>A live connection to a server, not begun yet, as this device.</summary>
    public HubConnection Live(Uri server) =>
        new HubConnectionBuilder().WithUrl(new Uri(server, "/live"), options => options.Cookies = Cookies).AddMessagePackProtocol().Build();

    /// <summary>Asks who is signed in, and takes the antiforgery token that fits.</summary>
    public async Task<JsonElement> Refresh()
    {
        var session = await Http.GetFromJsonAsync<JsonElement>("/api/session");
        Http.DefaultRequestHeaders.Remove("X-Quill-Antiforgery");
        Http.DefaultRequestHeaders.Add("X-Quill-Antiforgery", session.GetProperty("antiforgery").GetString());
        return session;
    }

    public static string PathOf(Guid space, DocumentKind kind, Guid id) =>
        $"/api/spaces/{space}/documents/{kind.ToString().ToLowerInvariant()}/{id}/operations";

    /// <summary>Sends one piece of a file.</summary>
    public Task<HttpResponseMessage> SendPiece(Guid space, Guid asset, long at, long of, byte[] piece) =>
        Http.PutAsync($"/api/spaces/{space}/assets/{asset}/pieces/{at}?of={of}", new ByteArrayContent(piece));

    /// <summary>Sends a file in one piece, and gives its id.</summary>
    public async Task<Guid> SendAsset(Guid space, byte[] file)
    {
        var asset = AssetId.Of(file);
        using var answer = await SendPiece(space, asset, 0, file.Length, file);
        answer.EnsureSuccessStatusCode();
        return asset;
    }

    public Task<HttpResponseMessage> Send(Guid space, DocumentKind kind, Guid id, params IEnumerable<Operation> operations) =>
        SendFrames(space, kind, id, operations.Select(operation => OperationCodec.Encode(operation)));

    /// <summary>Sends what another browser of the person's saved as a file.</summary>
    public Task<HttpResponseMessage> PutBack(Guid space, DocumentKind kind, Guid id, params IEnumerable<Operation> operations) =>
        SendFrames(space, kind, id, operations.Select(operation => OperationCodec.Encode(operation)), "?putBack=true");

    public Task<HttpResponseMessage> SendFrames(Guid space, DocumentKind kind, Guid id, IEnumerable<byte[]> frames, string query = "")
    {
        using var body = new MemoryStream();
        Span<byte> length = stackalloc byte[4];
        foreach (var frame in frames)
        {
            BinaryPrimitives.WriteInt32LittleEndian(length, frame.Length);
            body.Write(length);
            body.Write(frame);
        }

        return Http.PostAsync(PathOf(space, kind, id) + query, new ByteArrayContent(body.ToArray()));
    }

    public async Task<List<Operation>> After(Guid space, DocumentKind kind, Guid id, long after = 0) =>
        OperationCodec.Decode(await Http.GetByteArrayAsync($"{PathOf(space, kind, id)}?after={after}"));

    /// <summary>The results of an append: its numbers, and for what was refused the code.</summary>
    public static async Task<List<(long Sequence, string? Code)>> Results(HttpResponseMessage answer)
    {
        answer.EnsureSuccessStatusCode();
        var json = await answer.Content.ReadFromJsonAsync<JsonElement>();
        return
        [
            .. json.GetProperty("results")
                .EnumerateArray()
                .Select(result =>
                    (
                        result.GetProperty("sequence").GetInt64(),
                        result.GetProperty("refused") is { ValueKind: JsonValueKind.Object } refused
                            ? refused.GetProperty("code").GetString()
                            : null
                    )
                ),
        ];
    }

    public void Dispose() => Http.Dispose();
}
