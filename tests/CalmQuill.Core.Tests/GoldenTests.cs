using System.Text.Json;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Spots;
using CalmQuill.Testing;

namespace CalmQuill.Core.Tests;

/// <summary>The stored form is for ever: what was written by an earlier version is read by every later one, and written the same.</summary>
public sealed class GoldenTests
{
    /// <summary>
    /// A line an operation: kind of document, kind of change, and the batch that holds it alone, in hexadecimal digits. Lines are only ever added.
    /// </summary>
    private static readonly string File = Path.Combine(Repository.Root, "tests", "CalmQuill.Core.Tests", "golden-operations.txt");

    [Fact]
    public void Every_kind_of_change_is_stored_as_it_always_was()
    {
        var golden = System.IO.File.ReadAllLines(File);
        var now = Lines().ToList();
        Assert.Equal(golden, now);
    }

    [Fact]
    public void What_was_stored_is_read_as_what_it_was()
    {
        var read = System
            .IO.File.ReadAllLines(File)
            .Select(line => Assert.Single(OperationCodec.Decode(Convert.FromHexString(line.Split(' ')[2]))))
            .Select(Json);
        Assert.Equal(Corpus.Histories.Values.SelectMany(history => history).Select(Json), read);
    }

    [Fact]
    public void The_corpus_holds_every_kind_of_change_every_register_and_every_field()
    {
        var changes = Corpus.Histories.Values.SelectMany(history => history).Select(operation => operation.Change).ToList();
        Assert.Equal(Enum.GetValues<ChangeKind>(), changes.Select(change => change.Kind).Distinct().Order());
        Assert.Equal(Properties.All.Keys.Order(), changes.OfType<Change.PropertySet>().Select(set => set.Property).Distinct().Order());
        Assert.Equal(
            Enum.GetValues<SpotField>(),
            changes
                .SelectMany(change =>
                    change switch
                    {
                        Change.SpotAdded added => added.Values,
                        Change.SpotSet set => set.Values,
                        _ => [],
                    }
                )
                .Select(value => value.Field)
                .Distinct()
                .Order()
        );
        Assert.Equal(
            Enum.GetValues<ItemField>(),
            changes
                .SelectMany(change =>
                    change switch
                    {
                        Change.ItemsSet set => set.Values,
                        Change.WrittenAdded added => added.Values,
                        _ => [],
                    }
                )
                .Select(value => value.Field)
                .Distinct()
                .Order()
        );
        Assert.Equal(
            Enum.GetValues<LayerField>(),
            changes.OfType<Change.LayerSet>().SelectMany(set => set.Values).Select(value => value.Field).Distinct().Order()
        );
    }

    private static IEnumerable<string> Lines() =>
        Corpus.Histories.SelectMany(entry =>
            entry.Value.Select(operation => $"{entry.Key} {operation.Change.Kind} {Convert.ToHexString(OperationCodec.Encode(operation))}")
        );

    private static string Json(Operation operation)
    {
        using var stream = new MemoryStream();
        using (var writer = new Utf8JsonWriter(stream))
            OperationJson.Write(writer, operation);
        return System.Text.Encoding.UTF8.GetString(stream.ToArray());
    }
}
