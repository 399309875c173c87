using System.Globalization;
using System.Text;
using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Pictures;
using CalmQuill.Core.Typesetting;
using CalmQuill.Documents.Svg;

namespace CalmQuill.Documents.Pdf;

/// <summary>The content stream of one sheet (ISO 32000-1 §8.5): ruling and ink as vectors, in 0.01 mm through one transformation.</summary>
internal sealed class PdfPageContent
{
    private const double PointsPerUnit = 72.0 / 2540.0;

    private readonly StringBuilder text = new(64 * 1024);
    private readonly Painter painter;
    private readonly PdfFonts fonts;
    private uint colour;

    private readonly PdfPictures pictures;
    private PrintedPage? page;

    /// <param name="fonts">The fonts of the file.</param>
    /// <param name="pictures">Its pictures.</param>
    public PdfPageContent(PdfFonts fonts, PdfPictures pictures) =>
        (painter, this.fonts, this.pictures) = (new Painter(this), fonts, pictures);

    /// <summary>From page units to the sheet's points, as set now: x' = x·Scale + X, y' = Y − y·Scale.</summary>
    private (double Scale, double X, double Y) at;

    /// <summary>The grains used: how densely they cover, and where they lie on the sheet; the sheet's resources must name a pattern for each.</summary>
    public Dictionary<PdfGrain, string> Grains { get; } = [];

    /// <summary>The fonts used; the sheet's resources must name each.</summary>
    public HashSet<PdfFont> Fonts { get; } = [];

    /// <summary>The alpha values used, 0–255, other than opaque; the sheet's resources must name a graphics state for each.</summary>
    public SortedSet<uint> Alphas { get; } = [];

    /// <summary>The numbers of the pictures used; the sheet's resources must name each.</summary>
    public SortedSet<int> Pictures { get; } = [];

    public static string PictureName(int number) => string.Create(CultureInfo.InvariantCulture, $"P{number}");

    public static string AlphaName(uint alpha) => string.Create(CultureInfo.InvariantCulture, $"A{alpha}");

    /// <param name="printed">The page.</param>
    /// <param name="part">The part of it whose ink this sheet shows.</param>
    /// <param name="sheet">Where the sheet lies on it.</param>
    /// <param name="pictureName">The name of the picture under it among the sheet's resources.</param>
    public byte[] Write(PrintedPage printed, Box part, Box sheet, string pictureName)
    {
        page = printed;
        var height = sheet.Bottom - sheet.Top;
        at = (PointsPerUnit, -sheet.Left * PointsPerUnit, (height + sheet.Top) * PointsPerUnit);
        text.Append(
            CultureInfo.InvariantCulture,
            $"{PointsPerUnit:0.0000000000} 0 0 {-PointsPerUnit:0.0000000000} {-sheet.Left * PointsPerUnit:0.0000} {(height + sheet.Top) * PointsPerUnit:0.0000} cm\n"
        );
        var drawing = printed.Draw();
        // Plain paper is the paper in the printer.
        if (drawing.Ground != Paper.White)
            text.Append(
                CultureInfo.InvariantCulture,
                $"{Rgb(drawing.Ground)} rg {sheet.Left} {sheet.Top} {sheet.Right - sheet.Left} {height} re f\n"
            );
        Under(printed, pictureName);
        Draw(drawing);
        SetColour(0x000000FF);
        Ink(printed, printed.Written, part);
        return Encoding.ASCII.GetBytes(text.ToString());
    }

    private void Ink(PrintedPage printed, IEnumerable<PageItem> items, Box sheet)
    {
        foreach (var item in items)
        {
            // What only touches a cut stands on the sheet at its other side, whole.
            if (!item.Shown || !item.Bounds.Overlaps(sheet))
                continue;
            printed.Check(text.Length);
            painter.Paint(item);
        }
    }

    private sealed class Painter(PdfPageContent content) : ItemPainter
    {
        private PageItem? item;

        public void Paint(PageItem painted)
        {
            item = painted;
            painted.Content.Paint(this, painted.Visible(), shifted: true);
        }

        public override void Fill(Outline filled, Coat coat)
        {
            if (filled.RingCount > 0)
                content.Rings(filled, item!.Faded(coat.Colour), coat.LeavesBare ? content.GrainName(coat.Grain, item.Dx, item.Dy) : null);
        }

        public override void Draw(PictureLook picture, in Affine place) =>
            content.Picture(picture, place, item!.Faded((uint)picture.Alpha) & 0xFF);

        public override void Write(SetText text, in Affine place, uint colour)
        {
            var row = new List<PlacedGlyph>();
            foreach (var glyph in PlacedGlyph.Of(text))
            {
                if (row.Count > 0 && !Follow(row[^1], glyph))
                    End(place);
                row.Add(glyph);
            }

            End(place);

            void End(in Affine place)
            {
                if (row.Count > 0)
                    content.Letters(row, place, item!.Faded(row[0].Style.Colour ?? colour));
                row.Clear();
            }
        }

