using CalmQuill.Core.Lenses;

namespace CalmQuill.Store.Lenses;

/// <summary>Something that a filter or lens found, with what its row in a list says.</summary>
/// <param name="Kind">Folder, notebook, section or page.</param>
/// <param name="Id">The thing itself.</param>
/// <param name="Notebook">Its notebook; of a notebook itself.</param>
/// <param name="Parent">The folder it lies in, for a section or page that of its notebook.</param>
/// <param name="Title">Its name or title.</param>
/// <param name="NotebookName">The name of its notebook.</param>
/// <param name="Number">A page's number.</param>
/// <param name="Paper">A page's paper.</param>
/// <param name="Sequence">The last number of a page's document.</param>
/// <param name="CreatedAt">UTC milliseconds since 1970.</param>
/// <param name="WrittenAt">When it was last written on; null when it never was.</param>
/// <param name="Tags">The tags on it itself.</param>
public sealed record FoundEntry(
    EntryKind Kind,
    Guid Id,
    Guid Notebook,
    Guid Parent,
    string Title,
    string NotebookName,
    int Number,
    string Paper,
    long Sequence,
    long CreatedAt,
    long? WrittenAt,
    Guid[] Tags
);

/// <summary>What was found: how many in all, counted up to <see cref="LensStore.MostCounted"/>, and those asked for.</summary>
public sealed record Found(long Total, IReadOnlyList<FoundEntry> Entries);
