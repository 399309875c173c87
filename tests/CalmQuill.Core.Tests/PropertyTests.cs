using System.Text;
using CalmQuill.Core.Access;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Spots;
using CalmQuill.Testing;

namespace CalmQuill.Core.Tests;

/// <summary>The table of registers and the tables of fields: each value goes where it belongs, is as long as it may be, and reads as what it is.</summary>
public sealed class PropertyTests
{
    /// <summary>For each register a value that it takes and one that it does not.</summary>
    public static readonly TheoryData<Property, string, string> Values = new()
    {
        { Property.Name, "Escapements", "two\nlines" },
        { Property.Colour, "spruce", "spruce!" },
        { Property.Cover, "waves", "über" },
        { Property.Binned, "1790000000000", "yesterday" },
        { Property.Paper, "a4-ruled-710", "papyrus" },
        { Property.Icon, "book", "a b" },
        { Property.Pinned, "1", "0" },
        { Property.Jot, "1", "true" },
        { Property.MergedInto, "00000001-0000-4000-8000-000000000001", "1" },
        { Property.Rule, """{"starred":true}""", """{"starred":""" },
        { Property.Erased, "-5", "now" },
        { Property.Starred, "1", "yes" },
        { Property.View, "{}", "a\u0001" },
        { Property.JotPreset, "{}", new string('x', 1_001) },
        { Property.TodayPreset, "{}", new string('x', 1_001) },
        { Property.BinDays, "90", "31" },
        { Property.Terms, "2026-09-07/2026-12-18", "2026-12-18/2026-09-07" },
        { Property.LensSpace, "00000001-0000-4000-8000-000000000001", "here" },
        { Property.MovedTo, "00000001-0000-4000-8000-000000000001", "there" },
        { Property.Planner, "day/2026-10-08", "day/2026-13-08" },
        { Property.Entry, """{"start":"2026-10-08T09:00","end":"2026-10-08T10:30","title":"x"}""", """{"start":"2026-10-08T09:00"}""" },
        { Property.Turning, "seamless", "up" },
        { Property.Source, "00000001-0000-4000-8000-000000000001", "picture.jpg" },
        { Property.Category, "Workshop", " " },
        { Property.Bookmarked, "00000001-0000-4000-8000-000000000001", "page 3" },
        { Property.Tray, "[]", new string('x', 3_901) },
        { Property.Palettes, "{}", "a\u007f" },
        { Property.Habits, "{}", new string('x', 3_901) },
        { Property.Told, "1790000000000", new string('1', 17) },
        { Property.Moment, "1790000000000 before the exam", "before the exam" },
        { Property.Aside, """{"title":"Beats"}""", new string('x', 3_901) },
    };

    [Theory]
    [MemberData(nameof(Values))]
    public void A_register_takes_what_it_is_for_in_the_documents_it_belongs_to_and_nowhere_else(Property property, string good, string bad)
    {
        var descriptor = Properties.All[property];
        foreach (var kind in Enum.GetValues<DocumentKind>())
        {
            var refusal = Checked(kind, new Change.PropertySet(Generate.Node(1), property, good));
            if (descriptor.BelongsIn(kind))
            {
                Assert.Null(refusal);
                Assert.NotNull(Checked(kind, new Change.PropertySet(Generate.Node(1), property, bad)));
                Assert.Equal(descriptor.MayBeEmptyIn(kind), Checked(kind, new Change.PropertySet(Generate.Node(1), property, "")) is null);
            }
            else
                Assert.Equal("wrong-document", refusal?.Code);
        }
    }

    [Theory]
    [MemberData(nameof(Values))]
    public void A_value_that_is_longer_than_its_register_is_refused_with_a_sentence(Property property, string good, string _)
    {
        var most = Properties.All[property].Text.MostBytes;
        foreach (var filler in new[] { "x", "水", "\U0001F58B" })
        {
            var large = good + string.Concat(Enumerable.Repeat(filler, most / Encoding.UTF8.GetByteCount(filler) + 1));
            var kind = Properties.All[property].InLibrary ? DocumentKind.Library : DocumentKind.Notebook;
            var problem = Properties.All[property].Check(large, kind);
            Assert.NotNull(problem);
            Assert.EndsWith(".", problem.Sentence.English, StringComparison.Ordinal);
        }
    }

