using CalmQuill.Core.Changing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;

namespace CalmQuill.Core.Diagrams;

/// <summary>
/// A branch map on a page: a shape in the middle, and all that connectors lead to from it, whoever drew them. A thing to which several lead belongs to the
/// one that is nearest to the middle.
/// </summary>
public sealed class BranchMap
{
    /// <summary>The most things of a map that are laid out.</summary>
    public const int MostNodes = 400;

    /// <summary>How large a new branch is, 0.01 mm.</summary>
    private const int Width = 3_600,
        Height = 1_000;

    /// <summary>What lies off by less is where it belongs, 0.01 mm.</summary>
    private const int Even = 50;

    private readonly PageDocument page;
    private readonly List<OpId> things = [];
    private readonly List<BranchNode> nodes = [];

    /// <param name="page">The page.</param>
    /// <param name="centre">The thing in the middle.</param>
    public BranchMap(PageDocument page, OpId centre)
    {
        this.page = page;
        var leading = Connected(page).ToLookup(ends => ends.From, ends => ends.To);
        var seen = new HashSet<OpId> { centre };
        Take(centre, -1, true);
        for (var i = 0; i < things.Count && things.Count < MostNodes; i++)
        {
            var middle = nodes[0].Box;
            foreach (
                var child in leading[things[i]]
                    .Where(id => page.Find(id) is { Shown: true } && seen.Add(id))
                    .OrderBy(id => page.Find(id)!.Bounds.Top)
                    .Take(MostNodes - things.Count)
                    .ToList()
            )
                Take(child, i, page.Find(child)!.Bounds is var box && box.Left + (long)box.Right >= middle.Left + (long)middle.Right);
        }
    }

    /// <summary>How many things branch off, the middle not counted.</summary>
    public int Branches => things.Count - 1;

    /// <summary>The thing in the middle of the map to which a thing belongs: where connectors are followed backwards from it.</summary>
    public static OpId CentreOf(PageDocument page, OpId thing)
    {
        var seen = new HashSet<OpId> { thing };
        var back = Connected(page).ToLookup(ends => ends.To, ends => ends.From);
        while (back[thing].FirstOrDefault(id => page.Find(id) is { Shown: true }) is var before && before != default && seen.Add(before))
            thing = before;
        return thing;
    }

    /// <summary>The changes that lay it out anew: shapes made as high as their words need, and all of it moved to where it belongs.</summary>
    public List<Change> Arrange()
    {
        var changes = new List<Change>();
        for (var i = 0; i < things.Count; i++)
        {
            if (page.Find(things[i]) is { IsOpen: true } item && ShapeWords.Fit(page, item) is { } fitted)
            {
                changes.Add(fitted.Change);
                nodes[i] = nodes[i] with { Box = fitted.Box };
            }
        }

        changes.AddRange(Moves(BranchLayout.Of(nodes)));
        return changes;
    }

