using System.Globalization;

namespace CalmQuill.Core.Papers;

/// <summary>A sheet's size and what is printed on it, in 0.01 mm.</summary>
/// <param name="Width">Width of the sheet.</param>
/// <param name="Height">Height of the sheet.</param>
/// <param name="Ruling">What is printed on it.</param>
/// <param name="Spacing">Distance of the lines.</param>
public sealed record Paper(int Width, int Height, Ruling Ruling, int Spacing)
{
    /// <summary>A4 (ISO 216: 210 × 297 mm), ruled at 7.1 mm (common practice: college ruling).</summary>
    public static readonly Paper Default = new(21000, 29700, Ruling.Ruled, 710);

    /// <summary>Where the first ruled line lies below the upper edge.</summary>
    private const int HeadRoom = 3195;

    /// <summary>The short text that operations carry: <c>a4-ruled-710</c>.</summary>
    public override string ToString() =>
        string.Create(CultureInfo.InvariantCulture, $"a4-{Ruling switch { Ruling.Blank => "blank", Ruling.Squared => "squared", _ => "ruled" }}-{Spacing}");

    public static bool TryParse(string text, out Paper paper)
    {
        paper = Default;
        var parts = text.Split('-');
        if (parts.Length != 3 || parts[0] != "a4") return false;
        Ruling? ruling = parts[1] switch { "ruled" => Ruling.Ruled, "squared" => Ruling.Squared, "blank" => Ruling.Blank, _ => null };
        if (ruling is null || !int.TryParse(parts[2], NumberStyles.None, CultureInfo.InvariantCulture, out var spacing) || spacing is < 200 or > 5000) return false;
        paper = Default with { Ruling = ruling.Value, Spacing = spacing };
        return true;
    }

    public static Paper ParseOrDefault(string text) => TryParse(text, out var paper) ? paper : Default;

    /// <summary>The printed lines, as straight pieces in 0.01 mm.</summary>
    public List<PaperLine> Lines()
    {
        var lines = new List<PaperLine>();
        if (Ruling == Ruling.Ruled)
        {
            for (var y = HeadRoom; y < Height - Spacing / 2; y += Spacing) lines.Add(new PaperLine(0, y, Width, y));
        }
        else if (Ruling == Ruling.Squared)
        {
            for (var y = Spacing; y < Height; y += Spacing) lines.Add(new PaperLine(0, y, Width, y));
            for (var x = Spacing; x < Width; x += Spacing) lines.Add(new PaperLine(x, 0, x, Height));
        }

        return lines;
    }
}
