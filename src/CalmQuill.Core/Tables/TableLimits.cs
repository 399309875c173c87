using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Tables;

/// <summary>How large a table can be.</summary>
public static class TableLimits
{
    public const int MostRows = 400,
        MostColumns = 40,
        MostCells = 2_000;

    /// <summary>The least and the most that a column is wide, or a row high, 0.01 mm.</summary>
    public const int LeastExtent = 300,
        MostExtent = 60_000;

    /// <summary>Why a table cannot have so many cells; null where it can.</summary>
    public static Refusal? Check(int rows, int columns) =>
        rows > MostRows || columns > MostColumns || rows * columns > MostCells
            ? new Refusal("too-many", $"A table has at most {MostRows} rows, {MostColumns} columns and {MostCells:N0} cells.")
            : null;
}
