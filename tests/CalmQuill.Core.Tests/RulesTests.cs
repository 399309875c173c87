using CalmQuill.Core.Access;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Spots;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>What may enter a document: no text that cannot be kept, whichever field it hides in, and only one spelling where lists look for it.</summary>
public sealed class RulesTests
{
    private static readonly Guid Person = Generate.People[0];
    private readonly Replica device = new(1, Person);

    public static readonly TheoryData<string, DocumentKind> Places = new()
    {
        { "order", DocumentKind.Library },
        { "rule", DocumentKind.Library },
        { "view", DocumentKind.Library },
        { "tray", DocumentKind.Library },
        { "category", DocumentKind.Library },
        { "name", DocumentKind.Notebook },
        { "planner", DocumentKind.Notebook },
        { "entry", DocumentKind.Notebook },
        { "page paper", DocumentKind.Notebook },
        { "note", DocumentKind.Page },
        { "note later", DocumentKind.Page },
        { "item", DocumentKind.Page },
        { "layer", DocumentKind.Page },
    };

    [Theory]
    [MemberData(nameof(Places))]
    public void No_control_character_enters_anywhere(string place, DocumentKind kind)
    {
        Gen.Select(Gen.Char['\0', '\u001F'], Gen.Int[0, 6])
            .Sample(
                (sign, at) =>
                {
                    if (sign is '\n' or '\r' or '\t')
                        return;
                    var text = "abcdef".Insert(Math.Min(at, 6), sign.ToString());
                    Assert.NotNull(OperationRules.Check(device.Make(At(place, text), 1), kind, Role.Writer, Person, 1_000));
                },
                iter: 200
            );
    }

    [Theory]
    [InlineData("two\nlines")]
    [InlineData("𝔉𝔞𝔫𝔠𝔶 and 👩‍👩‍👧‍👦")]
    public void A_note_has_lines_and_any_script(string note) =>
        Assert.Null(OperationRules.Check(device.Make(At("note later", note), 1), DocumentKind.Page, Role.Writer, Person, 1_000));

    [Fact]
    public void A_paper_of_ones_own_has_one_spelling()
    {
        var id = Guid.NewGuid();
        Assert.Null(PaperText.Read($"a4-blank-710-own.{id:N}").Refusal);
        Assert.NotNull(PaperText.Read($"a4-blank-710-own.{id.ToString("N").ToUpperInvariant().Replace('0', 'A')}").Refusal);
        Assert.NotNull(PaperText.Read($"a4-blank-710-own.{id:D}").Refusal);
    }

    [Fact]
    public void A_sheet_that_has_grown_beyond_reason_is_blank_and_one_that_has_grown_far_is_ruled()
    {
        var paper = Paper.ParseOrDefault("a4-dotted-100-around");
        Assert.Empty(paper.Draw(paper.Sheet(new Box(-1_900_000, -1_900_000, 1_900_000, 1_900_000))).Pieces);
        Assert.NotEmpty(paper.Draw(paper.Sheet(new Box(0, 0, 100_000, 100_000))).Pieces);
        Assert.NotEmpty(paper.Draw(paper.Sheet(null)).Pieces);
        var down = Paper.ParseOrDefault("a4-ruled-710-down");
        Assert.NotEmpty(down.Draw(down.Sheet(new Box(0, 0, 9_000, StrokeSamples.MostCoordinate))).Pieces);
    }

    [Theory]
    [InlineData(Role.Owner, false, true)]
    [InlineData(Role.Owner, true, true)]
    [InlineData(Role.Writer, true, true)]
    [InlineData(Role.Writer, false, false)]
    [InlineData(Role.Reader, true, false)]
    [InlineData(Role.None, true, false)]
    public void Who_may_lock(Role role, bool madeIt, bool may) => Assert.Equal(may, Rights.MayLock(role, madeIt));

    private static Change At(string place, string text) =>
        place switch
        {
            "order" => new Change.NodePlaced(Generate.Node(1), NodeKind.Folder, Guid.Empty, text),
            "rule" => new Change.PropertySet(Generate.Node(1), Property.Rule, text),
            "view" => new Change.PropertySet(Generate.Node(1), Property.View, text),
            "tray" => new Change.PropertySet(Generate.Node(1), Property.Tray, text),
            "category" => new Change.PropertySet(Generate.Node(1), Property.Category, text),
            "name" => new Change.PropertySet(Generate.Node(1), Property.Name, text),
            "planner" => new Change.PropertySet(Generate.Node(1), Property.Planner, text),
            "entry" => new Change.PropertySet(Generate.Node(1), Property.Entry, text),
            "page paper" => new Change.PageAdded(Generate.Node(1), "V", text),
            "note" => new Change.SpotAdded(
                Generate.Node(1),
                SpotKind.Mark,
                new Box(0, 0, 9, 9),
                [],
                [new SpotValue(SpotField.Mark, "ask"), new SpotValue(SpotField.Note, text)]
            ),
            "note later" => new Change.SpotSet(Generate.Node(1), [new SpotValue(SpotField.Note, text)]),
            "item" => new Change.ItemsSet([new OpId(1, 1)], [new ItemValue(ItemField.Group, text)]),
            "layer" => new Change.LayerSet(Generate.Node(1), [new LayerValue(LayerField.Name, text)]),
            _ => throw new ArgumentOutOfRangeException(nameof(place)),
        };
}
