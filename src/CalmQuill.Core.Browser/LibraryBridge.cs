using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using CalmQuill.Core.Lenses;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CalmQuill.Core.Text;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: libraries.</summary>
public static partial class LibraryBridge
{
    /// <summary>The nodes that changed since the last call, and the ids of those that went, as JSON; with <paramref name="all"/> every node.</summary>
    [JSExport]
    public static string TakeChanges(int library, bool all)
    {
        var open = (OpenLibrary)Session.Document(library);
        var (changed, gone) = open.TakeChanges(all);
        return Json.Text(json =>
        {
            json.WriteStartObject();
            json.WritePropertyName("changed");
            Json.List(json, changed, Write);
            Json.Ids(json, "gone", gone);
            json.WriteEndObject();
        });
    }

    /// <summary>The tags as people see them, each before those nested in it, as a JSON array.</summary>
    [JSExport]
    public static string Tags(int library) =>
        Json.List(
            new TagTree(Library(library).AllNodes()).All,
            (json, tag) =>
            {
                json.WriteStartObject();
                json.WriteString("id", tag.Id);
                json.WriteString("parent", tag.Parent);
                json.WriteString("name", tag.Name);
                json.WriteString("path", tag.Path);
                json.WriteString("colour", tag.Colour);
                Json.Ids(json, "ids", tag.Ids);
                json.WriteEndObject();
            }
        );

    /// <summary>All registers of a property that hold something: a JSON object by target.</summary>
    [JSExport]
    public static string Registers(int library, int property) =>
        Json.Text(json =>
        {
            json.WriteStartObject();
            foreach (var (target, value) in Library(library).All((Property)property))
                json.WriteString(target.ToString(), value);
            json.WriteEndObject();
        });

    /// <summary>What the person uses, most used first, as a JSON array; with the day of the last visit, in days since 1970 UTC.</summary>
    [JSExport]
    public static string Often(int library) =>
        Json.List(
            Library(library).Visits.ByUse(),
            (json, used) =>
            {
                json.WriteStartObject();
                json.WriteString("space", used.Space);
                json.WriteString("notebook", used.Target);
                json.WriteNumber("lastDay", used.LastDay);
                json.WriteEndObject();
            }
        );

    /// <summary>Puts a node into a parent: after a sibling, at the head with “first”, or at the end with an empty text. Refuses what the tree does not allow.</summary>
    [JSExport]
    public static byte[] Place(int library, string node, int kind, string parent, string after, double now) =>
        Session.PerformAll(library, ChangesToPlace(Library(library), Guid.Parse(node), (NodeKind)kind, Guid.Parse(parent), after), now);

    /// <summary>Makes a node whole in one step, at the end of its parent: with its name and what else is said of it.</summary>
    [JSExport]
    public static byte[] Make(int library, string node, int kind, string parent, string name, int[] properties, string[] values, double now)
    {
        var id = Guid.Parse(node);
        List<Change> changes =
        [
            new Change.PropertySet(id, Property.Name, name),
            .. ChangesToPlace(Library(library), id, (NodeKind)kind, Guid.Parse(parent), ""),
            .. properties.Zip(values, (property, value) => new Change.PropertySet(id, (Property)property, value)),
        ];
        return Session.PerformAll(library, changes, now);
    }

    /// <summary>Copies a folder or notebook, with all folders and notebooks in it, to the end of a folder of the same library. What is in the notebooks is copied one by one: see <see cref="CopiedNotebooks"/>.</summary>
    /// <param name="library">The library.</param>
    /// <param name="node">The folder or notebook.</param>
    /// <param name="parent">The folder the copy goes into.</param>
    /// <param name="seed">A fresh id, from which those of all that is copied follow.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] Copy(int library, string node, string parent, string seed, double now) =>
        Session.PerformAll(library, Copying(library, node, parent, seed).Changes, now);

    /// <summary>The notebooks that a copying with this seed copies: the id of each and that of its copy, one after the other.</summary>
    [JSExport]
    public static string[] CopiedNotebooks(int library, string node, string parent, string seed) =>
        [
            .. Copying(library, node, parent, seed)
                .Notebooks.SelectMany(notebook => new[] { notebook.From.ToString(), notebook.To.ToString() }),
        ];

    private static LibraryCopy Copying(int library, string node, string parent, string seed)
    {
        var nodes = Library(library).Nodes();
        return LibraryCopy.Into(
                nodes,
                Guid.Parse(node),
                nodes,
                Guid.Parse(parent),
                null,
                true,
                Session.Replica.Id,
                new SeededIds(Guid.Parse(seed)).Next
            ) ?? throw new SentenceException($"This is no longer there. Nothing was copied.");
    }

    private static List<Change> ChangesToPlace(LibraryDocument document, Guid id, NodeKind nodeKind, Guid into, string after)
    {
        if (document.WouldCycle(id, into))
            throw new SentenceException($"Nothing can be put into itself, or into what lies inside it.");
        if (!document.MayLieIn(nodeKind, into))
            throw new SentenceException($"It cannot be put there.");
        var siblings = document
            .AllNodes()
            .Where(sibling => sibling.Parent == into && sibling.Id != id)
            .Select(sibling => (sibling.Id, sibling.Order))
            .OrderBy(sibling => sibling.Order, StringComparer.Ordinal)
            .ThenBy(sibling => sibling.Id)
            .ToList();
        return Siblings.PutAfter(siblings, after, id, nodeKind, into);
    }

