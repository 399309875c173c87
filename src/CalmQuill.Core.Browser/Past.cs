using CalmQuill.Core.History;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Browser;

/// <summary>A page that is looked at as it was: its history at a moment, and whether what came and went since is told from what stands.</summary>
internal sealed class Past(PageDocument now)
{
    private readonly HashSet<OpId> fresh = [];

    public PageHistory History { get; } = new(now);

    /// <summary>Whether all of it has been gone over, and the page is looked at as it was.</summary>
    public bool IsShown { get; set; }

    /// <summary>Its bar of time.</summary>
    public Chart Chart { get; set; } = Chart.Of([]);

    /// <summary>Whether then and now are compared.</summary>
    public bool Compares { get; set; }

    /// <summary>Which of what came and which of what went are shown while comparing.</summary>
    public (bool Added, bool Removed) Sides { get; set; } = (true, true);

    /// <summary>Whether the page is seen as it is.</summary>
    public bool IsNow => !IsShown || (History.At == History.Length && !Compares);

    /// <summary>What came to the page since it was opened: on its last day it is seen, and not before.</summary>
    public IEnumerable<OpId> Fresh => fresh;

    public void Came(OpId item) => fresh.Add(item);

    /// <summary>The history with all that came since it was opened, at the same moment.</summary>
    public PageHistory Renewed()
    {
        if (now.OperationCount == History.Length)
            return History;
        var renewed = new PageHistory(now);
        renewed.MoveTo(History.At > 0 ? renewed.CountThrough(History.Operations[History.At - 1].Stamp) : 0, int.MaxValue);
        return renewed;
    }

    /// <summary>Things of the page as they are to be painted at the moment, as a render packet.</summary>
    /// <param name="ids">Things that are there now, though perhaps not seen.</param>
    /// <param name="surface">What they are painted on.</param>
    public byte[] Packet(IEnumerable<OpId> ids, Surface surface)
    {
        var things = ids.Select(id => (Then: Arrived(History.Page.Find(id)), Now: now.Find(id)!)).ToList();
        return Compares ? RenderPacket.OfBoth(things, surface, Sides) : RenderPacket.OfThen(things, surface);
    }

    private static PageItem? Arrived(PageItem? item) => item is { HasArrived: true } ? item : null;
}
