using CalmQuill.Core.Assets;
using CalmQuill.Core.Changing;
using CalmQuill.Core.Diagrams;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Shapes;
using CalmQuill.Core.Stamps;
using CalmQuill.Core.Words;
using CalmQuill.Core.Writing;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Stamps: kept, read, made another size and colour, and those that ship.</summary>
public sealed class StampTests : OnPage
{
    [Fact]
    public void What_is_kept_as_a_stamp_is_laid_down_as_it_was()
    {
        var line = Line(1_000, 1_000, 3_000, 1_000, Ball with { Kind = PenKind.Brush });
        var ring = Put(new Shape(ShapeKind.Circle, [At(2_000, 3_000), At(2_900, 3_000)]), 0xE3B23C99);
        Line(9_000, 9_000, 9_500, 9_000);
        var file = PageStamp.Of(Page, new HashSet<OpId> { line, ring });
        var laid = Lay(PageStamp.Placed(PageStamp.Read(file)!, 15_000, 20_000, 0, null));
        Assert.Equal(2, laid.Count);
        Assert.Equal(2_000, Straightness(laid[0]));
        Assert.Equal(0xE3B23C99, ((ShapeContent)Item(laid[1]).Content).Fill);
        var box = Box.Around(laid.Select(id => Item(id).Bounds))!.Value;
        Assert.Equal((15_000, 20_000), ((box.Left + box.Right + 1) / 2, (box.Top + box.Bottom + 1) / 2));
    }

    [Fact]
    public void A_stamp_is_made_as_wide_as_is_wished_and_of_one_colour()
    {
        var line = Line(0, 0, 2_000, 0);
        var ring = Put(new Shape(ShapeKind.Circle, [At(1_000, 1_000), At(1_500, 1_000)]), 0xE3B23C80);
        var text = Do(Ines, new Change.TextAdded(Transform.Shift(0, 2_500), 2_000, 0, new Passage("Ticks", []), [])).Id;
        var piece = PageStamp.Read(PageStamp.Of(Page, new HashSet<OpId> { line, ring, text }))!;
        var laid = Lay(PageStamp.Placed(piece, 0, 0, 8_000, 0x1F5F8BFF));
        var box = Box.Around(laid.Select(id => Item(id).Bounds))!.Value;
        Assert.InRange(box.Right - box.Left, 7_900, 8_100);
        var circle = (ShapeContent)Item(laid[1]).Content;
        // A fill lets through as much as it did.
        Assert.Equal((0x1F5F8BFFu, 0x1F5F8B80u), (circle.Pen.Colour, circle.Fill));
        Assert.Equal(0x1F5F8BFFu, ((TextContent)Item(laid[2]).Content).Colour);
        Assert.Equal(4, Item(laid[2]).Content.Copy() is Change.TextAdded { Lay: var lay } ? lay.A / (double)Transform.One : 0, 0.1);
    }

    [Fact]
    public void A_diagram_stays_joined_as_a_stamp()
    {
        var shape = Put(new Shape(ShapeKind.Circle, [At(0, 0), At(1_000, 0)]));
        Put(new Shape(ShapeKind.Circle, [At(5_000, 0), At(6_000, 0)]));
        var laying = new Laying(Connecting.Of(Page, (0, 0), (5_000, 0), 100, default, Ball, Guid.Empty));
        while (laying.Next(change => Do(Ines, change).Id)) { }
        var words = ShapeWords.In(shape, LabelRoom.Of((ShapeContent)Item(shape).Content)!.Value, [], Guid.Empty);
        Do(Ines, words with { Passage = words.Passage with { Text = "A" } });
        var laid = Lay(PageStamp.Placed(PageStamp.Read(PageStamp.Of(Page, Shown().ToHashSet()))!, 9_000, 9_000, 3_500, null));
        var connector = laid.Select(Item).Single(item => item.Content is ShapeContent { IsConnector: true });
        Assert.Equal(2, connector.Content.LeansOn.Count(lean => laid.Contains(lean.On)));
        Assert.Contains(laid.Select(Item), item => Diagram.HolderOf(item) is { } holder && laid.Contains(holder));
    }

