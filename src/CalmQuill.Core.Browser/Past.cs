using CalmQuill.Core.History;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Browser;

/// <summary>A page that is looked at as it was: its history at a moment, and whether what came and went since is told from what stands.</summary>
internal sealed class Past(PageDocument now)
{
    private readonly HashSet<OpId> fresh = [];

    public PageHistory History { get; private set; } = new(now);

    /// <summary>Its bar of time.</summary>
    public Chart Chart { get; set; } = Chart.Of([]);

    /// <summary>Whether then and now are compared.</summary>
    public bool Compares { get; set; }

    /// <summary>Which of what came and which of what went are shown while comparing.</summary>
    public (bool Added, bool Removed) Sides { get; set; } = (true, true);

    /// <summary>Whether the page is seen as it is.</summary>
    public bool IsNow => History.At == History.Length && !Compares;

    /// <summary>What came to the page since it was opened: on its last day it is seen, and not before.</summary>
    public IEnumerable<OpId> Fresh => fresh;

    public void Came(OpId item) => fresh.Add(item);

    /// <summary>The history with all that came since it was opened, at the same moment.</summary>
    public PageHistory Renewed()
    {
        if (now.OperationCount == History.Length)
            return History;
        var last = History.At > 0 ? History.Operations[History.At - 1].Stamp : default(Stamp?);
        var renewed = new PageHistory(now);
        var count = last is null ? 0 : 1 + ((List<Operation>)[.. renewed.Operations]).FindIndex(operation => operation.Stamp == last);
        renewed.MoveTo(count, int.MaxValue);
        return renewed;
    }

    /// <summary>Things as they are to be painted at the moment, as a render packet.</summary>
    /// <param name="ids">The things.</param>
    /// <param name="surface">What they are painted on.</param>
    public byte[] Packet(IEnumerable<OpId> ids, Surface surface)
    {
        var things = ids.Select(id => (Then: Arrived(History.Page.Find(id)), Now: Arrived(now.Find(id))))
            .Where(one => one.Then is not null || one.Now is not null)
            .ToList();
        return Compares ? RenderPacket.OfBoth(things, surface, Sides) : RenderPacket.OfThen(things, surface);
    }

    private static PageItem? Arrived(PageItem? item) => item is { HasArrived: true } ? item : null;
}
