using System.Runtime.InteropServices.JavaScript;
using System.Text;
using System.Text.Json;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: libraries and notebooks.</summary>
public static partial class LibraryBridge
{
    /// <summary>All folders and notebooks of a library, as a JSON array.</summary>
    [JSExport]
    public static string Nodes(int library) => Json(writer =>
    {
        foreach (var node in Session.Document<LibraryDocument>(library).Nodes())
        {
            writer.WriteStartObject();
            writer.WriteString("id", node.Id);
            writer.WriteString("kind", node.Kind == NodeKind.Folder ? "folder" : "notebook");
            writer.WriteString("parent", node.Parent);
            writer.WriteString("name", node.Name);
            writer.WriteString("colour", node.Colour);
            writer.WriteString("cover", node.Cover);
            if (node.BinnedAt is { } at) writer.WriteNumber("binnedAt", at);
            writer.WriteBoolean("inBin", node.InBin);
            writer.WriteEndObject();
        }
    });

    /// <summary>Puts a folder (1) or notebook (2) at the end of a folder; refuses to put a folder into itself or its own child.</summary>
    [JSExport]
    public static byte[] Place(int library, string node, int kind, string parent, double random, double now)
    {
        var document = Session.Document<LibraryDocument>(library);
        var (id, into) = (Guid.Parse(node), Guid.Parse(parent));
        if (document.WouldCycle(id, into)) throw new InvalidOperationException("A folder cannot be put into itself or into a folder inside it.");
        var last = document.Nodes().LastOrDefault(sibling => sibling.Parent == into && sibling.Id != id);
        return Session.Do(library, new Change.NodePlaced(id, (NodeKind)kind, into, OrderKey.Between(last?.Order, null, (ulong)random)), now);
    }

    /// <summary>Writes a register of a folder, notebook or page; see <see cref="Property"/> for the numbers.</summary>
    [JSExport]
    public static byte[] SetProperty(int document, string target, int property, string value, double now) =>
        Session.Do(document, new Change.PropertySet(Guid.Parse(target), (Property)property, value), now);

    /// <summary>The pages of a notebook in order, binned ones left out, as a JSON array.</summary>
    [JSExport]
    public static string Pages(int notebook) => Json(writer =>
    {
        foreach (var page in Session.Document<NotebookDocument>(notebook).Pages())
        {
            writer.WriteStartObject();
            writer.WriteString("id", page.Id);
            writer.WriteString("title", page.Title);
            writer.WriteString("paper", page.Paper);
            writer.WriteEndObject();
        }
    });

    /// <summary>Adds a page after another one, or at the end when <paramref name="after"/> is empty.</summary>
    [JSExport]
    public static byte[] AddPage(int notebook, string page, string after, string paper, double random, double now)
    {
        var pages = Session.Document<NotebookDocument>(notebook).Pages(withBinned: true);
        var index = after.Length == 0 ? pages.Count - 1 : pages.FindIndex(candidate => candidate.Id == Guid.Parse(after));
        var before = index < 0 ? null : pages[index].Order;
        var next = pages.Skip(index + 1).FirstOrDefault(candidate => string.CompareOrdinal(candidate.Order, before) > 0)?.Order;
        return Session.Do(notebook, new Change.PageAdded(Guid.Parse(page), OrderKey.Between(before, next, (ulong)random), paper), now);
    }

    private static string Json(Action<Utf8JsonWriter> write)
    {
        using var stream = new MemoryStream();
        using (var writer = new Utf8JsonWriter(stream))
        {
            writer.WriteStartArray();
            write(writer);
            writer.WriteEndArray();
        }

        return Encoding.UTF8.GetString(stream.GetBuffer(), 0, (int)stream.Length);
    }
}
