using CalmQuill.Core.Operations;

namespace CalmQuill.Store.Documents;

/// <summary>Which document: its space, its kind and its id together. No store answers for an id alone, so what a space names is looked for in that space and nowhere else.</summary>
public readonly record struct DocumentRef(Guid Space, DocumentKind Kind, Guid Id)
{
    public static DocumentRef Library(Guid space) => new(space, DocumentKind.Library, space);

    public static DocumentRef Notebook(Guid space, Guid id) => new(space, DocumentKind.Notebook, id);

    /// <param name="space">The person's own space.</param>
    /// <param name="page">The page that it lies over, of whatever space.</param>
    public static DocumentRef Aside(Guid space, Guid page) => new(space, DocumentKind.Aside, page);

    public static DocumentRef Page(Guid space, Guid id) => new(space, DocumentKind.Page, id);
}

/// <summary>How a document stands.</summary>
/// <param name="LastSequence">Its last number.</param>
/// <param name="Erased">Whether its data was removed after its time in the bin.</param>
public sealed record DocumentState(long LastSequence, bool Erased);
