using System.Globalization;
using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using CalmQuill.Core.Diagrams;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Shapes;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: shapes, what ink keeps to, and filling.</summary>
public static partial class ShapeBridge
{
    /// <summary>Says that the pen was lifted without a rest, in place of a size.</summary>
    private const int Lifted = -2;

    /// <summary>What a stroke being written comes out as, joined to what it nearly touches; empty where it is no shape.</summary>
    /// <param name="stroke">Handle of the stroke.</param>
    /// <param name="page">Handle of the page.</param>
    /// <param name="paper">The paper, for its lines.</param>
    /// <param name="join">How near is nearly, 0.01 mm; 0 not to join.</param>
    /// <param name="printed">What is joined to the paper's lines (<see cref="JoinPrinted"/>).</param>
    /// <param name="now">The device's clock.</param>
    /// <param name="least">When the pen rests, how large what is meant as a shape is at least, 0.01 mm; −1 for the shape tool, which takes everything; −2 when the pen
    /// was lifted without a rest, which makes only an arrow of a shaft.</param>
    /// <returns>The shape's text, a bar, and the ids of what it takes the place of.</returns>
    [JSExport]
    public static string Tidy(int stroke, int page, string paper, int join, int printed, double now, int least)
    {
        var document = Session.Document<PageDocument>(page);
        var samples = PenBridge.Of(stroke).ToSamples();
        var author = Session.Replica.Author;
        var tidied = least switch
        {
            Lifted => Tidying.AtLift(samples, document, author, (long)now),
            < 0 => Tidying.Of(samples, document, author, (long)now),
            _ => Tidying.AtRest(samples, document, author, (long)now, least),
        };
        if (tidied is not { } result)
            return "";
        var shape =
            join > 0
                ? new Joining(document, result.Replaces.ToHashSet(), Paper.ParseOrDefault(paper), join, (JoinPrinted)printed).Join(
                    result.Shape,
                    tidied: true
                )
                : result.Shape;
        return $"{shape.ToText()}|{string.Join(' ', result.Replaces)}";
    }

    /// <summary>A shape dragged out between two spots by the shape tool.</summary>
    [JSExport]
    public static string Between(int kind, double x1, double y1, double x2, double y2, bool even) =>
        ShapeTool.Between((ShapeKind)kind, x1, y1, x2, y2, even).ToText();

    /// <summary>A shape with its ends joined to what they nearly touch.</summary>
    [JSExport]
    public static string Join(int page, string shape, string[] without, string paper, int join, int printed) =>
        new Joining(
            Session.Document<PageDocument>(page),
            without.Select(OpId.Parse).ToHashSet(),
            Paper.ParseOrDefault(paper),
            join,
            (JoinPrinted)printed
        )
            .Join(Of(shape))
            .ToText();

    /// <summary>The outline of a shape's line as rings, to be shown before it is kept.</summary>
    [JSExport]
    public static byte[] Outline(string shape, int[] pen) => RenderPacket.OfStroke(Of(shape).PenFor(PenBridge.Pen(pen)), Of(shape).Trace());

    /// <summary>Adds a shape in place of items.</summary>
    [JSExport]
    public static byte[] Add(int page, string shape, int[] pen, double fill, string[] replaces, string layer, double now) =>
        Session.Perform(page, Added(shape, pen, fill, [.. replaces.Select(OpId.Parse)], layer), now);

    /// <summary>Keeps a rough stroke and puts a shape in its place, so that one undo has the rough one back; framed operations.</summary>
    [JSExport]
    public static byte[] AddTidied(
        int stroke,
        int page,
        string shape,
        int[] pen,
        double fill,
        string[] replaces,
        string layer,
        double startedAt,
        double now
    )
    {
        var kept = PenBridge.Keep(stroke, page, layer, startedAt, now);
        OpId[] all = [Session.Replica.LastId, .. replaces.Select(OpId.Parse)];
        return Session.Framed([kept, Session.Perform(page, Added(shape, pen, fill, all, layer), now)]);
    }

    /// <summary>The handles of a shape on the page, as JSON: x, y and role of each; none for ink.</summary>
    [JSExport]
    public static string Handles(int page, string item) =>
        Json.List(
            Session.Document<PageDocument>(page).Find(OpId.Parse(item))?.Content is ShapeContent { PlacedShape: { } shape }
                ? ShapeHandles.Of(shape)
                : [],
            (json, handle) =>
            {
                json.WriteStartObject();
                json.WriteNumber("x", handle.At.X);
                json.WriteNumber("y", handle.At.Y);
                json.WriteString("role", handle.Role.ToString().ToLowerInvariant());
                json.WriteEndObject();
            }
        );

