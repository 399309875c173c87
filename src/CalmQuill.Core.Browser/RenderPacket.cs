using CalmQuill.Core.History;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Pictures;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Browser;

/// <summary>Items ready to be painted, as one block of 32-bit values that script reads through typed arrays.</summary>
/// <remarks>
/// The count; then for each item: replica, counter and time as high and low half; rank (2 ink, 1 highlighter, 0 fill; 4 more for each sheet below
/// it), place of the layer, order in it (plus 2^31), kind; 1 when shown, the number of its coats, its shift to the right and down (two singles, 0.01
/// mm), the box (four singles, 0.01 mm), 1 when the outlines it has are still right; the number of texts over them, and of pictures below them; for
/// each coat, from the back, its colour (0xRRGGBBAA) and the level of the paper's grain; and where the outlines are not right, for each coat, where
/// it lay before it was shifted: the number of rings, and for each ring its number of control points and their x, y as singles; the number of texts that
/// the surface does not have as they are, and for each its place among all and what <see cref="LetterPacket"/> writes; for each picture where it lies (six singles) and how wide and high it is there (two), its asset in four parts,
/// how much it covers, by how much its channels are multiplied and what is added then (two singles), which page of a PDF file it is (0 for a picture), and the number of corners of what is shown of it
/// and their x, y as singles, none where it is shown whole.
/// </remarks>
internal static class RenderPacket
{
    private static readonly Painter Onto = new();

    /// <summary>What came since, what went, and what stands at both: 0xRRGGBB00. Each is told from the others by its lightness too.</summary>
    private const uint Came = 0x1F5F8B00,
        Went = 0xC4623F00,
        Pale = 0xC9C4B800;

    /// <summary>There are so many ranks at most; see <see cref="ItemContent.Rank"/>.</summary>
    private const int Ranks = 4;

    /// <summary>So much is left of a picture where it is compared with what stood before, hundredths.</summary>
    private const int PaleShare = 45;

    /// <summary>Writes the rings of what is painted, one outline after the other.</summary>
    private sealed class Painter : ItemPainter
    {
        public ByteWriter Writer { get; set; } = new(0);

        public override void Fill(Outline filled, Coat coat) => WriteOutline(Writer, filled);

        /// <summary>Letters are no outlines, and come behind them.</summary>
        public override void Write(SetText text, in Affine place, uint colour) { }

        /// <inheritdoc/>
        public override void Draw(PictureLook picture, in Affine place) { }
    }

    /// <param name="items">The items.</param>
    /// <param name="visible">What of each is painted.</param>
    /// <param name="surface">What it is painted on, and which outlines that has already; without it all are written.</param>
    /// <param name="shown">What a colour of an item looks like; without it as it is.</param>
    public static byte[] Of(
        IReadOnlyCollection<PageItem> items,
        Func<PageItem, List<Interval>> visible,
        Surface? surface = null,
        Func<PageItem, uint, uint>? shown = null
    )
    {
        var writer = new ByteWriter(items.Count * 1024 + 16);
        writer.Fixed32((uint)items.Count);
        foreach (var item in items)
            Write(writer, item, item.Shown ? visible(item) : [], surface, shown);
        return writer.ToArray();
    }

    /// <summary>What was seen at a moment; of what was not there yet, or not any more, that nothing of it is seen.</summary>
    public static byte[] OfThen(IReadOnlyCollection<(PageItem? Then, PageItem Now)> things, Surface surface)
    {
        // What stands today and was not there is as a thing of which nothing is seen.
        var unseen = things.Where(one => one.Then is null).Select(one => one.Now).ToHashSet();
        List<Interval> Visible(PageItem item) => unseen.Contains(item) ? [] : item.Visible();
        return Of([.. things.Select(one => one.Then ?? one.Now)], Visible, surface);
    }

