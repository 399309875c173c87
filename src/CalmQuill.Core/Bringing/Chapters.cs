using CalmQuill.Core.Library;

namespace CalmQuill.Core.Bringing;

/// <summary>A bookmark of a file.</summary>
/// <param name="Level">How deep it lies, 0 for the outermost.</param>
/// <param name="Title">What it is called.</param>
/// <param name="Sheet">On which sheet it leads, counted from 0.</param>
public sealed record Bookmark(int Level, string Title, int Sheet);

/// <summary>A section that comes of a bookmark.</summary>
/// <param name="Title">What it is called.</param>
/// <param name="Parent">The section that it lies in, by its place among all; −1 for none.</param>
/// <param name="First">Its first sheet.</param>
/// <param name="End">Behind its last sheet.</param>
public sealed record Chapter(string Title, int Parent, int First, int End);

/// <summary>What a file's bookmarks make of the sheets that came of it: sections, and titles of pages.</summary>
/// <remarks>
/// A bookmark with others below it, or with more than one sheet up to the next of its level or above, becomes a section; any other gives its sheet a title. A
/// bookmark that leads back before the one above it in the list cannot be followed, and is left out.
/// </remarks>
/// <param name="Sections">Each after the one it lies in, in order.</param>
/// <param name="Titles">Of each sheet, empty for none.</param>
/// <param name="In">In which section each sheet lies; −1 for none.</param>
public sealed record Chapters(IReadOnlyList<Chapter> Sections, IReadOnlyList<string> Titles, IReadOnlyList<int> In)
{
    /// <summary>Sections lie so deep at most; what lies deeper gives titles only.</summary>
    public const int MostDepth = 8;

    public static Chapters Of(IReadOnlyList<Bookmark> bookmarks, int sheets)
    {
        var followed = Followed(bookmarks, sheets);
        var ends = Ends(followed, sheets);
        var titles = new string[sheets];
        Array.Fill(titles, "");
        var sections = new List<Chapter>();
        var sectionIn = new int[sheets];
        Array.Fill(sectionIn, -1);
        var open = new Stack<(int Section, int End, int Level)>();
        for (var i = 0; i < followed.Count; i++)
        {
            var (level, title, first) = followed[i];
            while (open.TryPeek(out var above) && (above.End <= first || above.Level >= level))
                open.Pop();
            var leads = i + 1 < followed.Count && followed[i + 1].Level > level;
            if (ends[i] > first && (leads || ends[i] - first > 1) && open.Count < MostDepth)
            {
                var parent = open.TryPeek(out var outer) ? outer.Section : -1;
                sections.Add(new Chapter(title, parent, first, ends[i]));
                open.Push((sections.Count - 1, ends[i], level));
                sectionIn.AsSpan(first, ends[i] - first).Fill(sections.Count - 1);
            }
            else if (titles[first].Length == 0)
                titles[first] = title;
        }

        return new Chapters(sections, titles, sectionIn);
    }

    /// <summary>Those that lead on a sheet and not back, with titles that can be.</summary>
    private static List<Bookmark> Followed(IReadOnlyList<Bookmark> bookmarks, int sheets)
    {
        var followed = new List<Bookmark>();
        var reached = 0;
        foreach (var (level, given, sheet) in bookmarks)
        {
            var title = Cleaned(given);
            if (sheet < reached || sheet >= sheets || title.Length == 0)
                continue;
            followed.Add(new Bookmark(Math.Max(0, level), title, sheet));
            reached = sheet;
        }

        return followed;
    }

    /// <summary>Where the next of the same level, or of one above, begins.</summary>
    private static int[] Ends(List<Bookmark> bookmarks, int sheets)
    {
        var ends = new int[bookmarks.Count];
        var open = new Stack<int>();
        for (var i = 0; i < bookmarks.Count; i++)
        {
            while (open.TryPeek(out var above) && bookmarks[above].Level >= bookmarks[i].Level)
                ends[open.Pop()] = bookmarks[i].Sheet;
            open.Push(i);
        }

        while (open.TryPop(out var left))
            ends[left] = sheets;
        return ends;
    }

    /// <summary>On one line, and as a name may be; empty where nothing is left of it.</summary>
    public static string Cleaned(string title)
    {
        var line = string.Concat(title.Select(c => char.IsControl(c) || c is '\u2028' or '\u2029' or '\u00A0' ? ' ' : c));
        return Names.Cleaned(string.Join(' ', line.Split(' ', StringSplitOptions.RemoveEmptyEntries)));
    }
}
