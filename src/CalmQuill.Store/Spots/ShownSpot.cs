using CalmQuill.Core.Spots;

namespace CalmQuill.Store.Spots;

/// <summary>A mark, link or heading with the page it is on, as lists show it. Times are UTC milliseconds since 1970; the area is 0.01 mm.</summary>
/// <param name="Space">The library it is in.</param>
/// <param name="Notebook">The notebook of its page.</param>
/// <param name="NotebookName">What that is called.</param>
/// <param name="Folder">The folder the notebook lies in.</param>
/// <param name="Page">The page.</param>
/// <param name="PageNumber">Its number in the notebook.</param>
/// <param name="PageTitle">Its title; may be empty.</param>
/// <param name="Paper">Its paper.</param>
/// <param name="Sequence">The page's last number, which the address of its picture carries.</param>
/// <param name="Tags">Its tags with those of what it lies in.</param>
/// <param name="Answers">How often somebody said something to it.</param>
/// <param name="IsAnswered">Whether somebody else than who put it there did.</param>
public sealed record ShownSpot(
    Guid Space,
    Guid Notebook,
    string NotebookName,
    Guid Folder,
    Guid Page,
    int PageNumber,
    string PageTitle,
    string Paper,
    long Sequence,
    IReadOnlyList<Guid> Tags,
    Guid Id,
    SpotKind Kind,
    IReadOnlyList<int> Area,
    string Mark,
    string Note,
    string Due,
    Guid? Person,
    string Target,
    string Title,
    int Level,
    bool IsOpen,
    long CreatedAt,
    Guid Author,
    long? DoneAt,
    Guid? DoneBy,
    int Answers,
    bool IsAnswered
);
