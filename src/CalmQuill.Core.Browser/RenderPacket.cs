using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Browser;

/// <summary>Items ready to be painted, as one block of 32-bit values that script reads through typed arrays.</summary>
/// <remarks>
/// The count; then for each item: replica, counter and time as high and low half, colour (0xRRGGBBAA), 1 when shown, the box (four singles, 0.01 mm),
/// the number of rings, and for each ring its number of control points and their x, y as singles.
/// </remarks>
internal static class RenderPacket
{
    private static readonly StrokeOutliner Outliner = new();
    private static readonly Outline Outline = new();

    public static byte[] Of(IReadOnlyCollection<PageItem> items, Func<PageItem, List<Interval>> visible)
    {
        var writer = new ByteWriter(items.Count * 1024 + 16);
        writer.Fixed32((uint)items.Count);
        foreach (var item in items) Write(writer, item, item.Shown ? visible(item) : []);
        return writer.ToArray();
    }

    public static byte[] OfStroke(Pen pen, StrokeSamples samples)
    {
        Outline.Clear();
        Outliner.Append(samples, new Interval(0, (samples.Count - 1) * Interval.PerSample), pen, 0, 0, Outline);
        var writer = new ByteWriter(4096);
        WriteOutline(writer);
        return writer.ToArray();
    }

    private static void Write(ByteWriter writer, PageItem item, List<Interval> visible)
    {
        Split(writer, item.Id.Replica);
        Split(writer, item.Id.Counter);
        Split(writer, item.Stamp.Time.Value);
        writer.Fixed32(item.Stroke is null ? 0 : item.Pen.Colour);
        writer.Fixed32(visible.Count > 0 ? 1u : 0u);
        var box = item.Bounds;
        writer.Single(box.Left);
        writer.Single(box.Top);
        writer.Single(box.Right);
        writer.Single(box.Bottom);
        Outline.Clear();
        foreach (var interval in visible) Outliner.Append(item.Samples, interval, item.Pen, (int)item.Dx, (int)item.Dy, Outline);
        WriteOutline(writer);
    }

    private static void WriteOutline(ByteWriter writer)
    {
        writer.Fixed32((uint)Outline.RingCount);
        for (var i = 0; i < Outline.RingCount; i++)
        {
            var ring = Outline.Ring(i);
            writer.Fixed32((uint)ring.Length / 2);
            writer.Bytes(System.Runtime.InteropServices.MemoryMarshal.AsBytes(ring));
        }
    }

    private static void Split(ByteWriter writer, ulong value)
    {
        writer.Fixed32((uint)(value >> 32));
        writer.Fixed32((uint)value);
    }
}
