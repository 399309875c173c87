using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Tables;

/// <summary>What of a cell stays as it is while no more is done to its table than letters typed into cells that have some.</summary>
/// <param name="Name">Its name: that of the first of those that were joined.</param>
/// <param name="Index">Which of all cells it is, row by row.</param>
/// <param name="Row">The row in which it begins.</param>
/// <param name="Column">The column.</param>
/// <param name="LastRow">The row in which it ends.</param>
/// <param name="LastColumn">The column.</param>
/// <param name="Own">Which paragraphs of the text are its own.</param>
/// <param name="All">Which are written in it.</param>
/// <param name="Look">How its first paragraph looks.</param>
/// <param name="HasLetters">Whether there are letters in them.</param>
/// <param name="LetteredBefore">How many cells before it have letters.</param>
public sealed record CellPlan(
    TableName Name,
    int Index,
    int Row,
    int Column,
    int LastRow,
    int LastColumn,
    IReadOnlyList<int> Own,
    IReadOnlyList<int> All,
    Look Look,
    bool HasLetters,
    int LetteredBefore
);