    /// <summary>A shape on the page with a handle dragged to a spot, joined where wished: its text, as it lies on the page.</summary>
    [JSExport]
    public static string Drag(int page, string item, int handle, double x, double y, int join)
    {
        var document = Session.Document<PageDocument>(page);
        var id = OpId.Parse(item);
        if (document.Find(id) is { Content: ShapeContent { IsConnector: true } } connector)
            return Connecting.Dragged(document, connector, handle == 0, x, y, Connecting.Reach).ToText();
        var dragged = ShapeHandles.Drag(((ShapeContent)document.Find(id)!.Content).PlacedShape!, handle, x, y);
        return (join > 0 ? new Joining(document, new HashSet<OpId> { id }, null, join).JoinDragged(dragged, handle) : dragged).ToText();
    }

    /// <summary>Keeps a shape whose handle was dragged to a spot: as <see cref="Drag"/> shows it, and a connector joined to what is there.</summary>
    [JSExport]
    public static byte[] Drop(int page, string item, int handle, double x, double y, int join, double now)
    {
        var document = Session.Document<PageDocument>(page);
        return document.Find(OpId.Parse(item)) is { Content: ShapeContent { IsConnector: true } } connector
            ? Session.Perform(page, Connecting.Join(document, connector, handle == 0, x, y, Connecting.Reach), now)
            : Change(page, item, Drag(page, item, handle, x, y, join), now);
    }

    /// <summary>A square or circle that was tidied from something less even, as it was drawn: a rectangle or an ellipse; empty where there is nothing to loosen.</summary>
    [JSExport]
    public static string AsDrawn(int page, string item)
    {
        var document = Session.Document<PageDocument>(page);
        return document.Find(OpId.Parse(item)) is { } found && Tidying.AsDrawn(document, found) is { } shape ? shape.ToText() : "";
    }

    /// <summary>Changes a shape on the page to another, given as it is to lie on the page.</summary>
    [JSExport]
    public static byte[] Change(int page, string item, string shape, double now)
    {
        var found = Session.Document<PageDocument>(page).Find(OpId.Parse(item))!;
        return Session.Perform(
            page,
            new Operations.Change.ItemsSet([found.Id], [new ItemValue(ItemField.Shape, Of(shape).Map(found.Unplace).ToText())]),
            now
        );
    }

    /// <summary>Fills the region round a spot; empty where nothing closes it in.</summary>
    [JSExport]
    public static byte[] Fill(int page, string paper, int x, int y, int gap, double colour, string layer, double now)
    {
        var document = Session.Document<PageDocument>(page);
        var on = Paper.ParseOrDefault(paper);
        return RegionFill.At(document, on.Sheet(document.Bounds()), x, y, gap) is { } region
            ? Session.Perform(
                page,
                new Operations.Change.ShapeAdded(region, new Ink.Pen(Ink.PenKind.Ball, 10, 0xFF), (uint)colour, [])
                {
                    Layer = Session.LayerOf(layer),
                },
                now
            )
            : [];
    }

    /// <summary>The closed shape round a spot, whose own fill can be set; empty where there is none.</summary>
    [JSExport]
    public static string ClosedAt(int page, double x, double y)
    {
        var items = Session.Document<PageDocument>(page).Items;
        for (var i = items.Count - 1; i >= 0; i--)
        {
            if (items[i].IsOpen && items[i].Content is ShapeContent { Shape.IsClosed: true } shape && shape.Holds(x, y))
                return items[i].Id.ToString();
        }

        return "";
    }

    /// <summary>Where ink goes that keeps to a ruler or compass: x and y, and how far they lay off.</summary>
    [JSExport]
    public static double[] Keep(bool round, double gx, double gy, double angle, double size, double x, double y)
    {
        var guide = new Guide(round, gx, gy, angle, size);
        var (kx, ky) = guide.Keep(x, y);
        return [kx, ky, guide.Distance(x, y)];
    }

    /// <summary>The edge that ink begun at a place keeps to: its x and y, and whether the place is near enough to it, which all that lies on the ruler is.</summary>
    [JSExport]
    public static double[] EdgeAt(bool round, double gx, double gy, double angle, double size, double x, double y, double reach)
    {
        var guide = new Guide(round, gx, gy, angle, size);
        var edge = guide.EdgeAt(x, y);
        return [edge.X, edge.Y, guide.IsUnder(x, y) || edge.Distance(x, y) <= reach ? 1 : 0];
    }

    /// <summary>Where a turned ruler comes to rest.</summary>
    [JSExport]
    public static double Resting(double angle) => Guide.Resting(angle);

    private static Operations.Change.ShapeAdded Added(string shape, int[] pen, double fill, OpId[] replaces, string layer)
    {
        var added = Of(shape);
        return new(added, added.PenFor(PenBridge.Pen(pen)), (uint)fill, replaces) { Layer = Session.LayerOf(layer) };
    }

    private static Shape Of(string text) => Shape.Read(text) ?? throw new SentenceException($"A shape is not well formed.");
}
