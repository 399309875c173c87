using System.Text;
using System.Text.Json;
using CalmQuill.Core.Access;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>The binary and the JSON form: what is written reads back equal, and nothing that is read breaks the reader.</summary>
public class CodecTests
{
    [Fact]
    public void Batches_read_back_to_the_same_bytes_and_the_same_page() =>
        Gen.OneOf(Generate.PageHistory, Generate.LibraryHistory, Generate.NotebookHistory)
            .Sample(
                history =>
                {
                    var bytes = OperationCodec.Encode(history);
                    var read = OperationCodec.Decode(bytes);
                    Assert.Equal(bytes, OperationCodec.Encode(read));
                    Assert.Equal(StateOf(history), StateOf(read));
                },
                iter: 500
            );

    [Fact]
    public void Json_says_the_same_as_the_binary_form() =>
        Gen.OneOf(Generate.PageHistory, Generate.LibraryHistory, Generate.NotebookHistory)
            .Sample(
                history =>
                {
                    using var stream = new MemoryStream();
                    using (var writer = new Utf8JsonWriter(stream))
                    {
                        writer.WriteStartArray();
                        foreach (var operation in history)
                            OperationJson.Write(writer, operation);
                        writer.WriteEndArray();
                    }

                    using var json = JsonDocument.Parse(stream.ToArray());
                    var read = json.RootElement.EnumerateArray().Select(OperationJson.Read).ToList();
                    Assert.Equal(OperationCodec.Encode(history), OperationCodec.Encode(read));
                },
                iter: 300
            );

    /// <summary>The table of registers, the rules and the codec may disagree in nothing: whatever is let in can be read, and says the same.</summary>
    [Fact]
    public void Whatever_the_rules_let_in_is_read_back_as_it_was_written()
    {
        var taken = new Dictionary<ChangeKind, int>();
        Gen.Select(Boundaries.Change, Gen.Int[1, 4])
            .Sample(
                (change, number) =>
                {
                    var kind = (DocumentKind)number;
                    var operation = new Replica(1, Generate.People[0]).Make(change, 1_700_000_000_000);
                    if (OperationRules.Check(operation, kind, Role.Writer, Generate.People[0], long.MaxValue / 2) is not null)
                        return;
                    lock (taken)
                        taken[change.Kind] = taken.GetValueOrDefault(change.Kind) + 1;
                    var bytes = OperationCodec.Encode(operation);
                    var read = Assert.Single(OperationCodec.Decode(bytes));
                    Assert.Equal(Json(operation), Json(read));
                    Assert.Equal(bytes, OperationCodec.Encode(read));
                    // It goes in where it was let in, and what holds it can be shown.
                    StateOf([read]);
                },
                iter: 30_000
            );
        // A rule that lets nothing in would pass as well.
        foreach (var kind in Enum.GetValues<ChangeKind>())
            Assert.True(taken.GetValueOrDefault(kind) > 0, $"nothing of {kind} was let in");
    }

    [Theory]
    [InlineData(Property.Name, 180, "\U0001F468\u200D\U0001F469\u200D\U0001F467\u200D\U0001F466")]
    [InlineData(Property.Palettes, 3_900, "水")]
    [InlineData(Property.Habits, 1_950, "\U0001F58B")]
    public void Long_texts_of_wide_characters_are_let_in_and_read_back(Property property, int count, string character)
    {
        var set = new Change.PropertySet(Guid.NewGuid(), property, string.Concat(Enumerable.Repeat(character, count)));
        var operation = new Replica(1, Generate.People[0]).Make(set, 1);
        Assert.Null(OperationRules.Check(operation, DocumentKind.Library, Role.Writer, Generate.People[0], 1));
        Assert.Equal(set, Assert.Single(OperationCodec.Decode(OperationCodec.Encode(operation))).Change);
    }

    [Fact]
    public void A_shape_of_nine_hundred_points_is_set_and_read_back()
    {
        var shape = new Core.Shapes.Shape(
            Core.Shapes.ShapeKind.Area,
            [.. Enumerable.Range(0, 900).Select(i => new Core.Shapes.Corner(-1_999_000 + i, 1_999_999 - i))]
        );
        var set = new Change.ItemsSet([new OpId(1, 1)], [new Core.Items.ItemValue(Core.Items.ItemField.Shape, shape.ToText())]);
        var operation = new Replica(1, Generate.People[0]).Make(set, 1);
        Assert.Null(OperationRules.Check(operation, DocumentKind.Page, Role.Writer, Generate.People[0], 1));
        Assert.Equal(Json(operation), Json(Assert.Single(OperationCodec.Decode(OperationCodec.Encode(operation)))));
    }

