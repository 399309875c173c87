using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.History;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: notebooks and libraries as they were, compared with how they are, and had back.</summary>
public static partial class PlacesBridge
{
    private static PlacesBack? back;

    /// <summary>Goes towards a time, UTC milliseconds, by so many operations at most, and opens the past for it; says how many are left to go.</summary>
    [JSExport]
    public static int Move(int document, double time, int most) => The(document).MoveTo(Whole(time), most);

    /// <summary>Leaves the past of a document.</summary>
    [JSExport]
    public static void Close(int document)
    {
        if (Session.Has(document))
            ((IOpenPlaces)Session.Document(document)).Past = null;
    }

    /// <summary>The sections and pages of a notebook as they were, in reading order.</summary>
    [JSExport]
    public static string Outline(int notebook)
    {
        var then = The<NotebookDocument>(notebook).Then;
        return Json.List(then.Outline(), (json, entry) => NotebookBridge.Write(json, then, entry));
    }

    /// <summary>The folders and notebooks of a library as they were, siblings in their order.</summary>
    [JSExport]
    public static string Nodes(int library) =>
        Json.List(
            The<LibraryDocument>(library).Then.Nodes().Where(node => node is { InBin: false, Kind: NodeKind.Folder or NodeKind.Notebook }),
            LibraryBridge.Write
        );

    /// <summary>What became of each of these: the number of a <see cref="PlaceDifference"/>.</summary>
    [JSExport]
    public static int[] Differences(int document, string[] ids)
    {
        var (then, now) = (The(document).Then, (IPlaces)Session.Document(document).Core);
        return [.. ids.Select(id => (int)PlacesComparing.Of(then, now, Guid.Parse(id)))];
    }

    /// <summary>
    /// Works out what brings things of then back, each before what lies in it: how many things come back, how many others changed and stay, and how many are no
    /// longer there.
    /// </summary>
    /// <param name="document">The notebook or library, with its past at the moment that is had back.</param>
    /// <param name="ids">What is had back.</param>
    /// <param name="isGuest">Whether it was shared with who has it back.</param>
    [JSExport]
    public static int[] PlanBack(int document, string[] ids, bool isGuest)
    {
        back = The(document)
            .Back(
                ids.Select(Guid.Parse),
                Session.Document(document).Kind,
                Session.Replica.Author,
                change => !isGuest || Access.GuestRules.Check(change) is null
            );
        return [back.Things, back.Left, back.Gone];
    }

    /// <summary>Has back what was worked out last; framed operations, none where nothing is to be done.</summary>
    [JSExport]
    public static byte[] HaveBack(int document, double now)
    {
        var changes = back?.Changes ?? [];
        back = null;
        return changes.Count > 0 ? Session.PerformAll(document, changes, now) : [];
    }

    /// <summary>The time at a place of a bar, UTC milliseconds; sittings as they are told, four numbers each.</summary>
    [JSExport]
    public static double TimeAt(double[] sittings, double position) => Bar(sittings).TimeAt(position);

    /// <summary>Where a time stands on a bar, 0 to 1.</summary>
    [JSExport]
    public static double PositionOf(double[] sittings, double time) => Bar(sittings).PositionOf(Whole(time));

    /// <summary>The time at the end of the sitting before another time, or after it.</summary>
    [JSExport]
    public static double Beside(double[] sittings, double time, bool later) => Bar(sittings).Beside(Whole(time), later);

    /// <summary>The bar of what was done in the document itself, as <see cref="HistoryBridge.ChartOf"/>: all there is while the server does not say what was written.</summary>
    [JSExport]
    public static string ChartOf(int document) => ChartJson.Text(Chart.OfDocument(Session.Document(document).Operations()), Chart.Columns);

    private static Chart Bar(double[] sittings) =>
        new(sittings.Chunk(4).Select(one => new Chart.Sitting((long)one[0], (long)one[1], one[2], one[3])));

    private static long Whole(double time) => (long)Math.Clamp(time, long.MinValue / 2, long.MaxValue / 2);

    private static PlacesPast The(int document)
    {
        var open = (IOpenPlaces)Session.Document(document);
        return open.Past ??= PlacesPast.Of(open.Core);
    }

    private static PlacesHistory<T> The<T>(int document)
        where T : class, IPlaces, new() => ((PlacesPast<T>)The(document)).History;
}
