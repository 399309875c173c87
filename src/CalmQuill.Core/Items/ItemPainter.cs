using CalmQuill.Core.Ink;

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
}
