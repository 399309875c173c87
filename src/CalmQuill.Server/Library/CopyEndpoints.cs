using System.Security.Claims;
using CalmQuill.Core.Access;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CalmQuill.Server.Documents;
using CalmQuill.Server.People;
using CalmQuill.Store.Documents;

namespace CalmQuill.Server.Library;

/// <summary>Deep copies: of folders and notebooks, within a library or into another, and of sections and pages within their notebook.</summary>
internal static class CopyEndpoints
{
    /// <param name="Node">The folder or notebook; with <paramref name="Entry"/>, the notebook it lies in.</param>
    /// <param name="Entry">The section or page; none for a folder or notebook.</param>
    /// <param name="ToSpace">The library the copy goes into.</param>
    /// <param name="Parent">The folder the copy goes into; none for the head of the library.</param>
    /// <param name="Move">Whether the original goes into the bin once the copy stands.</param>
    private sealed record Asked(Guid Node, Guid? Entry, Guid? ToSpace, Guid? Parent, bool Move);

    public static void MapCopies(this IEndpointRouteBuilder api) => api.MapPost("/spaces/{space:guid}/copies", Copy).RequireAuthorization();

    private static async Task<IResult> Copy(Guid space, Asked asked, HttpContext http, Gate gate, CopyStore copies, DocumentStore documents, DocumentWriter writer, TimeProvider clock, CancellationToken cancel)
    {
        var own = await gate.RoleIn(space, http.User, cancel);
        if (!Rights.MayRead(own)) return Problems.NotHere();
        var into = asked.ToSpace ?? space;
        var role = into == space ? own : await gate.RoleIn(into, http.User, cancel);
        if (!Rights.MayRead(role)) return Problems.NotHere();
        if (!Rights.MayWrite(role) || (asked.Move && !Rights.MayWrite(own))) return Problems.NotAllowed("You may read here, but not write.");
        var task = new CopyTask(space, into, new Replica(unchecked((ulong)Random.Shared.NextInt64()), http.User.Id()), http.User, gate, copies, documents, writer, clock);
        return asked.Entry is { } entry ? await task.OfEntry(asked.Node, entry, cancel) : await task.OfNode(asked, cancel);
    }

    /// <summary>One copying, as the operations that the person's device would have made.</summary>
    private sealed class CopyTask(
        Guid from, Guid into, Replica device, ClaimsPrincipal user, Gate gate, CopyStore copies, DocumentStore documents, DocumentWriter writer, TimeProvider clock)
    {
        public async Task<IResult> OfNode(Asked asked, CancellationToken cancel)
        {
            var source = await documents.Library(from, cancel);
            var nodes = source.Nodes();
            var target = into == from ? source : await documents.Library(into, cancel);
            var targetNodes = into == from ? nodes : target.Nodes();
            var parent = asked.Parent ?? Guid.Empty;
            if (parent != Guid.Empty && !targetNodes.Any(node => node.Id == parent && node is { Kind: NodeKind.Folder, InBin: false }))
                return Problems.BadInput("The folder to copy into is not there, or is in the bin. Nothing was copied.");
            var top = nodes.FirstOrDefault(node => node.Id == asked.Node);
            var last = targetNodes.LastOrDefault(node => node.Parent == parent)?.Order;
            var name = asked.Move ? top?.Name ?? "" : Called(top?.Name ?? "");
            if (LibraryCopy.Plan(nodes, asked.Node, parent, Key(last, null), name, into == from, NewId) is not { } plan) return Problems.NotHere();
            foreach (var (original, _) in plan.Notebooks)
            {
                if (await gate.IsShut(original, user, cancel)) return Problems.Locked();
            }

            foreach (var (original, copy) in plan.Notebooks)
            {
                var inside = NotebookCopy.Plan(await documents.Notebook(original, cancel), null, "", into == from, NewId, (original, copy));
                await copies.Pages(into, inside.Pages, cancel);
                if (inside.Changes.Count > 0) await Do(new DocumentRef(into, DocumentKind.Notebook, copy), inside.Changes, cancel);
            }

            // The library comes last: nothing half copied is ever seen.
            await Do(new DocumentRef(into, DocumentKind.Library, into), plan.Changes, cancel);
            if (asked.Move)
                await Do(new DocumentRef(from, DocumentKind.Library, from), [new Change.PropertySet(asked.Node, Property.Binned, Now.ToString(System.Globalization.CultureInfo.InvariantCulture))], cancel);
            return Results.Ok(new { copy = plan.Top });
        }

        public async Task<IResult> OfEntry(Guid notebook, Guid entry, CancellationToken cancel)
        {
            if (await documents.Find(notebook, cancel) is not { Kind: DocumentKind.Notebook } found || found.Space != from || into != from) return Problems.NotHere();
            if (await gate.IsShut(notebook, user, cancel)) return Problems.Locked();
            var document = await documents.Notebook(notebook, cancel);
            var outline = document.Outline();
            if (outline.Find(one => one.Id == entry) is not { } original) return Problems.NotHere();
            var next = outline.Where(one => one.Parent == original.Parent && string.CompareOrdinal(one.Order, original.Order) > 0).Select(one => one.Order).FirstOrDefault();
            var plan = NotebookCopy.Plan(document, entry, Key(original.Order, next), true, NewId);
            await copies.Pages(from, plan.Pages, cancel);
            await Do(new DocumentRef(from, DocumentKind.Notebook, notebook), plan.Changes, cancel);
            return Results.Ok(new { copy = plan.Changes.OfType<Change.NodePlaced>().First().Node });
        }

        private long Now => clock.GetUtcNow().ToUnixTimeMilliseconds();

        private Task Do(DocumentRef document, IEnumerable<Change> changes, CancellationToken cancel) =>
            writer.Append(document, [.. changes.Select(change => device.Make(change, Now))], cancel);

        private static Guid NewId() => Guid.NewGuid();

        private static string Key(string? before, string? after) => OrderKey.Between(before, after, unchecked((ulong)Random.Shared.NextInt64()));

        /// <summary>The name of a copy; of a name that is too long already, as much as fits.</summary>
        private static string Called(string name)
        {
            var called = $"{name}, copy";
            return Names.Problem(called) is null ? called : name;
        }
    }
}