    /// <summary>Erases things from the bin with all that lies in them now.</summary>
    [JSExport]
    public static byte[] Erase(int library, string[] nodes, double now) =>
        Session.PerformAll(library, Library(library).Erase([.. nodes.Select(Guid.Parse)]), now);

    /// <summary>Writes a register of what lies in a library or notebook; see <see cref="Property"/> for the numbers.</summary>
    [JSExport]
    public static byte[] SetProperty(int document, string target, int property, string value, double now) =>
        Session.Perform(document, new Change.PropertySet(Guid.Parse(target), (Property)property, value), now);

    /// <summary>Puts a tag on something or takes it off, in the document that holds it.</summary>
    [JSExport]
    public static byte[] SetTag(int document, string target, string tag, bool on, double now) =>
        Session.Perform(document, new Change.TagSet(Guid.Parse(target), Guid.Parse(tag), on), now);

    [JSExport]
    public static byte[] MergeTags(int library, string from, string into, double now)
    {
        if (new TagTree(Library(library).Nodes()).MergeProblem(Guid.Parse(from), Guid.Parse(into)) is { } problem)
            throw new SentenceException(problem.Sentence);
        return Session.Perform(library, new Change.PropertySet(Guid.Parse(from), Property.MergedInto, into), now);
    }

    [JSExport]
    public static byte[] Visit(int library, string space, string notebook, double now) =>
        Session.Perform(library, new Change.Visited(Guid.Parse(space), Guid.Parse(notebook)), now);

    /// <summary>Answers a rule over the folders and notebooks of a library, and over entries of notebooks that script knows, without a server.</summary>
    /// <param name="library">Handle of the library.</param>
    /// <param name="rule">The rule, as JSON.</param>
    /// <param name="facts">What the library does not hold: a JSON object by id, with writtenAt, people, starred.</param>
    /// <param name="notebooks">Handles of the notebooks held on this device.</param>
    /// <param name="notebookIds">Their ids, in the same order.</param>
    /// <param name="now">The device's clock, UTC milliseconds since 1970.</param>
    /// <param name="clock">When the person's clock changes, in pairs: since when (UTC ms), and how far ahead of UTC it is then (minutes).</param>
    /// <returns>A JSON array of ids.</returns>
    [JSExport]
    public static string Ask(int library, string rule, string facts, int[] notebooks, string[] notebookIds, double now, double[] clock) =>
        Json.List(
            OfflineAnswer.To(
                Library(library),
                RuleOf(rule),
                facts,
                notebooks,
                notebookIds,
                new LocalClock((long)now, [.. clock.Chunk(2).Select(change => ((long)change[0], (int)change[1]))])
            ),
            (json, id) => json.WriteStringValue(id)
        );

    [JSExport]
    public static string Fold(string text) => Folding.Fold(text);

    private static Rule RuleOf(string text)
    {
        var (rule, refusal) = RuleJson.Read(text);
        return rule ?? throw new SentenceException(refusal!.Sentence);
    }

    private static LibraryDocument Library(int handle) => Session.Document<LibraryDocument>(handle);

    internal static void Write(Utf8JsonWriter json, LibraryNode node)
    {
        json.WriteStartObject();
        json.WriteString("id", node.Id);
        json.WriteString("kind", node.Kind == NodeKind.MarkKind ? "markKind" : node.Kind.ToString().ToLowerInvariant());
        json.WriteString("parent", node.Parent);
        json.WriteString("order", node.Order);
        json.WriteString("name", node.Name);
        json.WriteString("folded", Folding.Fold(node.Name));
        json.WriteString("natural", NaturalOrder.Key(node.Name));
        json.WriteString("colour", node.Colour);
        json.WriteString("cover", node.Cover);
        json.WriteString("icon", node.Icon);
        json.WriteString("paper", node.Paper);
        json.WriteBoolean("pinned", node.Pinned);
        json.WriteBoolean("jot", node.Jot);
        Json.Ids(json, "tags", node.Tags.Ids);
        if (node.Rule.Length > 0)
            json.WriteString("rule", node.Rule);
        if (node.LensSpace is { } space)
            json.WriteString("lensSpace", space);
        if (node.Source is { } source)
            json.WriteString("source", source);
        if (node.Category.Length > 0)
            json.WriteString("category", node.Category);
        json.WriteNumber("createdAt", node.CreatedAt);
        json.WriteString("createdBy", node.CreatedBy);
        if (node.BinnedAt is { } at)
            json.WriteNumber("binnedAt", at);
        json.WriteBoolean("inBin", node.InBin);
        json.WriteEndObject();
    }

    /// <summary>Why something may not be called this, as it is told to a script; empty where it may.</summary>
    [JSExport]
    public static string NameProblem(string name) => Names.Problem(name)?.Told ?? "";
}
