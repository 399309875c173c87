using System.Globalization;
using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: the sections and pages of notebooks.</summary>
public static partial class NotebookBridge
{
    /// <summary>All sections and pages in reading order, as a JSON array; with <paramref name="withBinned"/> also what is in the bin.</summary>
    [JSExport]
    public static string Outline(int notebook, bool withBinned)
    {
        var document = Session.Document<NotebookDocument>(notebook);
        return Json.List(document.Outline(withBinned), (json, entry) => Write(json, document, entry));
    }

    /// <summary>The moments that have a name, the earliest first: <c>[{id, at, name}]</c>, with the time in UTC milliseconds.</summary>
    [JSExport]
    public static string Moments(int notebook) =>
        Json.List(
            Session.Document<NotebookDocument>(notebook).Moments(),
            (json, moment) =>
            {
                json.WriteStartObject();
                json.WriteString("id", moment.Id);
                json.WriteNumber("at", moment.Moment.At);
                json.WriteString("name", moment.Moment.Name);
                json.WriteEndObject();
            }
        );

    /// <summary>Gives a moment, UTC milliseconds, a name under a fresh id.</summary>
    [JSExport]
    public static byte[] NameMoment(int notebook, string id, double at, string name, double now) =>
        Session.Perform(
            notebook,
            new Change.PropertySet(Guid.Parse(id), Property.Moment, new History.Moment((long)at, name.Trim()).Write()),
            now
        );

    /// <summary>What turns the outline that was handed out last into the present one, as JSON: see <see cref="OutlineChange"/>. A notebook has one who asks for it.</summary>
    /// <param name="notebook">The notebook.</param>
    /// <param name="had">How many entries who asks has; the whole is told where it is not what was handed out.</param>
    [JSExport]
    public static string TakeOutline(int notebook, int had)
    {
        var change = ((OpenNotebook)Session.Document(notebook)).TakeOutline(had);
        return Json.Text(json =>
        {
            json.WriteStartObject();
            json.WriteNumber("from", change.From);
            json.WriteNumber("dropped", change.Dropped);
            json.WriteNumber("shift", change.Shift);
            json.WritePropertyName("entries");
            Json.List(json, change.Entries, (writer, entry) => Write(writer, Session.Document<NotebookDocument>(notebook), entry));
            json.WriteEndObject();
        });
    }

    /// <summary>A register of a notebook.</summary>
    [JSExport]
    public static string Read(int notebook, string target, int property) =>
        Session.Document<NotebookDocument>(notebook).Read(Guid.Parse(target), (Property)property);

    internal static void Write(System.Text.Json.Utf8JsonWriter json, NotebookDocument document, NotebookEntry entry)
    {
        json.WriteStartObject();
        json.WriteString("id", entry.Id);
        json.WriteString("kind", entry.Kind == NodeKind.Page ? "page" : "section");
        json.WriteString("parent", entry.Parent);
        json.WriteNumber("depth", entry.Depth);
        json.WriteString("title", entry.Title);
        json.WriteString("colour", entry.Colour);
        json.WriteString("paper", entry.Paper);
        json.WriteNumber("number", entry.Number);
        Json.Ids(json, "tags", entry.OwnTags.Ids);
        json.WriteNumber("createdAt", entry.CreatedAt);
        json.WriteString("createdBy", document.MakerOf(entry.Id));
        json.WriteBoolean("inBin", entry.InBin);
        if (entry.Planner.Length > 0)
            json.WriteString("planner", entry.Planner);
        json.WriteEndObject();
    }

    /// <summary>Puts a section (3) or page (4) somewhere: after a sibling, at the head with “first”, or at the end with an empty text; makes it when it is new.</summary>
    [JSExport]
    public static byte[] Place(int notebook, string entry, int kind, string parent, string after, double now) =>
        Session.PerformAll(
            notebook,
            ChangesToPlace(Session.Document<NotebookDocument>(notebook), Guid.Parse(entry), (NodeKind)kind, Guid.Parse(parent), after),
            now
        );

    /// <summary>Makes a section (3) or page (4) whole in one step: with its title, paper and place.</summary>
    [JSExport]
    public static byte[] Make(int notebook, string entry, int kind, string parent, string after, string title, string paper, double now)
    {
        var id = Guid.Parse(entry);
        var changes = new List<Change>();
        if (paper.Length > 0)
            changes.Add(new Change.PropertySet(id, Property.Paper, paper));
        if (title.Length > 0)
            changes.Add(new Change.PropertySet(id, Property.Name, title));
        changes.AddRange(ChangesToPlace(Session.Document<NotebookDocument>(notebook), id, (NodeKind)kind, Guid.Parse(parent), after));
        return Session.PerformAll(notebook, changes, now);
    }

    private static List<Change> ChangesToPlace(NotebookDocument document, Guid id, NodeKind nodeKind, Guid into, string after)
    {
        if (document.WouldCycle(id, into))
            throw new SentenceException($"Nothing can be put into itself, or into what lies inside it.");
        if (!document.MayLieIn(nodeKind, into))
            throw new SentenceException($"A section lies in the notebook or in another section, not in a page.");
        if (
            nodeKind == NodeKind.Page
            && document.PlaceOf(into) is { Kind: NodeKind.Page }
            && document.PageLevels(into).Above + 1 + document.PageLevels(id).Below > NotebookDocument.SubPageLevels
        )
            throw new SentenceException($"Sub-pages go two levels deep.");
        return Siblings.PutAfter(document.Inside(into, id), after, id, nodeKind, into);
    }

