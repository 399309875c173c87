using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;

namespace CalmQuill.Core.Tests;

/// <summary>
/// The cases of M. Kleppmann, D. P. Mulligan, V. B. F. Gomes and A. R. Beresford, “A highly-available move operation for replicated trees” (2021), each on two replicas
/// that hear of the moves the other way round.
/// </summary>
public sealed class TreeMoveTests
{
    private static readonly Guid A = Generate.Node(1),
        B = Generate.Node(2),
        C = Generate.Node(3);
    private readonly Replica one = new(1, Generate.People[0]),
        two = new(2, Generate.People[1]);
    private long now = 1_000;

    [Fact]
    public void Moved_to_two_places_at_once_it_stands_in_one_of_them_and_is_not_doubled()
    {
        // Figure 1: A is moved under B by one, and under C by the other.
        var (first, second) = Both(Made(A, B, C), Move(one, A, B), Move(two, A, C));
        Assert.Equal(C, ParentOf(first, A));
        Assert.Equal(C, ParentOf(second, A));
        Assert.Single(first.Nodes(), node => node.Id == A);
    }

    [Fact]
    public void Two_put_into_each_other_are_in_no_ring()
    {
        // Figure 2: B is moved under A, and A under B.
        var (first, second) = Both(Made(A, B), Move(one, B, A), Move(two, A, B));
        foreach (var library in new[] { first, second })
        {
            Assert.Equal(A, ParentOf(library, B));
            Assert.Equal(Guid.Empty, ParentOf(library, A));
        }
    }

    [Fact]
    public void A_ring_that_only_one_of_three_moves_closes_is_not_closed()
    {
        var (first, second) = Both(Made(A, B, C), Move(one, A, B), Move(two, B, C), Move(one, C, A));
        foreach (var library in new[] { first, second })
        {
            Assert.Equal((B, C, Guid.Empty), (ParentOf(library, A), ParentOf(library, B), ParentOf(library, C)));
        }
    }

    [Fact]
    public void A_move_that_had_no_effect_has_one_once_an_earlier_one_arrives_that_makes_way()
    {
        // Undone and done again: under C, A no longer holds B, so A may go under B.
        var made = Made(A, B, C).ToList();
        made.Add(Move(one, B, A));
        var makesWay = Move(one, B, C);
        var late = Move(two, A, B);
        var (first, second) = Both(made, makesWay, late);
        Assert.Equal((B, C), (ParentOf(first, A), ParentOf(first, B)));
        Assert.Equal((B, C), (ParentOf(second, A), ParentOf(second, B)));
    }

    [Fact]
    public void Something_binned_while_another_moves_into_it_takes_that_along_and_loses_nothing()
    {
        var binned = one.Make(new Change.PropertySet(B, Property.Binned, "1"), ++now);
        var (first, second) = Both(Made(A, B), binned, Move(two, A, B));
        foreach (var library in new[] { first, second })
            Assert.Equal([true, true], library.Nodes().OrderBy(node => node.Id).Select(node => node.InBin));
        var back = one.Make(new Change.PropertySet(B, Property.Binned, ""), ++now);
        first.Apply(back);
        Assert.DoesNotContain(first.Nodes(), node => node.InBin);
    }

    [Fact]
    public void New_keys_for_a_row_leave_everything_where_it_was_moved_to()
    {
        var made = Made(A, B, C);
        var laid = one.Make(
            new Change.OrdersSet([new NodeOrder(A, "X"), new NodeOrder(B, "Y"), new NodeOrder(Generate.Node(9), "Z")]),
            ++now
        );
        var (first, second) = Both(made, laid, Move(two, A, C));
        foreach (var library in new[] { first, second })
        {
            Assert.Equal(C, ParentOf(library, A));
            Assert.Equal("Y", library.Nodes().Single(node => node.Id == B).Order);
            // What was moved after that has the key of its move, and what is not there is not made.
            Assert.Equal("V", library.Nodes().Single(node => node.Id == A).Order);
            Assert.Equal(3, library.Nodes().Count);
        }

        // The other way round in time, the new key is the later one.
        var again = two.Make(new Change.OrdersSet([new NodeOrder(A, "W")]), ++now);
        foreach (var library in new[] { first, second })
        {
            library.Apply(again);
            Assert.Equal((C, "W"), (ParentOf(library, A), library.Nodes().Single(node => node.Id == A).Order));
        }
    }

    [Fact]
    public void Pages_and_sections_move_by_the_same_rules()
    {
        Guid section = A,
            other = B,
            page = C;
        Operation[] made =
        [
            one.Make(new Change.NodePlaced(section, NodeKind.Section, Guid.Empty, "V"), ++now),
            one.Make(new Change.NodePlaced(other, NodeKind.Section, Guid.Empty, "W"), ++now),
            one.Make(new Change.NodePlaced(page, NodeKind.Page, section, "V"), ++now),
        ];
        Operation[] moves =
        [
            one.Make(new Change.NodePlaced(section, NodeKind.Section, other, "V"), ++now),
            two.Make(new Change.NodePlaced(other, NodeKind.Section, section, "V"), ++now),
            // A section does not lie in a page.
            two.Make(new Change.NodePlaced(other, NodeKind.Section, page, "V"), ++now),
        ];
        NotebookDocument first = new(),
            second = new();
        foreach (var operation in made.Concat(moves))
            first.Apply(operation);
        foreach (var operation in made.Concat(moves.Reverse()))
            second.Apply(operation);
        Assert.Equal(first.EncodeState(), second.EncodeState());
        Assert.Equal([other, section, page], first.Outline().Select(entry => entry.Id));
    }

    private IEnumerable<Operation> Made(params Guid[] folders) =>
        folders.Select(folder => one.Make(new Change.NodePlaced(folder, NodeKind.Folder, Guid.Empty, "V"), ++now)).ToList();

    private Operation Move(Replica by, Guid node, Guid into) => by.Make(new Change.NodePlaced(node, NodeKind.Folder, into, "V"), ++now);

    private static (LibraryDocument First, LibraryDocument Second) Both(IEnumerable<Operation> made, params Operation[] moves)
    {
        var known = made.ToList();
        LibraryDocument first = new(),
            second = new();
        foreach (var operation in known.Concat(moves))
            first.Apply(operation);
        foreach (var operation in known.Concat(moves.Reverse()))
            second.Apply(operation);
        Assert.Equal(first.EncodeState(), second.EncodeState());
        return (first, second);
    }

    private static Guid ParentOf(LibraryDocument library, Guid node) => library.Nodes().Single(one => one.Id == node).Parent;
}
