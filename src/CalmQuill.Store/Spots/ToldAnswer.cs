namespace CalmQuill.Store.Spots;

/// <summary>What somebody said to a mark, as it is told to whom it is meant for.</summary>
/// <param name="Spot">The mark.</param>
/// <param name="Mark">Which kind it is.</param>
/// <param name="Note">What stands on it.</param>
/// <param name="Id">The answer.</param>
/// <param name="Person">Who said it.</param>
/// <param name="At">When, UTC milliseconds.</param>
/// <param name="Text">What was typed; may be empty where there is ink.</param>
/// <param name="Inked">Whether there is ink.</param>
/// <param name="Mentions">Whether it names whom it is told to; else it answers what is theirs.</param>
/// <param name="Received">When it came to the server, UTC milliseconds: by that it is told and has been seen.</param>
public sealed record ToldAnswer(
    Guid Space,
    Guid Notebook,
    string NotebookName,
    Guid Page,
    int PageNumber,
    Guid Spot,
    string Mark,
    string Note,
    string Id,
    Guid Person,
    string Name,
    string Colour,
    long At,
    string Text,
    bool Inked,
    bool Mentions,
    long Received
);
