using CalmQuill.Core.Access;
using CalmQuill.Core.History;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Server.Access;
using CalmQuill.Server.Documents;
using CalmQuill.Server.Limits;
using CalmQuill.Store.Assets;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Locks;
using CalmQuill.Store.Spaces;

namespace CalmQuill.Server.Library;

/// <summary>Deep copies: of folders and notebooks, and of sections and pages, within a library or into another.</summary>
internal static class CopyEndpoints
{
    /// <param name="Node">The folder or notebook; with <paramref name="Entry"/>, the notebook it lies in.</param>
    /// <param name="Entry">The section or page; none for a folder or notebook.</param>
    /// <param name="ToSpace">The library the copy goes into.</param>
    /// <param name="Parent">The folder the copy goes into; none for the head of the library. For the copy of a section or page, what it goes into in its notebook.</param>
    /// <param name="ToNotebook">The notebook the copy of a section or page goes to the end of; none for beside its original.</param>
    /// <param name="Move">Whether the original goes into the bin once the copy stands.</param>
    /// <param name="At">For a folder or notebook: copies it as it was at this time, UTC milliseconds since 1970.</param>
    /// <param name="Name">For a folder or notebook: what the copy is called; none for a copy of its original.</param>
    internal sealed record Asked(Guid Node, Guid? Entry, Guid? ToSpace, Guid? Parent, Guid? ToNotebook, bool Move, long? At, string? Name);

    public static void MapCopies(this IEndpointRouteBuilder api) =>
        api.MapPost("/spaces/{space:guid}/copies", Copy).RequireAuthorization().TakesWork();

    private static async Task<IResult> Copy(
        ReadableSpace space,
        Asked asked,
        Gate gate,
        CopyStore copies,
        AssetStore assets,
        DocumentStore documents,
        DocumentWriter writer,
        LockStore locks,
        SpaceQuotas quotas,
        SpaceStore spaces,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var (into, denied) = await gate.WritableSpace(asked.ToSpace ?? space.Id, space.Visitor, cancel);
        if (into is null)
            return Problems.Of(denied!);
        if (asked.Move && !Rights.MayWrite(space.Role))
            return Problems.Of(Denial.MayNotWrite);
        if (asked.At is not null && (asked.Move || asked.Entry is not null))
            return Problems.BadInput($"A folder or notebook is copied as it was; nothing of the past is moved.");
        if (asked.Name is { } name && Names.Problem(name) is { } problem)
            return Problems.BadInput(problem);
        var seesNoPast = await spaces.SeesNoPast(space.Id, space.Role, cancel);
        if (asked.At is not null && seesNoPast)
            return Problems.Of(Denial.NoPast);
        if (await quotas.Problem(into.Id, 0, cancel) is { } full)
            return Problems.Of(StatusCodes.Status507InsufficientStorage, full);
        var task = new CopyTask(
            space.Id,
            into.Id,
            new Replica(unchecked((ulong)Random.Shared.NextInt64()), space.Visitor.Person),
            space.Visitor,
            gate,
            copies,
            assets,
            quotas,
            documents,
            writer,
            locks,
            seesNoPast,
            asked.At ?? long.MaxValue,
            clock
        );
        return asked.Entry is { } entry ? await task.OfEntry(asked, entry, cancel) : await task.OfNode(asked, cancel);
    }

