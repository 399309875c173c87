using CalmQuill.Core.Ink;
using CalmQuill.Core.Pictures;
using CalmQuill.Core.Typesetting;

namespace CalmQuill.Core.Items;

/// <summary>What things are painted onto: screen, SVG and PDF each have theirs.</summary>
public abstract class ItemPainter
{
    private readonly Outline outline = new();

    /// <summary>Works out the edges of lines; kept, since it remembers what it needs room for.</summary>
    public StrokeOutliner Outliner { get; } = new();

    /// <summary>An empty outline to be filled in; the one before is over.</summary>
    public Outline Empty()
    {
        outline.Clear();
        return outline;
    }

    /// <summary>Fills an outline, which may have no rings.</summary>
    public abstract void Fill(Outline filled, Coat coat);

    /// <summary>Writes a text over what was filled before.</summary>
    /// <param name="text">The text, as it is set.</param>
    /// <param name="place">Where its box lies: 0.01 mm on the page for 0.01 mm of the box.</param>
    /// <param name="colour">The colour of letters that have none of their own, 0xRRGGBBAA.</param>
    public abstract void Write(SetText text, in Affine place, uint colour);

    /// <summary>Draws a picture over what was filled before.</summary>
    /// <param name="picture">The picture as it is shown.</param>
    /// <param name="place">Where its own measures lie: 0.01 mm on the page for 0.01 mm from its upper left corner.</param>
    public abstract void Draw(PictureLook picture, in Affine place);
}
