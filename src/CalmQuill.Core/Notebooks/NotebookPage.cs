namespace CalmQuill.Core.Notebooks;

/// <summary>A page as its notebook knows it.</summary>
/// <param name="Id">The page, and its document.</param>
/// <param name="Order">Its order key.</param>
/// <param name="Title">Its title; may be empty.</param>
/// <param name="Paper">Its paper, in the short text form.</param>
/// <param name="BinnedAt">When it was put into the bin, UTC milliseconds since 1970; null when it was not.</param>
public sealed record NotebookPage(Guid Id, string Order, string Title, string Paper, long? BinnedAt);
