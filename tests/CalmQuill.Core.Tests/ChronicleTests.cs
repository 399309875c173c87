using CalmQuill.Core.History;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>What happened, told short.</summary>
public sealed class ChronicleTests
{
    /// <summary>A quarter of an hour begins with it.</summary>
    private const long Start = Chronicle.Quarter * 1_990_000;

    private static readonly Guid Page = Generate.Node(1);
    private readonly Replica ines = new(1, Generate.People[0]);

    [Fact]
    public void Everything_that_is_told_adds_up_however_it_comes_in_batches() =>
        Gen.Select(Generate.PageHistory, Gen.Int[1, 9])
            .Sample(
                (made, size) =>
                {
                    static Dictionary<(Guid, int, Deed), long> Sums(IEnumerable<Chronicle.Line> lines) =>
                        lines
                            .GroupBy(line => (line.Person, line.Quarter, line.Deed))
                            .ToDictionary(one => one.Key, one => one.Sum(line => line.Things));
                    var whole = Told(DocumentKind.Page, made);
                    Assert.Equal(Sums(whole), Sums(made.Chunk(size).SelectMany(batch => Told(DocumentKind.Page, batch))));
                    Assert.Equal(
                        made.Count(operation => operation.Change is Change.StrokeAdded),
                        whole.Where(line => line.Deed == Deed.Wrote).Sum(line => line.Things)
                    );
                    Assert.Equal(
                        made.Sum(operation =>
                            operation.Change switch
                            {
                                Change.TextAdded text => text.Passage.Text.Length,
                                Change.TextTyped typed => typed.Typed.Letters,
                                _ => 0,
                            }
                        ),
                        whole.Where(line => line.Deed == Deed.Typed).Sum(line => line.Things)
                    );
                    Assert.All(whole, line => Assert.Equal(line.Quarter, line.At / Chronicle.Quarter));
                }
            );

    [Fact]
    public void What_is_done_within_a_quarter_of_an_hour_is_one_line()
    {
        var told = Told(
            DocumentKind.Page,
            [
                Make(Stroke(), 0),
                Make(Stroke(), Chronicle.Quarter - 1),
                Make(Stroke(), Chronicle.Quarter),
                Make(new Change.ItemsRemoved([new OpId(1, 1)]), 5),
            ]
        );
        Assert.Equal([(Deed.Wrote, 2L), (Deed.Wrote, 1L), (Deed.Removed, 1L)], told.Select(line => (line.Deed, line.Things)));
        Assert.Equal(Start + Chronicle.Quarter - 1, told[0].At);
    }

    [Fact]
    public void A_clock_that_runs_ahead_tells_of_nothing_that_is_yet_to_come()
    {
        var line = Assert.Single(Chronicle.Of(Page, DocumentKind.Page, [Make(Stroke(), 60_000)], _ => true, Start + 10));
        Assert.Equal((Start + 10, (int)(Start / Chronicle.Quarter)), (line.At, line.Quarter));
    }

    [Fact]
    public void A_page_that_is_made_gets_its_title_and_paper_by_that_and_changes_later()
    {
        var made = new[]
        {
            Make(new Change.NodePlaced(Page, NodeKind.Page, Guid.Empty, "V"), 0),
            Make(new Change.PropertySet(Page, Property.Name, "Beats"), 10),
            Make(new Change.PropertySet(Page, Property.Name, "Beats and pallets"), 20_000),
            Make(new Change.NodePlaced(Page, NodeKind.Page, Guid.Empty, "W"), 30_000),
            Make(new Change.PropertySet(Page, Property.Binned, "1"), 40_000),
            Make(new Change.PropertySet(Page, Property.Binned, ""), 50_000),
            Make(new Change.PropertySet(Page, Property.Planner, ""), 60_000),
        };
        Assert.Equal(
            [(Deed.Added, 2L), (Deed.Moved, 2L), (Deed.Removed, 1L)],
            Told(DocumentKind.Notebook, made).OrderBy(line => line.Deed).Select(line => (line.Deed, line.Things))
        );
        // What stood before is moved and not made.
        Assert.Equal(Deed.Moved, Assert.Single(Chronicle.Of(Guid.Empty, DocumentKind.Notebook, made[..1], _ => true, long.MaxValue)).Deed);
    }

    [Fact]
    public void Nothing_is_told_of_asides_tags_and_settings()
    {
        Assert.Empty(Told(DocumentKind.Aside, [Make(Stroke(), 0)]));
        Assert.Empty(
            Told(
                DocumentKind.Library,
                [
                    Make(new Change.NodePlaced(Page, NodeKind.Tag, Guid.Empty, "V"), 0),
                    Make(new Change.PropertySet(Guid.Empty, Property.Habits, "{}"), 0),
                    Make(new Change.Visited(Page, Page), 0),
                ]
            )
        );
    }

    private static List<Chronicle.Line> Told(DocumentKind kind, IEnumerable<Operation> operations) =>
        Chronicle.Of(Page, kind, operations, _ => false, long.MaxValue);

    private Operation Make(Change change, long after) => ines.Make(change, Start) with { Time = Hlc.At(Start + after) };

    private static Change Stroke() => new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), Start, Generate.Wave(3));
}
