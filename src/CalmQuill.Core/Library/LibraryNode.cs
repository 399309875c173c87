namespace CalmQuill.Core.Library;

/// <summary>A folder or notebook in the tree.</summary>
/// <param name="Id">The node; for a notebook also its document.</param>
/// <param name="Kind">Folder or notebook.</param>
/// <param name="Parent">The folder it lies in; <see cref="Guid.Empty"/> is the root.</param>
/// <param name="Order">Its order key among its siblings.</param>
/// <param name="Name">Its name; may be empty while the naming has not arrived.</param>
/// <param name="Colour">A name of the palette; may be empty.</param>
/// <param name="Cover">The pattern of a notebook's cover; may be empty.</param>
/// <param name="BinnedAt">When it was put into the bin itself, UTC milliseconds since 1970; null when it was not.</param>
/// <param name="InBin">Whether it, or a folder it lies in, is in the bin.</param>
public sealed record LibraryNode(Guid Id, NodeKind Kind, Guid Parent, string Order, string Name, string Colour, string Cover, long? BinnedAt, bool InBin);
