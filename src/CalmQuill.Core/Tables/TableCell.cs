using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Tables;

/// <summary>A cell of a table, or several that were joined.</summary>
/// <param name="table">The table as it is, or was.</param>
/// <param name="plan">What the cell is, whatever letters are in it.</param>
public readonly struct TableCell(TableText table, CellPlan plan) : IEquatable<TableCell>
{
    /// <summary>Its name: that of the first of those that were joined.</summary>
    public TableName Name => plan.Name;

    /// <summary>Which of all cells it is, row by row.</summary>
    public int Index => plan.Index;

    /// <summary>The row in which it begins, counted from the top among those that are seen.</summary>
    public int Row => plan.Row;

    /// <summary>The column, from the left.</summary>
    public int Column => plan.Column;

    /// <summary>The row in which it ends.</summary>
    public int LastRow => plan.LastRow;

    /// <summary>The column.</summary>
    public int LastColumn => plan.LastColumn;

    public bool IsJoined => LastRow > Row || LastColumn > Column;

    public bool HasLetters => plan.HasLetters;

    /// <summary>How many cells before it have letters.</summary>
    internal int LetteredBefore => plan.LetteredBefore;

    /// <summary>How its first paragraph looks.</summary>
    public Look Look => plan.Look;

    /// <summary>Its own paragraphs; none where nothing was ever written or said of it.</summary>
    public IReadOnlyList<Paragraph> Own => table.ParagraphsAt(plan.Own);

    /// <summary>All that is written in it: its own paragraphs, those of cells that were joined to it, and what lost its cell.</summary>
    public IReadOnlyList<Paragraph> Paragraphs => table.ParagraphsAt(plan.All);

    /// <summary>All that is written in it, its paragraphs parted by line breaks.</summary>
    public string Text => Signs.Whole(string.Join('\n', Paragraphs.Select(paragraph => paragraph.Text)));

    public static bool operator ==(TableCell one, TableCell other) => one.Equals(other);

    public static bool operator !=(TableCell one, TableCell other) => !one.Equals(other);

    /// <summary>It is the same cell with whatever letters, as long as no row, column or look became another.</summary>
    public bool Equals(TableCell other) => ReferenceEquals(Plan, other.Plan);

    public override bool Equals(object? obj) => obj is TableCell other && Equals(other);

    public override int GetHashCode() => System.Runtime.CompilerServices.RuntimeHelpers.GetHashCode(plan);

    private CellPlan Plan => plan;
}
