using CalmQuill.Core.Library;

namespace CalmQuill.Core.Notebooks;

/// <summary>A section or page as its notebook knows it.</summary>
/// <param name="Id">The section or page; for a page also its document.</param>
/// <param name="Kind">Section or page.</param>
/// <param name="Parent">The section, or for a sub-page the page, it lies in; <see cref="Guid.Empty"/> is the notebook itself.</param>
/// <param name="Depth">How deep it lies: 0 in the notebook itself.</param>
/// <param name="Order">Its order key among its siblings.</param>
/// <param name="Title">Its title; may be empty.</param>
/// <param name="Colour">A section's colour, a name of the palette; may be empty.</param>
/// <param name="Paper">A page's paper, in the short text form.</param>
/// <param name="Number">A page's number in the notebook, counted from 1 over pages that are not in the bin; for others the number of the page before.</param>
/// <param name="OwnTags">The tags put on it.</param>
/// <param name="Tags">Those, and the tags of the sections and pages it lies in.</param>
/// <param name="CreatedAt">When it was made, UTC milliseconds since 1970.</param>
/// <param name="BinnedAt">When it was put into the bin itself, UTC milliseconds since 1970; null when it was not.</param>
/// <param name="InBin">Whether it, or something it lies in, is in the bin.</param>
/// <param name="Planner">Which page of a planner a page is; empty for others.</param>
public sealed record NotebookEntry(
    Guid Id,
    NodeKind Kind,
    Guid Parent,
    int Depth,
    string Order,
    string Title,
    string Colour,
    string Paper,
    int Number,
    TagSet OwnTags,
    TagSet Tags,
    long CreatedAt,
    long? BinnedAt,
    bool InBin,
    string Planner
);
