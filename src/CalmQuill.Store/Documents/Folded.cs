using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Store.Documents;

/// <summary>Documents as all their kept operations make them; one of which nothing is kept is empty.</summary>
public static class Folded
{
    public static async Task<PageDocument> Page(this DocumentStore documents, Guid space, Guid id, CancellationToken cancel)
    {
        var page = new PageDocument();
        await Fold(documents, DocumentRef.Page(space, id), page.Apply, cancel);
        return page;
    }

    /// <summary>A person's aside of a page, as it was written: nothing of it goes along with the page yet.</summary>
    public static async Task<PageDocument> Aside(this DocumentStore documents, Guid space, Guid page, CancellationToken cancel)
    {
        var aside = new PageDocument();
        await Fold(documents, DocumentRef.Aside(space, page), aside.Apply, cancel);
        return aside;
    }

    public static async Task<NotebookDocument> Notebook(this DocumentStore documents, Guid space, Guid id, CancellationToken cancel)
    {
        var notebook = new NotebookDocument();
        await Fold(documents, DocumentRef.Notebook(space, id), notebook.Apply, cancel);
        return notebook;
    }

    public static async Task<LibraryDocument> Library(this DocumentStore documents, Guid space, CancellationToken cancel)
    {
        var library = new LibraryDocument();
        await Fold(documents, DocumentRef.Library(space), library.Apply, cancel);
        return library;
    }

    private static async Task Fold(DocumentStore documents, DocumentRef document, Func<Operation, bool> apply, CancellationToken cancel)
    {
        foreach (var operation in (await documents.After(document, 0, cancel)).Operations)
            apply(operation);
    }
}
