using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using CalmQuill.Core.History;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: a page as it was, compared with how it is, and had back.</summary>
public static partial class HistoryBridge
{
    /// <summary>Opens a page's history, at its beginning and unseen until <see cref="Show"/>; says how many moments it has.</summary>
    [JSExport]
    public static int Open(int page)
    {
        var open = (OpenPage)Session.Document(page);
        open.Past = new Past((PageDocument)open.Core);
        return open.Past.History.Length;
    }

    /// <summary>From here on the page is seen as it was at the moment.</summary>
    [JSExport]
    public static void Show(int page)
    {
        var past = ThePast(page);
        past.IsShown = true;
        past.History.Page.TakeChanged();
    }

    /// <summary>Leaves the past: the page is seen as it is.</summary>
    [JSExport]
    public static void Close(int page)
    {
        if (!Session.Has(page))
            return;
        var open = (OpenPage)Session.Document(page);
        var wasSeen = open.Past is { IsShown: true };
        open.Past = null;
        if (wasSeen)
            PageBridge.HandOutAll(page);
    }

    /// <summary>Goes towards a moment by so many operations at most; says how many are left to go.</summary>
    [JSExport]
    public static int Move(int page, int count, int most)
    {
        if (((OpenPage)Session.Document(page)).Past is not { } past)
            return 0;
        var wasNow = past.IsNow;
        var left = past.History.MoveTo(count, most);
        if (!past.IsShown)
            return left;
        PageBridge.HandOut(page, past.History.Page.TakeChanged());
        if (wasNow != past.IsNow)
            PageBridge.HandOut(page, past.Fresh);
        return left;
    }

    /// <summary>Tells what came and what went since the moment from what stands, or not any more.</summary>
    [JSExport]
    public static void Compare(int page, bool on, bool added, bool removed)
    {
        if (((OpenPage)Session.Document(page)).Past is not { IsShown: true } past)
            return;
        (past.Compares, past.Sides) = (on, (added, removed));
        PageBridge.HandOutAll(page);
    }

    /// <summary>How many things came, went, were rubbed out in part, and were changed since the moment.</summary>
    [JSExport]
    public static int[] Differences(int page)
    {
        var (past, now) = (ThePast(page), Session.Document<PageDocument>(page));
        var counts = new int[4];
        foreach (var id in now.Items.Select(item => item.Id))
        {
            if (Comparing.Of(past.History.Page.Find(id), now.Find(id)) is var difference and not Difference.None)
                counts[(int)difference - 1]++;
        }

        return counts;
    }

    /// <summary>
    /// The bar of time: <c>{length, people, sittings: [[from, to, left, right]], strokes: [[column, person, deed, things]]}</c>.
    /// A person is a place in the list.
    /// </summary>
    [JSExport]
    public static string ChartOf(int page)
    {
        var past = ThePast(page);
        past.Chart = Chart.OfDocument(past.History.Operations);
        return ChartJson.Text(past.Chart, past.History.Length);
    }

    /// <summary>How many operations had been made at a place of the bar, 0 to 1.</summary>
    [JSExport]
    public static int CountAt(int page, double position)
    {
        var past = ThePast(page);
        return position >= 1 ? past.History.Length : past.History.CountAt(past.Chart.TimeAt(position));
    }

    /// <summary>The moment at the end of the sitting before another moment, or after it.</summary>
    [JSExport]
    public static int Beside(int page, int count, bool later)
    {
        var past = ThePast(page);
        var beside = past.History.CountAt(past.Chart.Beside(past.History.TimeOf(count) ?? long.MinValue, later));
        // What tells of nothing may come after the last that does.
        return later && beside <= count ? past.History.Length : beside;
    }

    /// <summary>How many operations had been made at a time, UTC milliseconds.</summary>
    [JSExport]
    public static int CountBy(int page, double time) => ThePast(page).History.CountAt((long)time);

    /// <summary>Where a moment stands on the bar, and when it was: position, time. Before all it has no time: 0.</summary>
    [JSExport]
    public static double[] Moment(int page, int count)
    {
        var past = ThePast(page);
        if (past.History.TimeOf(count) is not { } at)
            return [0, 0];
        return [count >= past.History.Length ? 1 : past.Chart.PositionOf(at), at];
    }

    /// <summary>Who did what last before a moment: a person's id and the number of a <see cref="Deed"/>; empty before all.</summary>
    [JSExport]
    public static string[] Last(int page, int count)
    {
        var operations = ThePast(page).History.Operations;
        for (var i = Math.Min(count, operations.Count) - 1; i >= 0; i--)
        {
            if (Deeds.Of(operations[i].Change) is var (deed, _))
                return [operations[i].Author.ToString(), ((int)deed).ToString(System.Globalization.CultureInfo.InvariantCulture)];
        }

        return [];
    }

    /// <summary>What is seen within a polygon: <c>{items, area}</c>, without an area where there is nothing.</summary>
    [JSExport]
    public static string Choose(int page, double[] polygon)
    {
        var then = ThePast(page).History.Page;
        var items = Selecting.Inside(then, polygon, Selecting.UsualShare);
        var area = Box.Around(items.Select(item => item.Bounds));
        return Json.Text(json =>
        {
            json.WriteStartObject();
            json.WriteStartArray("items");
            foreach (var item in items)
                json.WriteStringValue(item.Id.ToString());
            json.WriteEndArray();
            if (area is { } box)
            {
                json.WriteStartArray("area");
                foreach (var edge in new[] { box.Left, box.Top, box.Right, box.Bottom })
                    json.WriteNumberValue(edge);
                json.WriteEndArray();
            }

            json.WriteEndObject();
        });
    }

    /// <summary>
    /// Begins to have things back, all where none is named, for <see cref="HandBridge.LayMore"/>: how many changes it takes, how many things come back, and how
    /// many stay since others changed them.
    /// </summary>
    [JSExport]
    public static int[] BeginHaveBack(int page, string[] items)
    {
        var back = HavingBack.Of(
            ThePast(page).Renewed(),
            Session.Document<PageDocument>(page),
            items.Length > 0 ? items.Select(OpId.Parse).ToHashSet() : null,
            Session.Replica.Author
        );
        return [HandBridge.Begin(page, back.Laying), back.Things, back.Left];
    }

    /// <summary>Makes the page as it was on another, which is new; framed operations.</summary>
    [JSExport]
    public static byte[] Copy(int page, int onto, double now)
    {
        var operations = PageCopy.Of(ThePast(page).History.Page, Session.Replica, (long)now);
        foreach (var operation in operations)
            Session.Document(onto).Apply(operation);
        return Session.Framed([.. operations.Select(operation => OperationCodec.Encode(operation))]);
    }

    private static Past ThePast(int page) =>
        ((OpenPage)Session.Document(page)).Past ?? throw new InvalidOperationException("The page's history is not open.");
}