    [Fact]
    public void A_register_that_was_called_otherwise_once_is_read_under_that_name_too()
    {
        var operation = new Replica(1, Generate.People[0]).Make(new Change.PropertySet(Guid.Empty, Property.Habits, "{}"), 1);
        var earlier = Json(operation).Replace("\"Habits\"", "\"Hand\"", StringComparison.Ordinal);
        Assert.NotEqual(Json(operation), earlier);
        Assert.Equal(Json(operation), Json(OperationJson.Read(System.Text.Json.JsonDocument.Parse(earlier).RootElement)));
    }

    /// <summary>The table in docs/operations.md is read by people who write other readers.</summary>
    [Fact]
    public void The_documented_registers_are_those_of_the_table()
    {
        var lines = File.ReadAllLines(Path.Combine(Repository.Root, "docs", "operations.md"));
        foreach (var descriptor in Properties.All.Values)
        {
            var own = lines.Where(line => line.StartsWith($"| {descriptor.Property} |", StringComparison.Ordinal)).ToList();
            var columns = Assert.Single(own).Split('|', StringSplitOptions.TrimEntries);
            var documents = string.Join(
                " and ",
                new[] { descriptor.InLibrary ? "library" : "", descriptor.InNotebook ? "notebook" : "" }.Where(name => name.Length > 0)
            );
            Assert.Equal(
                [
                    ((int)descriptor.Property).ToString(System.Globalization.CultureInfo.InvariantCulture),
                    documents,
                    descriptor.On,
                    descriptor.Text.MostBytes.ToString("N0", System.Globalization.CultureInfo.InvariantCulture),
                ],
                columns[2..6]
            );
        }
    }

    /// <summary>Random bytes, and real batches with bytes changed, cut or added: either a batch, or one kind of exception with a sentence.</summary>
    [Fact]
    public void Damaged_batches_are_refused_and_never_break_the_reader() =>
        Gen.Select(Generate.PageHistory, Gen.Byte.Array[0, 60], Gen.Int[0, 2], Gen.Int[0, 10_000], Gen.Byte)
            .Sample(
                (history, noise, how, where, value) =>
                {
                    var bytes = how == 0 ? noise : OperationCodec.Encode(history);
                    if (how == 1)
                        bytes[where % bytes.Length] = value;
                    if (how == 2)
                        bytes = [.. bytes[..(where % bytes.Length)], .. noise];
                    try
                    {
                        foreach (var operation in OperationCodec.Decode(bytes))
                        {
                            // What is well formed may still be against the rules; checking and applying it must not break either.
                            if (
                                OperationRules.Check(
                                    operation,
                                    DocumentKind.Page,
                                    Role.Writer,
                                    operation.Author,
                                    long.MaxValue - OperationRules.MostAhead
                                )
                                is not null
                            )
                                continue;
                            var page = new PageDocument();
                            page.Apply(operation);
                            page.EncodeState();
                        }
                    }
                    catch (OperationFormatException refused)
                    {
                        Assert.NotEmpty(refused.Message);
                    }
                },
                iter: 5000
            );

    [Fact]
    public void A_few_bytes_cannot_ask_for_much_memory()
    {
        var writer = new ByteWriter();
        writer.Byte(1);
        writer.Varint(1);
        writer.Fixed64(1);
        writer.Varint(1);
        writer.Guid(Guid.NewGuid());
        writer.Varint(900_000);
        for (var i = 0; i < 5; i++)
            writer.Varint(int.MaxValue);
        Assert.Throws<OperationFormatException>(() => OperationCodec.Decode(writer.Written));
    }

    [Fact]
    public void Json_that_is_no_operation_is_refused_with_a_sentence()
    {
        foreach (
            var text in new[]
            {
                "{}",
                "[]",
                "3",
                """{"id":"x","time":1,"logical":0,"author":"y","kind":"StrokeAdded"}""",
                """{"id":"0000000000000001-1","time":1,"logical":0,"author":"00000000-0000-0000-0000-000000000001","kind":"StrokeAdded","pen":"Ball","width":40,"colour":"#000000ff","startedAt":1,"x":[],"y":[],"pressure":[],"t":[]}""",
            }
        )
        {
            using var json = JsonDocument.Parse(Encoding.UTF8.GetBytes(text));
            Assert.NotEmpty(Assert.Throws<OperationFormatException>(() => OperationJson.Read(json.RootElement)).Message);
        }
    }