    [Fact]
    public void What_is_no_stamp_is_none_and_too_much_is_refused_with_a_sentence()
    {
        Assert.Null(PageStamp.Read([]));
        Assert.Null(PageStamp.Read("a4-ruled-710\n"u8));
        Assert.Null(PageStamp.Read("a4-ruled-710\nnot at all a batch of operations"u8));
        Assert.Null(PageStamp.Read(FrozenPage.Write(new PageDocument(), "a4-ruled-710")));
        Assert.Throws<SentenceException>(() => PageStamp.Of(Page, new HashSet<OpId>()));
        var piece = new Piece();
        for (var i = 0; i <= PageStamp.MostThings; i++)
            piece.Add(new Change.ShapeAdded(new Shape(ShapeKind.Line, [At(0, i), At(100, i)]), Ball, 0, []));
        var all = OperationCodec.Encode(piece.Operations);
        Assert.Contains("1000", Assert.Throws<SentenceException>(() => PageStamp.File(all)).Message, StringComparison.Ordinal);
        // Nor is a file that somebody made larger than one may be.
        var page = new PageDocument();
        foreach (var operation in piece.Operations)
            page.Apply(operation);
        Assert.Null(PageStamp.Read(FrozenPage.Write(page, "a4-ruled-710")));
    }

    [Fact]
    public void Whatever_bytes_come_they_are_read_or_refused() =>
        Gen
            .Byte.Array[0, 300]
            .Sample(bytes =>
            {
                var read = PageStamp.Read([.. "a4-ruled-710\n"u8, .. bytes]);
                return read is null || read.Length > 0;
            });

    [Fact]
    public void The_file_names_the_pictures_in_it_so_that_they_are_kept()
    {
        var asset = Guid.NewGuid();
        var picture = Do(
            Ines,
            new Change.ThingAdded(
                ThingKind.Picture,
                Transform.Shift(0, 0),
                2_000,
                1_000,
                new Passage("", []),
                [new ItemValue(ItemField.Source, asset.ToString())]
            )
        ).Id;
        var file = PageStamp.Of(Page, new HashSet<OpId> { picture });
        Assert.Equal(FrozenPage.MediaType, FileType.Of(file).MediaType);
        Assert.Equal([asset], NamedAssets.In(FrozenPage.Read(file)!.Page.Operations()));
    }

    [Fact]
    public void Each_that_ships_can_be_laid_down_and_is_of_a_size_to_be_used()
    {
        Assert.True(ShippedStamps.Names.Count >= 30);
        Assert.Null(ShippedStamps.Piece("nothing/of the kind"));
        foreach (var name in ShippedStamps.Names)
        {
            var laid = Lay(PageStamp.Placed(ShippedStamps.Piece(name)!, 10_000, 10_000, 0, null));
            var box = Box.Around(laid.Select(id => Item(id).Bounds))!.Value;
            Assert.InRange(Math.Max(box.Right - box.Left, box.Bottom - box.Top), 400, 5_000);
            Assert.All(laid, id => Assert.NotEmpty(Item(id).Visible()));
            Assert.Equal(2, name.Split('/').Length);
        }
    }

    [Fact]
    public void A_library_takes_stamps_and_gives_them_away_like_papers()
    {
        var placed = new Change.NodePlaced(Generate.Node(1), Library.NodeKind.Stamp, Guid.Empty, Ordering.OrderKey.Between(null, null, 5));
        var operation = new Replica(1, Generate.People[0]).Make(placed, Now);
        Assert.Null(OperationRules.Check(operation, DocumentKind.Library, Access.Role.Writer, Generate.People[0], Now + 1_000));
        Assert.NotNull(OperationRules.Check(operation, DocumentKind.Library, Access.Role.Reader, Generate.People[0], Now + 1_000));
        Assert.NotNull(OperationRules.Check(operation, DocumentKind.Notebook, Access.Role.Writer, Generate.People[0], Now + 1_000));
    }

    private IReadOnlyList<OpId> Lay(byte[] piece)
    {
        var laying = new Laying(piece, 0, 0, Guid.Empty);
        while (laying.Next(change => Do(Tobias, change).Id)) { }
        return laying.Items;
    }

    /// <summary>How long a level stroke is.</summary>
    private int Straightness(OpId id) => ((LineContent)Item(id).Content).Samples is var samples ? samples.X[^1] - samples.X[0] : 0;
}
