namespace CalmQuill.Core.Typesetting;

/// <summary>A font that text is set in: by its short name, as the shipped files have it.</summary>
/// <param name="Name">The name: <c>serif</c>, <c>serif-bold</c>, <c>arabic</c>.</param>
/// <param name="File">What it is read from.</param>
public sealed record Font(string Name, FontFile File)
{
    private readonly Dictionary<int, Art.VectorPath> outlines = [];

    /// <summary>Its place among all that are shipped; see <see cref="Families.All"/>.</summary>
    public int Number { get; } = Families.All.ToList().IndexOf(Name);

    /// <summary>The outline of a glyph in the font's units, y down from the baseline; kept, since letters come again and again.</summary>
    public Art.VectorPath OutlineOf(int glyph)
    {
        lock (outlines)
        {
            if (!outlines.TryGetValue(glyph, out var outline))
                outlines[glyph] = outline = File.OutlineOf(glyph);
            return outline;
        }
    }

    public bool Equals(Font? other) => ReferenceEquals(this, other);

    public override int GetHashCode() => System.Runtime.CompilerServices.RuntimeHelpers.GetHashCode(this);
}
