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

    /// <summary>A register of a notebook.</summary>
    [JSExport]
    public static string Read(int notebook, string target, int property) =>
        Session.Document<NotebookDocument>(notebook).Read(Guid.Parse(target), (Property)property);

    private static void Write(System.Text.Json.Utf8JsonWriter json, NotebookDocument document, NotebookEntry entry)
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
        json.WriteBoolean("inBin", entry.InBin);
        if (entry.Kind == NodeKind.Page && document.Read(entry.Id, Property.Planner) is { Length: > 0 } planner)
            json.WriteString("planner", planner);
        json.WriteEndObject();
    }

    /// <summary>Puts a section (3) or page (4) somewhere: after a sibling, at the head with “first”, or at the end with an empty text; makes it when it is new.</summary>
    [JSExport]
    public static byte[] Place(int notebook, string entry, int kind, string parent, string after, double now)
    {
        var document = Session.Document<NotebookDocument>(notebook);
        var (id, into, nodeKind) = (Guid.Parse(entry), Guid.Parse(parent), (NodeKind)kind);
        if (document.WouldCycle(id, into))
            throw new InvalidOperationException(
                $"A {nodeKind.ToString().ToLowerInvariant()} cannot be put into itself or into one inside it."
            );
        if (!document.MayLieIn(nodeKind, into))
            throw new InvalidOperationException("A section lies in the notebook or in another section, not in a page.");
        var outline = document.Outline(withBinned: true);
        if (
            nodeKind == NodeKind.Page
            && outline.Find(one => one.Id == into) is { Kind: NodeKind.Page }
            && document.PageLevels(into).Above + 1 + document.PageLevels(id).Below > NotebookDocument.SubPageLevels
        )
            throw new InvalidOperationException("Sub-pages go two levels deep.");
        var siblings = outline
            .Where(sibling => sibling.Parent == into && sibling.Id != id)
            .Select(sibling => (sibling.Id, sibling.Order))
            .ToList();
        return Session.DoAll(notebook, Siblings.PutAfter(siblings, after, id, nodeKind, into), now);
    }

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