    [Fact]
    public void Every_register_is_in_the_table_and_every_field_in_its_own()
    {
        Assert.Equal(Enum.GetValues<Property>().Order(), Properties.All.Keys.Order());
        Assert.Equal(Enum.GetValues<ItemField>().Order(), ItemRules.Fields.Keys.Order());
        Assert.Equal(Enum.GetValues<LayerField>().Order(), LayerRules.Fields.Keys.Order());
        Assert.Equal(Enum.GetValues<SpotField>().Order(), SpotRules.Fields.Keys.Order());
        Assert.Equal(Values.Select(row => (Property)row[0]).Order(), Properties.All.Keys.Order());
        // What is not known here may be of a later version, and is read; the rules of this one let nothing of it in.
        Assert.Equal(TextRule.MostBytesUnknown, Properties.MostBytes((Property)200));
        Assert.Equal("bad-property", Checked(DocumentKind.Library, new Change.PropertySet(Generate.Node(1), (Property)200, "x"))?.Code);
    }

    [Fact]
    public void Registers_are_read_as_what_they_are_and_as_what_stands_at_first_where_they_hold_nothing()
    {
        Assert.True(Properties.Pinned.Read("1"));
        Assert.False(Properties.Pinned.Read(""));
        Assert.Equal(90, Properties.BinDays.Read("90"));
        Assert.Equal(Bin.UsualDays, Properties.BinDays.Read(""));
        // What an earlier or a hostile version wrote there is no reason to stop.
        Assert.Equal(Bin.UsualDays, Properties.BinDays.Read("a week"));
        Assert.Null(Properties.MergedInto.Read("somewhere"));
        Assert.Equal(Generate.Node(3), Properties.MergedInto.Read(Generate.Node(3).ToString()));
        Assert.Equal([(new DateOnly(2026, 9, 7), new DateOnly(2026, 12, 18))], Properties.Terms.Read("2026-09-07/2026-12-18"));
        Assert.Empty(Properties.Terms.Read("soon"));
        Assert.Equal("", Properties.Turning.Read("up"));
    }

    [Fact]
    public void When_a_thing_was_put_into_the_bin_is_the_operations_own_stamp_and_nothing_that_was_written_into_it()
    {
        const long now = 1_790_000_000_000;
        var device = new Replica(1, Generate.People[0]);
        var library = new LibraryDocument();
        library.Apply(device.Make(new Change.NodePlaced(Generate.Node(1), NodeKind.Notebook, Guid.Empty, "V"), now - 1_000));
        var notebook = new NotebookDocument();
        notebook.Apply(device.Make(new Change.PageAdded(Generate.Node(2), "V", "a4-ruled-710"), now - 1_000));
        foreach (var written in new[] { "0", "-5", "1", "999999999999999" })
        {
            var stamp = now + written.Length;
            library.Apply(device.Make(new Change.PropertySet(Generate.Node(1), Property.Binned, written), stamp));
            notebook.Apply(device.Make(new Change.PropertySet(Generate.Node(2), Property.Binned, written), stamp));
            Assert.InRange(library.Nodes().Single().BinnedAt!.Value, now, now + 1_000);
            Assert.InRange(notebook.Pages(withBinned: true).Single().BinnedAt!.Value, now, now + 1_000);
        }

        library.Apply(device.Make(new Change.PropertySet(Generate.Node(1), Property.Binned, ""), now + 2_000));
        Assert.Null(library.Nodes().Single().BinnedAt);
    }

