using System.Text;

namespace CalmQuill.Core.Tables;

/// <summary>Cells as spreadsheets put them onto the clipboard: rows on lines, parted by tabs; a cell with a tab, a line break or a quotation mark stands in quotation marks.</summary>
public static class TableSheet
{
    /// <summary>The cells of what was pasted. Never fails: a quotation mark that does not end goes on to the end.</summary>
    public static List<List<string>> Read(string text)
    {
        var rows = new List<List<string>>();
        var row = new List<string>();
        var cell = new StringBuilder();
        text = text.ReplaceLineEndings("\n");
        for (var i = 0; i < text.Length; i++)
        {
            if (text[i] == '"' && cell.Length == 0 && (i == 0 || text[i - 1] is '\t' or '\n'))
                i = Quoted(text, i + 1, cell);
            else if (text[i] == '\t')
                EndCell();
            else if (text[i] == '\n')
                EndRow();
            else
                cell.Append(text[i]);
        }

        if (cell.Length > 0 || row.Count > 0)
            EndRow();
        return rows;

        void EndCell()
        {
            row.Add(cell.ToString());
            cell.Clear();
        }

        void EndRow()
        {
            EndCell();
            rows.Add(row);
            row = [];
        }
    }

    /// <summary>What a spreadsheet takes.</summary>
    public static string Write(IEnumerable<IEnumerable<string>> rows) =>
        string.Join('\n', rows.Select(row => string.Join('\t', row.Select(Quote))));

    /// <summary>The same for word processors and web pages.</summary>
    public static string WriteHtml(IEnumerable<IEnumerable<string>> rows) =>
        $"<table>{string.Concat(rows.Select(row => $"<tr>{string.Concat(row.Select(cell => $"<td>{Escape(cell)}</td>"))}</tr>"))}</table>";

    private static string Escape(string cell) =>
        string.Concat(
            cell.Select(letter =>
                letter switch
                {
                    '&' => "&amp;",
                    '<' => "&lt;",
                    '>' => "&gt;",
                    '"' => "&quot;",
                    '\n' or '\u2028' => "<br>",
                    _ => letter.ToString(),
                }
            )
        );

    private static string Quote(string cell) =>
        cell.AsSpan().IndexOfAny("\t\n\"") < 0 ? cell : $"\"{cell.Replace("\"", "\"\"", StringComparison.Ordinal)}\"";

    /// <summary>Reads what stands in quotation marks; the place of the one that ends it.</summary>
    private static int Quoted(string text, int from, StringBuilder cell)
    {
        for (var i = from; i < text.Length; i++)
        {
            if (text[i] != '"')
                cell.Append(text[i]);
            else if (i + 1 < text.Length && text[i + 1] == '"')
                cell.Append(text[i++]);
            else
                return i;
        }

        return text.Length;
    }
}