    /// <summary>One copying, as the operations that the person's device would have made.</summary>
    private sealed class CopyTask(
        Guid from,
        Guid into,
        Replica device,
        Visitor visitor,
        Gate gate,
        CopyStore copies,
        AssetStore assets,
        SpaceQuotas quotas,
        DocumentStore documents,
        DocumentWriter writer,
        LockStore locks,
        bool seesNoPast,
        long until,
        TimeProvider clock
    )
    {
        /// <summary>Makes a plan; or says why it cannot be made, or that what it is of is not here.</summary>
        private static IResult? Planned<T>(Func<T?> make, out T plan)
            where T : class
        {
            plan = null!;
            try
            {
                if (make() is not { } made)
                    return Problems.NotHere();
                plan = made;
                return null;
            }
            catch (SentenceException problem)
            {
                return Problems.BadInput(problem.Sentence);
            }
        }

        public async Task<IResult> OfNode(Asked asked, CancellationToken cancel)
        {
            var source = await documents.Library(from, cancel);
            // What was erased since is nowhere to be copied from.
            var nodes = IsThen
                ? PlacesHistory<LibraryDocument>.Of(source, until).Then.Nodes().FindAll(node => !source.IsAway(node.Id))
                : source.Nodes();
            var targetNodes = into == from ? source.Nodes() : (await documents.Library(into, cancel)).Nodes();
            var name = asked.Name ?? (asked.Move ? nodes.Find(node => node.Id == asked.Node)?.Name : null);
            if (
                Planned(
                    () =>
                        LibraryCopy.Into(nodes, asked.Node, targetNodes, asked.Parent ?? Guid.Empty, name, into == from, device.Id, NewId),
                    out var plan
                ) is
                { } refused
            )
                return refused;
            foreach (var (original, _) in plan.Notebooks)
            {
                if ((await gate.ReadableNotebook(from, original, visitor, cancel)).Denied is { } denied)
                    return Problems.Of(denied);
            }

            foreach (var (original, copy) in plan.Notebooks)
            {
                var now = await documents.Notebook(from, original, cancel);
                var inside = NotebookCopy.Plan(
                    IsThen ? PlacesHistory<NotebookDocument>.Of(now, until).Then : now,
                    null,
                    "",
                    into == from,
                    NewId,
                    whole: (original, copy),
                    without: IsThen ? now.WasErased : null
                );
                await CopyPages(inside.Pages, cancel);
                if (inside.Changes.Count > 0)
                    await Perform(DocumentRef.Notebook(into, copy), inside.Changes, cancel);
            }

            // The library comes last: nothing half copied is ever seen.
            await Perform(DocumentRef.Library(into), plan.Changes, cancel);
            if (asked.Move)
                await Perform(
                    DocumentRef.Library(from),
                    [new Change.PropertySet(asked.Node, Property.Binned, Now.ToString(System.Globalization.CultureInfo.InvariantCulture))],
                    cancel
                );
            return Results.Ok(new { copy = plan.Top });
        }

        public async Task<IResult> OfEntry(Asked asked, Guid entry, CancellationToken cancel)
        {
            var notebook = asked.Node;
            if ((await gate.ReadableNotebook(from, notebook, visitor, cancel)).Denied is { } denied)
                return Problems.Of(denied);
            if (asked.ToNotebook is { } other)
                return await OfEntryInto(asked, entry, other, cancel);
            if (into != from || asked.Move)
                return Problems.NotHere();
            var document = await documents.Notebook(from, notebook, cancel);
            if (NotebookCopy.Beside(document, entry, device.Id, NewId) is not { } plan)
                return Problems.NotHere();
            await CopyPages(plan.Pages, cancel);
            await Perform(DocumentRef.Notebook(from, notebook), plan.Changes, cancel);
            return Results.Ok(new { copy = plan.Changes.OfType<Change.NodePlaced>().First().Node });
        }

        private async Task<IResult> OfEntryInto(Asked asked, Guid entry, Guid notebook, CancellationToken cancel)
        {
            if (
                (await documents.Library(into, cancel)).Nodes().Find(node => node.Id == notebook)
                is not { Kind: NodeKind.Notebook, InBin: false }
            )
                return Problems.BadInput($"The notebook to copy into is not there, or is in the bin. Nothing was copied.");
            if ((await gate.ReadableNotebook(into, notebook, visitor, cancel)).Denied is { } denied)
                return Problems.Of(denied);
            var source = await documents.Notebook(from, asked.Node, cancel);
            var target = await documents.Notebook(into, notebook, cancel);
            if (
                Planned(
                    () => NotebookCopy.Into(source, entry, target, asked.Parent ?? Guid.Empty, into == from, device.Id, NewId),
                    out var plan
                ) is
                { } refused
            )
                return refused;
            await CopyPages(plan.Pages, cancel);
            await Perform(DocumentRef.Notebook(into, notebook), plan.Changes, cancel);
            if (asked.Move)
                await Perform(
                    DocumentRef.Notebook(from, asked.Node),
                    [new Change.PropertySet(entry, Property.Binned, Now.ToString(System.Globalization.CultureInfo.InvariantCulture))],
                    cancel
                );
            return Results.Ok(new { copy = plan.Changes.OfType<Change.NodePlaced>().First().Node });
        }

        private bool IsThen => until < long.MaxValue;

        private long Now => clock.GetUtcNow().ToUnixTimeMilliseconds();

        /// <summary>The ink of pages, but for those at home in a notebook that is shut for who copies: they are empty in the copy.</summary>
        private async Task CopyPages(IReadOnlyList<(Guid From, Guid To)> pages, CancellationToken cancel)
        {
            var shut = await locks.ShutPages(from, [.. pages.Select(page => page.From)], visitor.Session, cancel);
            var open = pages.Where(page => !shut.Contains(page.From)).ToList();
            await Carry([.. open.Select(page => page.From)], cancel);
            if (!seesNoPast && !IsThen)
            {
                await copies.Pages(from, into, open, cancel);
                return;
            }

            foreach (var (original, copy) in open)
            {
                var page = await documents.Page(from, original, until, cancel);
                // Who does not see how pages were copies them as they are.
                var operations = seesNoPast ? StandingPage.Of(page) : page.Operations();
                if (operations.Count > 0)
                    await documents.Append(DocumentRef.Page(into, copy), operations, cancel);
            }
        }

        /// <summary>What pages show is kept where their copies are, first of all: there is no copy without its pictures.</summary>
        /// <exception cref="SentenceException">There is no room for it.</exception>
        private async Task Carry(IReadOnlyList<Guid> pages, CancellationToken cancel)
        {
            if (from == into)
                return;
            var (missing, bytes) = await assets.Missing(from, into, pages, cancel);
            if (missing.Count == 0)
                return;
            if (await quotas.AssetProblem(into, bytes, cancel) is { } full)
                throw new SentenceException(full.Sentence);
            await assets.Carry(from, into, missing, cancel);
        }

        /// <exception cref="SentenceException">The document took nothing, which a copy's own new document, and a library that is not full, never does.</exception>
        private async Task Perform(DocumentRef document, IEnumerable<Change> changes, CancellationToken cancel)
        {
            var written = await writer.Append(
                document,
                visitor.Person,
                visitor.Device,
                [.. changes.Select(change => device.Make(change, Now))],
                cancel
            );
            if (written.Refused is { } refused)
                throw new SentenceException(refused.Sentence);
        }

        private static Guid NewId() => Guid.NewGuid();
    }
}
