using CalmQuill.Core.Access;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>What a guest's device gets of a library: the part that was shared, as it looks there, and nothing of the rest.</summary>
public sealed class GuestViewTests
{
    /// <summary>For any library and any folder or notebook in it: the view holds exactly what lies in it, in the same order and with the same looks, and not one name from outside.</summary>
    [Fact]
    public void The_view_is_the_part_of_the_library_and_nothing_of_the_rest() =>
        Gen.Select(Generate.LibraryHistory, Gen.Int[0, 30])
            .Sample(
                (history, pick) =>
                {
                    var library = new LibraryDocument();
                    foreach (var operation in history)
                        library.Apply(operation);
                    var all = library
                        .Nodes()
                        .Where(node => !node.InBin && node.Kind is NodeKind.Folder or NodeKind.Notebook && !node.InBin)
                        .ToList();
                    if (all.Count == 0)
                        return;
                    var top = all[pick % all.Count];
                    var inside = all.Where(node => LiesIn(all, node, top.Id)).ToList();

                    var operations = OperationCodec.Decode(OperationCodec.Encode(GuestView.Operations(inside, 7)));
                    var seen = new LibraryDocument();
                    foreach (var operation in operations)
                        seen.Apply(operation);
                    Assert.Equal(
                        inside.Select(node =>
                            (node.Id, node.Kind, node.Name, node.Colour, node.Cover, node.Icon, node.Paper, node.CreatedAt)
                        ),
                        seen.Nodes()
                            .Select(node => (node.Id, node.Kind, node.Name, node.Colour, node.Cover, node.Icon, node.Paper, node.CreatedAt))
                    );
                    Assert.Equal(Guid.Empty, seen.Nodes().Single(node => node.Id == top.Id).Parent);
                    var named = operations
                        .SelectMany(operation =>
                            operation.Change switch
                            {
                                Change.NodePlaced placed => [placed.Node, placed.Parent],
                                Change.PropertySet set => new[] { set.Target },
                                _ => throw new InvalidOperationException("A view places and says, and nothing else."),
                            }
                        )
                        .Distinct();
                    Assert.Subset(inside.Select(node => node.Id).Append(Guid.Empty).ToHashSet(), named.ToHashSet());
                }
            );

    [Fact]
    public void What_lies_in_the_bin_or_is_no_thing_to_share_is_not_shown()
    {
        var library = new LibraryDocument();
        var device = new Replica(1, Guid.NewGuid());
        foreach (
            var change in new Change[]
            {
                new Change.NodePlaced(Generate.Node(1), NodeKind.Tag, Guid.Empty, "V"),
                new Change.NodePlaced(Generate.Node(2), NodeKind.Notebook, Guid.Empty, "V"),
                new Change.PropertySet(Generate.Node(2), Property.Binned, "5"),
            }
        )
            library.Apply(device.Make(change, 5));
        foreach (var node in library.Nodes())
            Assert.Throws<ArgumentException>(() => GuestView.Operations([node], 7));
    }

    [Fact]
    public void A_guest_neither_erases_nor_carries_pages_away_nor_puts_tags_on()
    {
        var page = Guid.NewGuid();
        Assert.NotNull(GuestRules.Check(new Change.PropertySet(page, Property.Erased, "1")));
        Assert.NotNull(GuestRules.Check(new Change.PropertySet(page, Property.MovedTo, Guid.NewGuid().ToString())));
        Assert.NotNull(GuestRules.Check(new Change.TagSet(page, Guid.NewGuid(), true)));
        // Into the bin and out again they may: it is undone by whoever writes there.
        Assert.Null(GuestRules.Check(new Change.PropertySet(page, Property.Binned, "5")));
        Assert.Null(GuestRules.Check(new Change.PageAdded(page, "V", "a4-ruled-710")));
        Assert.Equal([page], GuestRules.PagesNamed(new Change.PageAdded(page, "V", "a4-ruled-710")));
        Assert.Equal([page], GuestRules.PagesNamed(new Change.NodePlaced(page, NodeKind.Page, Guid.Empty, "V")));
        Assert.Empty(GuestRules.PagesNamed(new Change.NodePlaced(page, NodeKind.Section, Guid.Empty, "V")));
    }

    private static bool LiesIn(List<LibraryNode> nodes, LibraryNode node, Guid top)
    {
        for (LibraryNode? at = node; at is not null; at = nodes.Find(one => one.Id == at.Parent))
        {
            if (at.Id == top)
                return true;
        }

        return false;
    }
}
