using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;
using CalmQuill.Testing;

namespace CalmQuill.Core.Tests;

/// <summary>A page with two people at it, and short ways to put things on it.</summary>
public abstract class OnPage
{
    protected static readonly Pen Ball = new(PenKind.Ball, 40, 0x22302EFF);

    protected Replica Ines { get; } = new(1, Generate.People[0]);

    protected Replica Tobias { get; } = new(2, Generate.People[1]);

    protected PageDocument Page { get; } = new();

    protected long Now { get; private set; } = 1_700_000_000_000;

    /// <summary>Makes an operation, which must keep to the rules, and applies it.</summary>
    protected Operation Do(Replica device, Change change)
    {
        var operation = device.Make(change, Now += 100);
        Assert.Null(OperationRules.Check(operation, DocumentKind.Page, Access.Role.Writer, device.Author, Now));
        Page.Apply(operation);
        return operation;
    }

    protected void UndoAll(Replica device)
    {
        foreach (var change in Page.Undo(device.Author))
            Do(device, change);
    }

    protected OpId Line(int x1, int y1, int x2, int y2, Pen? pen = null) =>
        Do(Ines, new Change.StrokeAdded(pen ?? Ball, Now, Straight(x1, y1, x2, y2))).Id;

    protected OpId Put(Shape shape, uint fill = 0) => Do(Ines, new Change.ShapeAdded(shape, Ball, fill, [])).Id;

    protected PageItem Item(OpId id) => Page.Find(id)!;

    protected OpId[] Shown() => [.. Page.Items.Where(item => item.Shown).Select(item => item.Id)];

    /// <summary>A straight stroke with a sample about every half millimetre.</summary>
    protected static StrokeSamples Straight(int x1, int y1, int x2, int y2)
    {
        var count = Math.Max(2, (int)(Math.Sqrt(Math.Pow(x2 - x1, 2) + Math.Pow(y2 - y1, 2)) / 50));
        return new StrokeSamples(
            [.. Enumerable.Range(0, count).Select(i => x1 + (x2 - x1) * i / (count - 1))],
            [.. Enumerable.Range(0, count).Select(i => y1 + (y2 - y1) * i / (count - 1))],
            [.. Enumerable.Repeat(500, count)],
            [.. Enumerable.Range(0, count).Select(i => i * 8)]
        );
    }

    protected static Corner At(int x, int y) => new(x, y);

    /// <summary>A stroke to and fro, from above, as one scratches out.</summary>
    protected static StrokeSamples Zigzag(int left, int right, int top, int bottom, int turns)
    {
        var points = Enumerable
            .Range(0, turns + 1)
            .SelectMany(i =>
                Enumerable
                    .Range(0, 8)
                    .Select(k =>
                        (
                            X: (i % 2 == 0 ? left : right) + ((i % 2 == 0 ? right : left) - (i % 2 == 0 ? left : right)) * k / 8,
                            Y: top + (bottom - top) * (i * 8 + k) / (turns * 8 + 8)
                        )
                    )
            )
            .ToList();
        return new StrokeSamples(
            [.. points.Select(p => p.X)],
            [.. points.Select(p => p.Y)],
            [.. points.Select(_ => 500)],
            [.. points.Select((_, i) => i * 8)]
        );
    }
}
