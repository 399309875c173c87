using CalmQuill.Core.Library;

namespace CalmQuill.Core.Lenses;

/// <summary>What a rule needs to know of a folder, notebook, section or page.</summary>
/// <param name="Id">The thing itself.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Folder">The folder it lies in; for a section or page, that of its notebook. <see cref="Guid.Empty"/> is the head of the library.</param>
/// <param name="Title">Its name or title.</param>
/// <param name="Tags">The tags on it and on what it lies in, up to the notebook.</param>
/// <param name="CreatedAt">UTC milliseconds since 1970.</param>
/// <param name="WrittenAt">When it was last written on; null when it never was.</param>
/// <param name="Writers">Who wrote on it; for a section nobody.</param>
/// <param name="Starred">Whether the person who asks has it starred.</param>
public sealed record Entry(
    Guid Id,
    EntryKind Kind,
    Guid Folder,
    string Title,
    TagSet Tags,
    long CreatedAt,
    long? WrittenAt,
    IReadOnlyList<Guid> Writers,
    bool Starred
);