        /// <summary>Whether a glyph can be written on from another: on one line, in one look.</summary>
        private static bool Follow(PlacedGlyph one, PlacedGlyph next) =>
            one.Font == next.Font && one.Y == next.Y && one.X <= next.X && one.Style.Equals(next.Style);
    }

    private void Rings(Outline outline, uint rgba, string? grain)
    {
        if (grain is not null)
        {
            // Colour of a pattern that has none of its own (§8.7.3.3).
            SetColour(rgba);
            text.Append(CultureInfo.InvariantCulture, $"/Grain cs {Rgb(rgba)} /{grain} scn\n");
            colour = 0;
        }
        else if (rgba != colour)
            SetColour(rgba);
        for (var i = 0; i < outline.RingCount; i++)
            Ring(outline.Ring(i));
        text.Append("f\n");
    }

    /// <summary>A picture, cut to what is shown of it; an empty frame where its file is not there.</summary>
    private void Picture(PictureLook picture, in Affine place, uint alpha)
    {
        text.Append("q\n");
        var command = "m ";
        foreach (var (x, y) in picture.Corners)
        {
            var (px, py) = place.Of(x, y);
            Point((float)px, (float)py).Append(command);
            command = "l ";
        }

        if (pictures.Of(page!, picture, place) is { } number)
        {
            Pictures.Add(number);
            Alphas.Add(alpha);
            // A picture's own space is one unit wide and high, its foot at 0 (§8.9.3).
            var (a, b, c, d, e, f) = place.After(new Affine(picture.Width, 0, 0, -picture.Height, 0, picture.Height));
            text.Append(
                CultureInfo.InvariantCulture,
                $"h W n /{AlphaName(alpha)} gs {a:0.####} {b:0.####} {c:0.####} {d:0.####} {e:0.###} {f:0.###} cm /{PictureName(number)} Do Q\n"
            );
        }
        else
            text.Append(CultureInfo.InvariantCulture, $"h {Rgb(PictureLook.MissingEdge)} RG {PictureLook.MissingWidth} w S Q\n");
    }

    /// <summary>Glyphs in one row, each where it was set: what a glyph's own width leaves to that is moved (§9.4.3, TJ).</summary>
    private void Letters(List<PlacedGlyph> glyphs, in Affine place, uint rgba)
    {
        var first = glyphs[0];
        var font = fonts.Of(first.Font);
        Fonts.Add(font);
        if (rgba != colour)
            SetColour(rgba);
        // The type's height is one unit of the text's own space, in which y runs up.
        var (a, b, c, d, e, f) = place.After(first.Place);
        double em = first.Font.File.UnitsPerEm;
        text.Append(
            CultureInfo.InvariantCulture,
            $"BT /{font.Name} 1 Tf {a * em:0.####} {b * em:0.####} {-c * em:0.####} {-d * em:0.####} {e:0.###} {f:0.###} Tm ["
        );
        var size = Lengths.OfFont(first.Font.File.UnitsPerEm, first.Style.OwnSize, first.Font.File.UnitsPerEm);
        long at = 0;
        var isOpen = false;
        foreach (var glyph in glyphs)
        {
            var wanted = (glyph.X - first.X) * 1000L / size;
            if (wanted != at)
            {
                text.Append(isOpen ? ">" : "").Append(CultureInfo.InvariantCulture, $"{at - wanted}");
                (isOpen, at) = (false, wanted);
            }

            text.Append(isOpen ? "" : "<").Append(CultureInfo.InvariantCulture, $"{font.CodeOf(glyph.Glyph, glyph.Text):X4}");
            isOpen = true;
            at += font.WidthOf(glyph.Glyph);
        }

        text.Append(isOpen ? ">" : "").Append("] TJ ET\n");
    }

    private void Under(PrintedPage printed, string pictureName)
    {
        var paper = printed.Paper;
        switch (printed.Under)
        {
            case Background.Picture picture:
                var (scale, dx, dy) = ThumbnailSvg.Fit(picture.Width, picture.Height, paper.Width, paper.Height);
                // A picture's own space is one unit wide and high, its foot at 0 (§8.9.3).
                text.Append(
                    CultureInfo.InvariantCulture,
                    $"q {picture.Width * scale:0.##} 0 0 {-picture.Height * scale:0.##} {dx:0.##} {dy + picture.Height * scale:0.##} cm /{pictureName} Do Q\n"
                );
                break;
            case Background.Frozen frozen:
                var (grown, x, y) = ThumbnailSvg.Fit(frozen.Paper.Width, frozen.Paper.Height, paper.Width, paper.Height);
                text.Append(CultureInfo.InvariantCulture, $"q {grown:0.#####} 0 0 {grown:0.#####} {x:0.##} {y:0.##} cm\n");
                var own = at;
                at = (own.Scale * grown, own.X + x * own.Scale, own.Y - y * own.Scale);
                Draw(frozen.Paper.Draw(frozen.Paper.Sheet(null)));
                SetColour(0x000000FF);
                Ink(printed, frozen.Page.Items, new Box(int.MinValue / 4, int.MinValue / 4, int.MaxValue / 4, int.MaxValue / 4));
                text.Append("Q\n");
                at = own;
                break;
        }
    }