    /// <summary>Then and now over each other: what stands at both is pale; what went and what came have a colour each.</summary>
    public static byte[] OfBoth(
        IReadOnlyCollection<(PageItem? Then, PageItem Now)> things,
        Surface surface,
        (bool Added, bool Removed) sides
    )
    {
        var writer = new ByteWriter(things.Count * 1024 + 16);
        writer.Fixed32((uint)things.Count);
        foreach (var (then, now) in things)
        {
            var difference = Comparing.Of(then, now);
            var went = sides.Removed && difference is Difference.Removed or Difference.Rubbed or Difference.Changed ? then : null;
            var stands =
                difference is Difference.None or Difference.Rubbed || (sides.Added && difference is Difference.Added or Difference.Changed)
                    ? now
                    : null;
            surface.Forget(now.Id);
            WriteBoth(writer, now, went, stands, difference is Difference.Added or Difference.Changed ? Came : Pale);
        }

        return writer.ToArray();
    }

    /// <summary>The outline of samples that are on no page: rings alone.</summary>
    public static byte[] OfStroke(Pen pen, StrokeSamples samples)
    {
        var outline = Onto.Empty();
        Onto.Outliner.Append(samples, [new Interval(0, (samples.Count - 1) * Interval.PerSample)], pen, 0, 0, outline);
        return OfOutline(outline);
    }

    public static byte[] OfOutline(Outline outline)
    {
        var writer = new ByteWriter(4096);
        WriteOutline(writer, outline);
        return writer.ToArray();
    }

    private static void Write(ByteWriter writer, PageItem item, List<Interval> visible, Surface? surface, Func<PageItem, uint, uint>? shown)
    {
        var has = surface?.Has(item, visible) ?? false;
        WriteHead(writer, item, visible.Count > 0);
        if (visible.Count == 0)
            return;
        var content = item.Content;
        var coats = content.Coats;
        writer.Fixed32((uint)coats);
        writer.Single(item.Dx);
        writer.Single(item.Dy);
        WriteBox(writer, item.Bounds);
        writer.Fixed32(has ? 1u : 0u);
        var texts = content is WrittenContent written ? written.Texts(false) : [];
        writer.Fixed32((uint)texts.Count);
        writer.Fixed32(content is PictureContent ? 1u : 0u);
        for (var i = 0; i < coats; i++)
        {
            var (colour, grain) = content.Coat(i);
            writer.Fixed32(Seen(colour));
            writer.Fixed32((uint)grain);
        }

        if (!has)
        {
            Onto.Writer = writer;
            content.Paint(Onto, visible, shifted: false);
        }

        // Where things are shown in other colours than their own, it is not known which they had before.
        WriteTexts(writer, texts, surface?.HasLetters(item.Id, texts, shown is null ? item.Faded(uint.MaxValue) : null) ?? [], Seen);
        if (content is PictureContent { Shown: var picture } shows)
            Write(writer, picture, shows.OwnPlace(false), item.Faded((uint)picture.Alpha) & 0xFF);

        uint Seen(uint colour)
        {
            var faded = item.Faded(colour);
            return shown?.Invoke(item, faded) ?? faded;
        }
    }

    /// <param name="writer">What it is written to.</param>
    /// <param name="texts">The texts of a thing.</param>
    /// <param name="before">Those that the surface has; where it has as many, only those are written that became others.</param>
    /// <param name="seen">What a colour looks like.</param>
    private static void WriteTexts(ByteWriter writer, IReadOnlyList<LaidText> texts, IReadOnlyList<LaidText> before, Func<uint, uint> seen)
    {
        var isAsMany = texts.Count == before.Count;
        var changed = new List<int>();
        var known = new HashSet<SetParagraph>();
        for (var i = 0; i < Math.Max(texts.Count, before.Count); i++)
        {
            if (isAsMany && texts[i].IsPaintedAs(before[i]))
                continue;
            if (i < texts.Count)
                changed.Add(i);
            if (i < before.Count)
                known.UnionWith(before[i].Set.Paragraphs.Select(one => one.Paragraph));
        }

        writer.Fixed32((uint)changed.Count);
        foreach (var at in changed)
        {
            writer.Fixed32((uint)at);
            LetterPacket.Write(writer, texts[at], isAsMany ? before[at] : null, known, own => seen(own ?? texts[at].Colour));
        }
    }

