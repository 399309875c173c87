using CalmQuill.Core.Ink;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Browser;

/// <summary>How a page is looked at to see who wrote what: each person's things in a colour of theirs, and nothing of those who are hidden. It changes nothing on the page.</summary>
internal sealed class Tinting
{
    private readonly Dictionary<Guid, uint> colours = [];
    private HashSet<Guid> hidden = [];

    /// <param name="tints">Each person's colour, 0xRRGGBB; empty for the ink's own.</param>
    /// <param name="without">Those of whom nothing is shown.</param>
    public void Set(IEnumerable<(Guid Person, uint Colour)> tints, HashSet<Guid> without)
    {
        colours.Clear();
        foreach (var (person, colour) in tints)
            colours[person] = colour;
        hidden = without;
    }

    public List<Interval> Visible(PageItem item) => hidden.Contains(item.Author) ? [] : item.Visible();

    /// <summary>A colour of a thing, 0xRRGGBBAA, as it is shown; null where all things have their own.</summary>
    public Func<PageItem, uint, uint>? Shown =>
        colours.Count == 0
            ? null
            : (item, colour) => colours.TryGetValue(item.Author, out var tint) ? (tint << 8) | (colour & 0xFF) : colour;
}
