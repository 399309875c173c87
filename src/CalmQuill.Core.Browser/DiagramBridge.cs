using System.Globalization;
using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using CalmQuill.Core.Changing;
using CalmQuill.Core.Diagrams;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: connectors, words in shapes, branch maps. Lengths are 0.01 mm; a look is three numbers: route, start and end, as <see cref="ConnectorLook"/> has them.</summary>
public static partial class DiagramBridge
{
    /// <summary>A connector as it would run between what is at two spots: a shape's text.</summary>
    [JSExport]
    public static string Between(int page, double x1, double y1, double x2, double y2, int[] look) =>
        Connecting.Shown(Session.Document<PageDocument>(page), x1, y1, x2, y2, Connecting.Reach, LookOf(look)).ToText();

    /// <summary>Draws a connector between what is at two spots; framed operations, one step.</summary>
    [JSExport]
    public static byte[] Connect(int page, double[] ends, int[] look, int[] pen, string layer, double now) =>
        HandBridge.LayAll(
            page,
            Connecting.Of(
                Session.Document<PageDocument>(page),
                (ends[0], ends[1]),
                (ends[2], ends[3]),
                Connecting.Reach,
                LookOf(look),
                PenBridge.Pen(pen),
                Session.LayerOf(layer)
            ),
            now
        );

    /// <summary>How the connectors among some things look, as JSON, and how many there are; what differs is left out.</summary>
    [JSExport]
    public static string Look(int page, string[] items)
    {
        var looks = Items(page, items)
            .Select(item => item.Content)
            .OfType<ShapeContent>()
            .Where(shape => shape.IsConnector)
            .Select(shape => ConnectorLook.Of(shape.Shape.Detail))
            .ToList();
        return Json.Text(json =>
        {
            json.WriteStartObject();
            json.WriteNumber("count", looks.Count);
            Same(json, "route", looks.Select(look => (int)look.Route));
            Same(json, "start", looks.Select(look => (int)look.Start));
            Same(json, "end", looks.Select(look => (int)look.End));
            json.WriteEndObject();
        });
    }

    /// <summary>Gives the connectors among some things another look; −1 leaves a part of it as it is. Framed operations, one step.</summary>
    [JSExport]
    public static byte[] SetLook(int page, string[] items, int route, int start, int end, double now) =>
        Session.PerformAll(
            page,
            Connecting.Look(
                Items(page, items).Where(item => item.IsOpen),
                route < 0 ? null : (ConnectorRoute)route,
                start < 0 ? null : (ConnectorEnd)start,
                end < 0 ? null : (ConnectorEnd)end
            ),
            now,
            true
        );

    /// <summary>Lets connectors go that are to be moved and whose things are not on the page any more; framed operations, mostly none.</summary>
    [JSExport]
    public static byte[] LetGo(int page, string[] items, double now) =>
        Session.PerformAll(page, Diagram.LetGo(Items(page, items).Where(item => item.IsOpen)), now, true);

    /// <summary>
    /// The closed shape at a spot into which is typed there: its id, that of the words in it, and its middle, parted by bars; empty where a text is begun
    /// at the spot itself.
    /// </summary>
    [JSExport]
    public static string ShapeAt(int page, double x, double y)
    {
        var document = Session.Document<PageDocument>(page);
        for (var i = document.Items.Count - 1; i >= 0; i--)
        {
            var item = document.Items[i];
            if (
                item is { IsOpen: true, Content: ShapeContent { Shape: { IsClosed: true, Kind: not ShapeKind.Area } } shape }
                && shape.Holds(x, y)
                && LabelRoom.Of(shape) is { IsSmall: true }
            )
                return Named(document, item);
        }

        return "";
    }

    /// <summary>The same of the one closed shape among some things; empty where it is not just one.</summary>
    [JSExport]
    public static string ShapeOf(int page, string[] items)
    {
        var all = Items(page, items);
        var shapes = all.FindAll(item =>
            item is { IsOpen: true, Content: ShapeContent { Shape: { IsClosed: true, Kind: not ShapeKind.Area } } }
        );
        return shapes is [var shape] && all.TrueForAll(item => item == shape || Diagram.HolderOf(item) == shape.Id)
            ? Named(Session.Document<PageDocument>(page), shape)
            : "";
    }

    /// <summary>Lays empty words into a shape and begins to type into them; see <see cref="TextBridge.Add"/>.</summary>
    [JSExport]
    public static byte[] AddWords(int page, string shape, string looks, string layer, double now)
    {
        var id = OpId.Parse(shape);
        if (
            Session.Document<PageDocument>(page).Find(id) is not { Stands: true, Content: ShapeContent content }
            || LabelRoom.Of(content) is not { } room
        )
            throw new SentenceException($"This shape is not there any more.");
        return TextBridge.Begin(page, looks, (formats, values) => ShapeWords.In(id, room, values, Session.LayerOf(layer), formats), now);
    }

    /// <summary>Makes the shape in which words stand as high as they need; empty where they have room, and for all other texts.</summary>
    [JSExport]
    public static byte[] Fit(int page, string words, double now)
    {
        var document = Session.Document<PageDocument>(page);
        return
            document.Find(TypingHand.Read(words).Item) is { } text
            && Diagram.HolderOf(text) is { } holder
            && document.Find(holder) is { IsOpen: true } shape
            && ShapeWords.Fit(document, shape) is { } fitted
            ? Session.Perform(page, fitted.Change, now)
            : [];
    }

    /// <summary>Adds a branch to the map to which a shape belongs, with room for words; framed operations, one step. <see cref="Branch"/> says which words are its.</summary>
    [JSExport]
    public static byte[] AddBranch(int page, string from, string layer, double now)
    {
        var piece =
            MapOf(page, from).Branch(OpId.Parse(from), Session.LayerOf(layer))
            ?? throw new SentenceException($"A branch map has at most {BranchMap.MostNodes} things.");
        return HandBridge.LayAll(page, piece, now);
    }

    /// <summary>The words of the branch that was added last: an item's id.</summary>
    [JSExport]
    public static string Branch(int page) => HandBridge.LastLaid(page).LastOrDefault() ?? "";

    /// <summary>How many things branch off in the map to which a shape belongs.</summary>
    [JSExport]
    public static int Branches(int page, string shape) => MapOf(page, shape).Branches;

    /// <summary>Lays the map to which a shape belongs out anew; framed operations, one step.</summary>
    [JSExport]
    public static byte[] Arrange(int page, string shape, double now) => Session.PerformAll(page, MapOf(page, shape).Arrange(), now, true);

    private static BranchMap MapOf(int page, string shape)
    {
        var document = Session.Document<PageDocument>(page);
        return new BranchMap(document, BranchMap.CentreOf(document, OpId.Parse(shape)));
    }

    private static string Named(PageDocument page, PageItem shape)
    {
        var room = LabelRoom.Of((ShapeContent)shape.Content)!.Value;
        return string.Create(
            CultureInfo.InvariantCulture,
            $"{shape.Id}|{Diagram.WordsIn(page, shape.Id)?.Id.ToString() ?? ""}|{room.X:F0}|{room.Y:F0}"
        );
    }

    private static ConnectorLook LookOf(int[] look) => new((ConnectorRoute)look[0], (ConnectorEnd)look[1], (ConnectorEnd)look[2]);

    private static List<PageItem> Items(int page, string[] ids) => HandBridge.Items(page, ids);

    private static void Same(Utf8JsonWriter json, string name, IEnumerable<int> values)
    {
        if (values.Distinct().Take(2).ToList() is [var only])
            json.WriteNumber(name, only);
    }
}