    private static void WriteHead(ByteWriter writer, PageItem item, bool isSeen)
    {
        Split(writer, item.Id.Replica);
        Split(writer, item.Id.Counter);
        Split(writer, item.Stamp.Time.Value);
        // What lies above more sheets is painted later, whatever it is.
        writer.Fixed32((uint)(item.Sheet * Ranks + item.Content.Rank));
        writer.Fixed32((uint)item.LayerPlace);
        writer.Fixed32(unchecked((uint)(item.Order + (long)int.MaxValue + 1)));
        writer.Fixed32((uint)item.Kind);
        writer.Fixed32(isSeen ? 1u : 0u);
        // Where nothing of it is seen, nothing but its going matters.
        for (var i = 0; !isSeen && i < 10; i++)
            writer.Fixed32(0);
    }

    private static void WriteBox(ByteWriter writer, Box box)
    {
        writer.Single(box.Left);
        writer.Single(box.Top);
        writer.Single(box.Right);
        writer.Single(box.Bottom);
    }

    private static void WriteBoth(ByteWriter writer, PageItem head, PageItem? went, PageItem? stands, uint colour)
    {
        var shown = new List<(PageItem Item, uint Colour)>();
        if (went is { Shown: true } && went.Visible().Count > 0)
            shown.Add((went, Went));
        if (stands is { Shown: true } && stands.Visible().Count > 0)
            shown.Add((stands, colour));
        WriteHead(writer, head, shown.Count > 0);
        if (shown.Count == 0)
            return;
        var box = shown.Select(one => one.Item.Bounds).Aggregate((one, other) => one.With(other));
        writer.Fixed32((uint)shown.Sum(one => one.Item.Content.Coats));
        writer.Single(0);
        writer.Single(0);
        WriteBox(writer, box);
        writer.Fixed32(0);
        var texts = shown
            .Where(one => one.Item.Content is WrittenContent)
            .SelectMany(one => ((WrittenContent)one.Item.Content).Texts(true).Select(text => (Text: text, Ink: one.Colour)))
            .ToList();
        writer.Fixed32((uint)texts.Count);
        writer.Fixed32((uint)shown.Count(one => one.Item.Content is PictureContent));
        foreach (var (item, ink) in shown)
        {
            for (var i = 0; i < item.Content.Coats; i++)
            {
                var (own, grain) = item.Content.Coat(i);
                writer.Fixed32(ink | (own & 0xFF));
                writer.Fixed32((uint)grain);
            }
        }

        Onto.Writer = writer;
        foreach (var (item, _) in shown)
            item.Content.Paint(Onto, item.Visible(), shifted: true);
        writer.Fixed32((uint)texts.Count);
        for (var i = 0; i < texts.Count; i++)
        {
            var (text, ink) = texts[i];
            writer.Fixed32((uint)i);
            LetterPacket.Write(writer, text, null, null, letters => ink | ((letters ?? text.Colour) & 0xFF));
        }

        foreach (var (item, _) in shown)
        {
            // It has its own colours, and is shown as thin as what stands at both.
            if (item.Content is PictureContent { Shown: var picture } content)
                Write(writer, picture, content.OwnPlace(true), (uint)(picture.Alpha * PaleShare / 100));
        }
    }

    private static void Write(ByteWriter writer, PictureLook picture, in Affine place, uint alpha)
    {
        foreach (var part in (ReadOnlySpan<double>)[.. place.Parts, picture.Width, picture.Height])
            writer.Single((float)part);
        Span<byte> id = stackalloc byte[16];
        picture.Asset.TryWriteBytes(id, bigEndian: true, out _);
        for (var i = 0; i < id.Length; i += 4)
            writer.Fixed32(System.Buffers.Binary.BinaryPrimitives.ReadUInt32BigEndian(id[i..]));
        writer.Fixed32(alpha);
        writer.Single((float)picture.Tones.Slope);
        writer.Single((float)picture.Tones.Intercept);
        writer.Fixed32((uint)picture.Leaf);
        var corners = picture.Cut.IsWhole ? [] : picture.Corners.ToList();
        writer.Fixed32((uint)corners.Count);
        foreach (var (x, y) in corners)
        {
            writer.Single((float)x);
            writer.Single((float)y);
        }
    }

    private static void WriteOutline(ByteWriter writer, Outline outline)
    {
        writer.Fixed32((uint)outline.RingCount);
        for (var i = 0; i < outline.RingCount; i++)
        {
            var ring = outline.Ring(i);
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