    /// <summary>Takes sections and pages of another notebook in, with what lies in them. Until <see cref="LetGo"/> they are in both.</summary>
    /// <param name="notebook">Where they come into.</param>
    /// <param name="id">Its id.</param>
    /// <param name="from">The notebook they come from.</param>
    /// <param name="entries">What comes.</param>
    /// <param name="parents">What each goes into.</param>
    /// <param name="afters">Behind which sibling: “first” for the head, empty for the end.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] TakeIn(int notebook, string id, int from, string[] entries, string[] parents, string[] afters, double now) =>
        Session.PerformAll(notebook, Moving(notebook, id, from, entries, parents, afters).Into, now);

    /// <summary>Lets go what another notebook has taken in.</summary>
    [JSExport]
    public static byte[] LetGo(int from, int notebook, string id, string[] entries, double now) =>
        Session.PerformAll(from, Moving(notebook, id, from, entries, entries, entries).Out, now);

    private static NotebookMove Moving(int notebook, string id, int from, string[] entries, string[] parents, string[] afters) =>
        NotebookMove.Plan(
            Session.Document<NotebookDocument>(from),
            Session.Document<NotebookDocument>(notebook),
            Guid.Parse(id),
            [
                .. entries.Select(
                    (entry, i) =>
                        new NotebookMove.Top(
                            Guid.Parse(entry),
                            Guid.Parse(parents[i]),
                            afters[i] switch
                            {
                                "first" => null,
                                "" => Guid.Empty,
                                var after => Guid.Parse(after),
                            }
                        )
                ),
            ],
            Session.Replica.Id
        );

    /// <summary>Puts a copy of a section or page into a notebook. What is written on its pages is copied page by page: see <see cref="CopiedPages"/>.</summary>
    /// <param name="target">The notebook the copy goes into.</param>
    /// <param name="source">The notebook of the original; it may be the same.</param>
    /// <param name="entry">The section or page.</param>
    /// <param name="parent">What the copy goes to the end of; empty for beside its original.</param>
    /// <param name="withTags">Whether tags go along; they mean nothing in another library.</param>
    /// <param name="seed">A fresh id, from which those of all that is copied follow.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] Copy(int target, int source, string entry, string parent, bool withTags, string seed, double now)
    {
        var from = Session.Document<NotebookDocument>(source);
        var into = Session.Document<NotebookDocument>(target);
        var ids = new SeededIds(Guid.Parse(seed));
        var id = Guid.Parse(entry);
        var plan =
            parent.Length == 0
                ? NotebookCopy.Beside(from, id, Session.Replica.Id, ids.Next)
                : NotebookCopy.Into(from, id, into, Guid.Parse(parent), withTags, Session.Replica.Id, ids.Next);
        return plan is null
            ? throw new SentenceException($"This is no longer there. Nothing was copied.")
            : Session.PerformAll(target, plan.Changes, now);
    }

    /// <summary>Makes a notebook that is empty yet the copy of another.</summary>
    /// <param name="target">The copy.</param>
    /// <param name="to">Its id.</param>
    /// <param name="source">The original.</param>
    /// <param name="from">Its id.</param>
    /// <param name="withTags">Whether tags go along.</param>
    /// <param name="seed">A fresh id, from which those of all that is copied follow.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] CopyWhole(int target, string to, int source, string from, bool withTags, string seed, double now) =>
        Session.PerformAll(target, Whole(source, from, to, withTags, seed).Changes, now);

    /// <summary>The pages that a copying with this seed copies: the id of each and that of its copy, one after the other.</summary>
    /// <param name="source">The notebook of the original.</param>
    /// <param name="entry">The section or page; empty for the whole notebook.</param>
    /// <param name="from">The notebook's id.</param>
    /// <param name="to">The id of the copy of a whole notebook.</param>
    /// <param name="seed">The id from which those of all that is copied follow.</param>
    [JSExport]
    public static string[] CopiedPages(int source, string entry, string from, string to, string seed)
    {
        var plan =
            entry.Length == 0
                ? Whole(source, from, to, true, seed)
                : NotebookCopy.Beside(
                    Session.Document<NotebookDocument>(source),
                    Guid.Parse(entry),
                    Session.Replica.Id,
                    new SeededIds(Guid.Parse(seed)).Next
                );
        return [.. (plan?.Pages ?? []).SelectMany(page => new[] { page.From.ToString(), page.To.ToString() })];
    }

    private static NotebookCopy Whole(int source, string from, string to, bool withTags, string seed) =>
        NotebookCopy.Plan(
            Session.Document<NotebookDocument>(source),
            null,
            "",
            withTags,
            new SeededIds(Guid.Parse(seed)).Next,
            whole: (Guid.Parse(from), Guid.Parse(to))
        );

    /// <summary>Whether what a binned section or page lay in is still there.</summary>
    [JSExport]
    public static bool PlaceIsThere(int notebook, string entry) =>
        Session.Document<NotebookDocument>(notebook).PlaceIsThere(Guid.Parse(entry));

    /// <summary>Erases sections and pages from the bin with all that lies in them now.</summary>
    [JSExport]
    public static byte[] Erase(int notebook, string[] entries, double now) =>
        Session.PerformAll(notebook, Session.Document<NotebookDocument>(notebook).Erase([.. entries.Select(Guid.Parse)]), now);

    /// <summary>The page of a day (2026-11-23) in a notebook.</summary>
    [JSExport]
    public static string TodayPage(int notebook, string id, string day) =>
        Notebooks
            .TodayPage.In(
                Session.Document<NotebookDocument>(notebook),
                Guid.Parse(id),
                DateOnly.ParseExact(day, "yyyy-MM-dd", CultureInfo.InvariantCulture)
            )
            .ToString();
}
