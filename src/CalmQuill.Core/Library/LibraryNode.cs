namespace CalmQuill.Core.Library;

/// <summary>A folder, notebook, tag or lens in the tree of a library.</summary>
/// <param name="Id">The node; for a notebook also its document.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Parent">The folder, or for a tag the tag, it lies in; <see cref="Guid.Empty"/> is the root.</param>
/// <param name="Order">Its order key among its siblings.</param>
/// <param name="Name">Its name; may be empty while the naming has not arrived.</param>
/// <param name="Colour">A name of the palette; may be empty.</param>
/// <param name="Cover">The pattern of a notebook's cover; may be empty.</param>
/// <param name="Icon">A short name of an icon; may be empty.</param>
/// <param name="Paper">The paper of a notebook's new pages; may be empty.</param>
/// <param name="Pinned">Whether it is pinned to the top of its folder.</param>
/// <param name="Jot">Whether it waits under Jots.</param>
/// <param name="Tags">The tags put on it.</param>
/// <param name="Rule">A lens's rule; empty for others.</param>
/// <param name="MergedInto">The tag this tag was merged into; null when it stands for itself.</param>
/// <param name="LensSpace">The space a personal lens asks; null when it asks the one it lies in.</param>
/// <param name="Source">The asset of a paper of one's own, or the picture on a notebook's cover; null for none.</param>
/// <param name="Category">Among which a paper of one's own stands; empty for others.</param>
/// <param name="CreatedAt">When it was made, UTC milliseconds since 1970.</param>
/// <param name="CreatedBy">Who made it.</param>
/// <param name="BinnedAt">When it was put into the bin itself, UTC milliseconds since 1970; null when it was not.</param>
/// <param name="InBin">Whether it, or something it lies in, is in the bin.</param>
public sealed record LibraryNode(
    Guid Id,
    NodeKind Kind,
    Guid Parent,
    string Order,
    string Name,
    string Colour,
    string Cover,
    string Icon,
    string Paper,
    bool Pinned,
    bool Jot,
    TagSet Tags,
    string Rule,
    Guid? MergedInto,
    Guid? LensSpace,
    Guid? Source,
    string Category,
    long CreatedAt,
    Guid CreatedBy,
    long? BinnedAt,
    bool InBin
);
