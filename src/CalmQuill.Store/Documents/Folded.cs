using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Store.Documents;

/// <summary>Documents as all their kept operations make them; one of which nothing is kept is empty.</summary>
public static class Folded
{
    /// <summary>After all that was done.</summary>
    private const long Now = long.MaxValue;

    public static Task<PageDocument> Page(this DocumentStore documents, Guid space, Guid id, CancellationToken cancel) =>
        documents.Page(space, id, Now, cancel);

    /// <summary>As it was by a time, UTC milliseconds since 1970.</summary>
    public static async Task<PageDocument> Page(this DocumentStore documents, Guid space, Guid id, long until, CancellationToken cancel)
    {
        var page = new PageDocument();
        await Fold(documents, DocumentRef.Page(space, id), page.Apply, until, cancel);
        return page;
    }

    /// <summary>A person's aside of a page, as it was written: nothing of it goes along with the page yet.</summary>
    public static async Task<PageDocument> Aside(this DocumentStore documents, Guid space, Guid page, CancellationToken cancel)
    {
        var aside = new PageDocument();
        await Fold(documents, DocumentRef.Aside(space, page), aside.Apply, Now, cancel);
        return aside;
    }

    public static async Task<NotebookDocument> Notebook(this DocumentStore documents, Guid space, Guid id, CancellationToken cancel)
    {
        var notebook = new NotebookDocument();
        await Fold(documents, DocumentRef.Notebook(space, id), notebook.Apply, Now, cancel);
        return notebook;
    }

    public static async Task<LibraryDocument> Library(this DocumentStore documents, Guid space, CancellationToken cancel)
    {
        var library = new LibraryDocument();
        await Fold(documents, DocumentRef.Library(space), library.Apply, Now, cancel);
        return library;
    }

    private static async Task Fold(
        DocumentStore documents,
        DocumentRef document,
        Func<Operation, bool> apply,
        long until,
        CancellationToken cancel
    )
    {
        foreach (var operation in (await documents.After(document, 0, cancel)).Operations)
        {
            if (operation.Time.UnixMilliseconds <= until)
                apply(operation);
        }
    }
}
