using System.Buffers.Binary;
using System.Globalization;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Spaces;
using CalmQuill.Testing;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Bench;

/// <summary>
/// Ten people write on one page at once: nine send wet ink as a device does, forty pieces a second each, and store a stroke a second; the tenth is a browser that shows it. How long it
/// takes from a piece, and from a stroke, being sent until the browser has painted it. All run on one machine, so their clocks are one.
/// </summary>
internal sealed class TogetherBench(QuillHost host, QuillHost.Group group)
{
    private const int Others = 9;
    private const int Strokes = 20;
    private const int PiecesOfAStroke = 40;
    private static readonly TimeSpan BetweenPieces = TimeSpan.FromMilliseconds(25);

    /// <param name="browser">Shows the page; somebody of the group is signed in.</param>
    /// <param name="page">The page, on which nobody has written.</param>
    public async Task<List<Row>> Run(Browser browser, Guid page)
    {
        // Each stroke has a colour of its own, so it is known whose ink is painted: wet by the canvas for others' ink, dry by the one of the page.
        browser.Script(
            """
            window.painted = { wet: {}, dry: {}, frames: [] };
            const count = (at) => (window.painted.frames.push(at), requestAnimationFrame(count));
            requestAnimationFrame(count);
            const fill = CanvasRenderingContext2D.prototype.fill;
            CanvasRenderingContext2D.prototype.fill = function (...of) {
              const into = this.canvas.dataset?.testid === 'others-ink' ? window.painted.wet : window.painted.dry;
              const colour = String(this.fillStyle);
              if (!(colour in into)) {
                into[colour] = 0;
                // Shown with the frame that is being made.
                requestAnimationFrame(() => (into[colour] = performance.timeOrigin + performance.now()));
              }
              return fill.apply(this, of);
            };
            """
        );
        var spaces = host.Services.GetRequiredService<SpaceStore>();
        var writers = new List<Robot>();
        for (var i = 0; i < Others; i++)
        {
            var other = await host.MakeGroup();
            await spaces.SetRole(group.Space, other.Writer.Id, Core.Access.Role.Writer, default);
            writers.Add(await Robot.Connect(host, group.Space, page, other.Writer, i));
        }

        // Their coming ends connections once, and devices join again.
        browser.Until(() => browser.Count("[data-testid=present] [role=img]") >= 1, "the page to be joined again");
        await Task.WhenAll(writers.Select(writer => writer.Write()));
        browser.WaitForStrokes(Others * Strokes);
        var (wet, dry) = (new List<double>(), new List<double>());
        foreach (var (colour, wetAt, dryAt) in writers.SelectMany(writer => writer.Sent))
        {
            foreach (var (kind, sent, into) in new[] { ("wet", wetAt, wet), ("dry", dryAt, dry) })
            {
                if (browser.Script("return window.painted[arguments[0]][arguments[1]] ?? 0", kind, colour) is { } at)
                {
                    var time = Convert.ToDouble(at, CultureInfo.InvariantCulture);
                    if (time > 0)
                        into.Add(time - sent);
                }
            }
        }

        // How often this machine makes a frame at all while ten write: nothing is painted sooner.
        var frames = Convert.ToDouble(
            browser.Script("const { frames } = window.painted; return (frames.at(-1) - frames[0]) / (frames.length - 1)"),
            CultureInfo.InvariantCulture
        );
        foreach (var writer in writers)
            await writer.DisposeAsync();
        return
        [
            RowOf("ten writing on one page: wet ink sent, painted on another's screen, p95", wet, 60, frames),
            RowOf("the same, a stroke sent to be stored", dry, 100, frames),
        ];
    }

    private static Row RowOf(string what, List<double> times, int bar, double frames)
    {
        times.Sort();
        var isWhole = times.Count == Others * Strokes;
        var p95 = times.Count == 0 ? double.NaN : times[(int)Math.Ceiling(0.95 * times.Count) - 1];
        var median = times.Count == 0 ? double.NaN : times[times.Count / 2];
        return new Row(what, $"{p95:0} ms (half {median:0}; a frame every {frames:0})", "", "", $"at most {bar} ms", isWhole && p95 <= bar);
    }

