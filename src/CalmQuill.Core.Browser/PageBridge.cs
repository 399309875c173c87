using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using CalmQuill.Core.Changing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: painting a page, undoing on it, and rubbing out.</summary>
public static partial class PageBridge
{
    private static int lastSurface;

    /// <summary>
    /// Says whose things may be changed on a page: what its group chose (<see cref="Core.Access.Touch"/>), and the role of whoever is here. Tools pass
    /// over everything else.
    /// </summary>
    [JSExport]
    public static void Guard(int page, string touch, string role) =>
        Session
            .Document<PageDocument>(page)
            .Guarding.Set(
                Enum.TryParse<Core.Access.Touch>(touch, true, out var chosen) ? chosen : Core.Access.Touch.Everything,
                Enum.TryParse<Core.Access.Role>(role, true, out var known) ? known : Core.Access.Role.None,
                Session.Replica.Author
            );

    /// <summary>What makes the same page again under another id: batches of one operation, each framed by its length in four bytes.</summary>
    [JSExport]
    public static byte[] Copy(int page, double now) =>
        Session.Framed([
            .. PageCopy
                .Of(Session.Document<PageDocument>(page), Session.Replica, (long)now)
                .Select(operation => OperationCodec.Encode(operation)),
        ]);

    /// <summary>Puts a thing on the page: the JSON form of what adds it.</summary>
    [JSExport]
    public static byte[] Put(int page, string thing, double now)
    {
        using var json = JsonDocument.Parse(thing);
        return Session.Perform(page, (Change.ItemAdded)OperationJson.ReadChange(json.RootElement), now);
    }

    /// <summary>Begins to take the last step back and says how many changes that takes: one, or as many as were joined; 0 when there is no such step.</summary>
    [JSExport]
    public static int BeginUndo(int page) => Begin(page, Session.Document<PageDocument>(page).Undo(Session.Replica.Author));

    /// <summary>The operations that <see cref="BeginUndo"/>, or with <paramref name="again"/> BeginRedo, would switch.</summary>
    [JSExport]
    public static string[] Step(int page, bool again)
    {
        var document = Session.Document<PageDocument>(page);
        var changes = again ? document.Redo(Session.Replica.Author) : document.Undo(Session.Replica.Author);
        return [.. changes.OfType<Change.EffectSet>().Select(change => change.Target.ToString())];
    }

    /// <summary>Switches operations off, or on again; framed.</summary>
    [JSExport]
    public static byte[] Switch(int page, string[] operations, bool on, double now) =>
        Session.PerformAll(page, [.. operations.Select(id => new Change.EffectSet(OpId.Parse(id), on))], now);

    [JSExport]
    public static int BeginRedo(int page) => Begin(page, Session.Document<PageDocument>(page).Redo(Session.Replica.Author));

    /// <summary>Makes up to so many of the changes that were begun; framed operations, none when all are made.</summary>
    [JSExport]
    public static byte[] GoOn(int page, int most, double now) =>
        Session.PerformAll(page, ((OpenPage)Session.Document(page)).LongWork.Take(most), now);

    /// <summary>Begins to take back what was made of changes that were begun, for <see cref="GoOn"/>; says how many changes it takes.</summary>
    [JSExport]
    public static int GiveUp(int page)
    {
        var document = (OpenPage)Session.Document(page);
        document.LongWork = document.LongWork.GiveUp();
        return document.LongWork.Count;
    }

    /// <summary>Bit 1: there is something to undo; bit 2: something to redo.</summary>
    [JSExport]
    public static int Steps(int page)
    {
        var document = Session.Document<PageDocument>(page);
        return (document.CanUndo(Session.Replica.Author) ? 1 : 0) | (document.CanRedo(Session.Replica.Author) ? 2 : 0);
    }

    /// <summary>Which build of the rules this is: outlines that another one made may differ.</summary>
    [JSExport]
    public static string Build() => typeof(StrokeOutliner).Module.ModuleVersionId.ToString();

    /// <summary>Shows a page on a new surface and returns it. Every item waits to be painted there, unless the page is painted on it as it stands.</summary>
    [JSExport]
    public static int OpenSurface(int page, bool painted)
    {
        var document = Session.Document<PageDocument>(page);
        HandOut(page);
        var surface = Surfaces(page)[++lastSurface] = new Surface();
        // Of a page that is seen as it was, what is not there any more is asked for too.
        var isPast = ((OpenPage)Session.Document(page)).Past is { IsShown: true };
        foreach (var item in document.Items.Where(item => item.Shown || isPast))
        {
            if (painted)
                surface.Shows(item);
            else
                surface.Waiting.Enqueue(item.Id);
        }

        return lastSurface;
    }

    [JSExport]
    public static void CloseSurface(int page, int surface)
    {
        if (Session.Has(page))
            Surfaces(page).Remove(surface);
    }