    /// <summary>The name of a grain as it lies under a stroke that was shifted so far; it goes with the stroke, to a sixteenth of its side.</summary>
    private string GrainName(int level, long dx, long dy)
    {
        var grain = new PdfGrain(level, at.Scale, at.X + PencilGrain.Offset(dx) * at.Scale, at.Y - PencilGrain.Offset(dy) * at.Scale);
        if (!Grains.TryGetValue(grain, out var name))
            Grains[grain] = name = string.Create(CultureInfo.InvariantCulture, $"G{Grains.Count}");
        return name;
    }

    private void Draw(Drawing drawing)
    {
        foreach (var piece in drawing.Pieces)
        {
            switch (piece)
            {
                case Piece.Fill fill:
                    SetColour(fill.Colour);
                    Path(fill.Path);
                    text.Append("f\n");
                    break;
                case Piece.Line line:
                    text.Append(CultureInfo.InvariantCulture, $"q {Rgb(line.Colour)} RG {line.Width} w ");
                    if (line.Dash is { } dash)
                        text.Append(CultureInfo.InvariantCulture, $"[{dash.On} {dash.Off}] 0 d 1 J ");
                    Path(line.Path);
                    text.Append("S Q\n");
                    break;
            }
        }
    }

    private void Path(VectorPath path)
    {
        var at = 0;
        float x = 0,
            y = 0;
        var points = path.Points;
        foreach (var step in path.Steps)
        {
            var count = VectorPath.PointsOf(step) * 2;
            if (step == VectorPath.Step.Quadratic)
            {
                float cx = points[at],
                    cy = points[at + 1],
                    toX = points[at + 2],
                    toY = points[at + 3];
                Point(x + (cx - x) * 2 / 3, y + (cy - y) * 2 / 3);
                Point(toX + (cx - toX) * 2 / 3, toY + (cy - toY) * 2 / 3);
                Point(toX, toY);
            }
            else
            {
                for (var i = 0; i < count; i += 2)
                    Point(points[at + i], points[at + i + 1]);
            }

            text.Append(
                step switch
                {
                    VectorPath.Step.Move => "m ",
                    VectorPath.Step.Line => "l ",
                    VectorPath.Step.Close => "h ",
                    _ => "c ",
                }
            );
            if (count > 0)
                (x, y) = (points[at + count - 2], points[at + count - 1]);
            at += count;
        }
    }

    private void SetColour(uint rgba)
    {
        var alpha = rgba & 0xFF;
        if (alpha != (colour & 0xFF) || alpha != 0xFF)
        {
            Alphas.Add(alpha);
            text.Append(CultureInfo.InvariantCulture, $"/{AlphaName(alpha)} gs\n");
        }

        colour = rgba;
        text.Append(Rgb(rgba)).Append(" rg\n");
    }

    /// <summary>The ring's quadratic pieces, raised to the cubic ones that PDF knows.</summary>
    private void Ring(ReadOnlySpan<float> ring)
    {
        var count = ring.Length / 2;
        float lastX = ring[^2],
            lastY = ring[^1];
        float fromX = (lastX + ring[0]) / 2,
            fromY = (lastY + ring[1]) / 2;
        Point(fromX, fromY).Append("m\n");
        for (var i = 0; i < count; i++)
        {
            var next = (i + 1) % count;
            float cx = ring[2 * i],
                cy = ring[2 * i + 1];
            float toX = (cx + ring[2 * next]) / 2,
                toY = (cy + ring[2 * next + 1]) / 2;
            Point(fromX + (cx - fromX) * 2 / 3, fromY + (cy - fromY) * 2 / 3);
            Point(toX + (cx - toX) * 2 / 3, toY + (cy - toY) * 2 / 3);
            Point(toX, toY).Append("c\n");
            (fromX, fromY) = (toX, toY);
        }

        text.Append("h\n");
    }

    /// <summary>A point to 0.001 mm.</summary>
    private StringBuilder Point(float x, float y)
    {
        Number(x);
        Number(y);
        return text;
    }

    private void Number(float value)
    {
        var tenths = (int)MathF.Round(value * 10);
        if (tenths < 0)
        {
            text.Append('-');
            tenths = -tenths;
        }

        text.Append(tenths / 10);
        if (tenths % 10 != 0)
            text.Append('.').Append((char)('0' + tenths % 10));
        text.Append(' ');
    }

    private static string Rgb(uint rgba) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{(rgba >> 24) / 255.0:0.###} {((rgba >> 16) & 0xFF) / 255.0:0.###} {((rgba >> 8) & 0xFF) / 255.0:0.###}"
        );
}
