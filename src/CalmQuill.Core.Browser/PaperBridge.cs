using System.Globalization;
using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Planner;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: papers, covers, and what is printed on them.</summary>
public static partial class PaperBridge
{
    /// <summary>What is printed on a page, as JSON: the sheet's box, its colour, pieces as SVG path data, and the parts that lead to other pages.</summary>
    /// <param name="paper">The paper, in the text form.</param>
    /// <param name="page">Handle of the page, by whose ink a growing sheet is measured; 0 for none.</param>
    /// <param name="notebook">Handle of the notebook, for a planner's dates; 0 for none.</param>
    /// <param name="notebookId">Its id.</param>
    /// <param name="pageId">The page's id.</param>
    [JSExport]
    public static string Draw(string paper, int page, int notebook, string notebookId, string pageId)
    {
        var sheet = Paper.ParseOrDefault(paper);
        var face =
            notebook == 0 ? null : Session.Document<NotebookDocument>(notebook).PlannerPrintOf(Guid.Parse(notebookId), Guid.Parse(pageId));
        var ink = page == 0 || sheet.Growth == Growth.None ? null : Session.Document<PageDocument>(page).Bounds();
        var box = sheet.Sheet(ink);
        return Write(sheet.Draw(box, face), box, sheet.Own);
    }

    /// <summary>An ink's colour as it is shown on a ground, so that it can be read: itself where it stands out; its opacity stays. 0xRRGGBBAA.</summary>
    [JSExport]
    public static double StandingOut(double colour, double ground) =>
        (Colours.StandingOut((uint)colour | 0xFF, (uint)ground, 4.5) & ~0xFFu) | ((uint)colour & 0xFF);

    /// <summary>The box of a growing sheet as its ink now needs it: left, top, right, bottom.</summary>
    [JSExport]
    public static int[] Sheet(string paper, int page)
    {
        var (left, top, right, bottom) = Paper.ParseOrDefault(paper).Sheet(Session.Document<PageDocument>(page).Bounds());
        return [left, top, right, bottom];
    }

    /// <summary>A notebook's cover by its design and colour, without its title.</summary>
    [JSExport]
    public static string Cover(string design, string colour, string name)
    {
        var box = new Box(0, 0, Art.Cover.Width, Art.Cover.Height);
        return Write(Art.Cover.Draw(design, Hex(colour), name), box, Guid.Empty);
    }

    /// <summary>Everything to choose papers by: designs with what can be set of them, ready papers, sizes, designs of covers.</summary>
    [JSExport]
    public static string Choices() =>
        Json.Text(json =>
        {
            json.WriteStartObject();
            json.WritePropertyName("designs");
            Json.List(
                json,
                PaperDesigns.All,
                (_, design) =>
                {
                    json.WriteStartObject();
                    json.WriteString("name", design.Name);
                    json.WriteString("words", design.Words);
                    json.WriteString("group", design.Group);
                    json.WriteNumber("spacing", design.Spacing);
                    json.WriteString("spacingWords", design.SpacingWords);
                    json.WriteString("countWords", design.CountWords);
                    json.WriteNumber("usualCount", design.UsualCount);
                    json.WriteNumber("mostCount", design.MostCount);
                    json.WriteBoolean("hasWords", design.HasWords);
                    json.WriteBoolean("hasHead", design.HasHead);
                    json.WriteString("marginWords", design.MarginWords);
                    json.WriteBoolean("canBeHeaded", design.CanBeHeaded);
                    json.WriteBoolean("across", design.Across);
                    json.WriteString("tint", HexOf(design.Tint));
                    json.WriteEndObject();
                }
            );
            json.WritePropertyName("ready");
            Json.List(
                json,
                PaperDesigns.Ready,
                (_, ready) =>
                {
                    json.WriteStartObject();
                    json.WriteString("words", ready.Words);
                    json.WriteString("design", ready.Design);
                    json.WriteEndObject();
                }
            );
            json.WritePropertyName("sizes");
            Json.List(
                json,
                PaperSize.Named,
                (_, size) =>
                {
                    json.WriteStartObject();
                    json.WriteString("name", size.Name);
                    json.WriteNumber("width", size.Width);
                    json.WriteNumber("height", size.Height);
                    json.WriteBoolean("across", size.LiesAcross);
                    json.WriteEndObject();
                }
            );
            json.WritePropertyName("covers");
            Json.List(json, Art.Cover.Designs, (_, design) => json.WriteStringValue(design));
            json.WriteEndObject();
        });