    [Fact]
    public void Half_a_character_enters_nowhere()
    {
        // Made here: what a test is given passes through UTF-8, in which there are no halves.
        const char first = (char)0xD83D,
            second = (char)0xDE00;
        foreach (var text in new[] { $"a{first}", $"{second}b", $"{first}{first}{second}", $"{second}{first}" })
            AssertNowhere(text);
        Assert.Null(Checked(DocumentKind.Library, new Change.PropertySet(Generate.Node(1), Property.Name, $"whole {first}{second}")));
    }

    private static void AssertNowhere(string text)
    {
        foreach (
            var (kind, change) in new (DocumentKind, Change)[]
            {
                (DocumentKind.Library, new Change.PropertySet(Generate.Node(1), Property.Name, text)),
                (DocumentKind.Library, new Change.PropertySet(Generate.Node(1), Property.Rule, text)),
                (DocumentKind.Notebook, new Change.PageAdded(Generate.Node(1), "V", text)),
                (DocumentKind.Page, new Change.SpotSet(Generate.Node(1), [new SpotValue(SpotField.Note, text)])),
                (DocumentKind.Page, new Change.LayerSet(Generate.Node(1), [new LayerValue(LayerField.Name, text)])),
                (DocumentKind.Page, new Change.ItemsSet([new OpId(1, 1)], [new ItemValue(ItemField.Shape, text)])),
            }
        )
            Assert.Contains("half a character", Checked(kind, change)?.Sentence.English, StringComparison.Ordinal);
    }

    [Fact]
    public void One_and_the_same_is_not_said_twice_of_a_thing()
    {
        Assert.NotNull(
            Checked(
                DocumentKind.Page,
                new Change.ItemsSet([new OpId(1, 1)], [new ItemValue(ItemField.Order, "1"), new ItemValue(ItemField.Order, "2")])
            )
        );
        Assert.NotNull(
            Checked(
                DocumentKind.Page,
                new Change.LayerSet(Generate.Node(1), [new LayerValue(LayerField.Hidden, "1"), new LayerValue(LayerField.Hidden, "")])
            )
        );
        Assert.NotNull(
            Checked(
                DocumentKind.Library,
                new Change.OrdersSet([new NodeOrder(Generate.Node(1), "A"), new NodeOrder(Generate.Node(1), "B")])
            )
        );
        Assert.NotNull(Checked(DocumentKind.Library, new Change.OrdersSet([])));
        Assert.NotNull(Checked(DocumentKind.Library, new Change.OrdersSet([new NodeOrder(Generate.Node(1), "A0")])));
        Assert.NotNull(Checked(DocumentKind.Page, new Change.OrdersSet([new NodeOrder(Generate.Node(1), "A")])));
        Assert.Null(Checked(DocumentKind.Notebook, new Change.OrdersSet([new NodeOrder(Generate.Node(1), "A")])));
    }

    [Fact]
    public void A_number_that_no_operation_can_have_is_named_by_none()
    {
        OpId no = new(1, (1UL << 48) + 1),
            yes = new(1, 1UL << 48);
        foreach (
            var make in new Func<OpId, Change>[]
            {
                id => new Change.ItemsRemoved([id]),
                id => new Change.ItemsShifted([id], 1, 1),
                id => new Change.GapsAdded([new StrokeGaps(id, [new Core.Ink.Interval(0, 1)])]),
                id => new Change.EffectSet(id, false),
                id => new Change.ItemsTransformed([id], [], Core.Ink.Transform.Shift(1, 1)),
                id => new Change.ItemsSet([id], [new ItemValue(ItemField.Order, "1")]),
                id => new Change.StepsJoined([id]),
                id => new Change.AnswerWithdrawn(id),
            }
        )
        {
            Assert.Equal("bad-id", Checked(DocumentKind.Page, make(no))?.Code);
            Assert.Null(Checked(DocumentKind.Page, make(yes)));
        }
    }

    private static Refusal? Checked(DocumentKind kind, Change change) =>
        OperationRules.Check(new Replica(1, Generate.People[0]).Make(change, 1), kind, Role.Writer, Generate.People[0], 1);
}