    /// <summary>
    /// A new branch off a thing of the map, with room for words in it and the connector to it. A map that lies as it was laid out makes room for it;
    /// one that was arranged by hand stays.
    /// </summary>
    /// <param name="from">What it branches off.</param>
    /// <param name="layer">The layer it is laid on.</param>
    /// <returns>What is to be laid down; null where the thing is not of the map, or that has too much in it. The last thing in it is the new words.</returns>
    public List<Operation>? Branch(OpId from, Guid layer)
    {
        var parent = things.IndexOf(from);
        if (parent < 0 || things.Count >= MostNodes)
            return null;
        var middle = nodes[parent].Box;
        var (x, y) = ((middle.Left + middle.Right) / 2, middle.Bottom);
        // What somebody arranged by hand stays where it is.
        var isLaid = BranchLayout.Of(nodes).All(by => Math.Abs(by.Dx) <= Even && Math.Abs(by.Dy) <= Even);
        // Off the middle where there is less; last of its side.
        var right = Enumerable.Range(1, Branches).Count(i => nodes[i] is { Parent: 0, IsRight: true });
        var isRight = right <= Enumerable.Range(1, Branches).Count(i => nodes[i] is { Parent: 0 }) - right;
        var added = new BranchNode(new Box(x, y, x + Width, y + Height), parent, isRight);
        var moved = isLaid ? BranchLayout.Of([.. nodes, added]) : [.. new (int, int)[nodes.Count], Beside(added)];
        var box = added.Box.Shift(moved[^1].Dx, moved[^1].Dy);
        var pen = PenOf(from);
        var piece = new Piece();
        var shape = new Shape(
            ShapeKind.Rectangle,
            [new(box.Left, box.Top), new(box.Right, box.Top), new(box.Right, box.Bottom), new(box.Left, box.Bottom)]
        );
        var connector = piece.Add(
            new Change.ShapeAdded(
                Connecting.Between(middle.Right, y, box.Left, box.Top, new ConnectorLook(ConnectorRoute.Curved, default, default)),
                pen,
                0,
                []
            )
            {
                Layer = layer,
            }
        );
        var thing = piece.Add(new Change.ShapeAdded(shape, pen, 0, []) { Layer = layer });
        piece.Add(ShapeWords.In(thing, LabelRoom.Of(box), [], layer));
        piece.Add(
            new Change.ItemsSet(
                [connector],
                [new ItemValue(ItemField.From, from.ToString()), new ItemValue(ItemField.To, thing.ToString())]
            )
        );
        foreach (var change in Moves(moved))
            piece.Add(change);
        return piece.Operations;
    }

    /// <summary>By how much something new is moved to lie below all that branches off there already.</summary>
    private (int Dx, int Dy) Beside(BranchNode added)
    {
        var (box, parent, isRight) = added;
        var held = nodes[parent].Box;
        var goesRight = parent == 0 ? isRight : held.Left + (long)held.Right >= nodes[0].Box.Left + (long)nodes[0].Box.Right;
        var siblings = Enumerable
            .Range(1, Branches)
            .Where(i => nodes[i].Parent == parent && nodes[i].Box.Left >= held.Right == goesRight)
            .Select(i => nodes[i].Box)
            .ToList();
        var top =
            siblings.Count > 0
                ? siblings.Max(one => one.Bottom) + BranchLayout.Below
                : (int)((held.Top + (long)held.Bottom - (box.Bottom - box.Top)) / 2);
        return (
            (goesRight ? held.Right + BranchLayout.Across : held.Left - BranchLayout.Across - (box.Right - box.Left)) - box.Left,
            top - box.Top
        );
    }

    private IEnumerable<Change.ItemsShifted> Moves((int Dx, int Dy)[] moved) =>
        things
            .Select((thing, i) => (Thing: thing, By: moved[i]))
            .Where(one => one.By != (0, 0) && page.Find(one.Thing) is { IsOpen: true })
            .GroupBy(one => one.By, one => one.Thing)
            .Select(group => new Change.ItemsShifted(
                [.. Diagram.With(page, [.. group.Select(id => page.Find(id)!)]).Where(item => item.IsOpen).Select(item => item.Id)],
                group.Key.Dx,
                group.Key.Dy
            ));

    private Pen PenOf(OpId thing) =>
        page.Find(thing) is { Content: LineContent line }
            ? line.Pen with
            {
                Width = Math.Clamp(line.Pen.Width, Pen.LeastWidth, Pen.MostWidth),
            }
            : new Pen(PenKind.Ball, 40, WrittenContent.Ink);

    private void Take(OpId thing, int parent, bool isRight)
    {
        if (page.Find(thing) is not { HasArrived: true } item)
            return;
        things.Add(thing);
        nodes.Add(new BranchNode(item.Bounds, parent, isRight));
    }

    /// <summary>What connectors that are seen lead from, and to.</summary>
    private static IEnumerable<(OpId From, OpId To)> Connected(PageDocument page)
    {
        foreach (var item in page.Items)
        {
            if (
                item is { Shown: true, Content: ShapeContent { IsConnector: true } }
                && OpId.TryParse(item.Read(ItemField.From), out var from)
                && OpId.TryParse(item.Read(ItemField.To), out var to)
            )
                yield return (from, to);
        }
    }
}