    /// <summary>Damaged batches of libraries and notebooks: what still passes the rules never breaks what it is applied to.</summary>
    [Fact]
    public void What_is_left_of_damaged_libraries_and_notebooks_can_be_shown() =>
        Gen.Select(Gen.OneOf(Generate.LibraryHistory, Generate.NotebookHistory), Gen.Int[0, 10_000], Gen.Byte)
            .Sample(
                (history, where, value) =>
                {
                    var bytes = OperationCodec.Encode(history);
                    bytes[where % bytes.Length] = value;
                    LibraryDocument library = new();
                    NotebookDocument notebook = new();
                    try
                    {
                        foreach (var operation in OperationCodec.Decode(bytes))
                        {
                            bool Fits(DocumentKind kind) =>
                                OperationRules.Check(
                                    operation,
                                    kind,
                                    Role.Writer,
                                    operation.Author,
                                    long.MaxValue - OperationRules.MostAhead
                                )
                                    is null;
                            if (Fits(DocumentKind.Library))
                                library.Apply(operation);
                            if (Fits(DocumentKind.Notebook))
                                notebook.Apply(operation);
                        }
                    }
                    catch (OperationFormatException refused)
                    {
                        Assert.NotEmpty(refused.Message);
                    }

                    _ = new TagTree(library.Nodes()).All;
                    Assert.Equal(library.Nodes().Count, library.AllNodes().Count);
                    Assert.True(notebook.Outline(withBinned: true).Count >= notebook.Pages().Count);
                },
                iter: 2000
            );

    public static TheoryData<string, DocumentKind, Change> AgainstTheLibrary =>
        new()
        {
            { "bad-id", DocumentKind.Library, new Change.NodePlaced(Guid.Empty, NodeKind.Folder, Guid.Empty, "V") },
            { "bad-order", DocumentKind.Library, new Change.NodePlaced(Guid.NewGuid(), NodeKind.Folder, Guid.Empty, "V0") },
            { "bad-order", DocumentKind.Library, new Change.NodePlaced(Guid.NewGuid(), NodeKind.Tag, Guid.Empty, new string('V', 500)) },
            { "wrong-document", DocumentKind.Library, new Change.NodePlaced(Guid.NewGuid(), NodeKind.Page, Guid.Empty, "V") },
            { "wrong-document", DocumentKind.Library, new Change.NodePlaced(Guid.NewGuid(), (NodeKind)77, Guid.Empty, "V") },
            { "wrong-document", DocumentKind.Notebook, new Change.NodePlaced(Guid.NewGuid(), NodeKind.Folder, Guid.Empty, "V") },
            { "wrong-document", DocumentKind.Notebook, new Change.Visited(Guid.NewGuid(), Guid.NewGuid()) },
            { "wrong-document", DocumentKind.Notebook, new Change.PropertySet(Guid.NewGuid(), Property.Starred, "1") },
            { "wrong-document", DocumentKind.Page, new Change.TagSet(Guid.NewGuid(), Guid.NewGuid(), true) },
            { "wrong-document", DocumentKind.Library, new Change.PropertySet(Guid.NewGuid(), Property.MovedTo, Guid.NewGuid().ToString()) },
            { "bad-id", DocumentKind.Library, new Change.TagSet(Guid.Empty, Guid.NewGuid(), true) },
            { "bad-id", DocumentKind.Notebook, new Change.TagSet(Guid.NewGuid(), Guid.Empty, true) },
            { "bad-property", DocumentKind.Library, new Change.PropertySet(Guid.NewGuid(), (Property)99, "") },
            { "bad-name", DocumentKind.Notebook, new Change.PropertySet(Guid.NewGuid(), Property.Name, "a\u0007b") },
            { "bad-value", DocumentKind.Library, new Change.PropertySet(Guid.NewGuid(), Property.Colour, "#ff0000; drop") },
            { "bad-value", DocumentKind.Library, new Change.PropertySet(Guid.NewGuid(), Property.Binned, "yesterday") },
            { "bad-value", DocumentKind.Notebook, new Change.PropertySet(Guid.NewGuid(), Property.Erased, "12345678901234567") },
            { "bad-value", DocumentKind.Library, new Change.PropertySet(Guid.NewGuid(), Property.Pinned, "yes") },
            { "bad-value", DocumentKind.Library, new Change.PropertySet(Guid.NewGuid(), Property.MergedInto, "exam") },
            { "bad-value", DocumentKind.Library, new Change.PropertySet(Guid.Empty, Property.Terms, "2026-12-18/2026-09-07") },
            { "bad-value", DocumentKind.Library, new Change.PropertySet(Guid.Empty, Property.View, "a\nb") },
            { "bad-value", DocumentKind.Library, new Change.PropertySet(Guid.Empty, Property.JotPreset, new string('x', 1001)) },
            { "bad-rule", DocumentKind.Library, new Change.PropertySet(Guid.NewGuid(), Property.Rule, "{\"tag\":7}") },
            { "rule-too-long", DocumentKind.Library, new Change.PropertySet(Guid.NewGuid(), Property.Rule, new string(' ', 3600)) },
            { "bad-paper", DocumentKind.Notebook, new Change.PropertySet(Guid.NewGuid(), Property.Paper, "a4-ruled-0") },
        };

