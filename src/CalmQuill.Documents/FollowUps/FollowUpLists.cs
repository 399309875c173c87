using System.Globalization;
using System.Text;

namespace CalmQuill.Documents.FollowUps;

/// <summary>Follow-ups as lists that other programs read: Markdown with task boxes, and CSV (RFC 4180).</summary>
public static class FollowUpLists
{
    /// <param name="Kind">What kind of mark it is, in words.</param>
    /// <param name="Note">What was noted; may be empty.</param>
    /// <param name="Notebook">The notebook's name.</param>
    /// <param name="Page">The page, in words.</param>
    /// <param name="Address">Where the mark is to be come to.</param>
    /// <param name="Person">For whom; may be empty.</param>
    /// <param name="Due">The day it is due; may be empty.</param>
    /// <param name="Since">When it was made.</param>
    /// <param name="Done">When it was ticked off; null while it is open.</param>
    public sealed record Line(
        string Kind,
        string Note,
        string Notebook,
        string Page,
        string Address,
        string Person,
        string Due,
        DateTimeOffset Since,
        DateTimeOffset? Done
    );

    public static string Markdown(IReadOnlyList<Line> lines)
    {
        var text = new StringBuilder("# Follow-ups\n");
        foreach (var notebook in lines.GroupBy(line => line.Notebook))
        {
            text.Append(CultureInfo.InvariantCulture, $"\n## {Escape(notebook.Key)}\n\n");
            foreach (var line in notebook)
            {
                text.Append(
                    CultureInfo.InvariantCulture,
                    $"- [{(line.Done is null ? ' ' : 'x')}] {Escape(line.Kind)}{(line.Note.Length > 0 ? $": {Escape(line.Note)}" : "")} ([{Escape(line.Page)}](<{line.Address}>)"
                );
                if (line.Person.Length > 0)
                    text.Append(CultureInfo.InvariantCulture, $", for {Escape(line.Person)}");
                if (line.Due.Length > 0)
                    text.Append(CultureInfo.InvariantCulture, $", due {line.Due}");
                text.Append(")\n");
            }
        }

        return text.ToString();
    }

    public static string Csv(IReadOnlyList<Line> lines)
    {
        var text = new StringBuilder("Kind,Note,Notebook,Page,Address,For,Due,Since,Done\r\n");
        foreach (var line in lines)
        {
            string[] fields =
            [
                line.Kind,
                line.Note,
                line.Notebook,
                line.Page,
                line.Address,
                line.Person,
                line.Due,
                Day(line.Since),
                line.Done is { } done ? Day(done) : "",
            ];
            text.AppendJoin(',', fields.Select(Quote)).Append("\r\n");
        }

        return text.ToString();

        static string Day(DateTimeOffset at) => at.ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture);
    }

    /// <summary>Signs that Markdown would read are written so that they stay as they are; a line break becomes a space.</summary>
    private static string Escape(string text)
    {
        var escaped = new StringBuilder(text.Length);
        foreach (var c in text)
        {
            if (c is '\n' or '\r')
                escaped.Append(' ');
            else
            {
                if ("\\`*_[]<>#|".Contains(c, StringComparison.Ordinal))
                    escaped.Append('\\');
                escaped.Append(c);
            }
        }

        return escaped.ToString();
    }

    /// <summary>Quoted where it must be; what a spreadsheet would take for a formula is led by an apostrophe.</summary>
    private static string Quote(string field)
    {
        if (field.Length > 0 && "=+-@".Contains(field[0], StringComparison.Ordinal))
            field = "'" + field;
        return field.AsSpan().ContainsAny(",\"\r\n") ? $"\"{field.Replace("\"", "\"\"", StringComparison.Ordinal)}\"" : field;
    }
}
