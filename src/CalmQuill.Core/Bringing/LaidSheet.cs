using System.Globalization;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Bringing;

/// <summary>A leaf where it lies on its sheet.</summary>
/// <param name="Leaf">The leaf.</param>
/// <param name="Lies">Where, 0.01 mm from the sheet's upper left corner; in the proportions of the leaf as it is turned.</param>
public sealed record LaidLeaf(Leaf Leaf, Box Lies)
{
    /// <summary>From the leaf's own measures, <see cref="Leaf.Width"/> by <see cref="Leaf.Height"/> before it is turned, to the sheet.</summary>
    public Affine Place
    {
        get
        {
            double across = (Lies.Right - Lies.Left) / (double)Leaf.LaidWidth,
                down = (Lies.Bottom - Lies.Top) / (double)Leaf.LaidHeight;
            return Leaf.Turn switch
            {
                0 => new Affine(across, 0, 0, down, Lies.Left, Lies.Top),
                1 => new Affine(0, down, -across, 0, Lies.Right, Lies.Top),
                2 => new Affine(-across, 0, 0, -down, Lies.Right, Lies.Bottom),
                _ => new Affine(0, -down, across, 0, Lies.Left, Lies.Bottom),
            };
        }
    }

    /// <summary>What lays it on a page.</summary>
    public Change.ThingAdded Adding() =>
        new(
            ThingKind.Picture,
            Transform.Near(Place),
            Leaf.Width,
            Leaf.Height,
            new Passage("", []),
            [
                new ItemValue(ItemField.Source, Leaf.Asset.ToString()),
                .. Leaf.Number > 0 ? [new ItemValue(ItemField.Leaf, Leaf.Number.ToString(CultureInfo.InvariantCulture))] : (ItemValue[])[],
            ]
        );
}

/// <summary>A page as it will be: its paper, and the leaves that lie on it.</summary>
public sealed record LaidSheet(Paper Paper, IReadOnlyList<LaidLeaf> Leaves)
{
    /// <summary>What is done on the page that it becomes: one step, after which no hand takes the leaves along.</summary>
    /// <param name="device">Who does it, and where.</param>
    /// <param name="now">The device's clock, milliseconds since 1970.</param>
    public List<Operation> Operations(Replica device, long now)
    {
        var made = Leaves.Select(leaf => device.Make(leaf.Adding(), now)).ToList();
        made.Add(device.Make(new Change.ItemsSet([.. made.Select(one => one.Id)], [new ItemValue(ItemField.Locked, "1")]), now));
        made.Add(device.Make(new Change.StepsJoined([.. made.Select(one => one.Id)]), now));
        return made;
    }
}
