using CalmQuill.Core.Changing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;

namespace CalmQuill.Core.Diagrams;

/// <summary>Drawing connectors, and joining their ends to things.</summary>
public static class Connecting
{
    /// <summary>An end of a connector so near a thing means it, 0.01 mm.</summary>
    public const double Reach = 150;

    /// <summary>A connector between two spots, joined to nothing yet.</summary>
    public static Shape Between(double x1, double y1, double x2, double y2, ConnectorLook look) =>
        new(ShapeKind.Connector, [Corner.At(x1, y1), Corner.At(x2, y2)], look.Detail);

    /// <summary>A connector as it would run between what is at two spots.</summary>
    public static Shape Shown(PageDocument page, double x1, double y1, double x2, double y2, double reach, ConnectorLook look)
    {
        var (from, to) = (Diagram.ThingAt(page, x1, y1, reach), Diagram.ThingAt(page, x2, y2, reach));
        return new Shape(
            ShapeKind.Connector,
            ConnectorWay.Between(AnchorOf(from, x1, y1), AnchorOf(to, x2, y2), from is not null && from == to, look.Route),
            look.Detail
        );
    }

    /// <summary>What is to be laid down for a connector between what is at two spots.</summary>
    public static List<Operation> Of(
        PageDocument page,
        (double X, double Y) start,
        (double X, double Y) end,
        double reach,
        ConnectorLook look,
        Pen pen,
        Guid layer
    )
    {
        var piece = new Piece();
        var shape = Between(start.X, start.Y, end.X, end.Y, look);
        var connector = piece.Add(new Change.ShapeAdded(shape, shape.PenFor(pen), 0, []) { Layer = layer });
        ItemValue[] joined =
        [
            .. new[]
            {
                Diagram.End(true, Diagram.ThingAt(page, start.X, start.Y, reach)),
                Diagram.End(false, Diagram.ThingAt(page, end.X, end.Y, reach)),
            }.Where(value => value.Value.Length > 0),
        ];
        if (joined.Length > 0)
            piece.Add(new Change.ItemsSet([connector], joined));
        return piece.Operations;
    }

    /// <summary>A connector with one end taken to a spot, as it would run.</summary>
    public static Shape Dragged(PageDocument page, PageItem connector, bool isStart, double x, double y, double reach)
    {
        var (fixedEnd, spot) = Other(page, connector, isStart);
        var at = Diagram.ThingAt(page, x, y, reach, connector.Id);
        Anchor held = AnchorOf(fixedEnd, spot.X, spot.Y),
            moved = AnchorOf(at, x, y);
        var shape = ((ShapeContent)connector.Content).Shape;
        return shape with
        {
            Points = ConnectorWay.Between(
                isStart ? moved : held,
                isStart ? held : moved,
                at is not null && at == fixedEnd,
                ConnectorLook.Of(shape.Detail).Route
            ),
        };
    }

    /// <summary>The change that joins one end of a connector to what is at a spot, or lets it end there.</summary>
    public static Change.ItemsSet Join(PageDocument page, PageItem connector, bool isStart, double x, double y, double reach)
    {
        var shape = ((ShapeContent)connector.Content).Shape;
        var (_, other) = Other(page, connector, isStart);
        Corner moved = Corner.At(x, y),
            stays = Corner.At(other.X, other.Y);
        var ends = shape with { Points = isStart ? [moved, stays] : [stays, moved] };
        return new Change.ItemsSet(
            [connector.Id],
            [
                new ItemValue(ItemField.Shape, ends.Map(connector.Unplace).ToText()),
                Diagram.End(isStart, Diagram.ThingAt(page, x, y, reach, connector.Id)),
            ]
        );
    }

    /// <summary>The change that gives connectors another look; what is left open of it stays as each has it.</summary>
    public static List<Change> Look(IEnumerable<PageItem> items, ConnectorRoute? route, ConnectorEnd? start, ConnectorEnd? end)
    {
        var changes = new List<Change>();
        foreach (var item in items)
        {
            if (item.Content is not ShapeContent { IsConnector: true, Shape: var shape })
                continue;
            var old = ConnectorLook.Of(shape.Detail);
            var look = new ConnectorLook(route ?? old.Route, start ?? old.Start, end ?? old.End);
            if (look != old)
                changes.Add(
                    new Change.ItemsSet(
                        [item.Id],
                        [new ItemValue(ItemField.Shape, (shape.WithoutWay() with { Detail = look.Detail }).ToText())]
                    )
                );
        }

        return changes;
    }

    private static (PageItem? Thing, (double X, double Y) Spot) Other(PageDocument page, PageItem connector, bool isStart)
    {
        var points = ((ShapeContent)connector.Content).PlacedShape!.Points;
        var at = points[isStart ? points.Count - 1 : 0];
        var field = isStart ? ItemField.To : ItemField.From;
        return (
            OpId.TryParse(connector.Read(field), out var id) && page.Find(id) is { HasArrived: true } thing ? thing : null,
            (at.X, at.Y)
        );
    }

    private static Anchor AnchorOf(PageItem? thing, double x, double y) => thing is null ? Anchor.At(x, y) : Anchor.Of(thing.Content);
}
