using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Tables;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Pages;

/// <summary>What is written by hand in the cells of a table: it goes along when they come to lie elsewhere.</summary>
public static class OnTables
{
    /// <summary>The change to a table's text, and what takes along all that lies in its cells.</summary>
    /// <param name="page">The page.</param>
    /// <param name="item">The table on it.</param>
    /// <param name="change">What is done to its text.</param>
    /// <param name="device">The number of the device that does it.</param>
    public static List<Change> With(PageDocument page, PageItem item, TextChange change, ulong device)
    {
        if (change.IsEmpty)
            return [];
        var changes = new List<Change> { new Change.TextTyped(item.Id, change) };
        var content = (TableContent)item.Content;
        var before = content.Layout;
        if (before.Text.IsEmpty)
            return changes;
        var own = content.OwnPlace(true);
        var lying = OnSlips
            .On(page, item)
            .Where(thing => thing.IsOpen)
            .Select(thing => (Thing: thing, Cell: CellOf(before, own, thing.Bounds)))
            .ToList();
        if (lying.Count == 0)
            return changes;
        // Tried out, and taken out again.
        var trial = new OpId(device, ulong.MaxValue - 2);
        item.Typed.Take(trial, new Stamp(new Hlc(ulong.MaxValue), trial), change);
        page.Typing(item.Id);
        var after = content.Layout;
        var moved = lying
            .GroupBy(one => ShiftOf(one.Cell, before, after, own))
            .Where(group => group.Key != (0, 0))
            .Select(group => new Change.ItemsShifted([.. group.Select(one => one.Thing.Id)], group.Key.X, group.Key.Y))
            .ToList();
        item.Typed.Withdraw(trial);
        page.Typing(item.Id);
        changes.AddRange(moved);
        return changes;
    }

    private static TableCell CellOf(TableLayout layout, in Affine own, Box box)
    {
        var (x, y) = own.Back((box.Left + (double)box.Right) / 2, (box.Top + (double)box.Bottom) / 2);
        return layout.At(x, y);
    }

    /// <summary>By how much the upper left corner of a cell moves on the page; what lay in one that is gone stays.</summary>
    private static (int X, int Y) ShiftOf(TableCell cell, TableLayout before, TableLayout after, in Affine own)
    {
        if (after.Text.Find(cell.Name) is not { } now)
            return (0, 0);
        Box was = before.BoxOf(cell),
            becomes = after.BoxOf(now);
        var ((x, y), (toX, toY)) = (own.Of(was.Left, was.Top), own.Of(becomes.Left, becomes.Top));
        return ((int)Math.Round(toX - x), (int)Math.Round(toY - y));
    }
}
