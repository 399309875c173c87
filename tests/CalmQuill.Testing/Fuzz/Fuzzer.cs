using System.Diagnostics;
using System.Net;
using System.Net.Http.Headers;
using System.Text;
using CalmQuill.Core.Operations;
using CalmQuill.Store.People;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.AspNetCore.Routing;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Testing.Fuzz;

/// <summary>What came of it.</summary>
/// <param name="Tried">How many requests and hub calls.</param>
/// <param name="Refused">How many were refused with a reason.</param>
/// <param name="ByStatus">How many HTTP answers there were of each status.</param>
/// <param name="Faults">Those that ended in a fault of the server's, with what was sent.</param>
public sealed record Fuzzed(int Tried, int Refused, IReadOnlyDictionary<int, int> ByStatus, IReadOnlyList<string> Faults);

/// <summary>
/// Asks everything the server can be asked, over HTTP and the hub, with values it should not be asked with: the grammar is the server's own table of endpoints, with the types of
/// their forms; the values are <see cref="Nasties"/>; the order is chance. The same seed asks the same, as far as the server answers in the same order.
/// </summary>
/// <param name="host">The server.</param>
/// <param name="people">Who asks, by turns; among them nobody.</param>
/// <param name="home">A space in which some of them may do something.</param>
/// <param name="ids">Ids that mean something: spaces, notebooks, pages, people.</param>
/// <param name="seed">Begins chance.</param>
public sealed class Fuzzer(QuillHost host, IReadOnlyList<Person?> people, Guid home, IReadOnlyList<Guid> ids, int seed)
{
    private static readonly string[] QueryNames =
    [
        "after",
        "notebooks",
        "paper",
        "area",
        "since",
        "all",
        "ids",
        "notebook",
        "page",
        "limit",
    ];
    private readonly Random random = new(seed);
    private readonly Nasties nasties = new(new Random(seed + 1), ids);
    private readonly List<string> faults = [];
    private readonly SortedDictionary<int, int> byStatus = [];
    private readonly Dictionary<int, Caller> callers = [];
    private int tried,
        refused;

    public async Task<Fuzzed> Run(TimeSpan time)
    {
        var endpoints = host
            .Services.GetRequiredService<EndpointDataSource>()
            .Endpoints.OfType<RouteEndpoint>()
            .Where(endpoint => endpoint.RoutePattern.RawText!.TrimStart('/').StartsWith("api", StringComparison.Ordinal))
            .ToList();
        for (var clock = Stopwatch.StartNew(); clock.Elapsed < time && faults.Count < 20; )
        {
            if (random.Next(12) == 0)
                await CallHub();
            else
                await Ask(endpoints[random.Next(endpoints.Count)]);
        }

        foreach (var caller in callers.Values)
            caller.Dispose();
        return new Fuzzed(tried, refused, byStatus, faults);
    }

    private async Task Ask(RouteEndpoint endpoint)
    {
        var who = random.Next(people.Count);
        var method = endpoint.Metadata.GetMetadata<HttpMethodMetadata>()!.HttpMethods[0];
        var (address, sent) = (AddressOf(endpoint), method == "GET" ? null : BodyOf(endpoint));
        tried++;
        try
        {
            using var answer = await SendOn(who, method, address, sent);
            byStatus[(int)answer.StatusCode] = byStatus.GetValueOrDefault((int)answer.StatusCode) + 1;
            if (answer.StatusCode == HttpStatusCode.Unauthorized && people[who] is not null)
                Forget(who);
            if ((int)answer.StatusCode is >= 400 and < 500)
                refused++;
            if ((int)answer.StatusCode is 500 or 502 or 503)
                faults.Add($"{(int)answer.StatusCode} {method} {address} {Shown(sent?.Bytes)}: {await answer.Content.ReadAsStringAsync()}");
        }
        catch (HttpRequestException closed) when (closed.InnerException is IOException && sent is { Bytes.Length: > 60_000 })
        {
            // Too large a body is refused before it is read.
            refused++;
        }
        catch (HttpRequestException problem)
        {
            faults.Add($"{method} {address} {Shown(sent?.Bytes)}: {problem.Message}");
        }
    }

    /// <summary>
    /// Sends a request. A connection that a request before it ended, by having a body too large to be read, may end under this one; it is sent once more then, on a connection of its own. What ends both is a fault.
    /// </summary>
    private async Task<HttpResponseMessage> SendOn(int who, string method, string address, (byte[] Bytes, string Type)? sent)
    {
        for (var isFirst = true; ; isFirst = false)
        {
            using var request = new HttpRequestMessage(new HttpMethod(method), address);
            if (sent is { } body)
            {
                request.Content = new ByteArrayContent(body.Bytes);
                request.Content.Headers.ContentType = MediaTypeHeaderValue.Parse(body.Type);
            }

            try
            {
                return await (await CallerOf(who)).Http.SendAsync(request);
            }
            catch (HttpRequestException) when (isFirst && sent is not { Bytes.Length: > 60_000 })
            {
                Forget(who);
            }
        }
    }