    [Theory]
    [MemberData(nameof(AgainstTheLibrary))]
    public void What_is_against_the_rules_of_libraries_and_notebooks_is_named(string code, DocumentKind kind, Change change)
    {
        var refusal = OperationRules.Check(new Replica(1, Generate.People[0]).Make(change, 1), kind, Role.Writer, Generate.People[0], 1);
        Assert.Equal(code, refusal!.Code);
        Assert.EndsWith(".", refusal.Sentence.English, StringComparison.Ordinal);
    }

    public static TheoryData<string, Change> AgainstTheRules =>
        new()
        {
            { "too-far", new Change.StrokeAdded(Ball, 0, new StrokeSamples([300_000_000], [0], [0], [0])) },
            { "too-far", new Change.StrokeAdded(Ball, 0, new StrokeSamples([0], [int.MinValue], [0], [0])) },
            { "bad-pressure", new Change.StrokeAdded(Ball, 0, new StrokeSamples([0], [0], [1024], [0])) },
            { "bad-pen", new Change.StrokeAdded(Ball with { Width = 0 }, 0, Generate.Wave(3)) },
            { "bad-pen", new Change.StrokeAdded(new Pen((PenKind)77, 40, 0), 0, Generate.Wave(3)) },
            { "too-long", new Change.StrokeAdded(Ball, 0, Generate.Wave(StrokeSamples.MostSamples + 1)) },
            { "bad-gap", new Change.GapsAdded([new StrokeGaps(new OpId(1, 1), [new Interval(-1, 4)])]) },
            { "empty", new Change.ItemsRemoved([]) },
            { "too-far", new Change.ItemsShifted([new OpId(1, 1)], int.MaxValue, 0) },
            { "wrong-document", new Change.PageAdded(Guid.NewGuid(), "V", "a4-ruled-710") },
        };

    [Theory]
    [MemberData(nameof(AgainstTheRules))]
    public void What_is_against_the_rules_is_named(string code, Change change)
    {
        var refusal = OperationRules.Check(
            new Replica(1, Generate.People[0]).Make(change, 1),
            DocumentKind.Page,
            Role.Writer,
            Generate.People[0],
            1
        );
        Assert.Equal(code, refusal!.Code);
        Assert.EndsWith(".", refusal.Sentence.English, StringComparison.Ordinal);
    }

    [Fact]
    public void Names_have_1_to_200_characters_as_a_reader_counts_them()
    {
        string? Refused(string name) =>
            OperationRules
                .Check(
                    new Replica(1, Generate.People[0]).Make(new Change.PropertySet(Guid.NewGuid(), Property.Name, name), 1),
                    DocumentKind.Library,
                    Role.Writer,
                    Generate.People[0],
                    1
                )
                ?.Code;
        Assert.Null(Refused(new string('ü', 200)));
        Assert.Null(Refused(string.Concat(Enumerable.Repeat("👩‍🔧", 200))));
        foreach (var name in new[] { "", "   ", new string('a', 201), new string('a', 5000), "two\nlines", "bell\a" })
            Assert.Equal("bad-name", Refused(name));
    }

    private static readonly Pen Ball = new(PenKind.Ball, 40, 0xFF);

    private static byte[] StateOf(IEnumerable<Operation> operations)
    {
        var page = new PageDocument();
        foreach (var operation in operations)
            page.Apply(operation);
        return page.EncodeState();
    }

    private static string Json(Operation operation)
    {
        using var stream = new MemoryStream();
        using (var writer = new Utf8JsonWriter(stream))
            OperationJson.Write(writer, operation);
        return Encoding.UTF8.GetString(stream.ToArray());
    }
}
