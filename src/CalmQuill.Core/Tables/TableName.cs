namespace CalmQuill.Core.Tables;

/// <summary>What names a row, a column or a cell of a table; names are never used again in the same one.</summary>
/// <param name="Row">The id of the row; empty for a column.</param>
/// <param name="Column">The id of the column; empty for a row.</param>
public readonly record struct TableName(string Row, string Column)
{
    private const int MostLength = 12;

    public bool IsCell => Row.Length > 0 && Column.Length > 0;

    /// <summary>A name that nobody else gives.</summary>
    public static string New() => Guid.NewGuid().ToString("n")[..MostLength];

    /// <summary><c>r:id</c>, <c>c:id</c>, or both ids parted by a blank.</summary>
    public override string ToString() =>
        Column.Length == 0 ? $"r:{Row}"
        : Row.Length == 0 ? $"c:{Column}"
        : $"{Row} {Column}";

    /// <summary>Reads what <see cref="ToString"/> writes.</summary>
    public static bool TryParse(string text, out TableName name)
    {
        name = default;
        if (text.StartsWith("r:", StringComparison.Ordinal))
            name = new TableName(text[2..], "");
        else if (text.StartsWith("c:", StringComparison.Ordinal))
            name = new TableName("", text[2..]);
        else if (text.Split(' ') is [var row, var column])
            name = new TableName(row, column);
        else
            return false;
        return name.Row.Length + name.Column.Length > 0 && IsId(name.Row) && IsId(name.Column);
    }

    private static bool IsId(string id) => id.Length <= MostLength && id.All(char.IsAsciiLetterOrDigit);
}