    /// <summary>
    /// The items that changed since the last call for a surface, ready to be painted: at most <paramref name="most"/> of them, in painting order at first
    /// opening.
    /// </summary>
    [JSExport]
    public static byte[] TakeChanged(int page, int surface, int most)
    {
        var document = Session.Document<PageDocument>(page);
        HandOut(page);
        if (!Surfaces(page).TryGetValue(surface, out var shown))
            return RenderPacket.Of([], item => item.Visible());
        var ids = shown.Take(most, id => document.Find(id) is { HasArrived: true });
        if (((OpenPage)Session.Document(page)).Past is { IsNow: false } past)
            return past.Packet(ids, shown);
        List<PageItem> items = [.. ids.Select(id => document.Find(id)!)];

        var look = ((OpenPage)Session.Document(page)).Tinting;
        return RenderPacket.Of(items, look.Visible, shown, look.Shown);
    }

    /// <summary>Shows each person's things in a colour, and nothing of some people; what shows the page is handed all of it anew.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="people">The people who have a colour.</param>
    /// <param name="colours">Their colours, 0xRRGGBB.</param>
    /// <param name="hidden">The people of whom nothing is shown.</param>
    [JSExport]
    public static void Tint(int page, string[] people, int[] colours, string[] hidden)
    {
        var open = (OpenPage)Session.Document(page);
        HashSet<Guid> without = [.. hidden.Select(Guid.Parse)];
        open.Tinting.Set(people.Select(Guid.Parse).Zip(colours.Select(colour => (uint)colour)), without);
        var document = Session.Document<PageDocument>(page);
        document.Guarding.Hide(without);
        HandOutAll(page);
    }

    /// <summary>Who wrote what stands on a page, by how much: <c>[{person, things, to}]</c>, with the time of the last, UTC milliseconds.</summary>
    [JSExport]
    public static string Writers(int page) =>
        Json.Text(json =>
        {
            json.WriteStartArray();
            foreach (
                var one in Session
                    .Document<PageDocument>(page)
                    .Items.Where(item => item.Stands)
                    .GroupBy(item => item.Author)
                    .OrderByDescending(one => one.Count())
                    .ThenBy(one => one.Key)
            )
            {
                json.WriteStartObject();
                json.WriteString("person", one.Key);
                json.WriteNumber("things", one.Count());
                json.WriteNumber("to", one.Max(item => item.StartedAt));
                json.WriteEndObject();
            }

            json.WriteEndArray();
        });

    /// <summary>Begins a pass of the eraser.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="radius">Radius, 0.01 mm.</param>
    /// <param name="whole">Whether touched things go as a whole.</param>
    /// <param name="kinds">Kinds of things that go, as <see cref="Items.ItemKinds"/>.</param>
    /// <param name="layer">The only layer it works on; empty for all.</param>
    [JSExport]
    public static void BeginErase(int page, double radius, bool whole, int kinds, string layer) =>
        ((OpenPage)Session.Document(page)).Eraser = new EraserPass(Session.Document<PageDocument>(page), radius, whole)
        {
            Only = HandBridge.Filter(kinds, layer),
        };

    /// <summary>Moves the eraser along spots (x, y, x, y… in 0.01 mm) and returns what it touched as it now looks.</summary>
    [JSExport]
    public static byte[] EraseAlong(int page, double[] spots)
    {
        var document = Session.Document<PageDocument>(page);
        if (((OpenPage)Session.Document(page)).Eraser is not { } pass)
            return RenderPacket.Of([], pageItem => pageItem.Visible());
        var touched = new HashSet<OpId>();
        for (var i = 0; i + 1 < spots.Length; i += 2)
            touched.UnionWith(pass.MoveTo(spots[i], spots[i + 1]));
        foreach (var surface in Surfaces(page).Values)
        {
            foreach (var id in touched)
                surface.Forget(id);
        }

        return RenderPacket.Of(
            [.. touched.Select(id => document.Find(id)!)],
            pass.Remaining,
            shown: ((OpenPage)Session.Document(page)).Tinting.Shown
        );
    }

    /// <summary>Ends the pass and returns its operation; empty when nothing was touched.</summary>
    [JSExport]
    public static byte[] EndErase(int page, double now)
    {
        var open = (OpenPage)Session.Document(page);
        var change = open.Eraser?.End();
        open.Eraser = null;
        return Session.Perform(page, change, now);
    }

    /// <summary>Sets changes down to be made by <see cref="GoOn"/>, and says how many they are.</summary>
    internal static int Begin(int page, IReadOnlyCollection<Change> changes)
    {
        ((OpenPage)Session.Document(page)).LongWork = new LongWork(changes);
        return changes.Count;
    }

    /// <summary>Hands what has changed out to every surface of the page.</summary>
    private static void HandOut(int page)
    {
        var open = (OpenPage)Session.Document(page);
        var changed = Session.Document<PageDocument>(page).TakeChanged();
        foreach (var id in changed)
            open.Past?.Came(id);
        HandOut(page, changed);
    }

    /// <summary>Hands things out to every surface of the page.</summary>
    internal static void HandOut(int page, IEnumerable<OpId> changed)
    {
        var surfaces = Surfaces(page).Values;
        foreach (var id in changed)
        {
            foreach (var surface in surfaces)
                surface.Waiting.Enqueue(id);
        }
    }

    /// <summary>Hands all there is on the page out anew: it is looked at in another way.</summary>
    internal static void HandOutAll(int page)
    {
        HandOut(page);
        HandOut(page, Session.Document<PageDocument>(page).Items.Select(item => item.Id));
    }

    private static Dictionary<int, Surface> Surfaces(int page) => ((OpenPage)Session.Document(page)).Surfaces;
}
