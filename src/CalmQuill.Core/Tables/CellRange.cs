namespace CalmQuill.Core.Tables;

/// <summary>Cells beside and below each other, by rows and columns that are seen; the last ones are within.</summary>
public readonly record struct CellRange(int Row, int Column, int LastRow, int LastColumn)
{
    public int Rows => LastRow - Row + 1;

    public int Columns => LastColumn - Column + 1;

    /// <summary>The smallest that holds this and a cell.</summary>
    internal CellRange With(TableCell cell) =>
        new(Math.Min(Row, cell.Row), Math.Min(Column, cell.Column), Math.Max(LastRow, cell.LastRow), Math.Max(LastColumn, cell.LastColumn));
}
