using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using CalmQuill.Core.Links;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Planner;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: planners, their calendar's entries, and the web of pages.</summary>
public static partial class PlannerBridge
{
    /// <summary>What a planner with these settings would have: its number of pages by kind, as JSON; settings against the rules throw with their sentence.</summary>
    [JSExport]
    public static string Preview(string settings)
    {
        var pages = PlannerPlan.Pages(SettingsOf(settings));
        return Json.Text(json =>
        {
            json.WriteStartObject();
            json.WriteNumber("pages", pages.Count);
            foreach (var kind in pages.GroupBy(page => page.Page.Kind))
                json.WriteNumber(kind.Key.ToString().ToLowerInvariant(), kind.Count());
            json.WriteEndObject();
        });
    }

    /// <summary>The languages a planner can be in: a JSON array of code and name.</summary>
    [JSExport]
    public static string Languages() =>
        Json.List(
            CalendarNames.All,
            (json, names) =>
            {
                json.WriteStartObject();
                json.WriteString("code", names.Code);
                json.WriteString("name", names.Language);
                json.WriteEndObject();
            }
        );

    /// <summary>Makes an empty notebook a planner. The operations come as one batch each, framed by a length of four bytes, lowest first.</summary>
    /// <param name="notebook">Handle of the notebook.</param>
    /// <param name="id">Its id.</param>
    /// <param name="settings">What it is to be.</param>
    /// <param name="papers">The papers of year, term, month, week, day and notes.</param>
    /// <param name="colours">Colours for its sections.</param>
    /// <param name="random">A random whole number, from which what needs chance is drawn.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] Make(int notebook, string id, string settings, string[] papers, string[] colours, double random, double now)
    {
        var chance = new Random((int)((long)random & int.MaxValue));
        var byKind = papers
            .Select((paper, i) => (Kind: (PlannerKind)(i + 1), Paper: paper))
            .ToDictionary(one => one.Kind, one => one.Paper);
        var bytes = new byte[16];
        return PerformAll(
            notebook,
            PlannerPlan.Make(Guid.Parse(id), SettingsOf(settings), byKind, colours, NewId, Session.Replica.Id),
            now
        );

        Guid NewId()
        {
            chance.NextBytes(bytes);
            bytes[6] = (byte)((bytes[6] & 0x0F) | 0x80);
            bytes[8] = (byte)((bytes[8] & 0x3F) | 0x80);
            return new Guid(bytes, bigEndian: true);
        }
    }

    /// <summary>Takes over the entries of a newer calendar; returns framed operations as <see cref="Make"/> does.</summary>
    [JSExport]
    public static byte[] TakeCalendar(int notebook, string id, string[] ids, string[] values, double now)
    {
        var (document, own) = (Session.Document<NotebookDocument>(notebook), Guid.Parse(id));
        var newest = ids.Select((id, i) => CalendarEntry.Read(Guid.Parse(id), values[i])).OfType<CalendarEntry>().ToList();
        List<Change> changes = [.. PlannerPlan.Update(document.Entries(), newest, NoteOf, document.Planner(own)?.Names)];
        taken = changes.Count(change => change is Change.PropertySet { Property: Property.Entry });
        return PerformAll(notebook, changes, now);

        (Guid Page, string Title)? NoteOf(CalendarEntry entry)
        {
            var page = new PlannerPage(PlannerKind.Entry, default, 0, entry.Id).IdIn(document, own);
            return document.Read(page, Property.Planner).Length > 0 ? (page, document.Read(page, Property.Name)) : null;
        }
    }

    /// <summary>Puts an entry of one's own into a planner; refused where it is none, or has no such day, or enough of them.</summary>
    /// <param name="notebook">Handle of the planner.</param>
    /// <param name="id">Its id.</param>
    /// <param name="entry">The new entry's id.</param>
    /// <param name="day">The day: <c>2026-10-08</c>.</param>
    /// <param name="time">When it begins: <c>14:30</c>; empty for all day.</param>
    /// <param name="minutes">How long it takes.</param>
    /// <param name="title">What it is called.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] AddEntry(int notebook, string id, string entry, string day, string time, int minutes, string title, double now)
    {
        var document = Session.Document<NotebookDocument>(notebook);
        var own = PlannerPlan.OwnEntry(document.Planner(Guid.Parse(id)), document.Entries(), Guid.Parse(entry), day, time, minutes, title);
        return Session.Perform(notebook, new Change.PropertySet(own.Id, Property.Entry, own.Write()), now);
    }

    private static int taken;

    /// <summary>How many entries the calendar that was taken over last has changed.</summary>
    [JSExport]
    public static int Taken() => taken;

    /// <summary>What the note page of an entry is called when it is made; empty for an entry that is not there.</summary>
    [JSExport]
    public static string NoteTitle(int notebook, string id, string entry)
    {
        var document = Session.Document<NotebookDocument>(notebook);
        return document.Entries().Find(one => one.Id == Guid.Parse(entry)) is { } known
            ? PlannerPlan.NoteTitle(known, document.Planner(Guid.Parse(id))?.Names ?? CalendarNames.English)
            : "";
    }

    /// <summary>The calendar's entries of a planner, as a JSON array.</summary>
    [JSExport]
    public static string Entries(int notebook) =>
        Json.List(
            Session.Document<NotebookDocument>(notebook).Entries(),
            (json, entry) =>
            {
                json.WriteStartObject();
                json.WriteString("id", entry.Id);
                json.WriteString("title", entry.Title);
                json.WriteString("place", entry.Place);
                json.WriteString("start", entry.Start.ToString("yyyy-MM-dd'T'HH:mm", System.Globalization.CultureInfo.InvariantCulture));
                json.WriteString("end", entry.End.ToString("yyyy-MM-dd'T'HH:mm", System.Globalization.CultureInfo.InvariantCulture));
                json.WriteBoolean("allDay", entry.AllDay);
                json.WriteBoolean("gone", entry.IsGone);
                json.WriteEndObject();
            }
        );

    /// <summary>A planner's settings in the text form; empty where the notebook is none.</summary>
    [JSExport]
    public static string Settings(int notebook, string id) =>
        Session.Document<NotebookDocument>(notebook).Planner(Guid.Parse(id))?.ToString() ?? "";

    /// <summary>The id of a planner's page, given as <c>day/2026-10-08</c>; of one whose page is gone, of the next in its place.</summary>
    [JSExport]
    public static string PageId(int notebook, string id, string page) =>
        PlannerPage.Read(page) is { } known
            ? known.IdIn(Session.Document<NotebookDocument>(notebook), Guid.Parse(id)).ToString()
            : throw new SentenceException($"This is no page of a planner.");

    /// <summary>Places of a web's nodes, x and y in turn within 0…1.</summary>
    /// <param name="count">How many nodes.</param>
    /// <param name="links">Pairs of nodes.</param>
    /// <param name="groups">The group of each node.</param>
    [JSExport]
    public static double[] LayWeb(int count, int[] links, int[] groups) =>
        PageWeb.Lay(count, [.. Enumerable.Range(0, links.Length / 2).Select(i => (links[i * 2], links[i * 2 + 1]))], groups);

    /// <summary>Gathered first: the changes are worked out from what the document holds before them.</summary>
    private static byte[] PerformAll(int notebook, IEnumerable<Change> changes, double now) =>
        Session.PerformAll(notebook, changes.ToList(), now);

    private static PlannerSettings SettingsOf(string text)
    {
        var (settings, refusal) = PlannerSettings.Read(text);
        return settings ?? throw new SentenceException(refusal!.Sentence);
    }
}
