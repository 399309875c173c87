using CalmQuill.Core.Ink;
using CalmQuill.Core.Spots;

namespace CalmQuill.Documents.Pdf;

/// <summary>The bookmarks of a document: sections, pages and headings, each in what it lies in (ISO 32000-1, §12.3.3).</summary>
internal sealed class PdfBookmarks
{
    /// <summary>Deeper ones stand at this level.</summary>
    private const int MostLevels = 40;

    private readonly List<(int Level, string Title, string To)> marks = [];
    private readonly HashSet<Guid> named = [];

    public bool Any => marks.Count > 0;

    /// <summary>A page with the sections that begin with it and the headings on it.</summary>
    /// <param name="page">The page.</param>
    /// <param name="sheets">Its sheets: the number of each in the file, the part of the page that is on it, and where the sheet ends.</param>
    /// <param name="points">How many points a page unit is.</param>
    public void Add(PrintedPage page, IReadOnlyList<(int Number, Box Part, int Bottom)> sheets, double points)
    {
        var head = $"[{sheets[0].Number} 0 R /Fit]";
        for (var level = 0; level < page.Above.Count; level++)
        {
            var (id, title) = page.Above[level];
            if (named.Add(id))
                Put(level, title.Length > 0 ? title : "Section", head);
        }

        named.Add(page.Id);
        Put(page.Above.Count, page.Called, head);
        var count = 0;
        foreach (
            var heading in page
                .Page.Spots()
                .Where(spot => spot.Kind == SpotKind.Heading)
                .OrderBy(spot => spot.Area.Top)
                .ThenBy(spot => spot.Area.Left)
        )
        {
            count++;
            var words = heading[SpotField.Title];
            var deep = int.TryParse(heading[SpotField.Level], out var level) ? Math.Clamp(level, 1, 4) : 1;
            var (number, part, bottom) = sheets.FirstOrDefault(sheet => sheet.Part.Meets(heading.Area), sheets[0]);
            var (x, y) = (Math.Max(0, heading.Area.Left - part.Left) * points, Math.Max(0, bottom - heading.Area.Top) * points);
            // One that was written and not named has a number.
            Put(
                page.Above.Count + deep,
                words.Length > 0 ? words : $"{Math.Max(1, page.Number)}.{count}",
                FormattableString.Invariant($"[{number} 0 R /XYZ {x:0.##} {y:0.##} null]")
            );
        }
    }

    /// <summary>Writes them, and returns the number of their root.</summary>
    public int Write(PdfFile file)
    {
        var root = file.Reserve();
        var numbers = marks.Select(_ => file.Reserve()).ToArray();
        // The mark that each lies in, −1 for the root: the nearest before it that is less deep.
        var parents = new int[marks.Count];
        var open = new Stack<int>();
        var children = Enumerable.Range(0, marks.Count + 1).Select(_ => new List<int>()).ToArray();
        for (var i = 0; i < marks.Count; i++)
        {
            while (open.TryPeek(out var above) && marks[above].Level >= marks[i].Level)
                open.Pop();
            parents[i] = open.TryPeek(out var parent) ? parent : -1;
            children[parents[i] + 1].Add(i);
            open.Push(i);
        }

        for (var i = 0; i < marks.Count; i++)
        {
            var among = children[parents[i] + 1];
            var at = among.IndexOf(i);
            var before = at > 0 ? $" /Prev {numbers[among[at - 1]]} 0 R" : "";
            var after = at + 1 < among.Count ? $" /Next {numbers[among[at + 1]]} 0 R" : "";
            var own = children[i + 1];
            // A negative count: what lies in it is folded at first.
            var within = own.Count > 0 ? $" /First {numbers[own[0]]} 0 R /Last {numbers[own[^1]]} 0 R /Count -{own.Count}" : "";
            var holder = parents[i] < 0 ? root : numbers[parents[i]];
            file.Put(
                numbers[i],
                $"<< /Title {PdfFile.Text(marks[i].Title)} /Parent {holder} 0 R{before}{after}{within} /Dest {marks[i].To} >>"
            );
        }

        var top = children[0];
        file.Put(root, $"<< /Type /Outlines /First {numbers[top[0]]} 0 R /Last {numbers[top[^1]]} 0 R /Count {top.Count} >>");
        return root;
    }

    private void Put(int level, string title, string to) => marks.Add((Math.Min(level, MostLevels), title, to));
}
