using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>A device whose number is another's takes a fresh one, and what it wrote stays what it was.</summary>
public sealed class RenumberingTests
{
    private const ulong Fresh = 0xF0F0F0F0;

    [Fact]
    public void A_page_written_under_a_fresh_number_shows_what_it_showed_and_undoes_what_it_undid() =>
        Generate.PageHistory.Sample(
            history =>
            {
                // All that one device made, and nobody has seen yet, gets the fresh number; what others made stays, and what was said of each other follows.
                var old = history[0].Id.Replica;
                var renumbering = new Renumbering(history.Select(operation => operation.Id).Where(id => id.Replica == old).ToHashSet(), Fresh);
                var renumbered = history.Select(renumbering.Of).ToList();
                Assert.DoesNotContain(renumbered, operation => operation.Id.Replica == old);
                Assert.Equal(history.Select(operation => operation.Id.Counter), renumbered.Select(operation => operation.Id.Counter));
                // Through the codec, as it is sent.
                renumbered = [.. renumbered.SelectMany(operation => OperationCodec.Decode(OperationCodec.Encode(operation)))];
                Assert.Equal(Shown(history, old), Shown(renumbered, Fresh));
            },
            iter: 1_000);

    [Fact]
    public void What_was_sent_before_keeps_its_number_also_where_it_is_named()
    {
        var device = new Replica(7, Generate.People[0]);
        var sent = device.Make(new Change.StrokeAdded(new Core.Ink.Pen(Core.Ink.PenKind.Ball, 40, 0xFF), 0, Generate.Wave(5)), 1);
        var waiting = device.Make(new Change.StrokeAdded(new Core.Ink.Pen(Core.Ink.PenKind.Ball, 40, 0xFF), 0, Generate.Wave(5)), 2);
        var removing = device.Make(new Change.ItemsRemoved([sent.Id, waiting.Id]), 3);
        var renumbering = new Renumbering(new HashSet<OpId> { waiting.Id, removing.Id }, Fresh);
        Assert.Equal(sent, renumbering.Of(sent));
        Assert.Equal([sent.Id, new OpId(Fresh, waiting.Id.Counter)], ((Change.ItemsRemoved)renumbering.Of(removing).Change).Items);
        device.Renumber(Fresh);
        // Counters go on where they were, so nothing collides.
        Assert.Equal(new OpId(Fresh, 4), device.Make(new Change.ItemsRemoved([sent.Id]), 4).Id);
    }

    private static List<string> Shown(List<Operation> operations, ulong own)
    {
        var page = new PageDocument();
        foreach (var operation in operations) page.Apply(operation);
        return
        [
            .. page.Items.Where(item => item.Shown).Select(item => $"{(item.Id.Replica == own ? "own" : item.Id.Replica.ToString(System.Globalization.CultureInfo.InvariantCulture))} {item.Id.Counter} {item.Bounds} {item.Pen} {item.Fill:x}").Order(StringComparer.Ordinal),
            .. page.Spots().Select(spot => $"{spot.Id} {spot.Area}").Order(StringComparer.Ordinal),
        ];
    }
}
