using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Tables;

/// <summary>A cell of a table, or several that were joined.</summary>
/// <param name="Name">Its name: that of the first of those that were joined.</param>
/// <param name="Row">The row in which it begins, counted from the top among those that are seen.</param>
/// <param name="Column">The column, from the left.</param>
/// <param name="LastRow">The row in which it ends.</param>
/// <param name="LastColumn">The column.</param>
/// <param name="Own">Its own paragraphs; none where nothing was ever written or said of it.</param>
/// <param name="Paragraphs">All that is written in it: its own paragraphs, those of cells that were joined to it, and what lost its cell.</param>
public sealed record TableCell(
    TableName Name,
    int Row,
    int Column,
    int LastRow,
    int LastColumn,
    IReadOnlyList<Paragraph> Own,
    IReadOnlyList<Paragraph> Paragraphs
)
{
    public bool IsJoined => LastRow > Row || LastColumn > Column;

    /// <summary>How its first paragraph looks.</summary>
    public Look Look => Own.Count > 0 ? Own[0].Look : Look.Usual;

    /// <summary>All that is written in it, its paragraphs parted by line breaks.</summary>
    public string Text => Signs.Whole(string.Join('\n', Paragraphs.Select(paragraph => paragraph.Text)));

    public bool HasLetters => Paragraphs.Any(paragraph => paragraph.Length > 0);

    public bool Equals(TableCell? other) => ReferenceEquals(this, other);

    public override int GetHashCode() => System.Runtime.CompilerServices.RuntimeHelpers.GetHashCode(this);
}
