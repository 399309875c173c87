using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Printed;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: what is being written, from the first sample to the operation. A pen is seven numbers: kind, width, colour (0xRRGGBBAA), line, tip, angle, response.</summary>
public static partial class PenBridge
{
    private const int Channels = 6;
    private static readonly Dictionary<int, WetStroke> Wet = [];
    private static readonly Outline Outline = new();
    private static int lastHandle;

    /// <summary>Begins a stroke and returns its handle, which is good until <see cref="Keep"/> or <see cref="Drop"/>.</summary>
    [JSExport]
    public static int Begin(int[] pen, int stabilising)
    {
        Wet[++lastHandle] = new WetStroke(Pen(pen), stabilising);
        return lastHandle;
    }

    /// <summary>Adds samples as the pen reports them, six numbers each: x, y (0.01 mm), pressure (0–1023), time (ms), tilt x, tilt y (degrees).</summary>
    /// <returns>The outline of what is new: rings as in a render packet.</returns>
    [JSExport]
    public static byte[] Add(int stroke, int[] samples)
    {
        var wet = Wet[stroke];
        for (var i = 0; i + Channels <= samples.Length; i += Channels)
            wet.Add(samples[i], samples[i + 1], samples[i + 2], samples[i + 3], samples[i + 4], samples[i + 5]);
        Outline.Clear();
        wet.OutlineNews(Outline);
        return RenderPacket.OfOutline(Outline);
    }

    /// <summary>How densely a stroke covers the paper's grain by now; see <see cref="PencilGrain"/>.</summary>
    [JSExport]
    public static int Grain(int stroke) => Wet[stroke].Grain;

    /// <summary>A tile of the paper's grain: how much of each point is covered, 0 to 255.</summary>
    [JSExport]
    public static byte[] GrainTile(int level, int points) => PencilGrain.Tile(level, points);

    /// <summary>How densely samples that are on no page cover the paper's grain.</summary>
    [JSExport]
    public static int GrainOf(int[] pen, int[] samples) => PencilGrain.LevelOf(SamplesOf(samples), Pen(pen));

    /// <summary>The steadied samples from one on, x, y and pressure in turn: what others are shown.</summary>
    [JSExport]
    public static int[] Samples(int stroke, int from)
    {
        var wet = Wet[stroke];
        if (from >= wet.Count)
            return [];
        var samples = wet.ToSamples(from);
        var flat = new int[samples.Count * 3];
        for (var i = 0; i < samples.Count; i++)
            (flat[3 * i], flat[3 * i + 1], flat[3 * i + 2]) = (samples.X[i], samples.Y[i], samples.Pressure[i]);
        return flat;
    }

    /// <summary>The pen is lifted: the line arrives where it was.</summary>
    [JSExport]
    public static void End(int stroke) => Wet[stroke].End();

    /// <summary>Keeps the stroke on a page and returns its operation.</summary>
    /// <param name="stroke">Handle of the stroke.</param>
    /// <param name="page">Handle of the page.</param>
    /// <param name="layer">The layer it is written on.</param>
    /// <param name="startedAt">When it was begun, UTC milliseconds since 1970.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] Keep(int stroke, int page, string layer, double startedAt, double now)
    {
        if (!Wet.Remove(stroke, out var wet) || wet.Count == 0)
            return [];
        return Session.Perform(
            page,
            new Change.StrokeAdded(wet.Pen, (long)startedAt, wet.ToSamples()) { Layer = Session.LayerOf(layer) },
            now
        );
    }

    [JSExport]
    public static void Drop(int stroke) => Wet.Remove(stroke);

    /// <summary>Where a highlighter's stroke comes to lie along printed words: its two ends and its width; empty where it was not drawn along any. See <see cref="AlongPrint"/>.</summary>
    /// <param name="places">The stroke's places: x and y in turn, 0.01 mm.</param>
    /// <param name="words">Of each word the ends of its baseline and the height of its type.</param>
    [JSExport]
    public static double[] Along(double[] places, double[] words) =>
        AlongPrint.Of(
            places,
            [.. words.Chunk(5).Where(word => word.Length == 5).Select(word => new PrintedWord(word[0], word[1], word[2], word[3], word[4]))]
        )
            is { } along
            ? [along.X1, along.Y1, along.X2, along.Y2, along.Width]
            : [];

    /// <summary>The id of the operation made last.</summary>
    [JSExport]
    public static string LastMade() => Session.Replica.LastId.ToString();

    /// <summary>The outline of samples that are on no page: rings as in a render packet, without the item's head.</summary>
    [JSExport]
    public static byte[] OutlineOf(int[] pen, int[] samples) => RenderPacket.OfStroke(Pen(pen), SamplesOf(samples));

    private static StrokeSamples SamplesOf(int[] samples)
    {
        var count = samples.Length / Channels;
        int[] Channel(int which) => [.. Enumerable.Range(0, count).Select(i => samples[i * Channels + which])];
        return new StrokeSamples(Channel(0), Channel(1), Channel(2), Channel(3), Channel(4), Channel(5));
    }

    /// <summary>How a pen takes pressure: its share of the whole at 0, 1/16, 2/16 … of it.</summary>
    [JSExport]
    public static double[] ResponseOf(int[] pen)
    {
        var held = Pen(pen);
        return [.. Enumerable.Range(0, 17).Select(i => (double)held.Pressed(i * StrokeSamples.MostPressure / 16))];
    }

    internal static WetStroke Of(int stroke) => Wet[stroke];

    internal static Pen Pen(int[] pen) =>
        new((PenKind)pen[0], pen[1], unchecked((uint)pen[2]))
        {
            Line = (LineStyle)pen[3],
            Tip = (NibTip)pen[4],
            Angle = pen[5],
            Response = pen[6],
        };
}
