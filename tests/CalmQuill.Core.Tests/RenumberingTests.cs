using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>A device whose number is another's takes a fresh one, and what it wrote stays what it was.</summary>
public sealed class RenumberingTests
{
    [Fact]
    public void A_page_written_under_a_fresh_number_shows_what_it_showed_and_undoes_what_it_undid() =>
        Generate.PageHistory.Sample(
            history =>
            {
                // All that one device made, and nobody has seen yet, gets the fresh number; what others made stays, and what was said of each other follows.
                // The number decides only between two changes of one and the same time; the fresh one stands where the old one stood, so that these come
                // out alike.
                var old = history[0].Id.Replica;
                var fresh = old + 1;
                var renumbering = new Renumbering(
                    history.Select(operation => operation.Id).Where(id => id.Replica == old).ToHashSet(),
                    fresh
                );
                var renumbered = history.Select(renumbering.Of).ToList();
                Assert.DoesNotContain(renumbered, operation => operation.Id.Replica == old);
                Assert.Equal(history.Select(operation => operation.Id.Counter), renumbered.Select(operation => operation.Id.Counter));
                // Through the codec, as it is sent.
                renumbered = [.. renumbered.SelectMany(operation => OperationCodec.Decode(OperationCodec.Encode(operation)))];
                Assert.Equal(Shown(history, old), Shown(renumbered, fresh));
            },
            iter: 2_000
        );

    [Fact]
    public void What_was_sent_before_keeps_its_number_also_where_it_is_named()
    {
        var device = new Replica(7, Generate.People[0]);
        var sent = device.Make(new Change.StrokeAdded(new Core.Ink.Pen(Core.Ink.PenKind.Ball, 40, 0xFF), 0, Generate.Wave(5)), 1);
        var waiting = device.Make(new Change.StrokeAdded(new Core.Ink.Pen(Core.Ink.PenKind.Ball, 40, 0xFF), 0, Generate.Wave(5)), 2);
        var removing = device.Make(new Change.ItemsRemoved([sent.Id, waiting.Id]), 3);
        const ulong fresh = 0xF0F0F0F0;
        var renumbering = new Renumbering(new HashSet<OpId> { waiting.Id, removing.Id }, fresh);
        Assert.Equal(sent, renumbering.Of(sent));
        Assert.Equal([sent.Id, new OpId(fresh, waiting.Id.Counter)], ((Change.ItemsRemoved)renumbering.Of(removing).Change).Items);
        device.Renumber(fresh);
        // Counters go on where they were, so nothing collides.
        Assert.Equal(new OpId(fresh, 4), device.Make(new Change.ItemsRemoved([sent.Id]), 4).Id);
    }

    [Fact]
    public void A_page_copied_by_another_shows_what_it_showed_also_what_was_taken_back_and_brought_back()
    {
        Gen.Select(Generate.PageHistory, Gen.Int[0, 1000])
            .Sample(
                (history, chance) =>
                {
                    // Somebody tries to take back what another did, which counts for nothing, and must not by the copy's one hand.
                    var target = history[chance % history.Count];
                    var other = new Replica(99, Generate.People.First(person => person != target.Author));
                    foreach (var operation in history)
                        other.Observe(operation.Time);
                    var page = new PageDocument();
                    foreach (var operation in history.Append(other.Make(new Change.EffectSet(target.Id, false), 0)))
                        page.Apply(operation);
                    var before = page.EncodeState();

                    var copier = new Replica(1234, Guid.NewGuid());
                    var copies = PageCopy.Of(page, copier, 1_800_000_000_000);
                    Assert.All(copies, operation => Assert.Equal((1234ul, copier.Author), (operation.Id.Replica, operation.Author)));
                    Assert.All(
                        copies,
                        operation =>
                            Assert.Null(
                                OperationRules.Check(operation, DocumentKind.Page, Access.Role.Writer, copier.Author, 1_800_000_100_000)
                            )
                    );
                    var copy = new PageDocument();
                    foreach (var operation in copies.SelectMany(operation => OperationCodec.Decode(OperationCodec.Encode(operation))))
                        copy.Apply(operation);
                    Assert.Equal(string.Join("\n", Painted(page)), string.Join("\n", Painted(copy)));
                    Assert.Equal(
                        page.Spots().Select(spot => (spot.Id, spot.Kind, spot.Area)),
                        copy.Spots().Select(spot => (spot.Id, spot.Kind, spot.Area))
                    );
                    Assert.Equal(before, page.EncodeState());
                },
                iter: 2_000
            );

        static List<string> Painted(PageDocument page) =>
            [
                .. page
                    .Items.Where(item => item.Shown)
                    .Select(item =>
                        $"{item.LineOrNone?.Fill:x} {item.Layer?.Id} {item.Bounds} {item.LineOrNone?.Pen} {(item.Content is Core.Items.InkContent ? item.StartedAt : 0)} {item.LineOrNone?.Samples.Count} {string.Join(' ', item.Visible())} {item.Content.Words.Length}"
                    ),
            ];
    }

    private static List<string> Shown(List<Operation> operations, ulong own)
    {
        var page = new PageDocument();
        foreach (var operation in operations)
            page.Apply(operation);
        return
        [
            .. page
                .Items.Where(item => item.Shown)
                .Select(item =>
                    $"{(item.Id.Replica == own ? "own" : item.Id.Replica.ToString(System.Globalization.CultureInfo.InvariantCulture))} {item.Id.Counter} {item.Bounds} {item.LineOrNone?.Pen} {item.LineOrNone?.Fill:x} {item.Content.Words.Length}"
                )
                .Order(StringComparer.Ordinal),
            .. page.Spots().Select(spot => $"{spot.Id} {spot.Area}").Order(StringComparer.Ordinal),
        ];
    }
}
