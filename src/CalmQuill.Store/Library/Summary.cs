using CalmQuill.Core.Library;

namespace CalmQuill.Store.Library;

/// <summary>A notebook in sum. Times are UTC milliseconds since 1970; size is in bytes as stored.</summary>
public sealed record Summary(
    Guid Notebook,
    int PageCount,
    IReadOnlyList<string> Sections,
    long Size,
    long? WrittenAt,
    IReadOnlyList<Guid> People
);

/// <summary>A page as lists show it.</summary>
public sealed record ShownPage(Guid Notebook, Guid Id, int Number, string Title, string Paper, long Sequence, long? WrittenAt)
{
    /// <summary>Which page of a planner it is; empty for others, and where a list does not need it.</summary>
    public string Planner { get; init; } = "";

    /// <summary>How many operations its document has; 0 where a list does not need it.</summary>
    public long Operations { get; init; }
}

/// <summary>A folder or notebook of a library, and the folder that it lies in; the empty id for none.</summary>
public sealed record ShelfNode(Guid Id, NodeKind Kind, Guid Parent, string Name);

/// <summary>When the server was told that a thing is in the bin, UTC milliseconds since 1970.</summary>
public readonly record struct BinTime(Guid Id, long At);

/// <summary>A section or page in the bin.</summary>
/// <param name="Pages">How many pages it is or holds, but for those that are in the bin by themselves.</param>
public sealed record BinnedEntry(
    Guid Notebook,
    string NotebookName,
    Guid Id,
    bool IsPage,
    string Title,
    int Number,
    string Paper,
    long Sequence,
    long BinnedAt,
    int Pages
);
