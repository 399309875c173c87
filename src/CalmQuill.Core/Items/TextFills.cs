using CalmQuill.Core.Ink;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Items;

/// <summary>
/// What of a text is filled and is no letter: its box, markers, lines under and through letters, boxes to be ticked. Corners are doubled, as an outline
/// has them.
/// </summary>
internal static class TextFills
{
    /// <summary>
    /// In hundredths of the type: how thick lines are, how far under and through letters they run, how high small letters are, and how large a box to be
    /// ticked is.
    /// </summary>
    private const int Thick = 6,
        Under = 14,
        Through = 28,
        Small = 48,
        Tick = 78;

    /// <param name="set">The text as it is set.</param>
    /// <param name="ink">The colour of letters that have none of their own.</param>
    /// <param name="box">The box.</param>
    /// <param name="look">How that looks.</param>
    /// <param name="letters">Whether the letters are seen.</param>
    public static List<Region> Of(SetText set, uint ink, Box box, BoxLook look, bool letters)
    {
        var fills = new List<Region>();
        var (left, top, right, bottom) = box;
        var (fill, edge, edgeWidth, corner) = look;
        if ((fill & 0xFF) > 0)
            fills.Add(new Region(fill, [Frame(left, top, right, bottom, corner)]));
        if ((edge & 0xFF) > 0)
        {
            var inner = Frame(left + edgeWidth, top + edgeWidth, right - edgeWidth, bottom - edgeWidth, Math.Max(0, corner - edgeWidth));
            fills.Add(new Region(edge, [Frame(left, top, right, bottom, corner), [.. inner.Reverse()]]));
        }

        if (!letters)
            return fills;
        var byColour = new Dictionary<(bool IsMarker, uint Colour), List<(double X, double Y)[]>>();
        foreach (var (paragraph, _, y) in set.Paragraphs)
        {
            if (!paragraph.HasFills)
                continue;
            foreach (var line in paragraph.Lines)
            {
                foreach (var piece in line.Pieces)
                    OfPiece(piece, y + line.Y);
            }

            if (paragraph.Style.List == "tick")
                OfTick(paragraph, y + paragraph.Lines[0].Y);
        }

        fills.AddRange(byColour.OrderBy(one => !one.Key.IsMarker).Select(one => new Region(one.Key.Colour, one.Value)));
        return fills;

        List<(double X, double Y)[]> Rings(bool isMarker, uint colour) =>
            byColour.TryGetValue((isMarker, colour), out var rings) ? rings : byColour[(isMarker, colour)] = [];

        void OfPiece(SetPiece piece, int y)
        {
            var style = piece.Style;
            var type = Lengths.OfType(style.Size);
            if ((style.Marker & 0xFF) > 0)
                Rings(true, style.Marker).Add(Bar(piece, y - type * 85 / 100, y + type * 25 / 100));
            var own = Lengths.OfType(style.OwnSize);
            if (style.Underline)
                Rings(false, style.Colour ?? ink).Add(Bar(piece, y + own * Under / 100, y + own * (Under + Thick) / 100));
            var line = y - style.Rise;
            if (style.Struck)
                Rings(false, style.Colour ?? ink).Add(Bar(piece, line - own * (Through + Thick) / 100, line - own * Through / 100));
        }

        void OfTick(SetParagraph paragraph, int y)
        {
            var line = paragraph.Lines[0];
            var (x, side) = TickOf(paragraph, set.Width);
            var thick = side / 11;
            var (l, t, r, b) = (x, y - side, x + side, y);
            var rings = Rings(false, line.Pieces.Count > 0 ? line.Pieces[0].Style.Colour ?? ink : ink);
            rings.Add(Corners((l, t), (r, t), (r, b), (l, b)));
            rings.Add(Corners((l + thick, t + thick), (l + thick, b - thick), (r - thick, b - thick), (r - thick, t + thick)));
            if (paragraph.Style.IsTicked)
                rings.Add(
                    Corners(
                        (l + side * 20 / 100, t + side * 50 / 100),
                        (l + side * 30 / 100, t + side * 40 / 100),
                        (l + side * 43 / 100, t + side * 58 / 100),
                        (l + side * 78 / 100, t + side * 18 / 100),
                        (l + side * 88 / 100, t + side * 27 / 100),
                        (l + side * 44 / 100, t + side * 80 / 100)
                    )
                );
        }
    }

    /// <summary>Where the box to be ticked of a paragraph stands, in bits from the text's left edge, and how large it is.</summary>
    public static (int X, int Side) TickOf(SetParagraph paragraph, int width)
    {
        var line = paragraph.Lines[0];
        var side = Lengths.OfType(line.Size) * Tick / 100;
        var indent = paragraph.Style.Indent * Lengths.PerUnit;
        return (line.FromRight ? width - indent - side : indent, side);
    }

    /// <summary>Bars as high as small letters instead of words, its own measures.</summary>
    public static IEnumerable<(double X, double Y)[]> Bars(SetText set)
    {
        foreach (var (paragraph, _, y) in set.Paragraphs)
        {
            foreach (var line in paragraph.Lines)
            {
                foreach (var piece in line.Pieces.Where(piece => !piece.IsSpace))
                {
                    var at = y + line.Y;
                    yield return Bar(piece, at - Lengths.OfType(piece.Style.OwnSize) * Small / 100, at);
                }
            }
        }
    }

    private static (double X, double Y)[] Bar(SetPiece piece, int top, int bottom) =>
        Corners((piece.X, top), (piece.X + piece.Width, top), (piece.X + piece.Width, bottom), (piece.X, bottom));

    /// <summary>Corners in bits as 0.01 mm, each doubled.</summary>
    private static (double X, double Y)[] Corners(params (int X, int Y)[] corners) =>
        Region.Ring(corners.Select(at => (Nearest(at.X), Nearest(at.Y))));

    private static double Nearest(int bits) => Math.Round(bits / (double)Lengths.PerUnit, MidpointRounding.AwayFromZero);

    /// <summary>A frame with round corners.</summary>
    private static (double X, double Y)[] Frame(int left, int top, int right, int bottom, int corner)
    {
        corner = Math.Min(corner, Math.Min(right - left, bottom - top) / 2);
        if (corner <= 0)
            return Region.Box(left, top, right, bottom);
        return
        [
            (left, top + corner),
            (left, top + corner),
            (left, top),
            (left + corner, top),
            (left + corner, top),
            (right - corner, top),
            (right - corner, top),
            (right, top),
            (right, top + corner),
            (right, top + corner),
            (right, bottom - corner),
            (right, bottom - corner),
            (right, bottom),
            (right - corner, bottom),
            (right - corner, bottom),
            (left + corner, bottom),
            (left + corner, bottom),
            (left, bottom),
            (left, bottom - corner),
            (left, bottom - corner),
        ];
    }
}
