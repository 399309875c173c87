namespace CalmQuill.Store.Shelf;

/// <summary>A page in a page strip.</summary>
public sealed record StripPage(Guid Id, int Number, string Title, long Sequence, string Paper);

/// <summary>A notebook as a row of the library: how much is in it, when it was written in and by whom, and its latest pages.</summary>
public sealed record ShelfEntry(Guid Notebook, int PageCount, DateTime? WrittenAt, IReadOnlyList<Guid> People, IReadOnlyList<StripPage> Strip);
