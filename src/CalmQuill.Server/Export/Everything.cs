using System.Text;
using System.Text.Json;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Spots;
using CalmQuill.Documents;
using CalmQuill.Documents.Pdf;
using CalmQuill.Documents.Svg;
using CalmQuill.Server.Access;
using CalmQuill.Server.Limits;
using CalmQuill.Server.Pages;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Library;
using CalmQuill.Store.Locks;
using CalmQuill.Store.People;
using CalmQuill.Store.Spaces;

namespace CalmQuill.Server.Export;

/// <summary>
/// All that a person has, as one archive of open formats: a folder for each library, in it their folders, of each notebook a PDF and a folder of its pages as
/// SVG, and titles, tags and marks as JSON; and what was left out, with the reason.
/// </summary>
internal sealed class Everything(
    PersonStore people,
    SpaceStore spaces,
    ShelfStore shelf,
    LockStore locks,
    DocumentStore documents,
    PrintedPages printed,
    Asides asides,
    QuillLimits limits
)
{
    private readonly SemaphoreSlim atOnce = new(limits.ExpensiveAtOnce);

    private static readonly JsonSerializerOptions Readable = new(JsonSerializerDefaults.Web) { WriteIndented = true };

    /// <summary>Writes the archive, piece by piece: one notebook is in memory at a time.</summary>
    /// <param name="to">Where to; only ever written forwards.</param>
    /// <param name="visitor">Whose it is.</param>
    /// <param name="withGroups">Also what the groups have that the person is in.</param>
    /// <param name="cancel">Gives up.</param>
    public async Task Write(Stream to, Visitor visitor, bool withGroups, CancellationToken cancel)
    {
        var person = (await people.Find(visitor.Person, cancel))!;
        var own = await spaces.Of(person.Id, cancel);
        await using var archive = new Archive(to);
        await archive.PutText(
            "account.json",
            JsonSerializer.Serialize(
                new
                {
                    person.Name,
                    person.Email,
                    person.Colour,
                    libraries = own.Select(space => new
                    {
                        space.Name,
                        space.Personal,
                        role = space.Role.ToString().ToLowerInvariant(),
                    }),
                },
                Readable
            ),
            cancel
        );
        foreach (var space in own.Where(space => space.Personal || withGroups))
            await Put(archive, archive.Name("", space.Name), space.Id, visitor, cancel);
        foreach (var space in own.Where(space => space.Personal))
            await PutAsides(archive, space.Id, visitor, cancel);
        await archive.PutText("about.txt", About(archive), cancel);
        await archive.Finish(cancel);
    }

    private async Task Put(Archive archive, string root, Guid space, Visitor visitor, CancellationToken cancel)
    {
        var nodes = await shelf.Nodes(space, cancel);
        var shut = (await locks.ShutFor(visitor.Session, visitor.Person, space, cancel)).Select(one => one.Notebook).ToHashSet();
        var folders = PathsOf(archive, root, nodes);
        var names = (await spaces.Members(space, cancel)).ToDictionary(member => member.Id, member => member.Name);
        var contents = new List<object>();
        foreach (var notebook in nodes.Where(node => node.Kind is NodeKind.Notebook))
        {
            var path = archive.Name(folders.GetValueOrDefault(notebook.Parent, root), notebook.Name);
            if (shut.Contains(notebook.Id))
            {
                archive.LeaveOut(path, "It is locked. Open it, then take everything again.");
                continue;
            }

            var pages = await shelf.Pages(notebook.Id, space, false, cancel);
            var shutPages = await locks.ShutPages(space, [.. pages.Select(page => page.Id)], visitor.Session, cancel);
            pages.RemoveAll(page => shutPages.Contains(page.Id));
            contents.Add(
                new
                {
                    notebook.Name,
                    path,
                    pages = pages.Count,
                }
            );
            if (pages.Count > 0)
                await Making(() => PutNotebook(archive, path, notebook, space, pages, names, cancel), cancel);
            await archive.PassOn(cancel);
        }

        await archive.PutText($"{root}/contents.json", JsonSerializer.Serialize(contents, Readable), cancel);
    }

    /// <summary>Few things are made at once, and while they are taken away slowly others are made.</summary>
    private async Task Making(Func<Task> make, CancellationToken cancel)
    {
        await atOnce.WaitAsync(cancel);
        try
        {
            await make();
        }
        finally
        {
            atOnce.Release();
        }
    }

    /// <summary>A notebook as one file, and each of its pages as one. What is too much for one file is left out of that one.</summary>
    private async Task PutNotebook(
        Archive archive,
        string path,
        ShelfNode notebook,
        Guid space,
        IReadOnlyList<ShownPage> pages,
        Dictionary<Guid, string> names,
        CancellationToken cancel
    )
    {
        var taken = new Dictionary<Guid, IReadOnlyList<object>>();
        try
        {
            var file = await PdfExport.Write(
                notebook.Name.Length > 0 ? notebook.Name : "Notebook",
                WithPages(archive, path, printed.Of(space, pages, cancel), taken, names, cancel),
                cancel
            );
            await archive.Put(path + ".pdf", file, cancel);
        }
        catch (PrintBudgetException problem)
        {
            archive.LeaveOut(path + ".pdf", problem.Message);
            List<ShownPage> left = [.. pages.Where(page => !taken.ContainsKey(page.Id))];
            await foreach (var _ in WithPages(archive, path, printed.Of(space, left, cancel), taken, names, cancel)) { }
        }

        var tags = await shelf.TagsOf(notebook.Id, space, cancel);
        await archive.PutText(
            path + ".json",
            JsonSerializer.Serialize(
                pages.Select(page => new
                {
                    page.Number,
                    page.Title,
                    page.Paper,
                    page.WrittenAt,
                    tags = tags.GetValueOrDefault(page.Id, []),
                    marks = taken.GetValueOrDefault(page.Id, []),
                }),
                Readable
            ),
            cancel
        );
    }

    /// <summary>Puts each page by itself into the archive on its way into the notebook's file, so that none is read twice.</summary>
    private static async IAsyncEnumerable<PrintedPage> WithPages(
        Archive archive,
        string path,
        IAsyncEnumerable<PrintedPage> pages,
        Dictionary<Guid, IReadOnlyList<object>> taken,
        Dictionary<Guid, string> names,
        [System.Runtime.CompilerServices.EnumeratorCancellation] CancellationToken cancel
    )
    {
        await foreach (var page in pages.WithCancellation(cancel))
        {
            await PutPage(archive, path, page, cancel);
            taken[page.Id] = [.. page.Page.Spots().Where(spot => spot.Kind is SpotKind.Mark).Select(spot => Said(spot, names))];
            yield return page;
        }
    }

    /// <summary>A mark with what was said to it. Who is in the library no more is not named.</summary>
    private static object Said(Spot spot, Dictionary<Guid, string> names) =>
        new
        {
            mark = spot[SpotField.Mark],
            note = spot[SpotField.Note],
            due = spot[SpotField.Due],
            by = names.GetValueOrDefault(spot.Author, ""),
            spot.CreatedAt,
            spot.DoneAt,
            answers = spot.Answers.Select(answer => new
            {
                by = names.GetValueOrDefault(answer.Author, ""),
                answer.At,
                answer.Text,
            }),
        };

    private static async Task PutPage(Archive archive, string path, PrintedPage page, CancellationToken cancel)
    {
        var name = archive.Name(path, $"{page.Number:000} {page.Title}");
        try
        {
            await archive.PutText(name + ".svg", PageSvg.Write(page), cancel);
        }
        catch (PrintBudgetException problem)
        {
            archive.LeaveOut(name + ".svg", problem.Message);
        }
    }

    private async Task PutAsides(Archive archive, Guid library, Visitor visitor, CancellationToken cancel)
    {
        foreach (var (page, note) in (await documents.Library(library, cancel)).All(Property.Aside))
        {
            var (paper, title) = Noted(note);
            if (await asides.Alone(visitor, page, paper, title, cancel) is { } aside)
                await Making(() => PutPage(archive, "Asides", aside, cancel), cancel);
            await archive.PassOn(cancel);
        }
    }

    /// <summary>What a device noted of the page that an aside lies over; nothing where it cannot be read.</summary>
    private static (string? Paper, string? Title) Noted(string note)
    {
        try
        {
            var read = JsonSerializer.Deserialize<AsideNote>(note, JsonSerializerOptions.Web);
            return (read?.Paper, read?.Title);
        }
        catch (JsonException)
        {
            return (null, null);
        }
    }

    private sealed record AsideNote(string? Paper, string? Title);

    /// <summary>Where each folder lies in the archive. One whose folders do not lead to the top lies there itself.</summary>
    private static Dictionary<Guid, string> PathsOf(Archive archive, string root, IReadOnlyList<ShelfNode> nodes)
    {
        var folders = nodes.Where(node => node.Kind is NodeKind.Folder).ToDictionary(node => node.Id);
        var paths = new Dictionary<Guid, string>();
        foreach (var folder in folders.Values)
        {
            var above = new Stack<ShelfNode>();
            for (
                ShelfNode? at = folder;
                at is not null && !paths.ContainsKey(at.Id) && above.Count < LibraryDocument.MostDepth;
                at = folders.GetValueOrDefault(at.Parent)
            )
                above.Push(at);
            while (above.TryPop(out var at))
                paths[at.Id] = archive.Name(paths.GetValueOrDefault(at.Parent, root), at.Name);
        }

        return paths;
    }

    private static string About(Archive archive)
    {
        var about = new StringBuilder();
        about.AppendLine("Calm Quill: all that is yours, as it was when this was made.");
        about.AppendLine();
        about.AppendLine(
            "Each notebook is a PDF, in true size, a folder with its pages as SVG, and a list of its pages with tags, marks and answers as JSON."
        );
        about.AppendLine("What lies in the bin is not among it.");
        if (archive.LeftOut.Count == 0)
            return about.ToString();
        about.AppendLine();
        about.AppendLine("Left out:");
        foreach (var (path, why) in archive.LeftOut)
            about.AppendLine($"{path}: {why}");
        return about.ToString();
    }
}