    /// <summary>A paper's parts, as JSON; a text against the rules throws with their sentence.</summary>
    [JSExport]
    public static string Read(string text)
    {
        var (paper, refusal) = PaperText.Read(text);
        if (paper is null)
            throw new SentenceException(refusal!.Sentence);
        return Json.Text(json =>
        {
            json.WriteStartObject();
            json.WriteString("size", paper.Size.Name);
            json.WriteBoolean("across", paper.Across);
            json.WriteString("design", paper.Design.Name);
            json.WriteNumber("spacing", paper.Spacing);
            json.WriteString("growth", paper.Growth.ToString().ToLowerInvariant());
            WriteNumber(json, "head", paper.Head);
            WriteNumber(json, "margin", paper.Margin);
            WriteNumber(json, "count", paper.Count);
            WriteNumber(json, "weight", paper.Weight);
            if (paper.Tint is { } tint)
                json.WriteString("tint", HexOf(tint));
            if (paper.LineTint is { } line)
                json.WriteString("lines", HexOf(line));
            json.WriteBoolean("plain", paper.Plain);
            json.WriteBoolean("paired", paper.Paired);
            json.WriteBoolean("headed", paper.Headed);
            json.WriteNumber("usualHead", paper.Design.UsualHead(paper));
            json.WriteNumber("usualMargin", paper.Design.UsualMargin(paper));
            json.WriteBoolean("grain", paper.Grain);
            if (paper.Own != Guid.Empty)
                json.WriteString("own", paper.Own);
            json.WriteNumber("width", paper.Width);
            json.WriteNumber("height", paper.Height);
            json.WriteString("colour", HexOf(paper.Colour));
            json.WriteEndObject();
        });
    }

    private static string Write(Drawing drawing, Box sheet, Guid own) =>
        Json.Text(json =>
        {
            json.WriteStartObject();
            json.WritePropertyName("sheet");
            WriteBox(json, sheet);
            json.WriteString("ground", HexOf(drawing.Ground));
            if (own != Guid.Empty)
                json.WriteString("own", own);
            json.WritePropertyName("pieces");
            Json.List(
                json,
                drawing.Pieces,
                (_, piece) =>
                {
                    json.WriteStartObject();
                    switch (piece)
                    {
                        case Piece.Fill fill:
                            json.WriteString("path", fill.Path.ToSvg());
                            json.WriteString("fill", HexOf(fill.Colour));
                            break;
                        case Piece.Line line:
                            json.WriteString("path", line.Path.ToSvg());
                            json.WriteString("line", HexOf(line.Colour));
                            json.WriteNumber("width", line.Width);
                            if (line.Dash is { } dash)
                            {
                                json.WriteStartArray("dash");
                                json.WriteNumberValue(dash.On);
                                json.WriteNumberValue(dash.Off);
                                json.WriteEndArray();
                            }

                            break;
                        case Piece.Picture picture:
                            json.WriteString("picture", picture.Asset);
                            json.WritePropertyName("area");
                            WriteBox(json, picture.Area);
                            break;
                    }

                    json.WriteEndObject();
                }
            );
            json.WritePropertyName("links");
            Json.List(
                json,
                drawing.Links,
                (_, link) =>
                {
                    json.WriteStartObject();
                    json.WritePropertyName("area");
                    WriteBox(json, link.Area);
                    json.WriteString("page", link.Page);
                    json.WriteString("target", link.Target.ToString());
                    json.WriteEndObject();
                }
            );
            json.WriteEndObject();
        });

    internal static void WriteBox(Utf8JsonWriter json, Box box)
    {
        json.WriteStartArray();
        json.WriteNumberValue(box.Left);
        json.WriteNumberValue(box.Top);
        json.WriteNumberValue(box.Right);
        json.WriteNumberValue(box.Bottom);
        json.WriteEndArray();
    }

    private static void WriteNumber(Utf8JsonWriter json, string name, int? value)
    {
        if (value is { } known)
            json.WriteNumber(name, known);
    }

    /// <summary>#rrggbb, with alpha where it is not opaque.</summary>
    private static string HexOf(uint colour) =>
        (colour & 0xFF) == 0xFF
            ? string.Create(CultureInfo.InvariantCulture, $"#{colour >> 8:x6}")
            : string.Create(CultureInfo.InvariantCulture, $"#{colour:x8}");

    private static uint Hex(string text) => (uint.Parse(text.AsSpan(1), NumberStyles.HexNumber, CultureInfo.InvariantCulture) << 8) | 0xFF;
}
