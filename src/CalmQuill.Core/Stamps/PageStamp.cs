using System.Globalization;
using CalmQuill.Core.Changing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;

namespace CalmQuill.Core.Stamps;

/// <summary>
/// A piece of a page that is kept to be laid down again and again. As a file it is a <see cref="FrozenPage"/>, so that what it shows is kept with it and
/// servers draw it as they draw any.
/// </summary>
public static class PageStamp
{
    /// <summary>The most things in a stamp.</summary>
    public const int MostThings = 1_000;

    /// <summary>The least and the most that a stamp is wide when it is laid down, 0.01 mm.</summary>
    public const int Least = 200,
        Most = 40_000;

    /// <summary>The paper of a stamp's file; stamps have none.</summary>
    private const string NoPaper = "a4-blank-710";

    /// <summary>Things of a page as a stamp's file.</summary>
    /// <exception cref="SentenceException">There is nothing to be kept, or too much.</exception>
    public static byte[] Of(PageDocument page, IReadOnlySet<OpId> chosen) => File(Cutting.Of(page, chosen));

    /// <summary>A piece as a stamp's file.</summary>
    /// <inheritdoc cref="Of"/>
    public static byte[] File(ReadOnlySpan<byte> piece)
    {
        var page = Cutting.Open(piece);
        return page.Items.Count switch
        {
            0 => throw new SentenceException($"There is nothing to be kept as a stamp."),
            > MostThings => throw new SentenceException($"A stamp holds at most {MostThings} things."),
            _ => FrozenPage.Write(page, NoPaper),
        };
    }

    /// <summary>The piece in a stamp's file; null where the bytes are none.</summary>
    public static byte[]? Read(ReadOnlySpan<byte> file)
    {
        if (FrozenPage.Read(file) is not { Page: { Items.Count: > 0 and <= MostThings } page })
            return null;
        return Cutting.Of(page, page.Items.Select(item => item.Id).ToHashSet());
    }

    /// <summary>A stamp as it is to be laid down.</summary>
    /// <param name="piece">The stamp.</param>
    /// <param name="x">Its middle, 0.01 mm.</param>
    /// <param name="y">Its middle, 0.01 mm.</param>
    /// <param name="width">How wide it is made, 0.01 mm, in proportion; 0 for as it was kept.</param>
    /// <param name="colour">The colour of all its lines and letters, 0xRRGGBBAA; null for those it has.</param>
    /// <returns>A piece; empty where there is nothing in it.</returns>
    public static byte[] Placed(ReadOnlySpan<byte> piece, double x, double y, int width, uint? colour)
    {
        var page = Cutting.Open(piece);
        if (page.Bounds() is not { } box)
            return [];
        var device = new Maker(page);
        var items = page.Items.ToList();
        var all = items.Select(item => item.Id).ToHashSet();
        var scale = width == 0 ? 1 : Math.Clamp(width, Least, Most) / Math.Max(1.0, box.Right - box.Left);
        var (middleX, middleY) = ((box.Left + (double)box.Right) / 2, (box.Top + (double)box.Bottom) / 2);
        var lies = new Affine(scale, 0, 0, scale, x - middleX * scale, y - middleY * scale);
        foreach (var (moved, transform) in Reshape.Of(items, Transform.Near(lies)))
            device.Do(new Change.ItemsTransformed([.. moved.Select(item => item.Id)], [], transform));
        if (colour is { } dyed)
        {
            foreach (var item in items)
            {
                if (Dyed(item.Content, dyed) is { Count: > 0 } values)
                    device.Do(new Change.ItemsSet([item.Id], values));
            }
        }

        return Cutting.Of(page, all);
    }

    /// <summary>What is said of a thing for its lines and letters to have a colour; what is filled keeps how much it covers.</summary>
    private static List<ItemValue> Dyed(ItemContent content, uint colour)
    {
        var values = new List<ItemValue>();
        if (content is LineContent line)
        {
            Add(ItemField.Colour, line.Colour);
            if ((line.Fill & 0xFF) != 0)
                Add(ItemField.Fill, line.Fill);
        }
        else if (content is TextContent text)
            Add(ItemField.Colour, text.Colour);
        return values;

        void Add(ItemField field, uint before) =>
            values.Add(new ItemValue(field, ((colour & ~0xFFu) | (before & 0xFF)).ToString("x8", CultureInfo.InvariantCulture)));
    }

    /// <summary>Does something to a page that nobody else sees.</summary>
    private sealed class Maker(PageDocument page)
    {
        private readonly Replica replica = new(ulong.MaxValue - 1, Guid.Empty);

        public void Do(Change change) => page.Apply(replica.Make(change, page.OperationCount + 1L));
    }
}
