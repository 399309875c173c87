using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Links;

/// <summary>What a page of the web says of itself, laid down on a page: its title as a link, its site and what it is about; below its picture, where there is one.</summary>
/// <param name="Target">Its address.</param>
/// <param name="Title">What it is called.</param>
/// <param name="Site">Of which site it is.</param>
/// <param name="Words">What it is about; may be empty.</param>
public sealed record PreviewCard(string Target, string Title, string Site, string Words)
{
    /// <summary>How wide it is, 0.01 mm.</summary>
    public const int Width = 6_000;

    /// <summary>A picture is no higher than this many times its width.</summary>
    private const double MostHigh = 1.2;

    private const string Fill = "fbf7ecff",
        Edge = "b9b39cff",
        Corner = "80";

    /// <summary>Room around its letters, and how far below its upper edge the first line stands; 0.01 mm.</summary>
    private const int Padding = 220,
        FirstLine = 600;

    /// <summary>The letters on it.</summary>
    public Passage Passage
    {
        get
        {
            var lines = new[] { Line(Title), Line(Site), Line(Words) };
            var title = lines[0].Length;
            var text = string.Join('\n', lines.Where(line => line.Length > 0));
            var formats = new List<PassageFormat> { new(0, title, Trait.Bold, "1"), new(0, title, Trait.Link, Target) };
            if (text.Length > title)
                formats.Add(new PassageFormat(title + 1, text.Length + 1, Trait.Style, "small"));
            return new Passage(text, formats);
        }
    }

    /// <summary>What lays it down.</summary>
    /// <param name="x">Its left edge, 0.01 mm.</param>
    /// <param name="y">Its upper edge.</param>
    /// <param name="picture">The picture; the empty id for none.</param>
    /// <param name="across">How wide that is, in dots or any unit.</param>
    /// <param name="down">How high, in the same.</param>
    public Change.WrittenAdded At(int x, int y, Guid picture, int across, int down) =>
        picture == Guid.Empty || across <= 0 || down <= 0
            ? new Change.TextAdded(
                Transform.Shift(x + Padding, y + FirstLine),
                Width,
                0,
                Passage,
                [
                    new ItemValue(ItemField.Fill, Fill),
                    new ItemValue(ItemField.Edge, Edge),
                    new ItemValue(ItemField.Corner, Corner),
                    new ItemValue(ItemField.Padding, Padding.ToString(System.Globalization.CultureInfo.InvariantCulture)),
                ]
            )
            : new Change.ThingAdded(
                ThingKind.Picture,
                Transform.Shift(x, y),
                // A very high one becomes narrower instead.
                Side(Wide(across, down)),
                Side(Wide(across, down) * down / across),
                Passage,
                [new ItemValue(ItemField.Source, picture.ToString())]
            );

    private static double Wide(int across, int down) => Width * Math.Min(1, MostHigh * across / down);

    private static int Side(double length) => (int)Math.Clamp(length, ThingRules.LeastSide, Width * MostHigh);

    private static string Line(string text) => string.Concat(text.Select(sign => char.IsControl(sign) ? ' ' : sign)).Trim();
}
