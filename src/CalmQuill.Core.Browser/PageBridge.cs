using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: writing on a page and painting it.</summary>
public static partial class PageBridge
{
    private const int Channels = 6;

    /// <summary>Adds a stroke and returns its operation.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="penKind">Number of the pen's kind.</param>
    /// <param name="width">Width of the line, 0.01 mm.</param>
    /// <param name="colour">Colour as 0xRRGGBBAA.</param>
    /// <param name="samples">Six numbers a sample: x, y (0.01 mm), pressure (0–1023), time (ms), tilt x, tilt y (degrees).</param>
    /// <param name="hasTilt">Whether the tilts mean anything.</param>
    /// <param name="startedAt">When the stroke began, UTC milliseconds since 1970.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] AddStroke(int page, int penKind, int width, double colour, int[] samples, bool hasTilt, double startedAt, double now) =>
        Session.Do(page, new Change.StrokeAdded(Pen(penKind, width, colour), (long)startedAt, Samples(samples, hasTilt)), now);

    [JSExport]
    public static byte[] Undo(int page, double now) => Session.Do(page, Session.Document<PageDocument>(page).Undo(Session.Replica.Author), now);

    [JSExport]
    public static byte[] Redo(int page, double now) => Session.Do(page, Session.Document<PageDocument>(page).Redo(Session.Replica.Author), now);

    /// <summary>Bit 1: there is something to undo; bit 2: something to redo.</summary>
    [JSExport]
    public static int Steps(int page)
    {
        var document = Session.Document<PageDocument>(page);
        return (document.Undo(Session.Replica.Author) is null ? 0 : 1) | (document.Redo(Session.Replica.Author) is null ? 0 : 2);
    }

    /// <summary>Makes every item count as changed, for a surface that is new and empty.</summary>
    [JSExport]
    public static void AllChanged(int page)
    {
        var document = Session.Document<PageDocument>(page);
        document.TakeChanged();
        var waiting = Waiting(page);
        waiting.Clear();
        foreach (var item in document.Items) waiting.Enqueue(item.Id);
    }

    /// <summary>The items that changed since the last call, ready to be painted: at most <paramref name="most"/> of them, in painting order at first opening.</summary>
    [JSExport]
    public static byte[] TakeChanged(int page, int most)
    {
        var document = Session.Document<PageDocument>(page);
        var waiting = Waiting(page);
        foreach (var id in document.TakeChanged()) waiting.Enqueue(id);
        var items = new List<PageItem>();
        while (items.Count < most && waiting.TryDequeue(out var id))
        {
            if (document.Find(id) is { Stroke: not null } item) items.Add(item);
        }

        return RenderPacket.Of(items, item => item.Visible());
    }

    [JSExport]
    public static void BeginErase(int page, double radius, bool whole) =>
        ((OpenPage)Session.Document(page)).Eraser = new EraserPass(Session.Document<PageDocument>(page), radius, whole);

    /// <summary>Moves the eraser along spots (x, y, x, y… in 0.01 mm) and returns what it touched as it now looks.</summary>
    [JSExport]
    public static byte[] EraseAlong(int page, double[] spots)
    {
        var document = Session.Document<PageDocument>(page);
        if (((OpenPage)Session.Document(page)).Eraser is not { } pass) return RenderPacket.Of([], pageItem => pageItem.Visible());
        var touched = new HashSet<OpId>();
        for (var i = 0; i + 1 < spots.Length; i += 2) touched.UnionWith(pass.MoveTo(spots[i], spots[i + 1]));
        return RenderPacket.Of([.. touched.Select(id => document.Find(id)!)], pass.Remaining);
    }

    /// <summary>Ends the pass and returns its operation; empty when nothing was touched.</summary>
    [JSExport]
    public static byte[] EndErase(int page, double now)
    {
        var open = (OpenPage)Session.Document(page);
        var change = open.Eraser?.End();
        open.Eraser = null;
        return Session.Do(page, change, now);
    }

    /// <summary>The outline of a stroke that is on no page: rings as in a render packet, without the item's head.</summary>
    [JSExport]
    public static byte[] OutlineOf(int penKind, int width, int[] samples) => RenderPacket.OfStroke(Pen(penKind, width, 0), Samples(samples, false));

    private static Queue<OpId> Waiting(int page) => ((OpenPage)Session.Document(page)).WaitingToPaint;

    private static Pen Pen(int kind, int width, double colour) => new((PenKind)kind, width, (uint)colour);

    private static StrokeSamples Samples(int[] flat, bool hasTilt)
    {
        var count = flat.Length / Channels;
        int[] Channel(int which)
        {
            var values = new int[count];
            for (var i = 0; i < count; i++) values[i] = flat[i * Channels + which];
            return values;
        }

        return hasTilt
            ? new StrokeSamples(Channel(0), Channel(1), Channel(2), Channel(3), Channel(4), Channel(5))
            : new StrokeSamples(Channel(0), Channel(1), Channel(2), Channel(3));
    }
}