    /// <summary>A device that writes.</summary>
    private sealed class Robot(HubConnection hub, Caller caller, Guid space, Guid page, Replica replica, int number) : IAsyncDisposable
    {
        /// <summary>Each stroke's colour as a canvas says it, and when its first piece and the stroke itself were sent, UTC milliseconds.</summary>
        public List<(string Colour, double WetAt, double DryAt)> Sent { get; } = [];

        public static async Task<Robot> Connect(QuillHost host, Guid space, Guid page, Store.People.Person person, int number)
        {
            var caller = await host.SignIn(person);
            var hub = new HubConnectionBuilder()
                .WithUrl(new Uri(host.Address, "/live"), options => options.Cookies = caller.Cookies)
                .AddMessagePackProtocol()
                .WithAutomaticReconnect()
                .Build();
            await hub.StartAsync();
            return new Robot(hub, caller, space, page, new Replica(unchecked((ulong)Random.Shared.NextInt64()), person.Id), number);
        }

        public async Task Write()
        {
            var address = $"{space}/page/{page}";
            await hub.InvokeAsync("Join", address);
            // Not all in the same moment.
            await Task.Delay(number * 37);
            for (var stroke = 0; stroke < Strokes; stroke++)
            {
                var rgb = (uint)(0x10_0000 + (number * Strokes + stroke) * 257);
                var (top, left) = (1_500 + stroke * 600, 1_500 + number * 2_000);
                List<int> xs = [],
                    ys = [],
                    pressures = [],
                    times = [];
                double wetAt = 0;
                for (var piece = 0; piece < PiecesOfAStroke; piece++)
                {
                    var bytes = new byte[16 + 4 * 10];
                    BinaryPrimitives.WriteUInt32BigEndian(bytes, (uint)(stroke + 1));
                    bytes[5] = (byte)PenKind.Ball;
                    BinaryPrimitives.WriteUInt16BigEndian(bytes.AsSpan(6), 40);
                    BinaryPrimitives.WriteUInt32BigEndian(bytes.AsSpan(8), (rgb << 8) | 0xFF);
                    for (var i = 0; i < 4; i++)
                    {
                        var at = piece * 4 + i;
                        var (x, y) = (left + at * 10, top + (int)(300 * Math.Sin(at / 9.0)));
                        xs.Add(x);
                        ys.Add(y);
                        pressures.Add(500);
                        times.Add(at * 6);
                        BinaryPrimitives.WriteInt32BigEndian(bytes.AsSpan(16 + i * 10), x);
                        BinaryPrimitives.WriteInt32BigEndian(bytes.AsSpan(20 + i * 10), y);
                        BinaryPrimitives.WriteUInt16BigEndian(bytes.AsSpan(24 + i * 10), 500);
                    }

                    bytes[4] = piece == PiecesOfAStroke - 1 ? (byte)1 : (byte)0;
                    if (piece == 0)
                        wetAt = Now;
                    await hub.SendAsync("Wet", address, bytes);
                    await Task.Delay(BetweenPieces);
                }

                var change = new Change.StrokeAdded(
                    new Pen(PenKind.Ball, 40, (rgb << 8) | 0xFF),
                    (long)wetAt,
                    new StrokeSamples([.. xs], [.. ys], [.. pressures], [.. times])
                );
                var dryAt = Now;
                (
                    await caller.Send(space, DocumentKind.Page, page, replica.Make(change, DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()))
                ).EnsureSuccessStatusCode();
                Sent.Add(($"#{rgb:x6}", wetAt, dryAt));
            }
        }

        private static double Now => (DateTimeOffset.UtcNow - DateTimeOffset.UnixEpoch).TotalMilliseconds;

        public async ValueTask DisposeAsync()
        {
            await hub.DisposeAsync();
            caller.Dispose();
        }
    }
}
