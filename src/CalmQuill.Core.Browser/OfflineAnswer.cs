using System.Text.Json;
using CalmQuill.Core.Lenses;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Browser;

/// <summary>Answers a rule from what the device holds, as the server's store answers it from its tables.</summary>
internal static class OfflineAnswer
{
    public static List<Guid> To(LibraryDocument library, Rule rule, string facts, int[] notebooks, string[] notebookIds, LocalClock clock)
    {
        using var known = JsonDocument.Parse(facts);
        var nodes = library.Nodes();
        var context = new RuleContext(nodes, library.Read(Guid.Empty, Property.Terms), clock);
        var matched = new List<Guid>();
        var byId = nodes.ToDictionary(node => node.Id);
        foreach (var node in nodes.Where(node => !node.InBin && node.Kind is NodeKind.Folder or NodeKind.Notebook))
        {
            var entry = EntryOf(
                node.Id,
                node.Kind == NodeKind.Folder ? EntryKind.Folder : EntryKind.Notebook,
                node.Parent,
                node.Name,
                node.Tags,
                node.CreatedAt,
                known.RootElement
            );
            if ((node.Kind == NodeKind.Notebook || !rule.MayMatch(EntryKind.Notebook)) && rule.Matches(entry, context))
                matched.Add(node.Id);
        }

        var whole = matched.ToHashSet();
        for (var i = 0; i < notebooks.Length; i++)
        {
            var id = Guid.Parse(notebookIds[i]);
            if (whole.Contains(id) || !byId.TryGetValue(id, out var notebook) || notebook.InBin)
                continue;
            foreach (var inner in Session.Document<NotebookDocument>(notebooks[i]).Outline())
            {
                var kind = inner.Kind == NodeKind.Page ? EntryKind.Page : EntryKind.Section;
                var entry = EntryOf(
                    inner.Id,
                    kind,
                    notebook.Parent,
                    inner.Title,
                    inner.Tags.With(notebook.Tags),
                    inner.CreatedAt,
                    known.RootElement
                );
                if (rule.Matches(entry, context))
                    matched.Add(inner.Id);
            }
        }

        return matched;
    }

    private static Entry EntryOf(Guid id, EntryKind kind, Guid folder, string title, TagSet tags, long createdAt, JsonElement facts)
    {
        var own = facts.TryGetProperty(id.ToString(), out var found) ? found : default;
        long? writtenAt =
            own.ValueKind == JsonValueKind.Object && own.TryGetProperty("writtenAt", out var at) && at.ValueKind == JsonValueKind.Number
                ? at.GetInt64()
                : null;
        Guid[] people =
            own.ValueKind == JsonValueKind.Object && own.TryGetProperty("people", out var list)
                ? [.. list.EnumerateArray().Select(person => person.GetGuid())]
                : [];
        var starred =
            own.ValueKind == JsonValueKind.Object && own.TryGetProperty("starred", out var star) && star.ValueKind == JsonValueKind.True;
        return new Entry(id, kind, folder, title, tags, createdAt, writtenAt, people, starred);
    }
}