    private string AddressOf(RouteEndpoint endpoint)
    {
        var path = new StringBuilder();
        foreach (var segment in endpoint.RoutePattern.PathSegments)
        {
            path.Append('/');
            foreach (var part in segment.Parts)
            {
                path.Append(
                    part switch
                    {
                        Microsoft.AspNetCore.Routing.Patterns.RoutePatternLiteralPart literal => literal.Content,
                        Microsoft.AspNetCore.Routing.Patterns.RoutePatternParameterPart { Name: "kind" } => random.Next(8) == 0
                            ? Uri.EscapeDataString(Printable(nasties.Text()))
                            : new[] { "page", "notebook", "library" }[random.Next(3)],
                        // Often a place where those who ask may do something, so that more than the door is tried.
                        Microsoft.AspNetCore.Routing.Patterns.RoutePatternParameterPart { Name: "space" } when random.Next(2) == 0 =>
                            home.ToString(),
                        Microsoft.AspNetCore.Routing.Patterns.RoutePatternParameterPart => random.Next(20) == 0
                            ? Uri.EscapeDataString(Printable(nasties.Text()))
                            : nasties.Id().ToString(),
                        Microsoft.AspNetCore.Routing.Patterns.RoutePatternSeparatorPart separator => separator.Content,
                        _ => "",
                    }
                );
            }
        }

        for (var i = random.Next(4); i > 0; i--)
            path.Append(path.ToString().Contains('?', StringComparison.Ordinal) ? '&' : '?')
                .Append(QueryNames[random.Next(QueryNames.Length)])
                .Append('=')
                .Append(Uri.EscapeDataString(Printable(nasties.Text())));
        return path.ToString();
    }

    /// <summary>Half a pair of surrogates cannot be written in an address at all; and addresses end somewhere.</summary>
    private static string Printable(string text) =>
        string.Concat((text.Length > 1_500 ? text[..1_500] : text).Where(c => !char.IsSurrogate(c)));

    private (byte[] Bytes, string Type)? BodyOf(RouteEndpoint endpoint)
    {
        if (endpoint.RoutePattern.RawText!.Contains("operations", StringComparison.Ordinal))
            return (Frames(), "application/octet-stream");
        if (random.Next(15) == 0)
            return (
                nasties.Bytes(random.Next(10) == 0 ? 200_000 : 2_000),
                random.Next(2) == 0 ? "application/json" : "application/octet-stream"
            );
        if (endpoint.Metadata.GetMetadata<IAcceptsMetadata>()?.RequestType is not { } type)
            return (Picture(), "application/octet-stream");
        var form = nasties.Form(type)?.ToJsonString() ?? "null";
        if (random.Next(15) == 0)
            form = form[..random.Next(form.Length)];
        return (Encoding.UTF8.GetBytes(form), "application/json");
    }

    private byte[] Picture()
    {
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
        for (var i = random.Next(4); i > 0; i--)
            picture[random.Next(picture.Length)] = (byte)random.Next(256);
        return picture[..random.Next(1, picture.Length + 1)];
    }

    /// <summary>Framed operations: whole ones with nasty values, and ones in which bytes were changed.</summary>
    private byte[] Frames()
    {
        using var body = new MemoryStream();
        var author = people[random.Next(people.Count)]?.Id ?? Guid.NewGuid();
        for (var i = random.Next(1, 6); i > 0; i--)
        {
            byte[] frame;
            try
            {
                var time =
                    random.Next(3) == 0 ? Math.Clamp(nasties.Number(), 0, (1L << 48) - 1) : DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
                frame = OperationCodec.Encode(new Replica((ulong)random.NextInt64(), author).Make(nasties.Change(), time));
            }
            catch (Exception unwritable) when (unwritable is ArgumentException or OverflowException or InvalidOperationException)
            {
                // What no program of ours could write.
                frame = nasties.Bytes(200);
            }

            if (random.Next(3) == 0 && frame.Length > 0)
            {
                for (var changed = random.Next(1, 4); changed > 0; changed--)
                    frame[random.Next(frame.Length)] = (byte)random.Next(256);
            }

            body.Write(BitConverter.GetBytes(random.Next(40) == 0 ? random.Next() : frame.Length));
            body.Write(frame);
        }

        return body.ToArray();
    }

    private async Task CallHub()
    {
        var who = random.Next(people.Count);
        if (people[who] is null)
            return;
        var caller = await CallerOf(who);
        await using var hub = caller.Live(host.Address);
        try
        {
            await hub.StartAsync();
        }
        catch (HttpRequestException refusedHere) when (refusedHere.StatusCode == HttpStatusCode.Unauthorized)
        {
            Forget(who);
            return;
        }

        for (var i = random.Next(1, 10); i > 0; i--)
        {
            var address =
                random.Next(4) == 0
                    ? nasties.Text()
                    : $"{nasties.Id()}/{(random.Next(3) == 0 ? "library" : random.Next(2) == 0 ? "page" : "notebook")}/{nasties.Id()}";
            (string Method, object?[] Arguments) = random.Next(6) switch
            {
                0 => ("Wet", new object?[] { address, nasties.Bytes(40_000) }),
                1 => ("Pen", [address, (int)Math.Clamp(nasties.Number(), int.MinValue, int.MaxValue), random.Next()]),
                2 => ("Leave", [address]),
                3 => (Printable(nasties.Text()), [nasties.Text(), nasties.Number()]),
                _ => ("Join", [address]),
            };
            tried++;
            try
            {
                await hub.InvokeCoreAsync(Method, typeof(object), Arguments);
            }
            catch (Exception problem) when (problem is not OutOfMemoryException)
            {
                // A refusal with a reason, or the end of the connection where the message itself was none; the server is asked afterwards whether it is well.
                refused++;
                if (hub.State != HubConnectionState.Connected)
                    return;
            }
        }
    }

    private async Task<Caller> CallerOf(int who)
    {
        if (callers.TryGetValue(who, out var known))
            return known;
        var caller = people[who] is { } person ? await host.SignIn(person) : await Caller.SignedOut(host.Address);
        return callers[who] = caller;
    }

    private void Forget(int who)
    {
        if (callers.Remove(who, out var caller))
            caller.Dispose();
    }

    private static string Shown(byte[]? body) => body is null ? "" : Encoding.UTF8.GetString(body[..Math.Min(body.Length, 600)]);
}
