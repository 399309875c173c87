using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Pages;

/// <summary>One stroke on a page with all that was done to it. Made also for ids that are named before their stroke has arrived.</summary>
public sealed class PageItem(OpId id)
{
    private int removals;
    private Box bounds;

    public OpId Id { get; } = id;

    /// <summary>The stroke; null while only changes to it have arrived.</summary>
    public Change.StrokeAdded? Stroke { get; private set; }

    public Stamp Stamp { get; private set; }

    public Guid Author { get; private set; }

    /// <summary>The sum of all shifts, in 0.01 mm.</summary>
    public long Dx { get; private set; }

    public long Dy { get; private set; }

    public Gaps Gaps { get; } = new();

    /// <summary>False once its author has taken it back.</summary>
    public bool Active { get; private set; }

    public bool Shown => Stroke is not null && Active && removals == 0;

    /// <summary>The box of the visible ink, shift and line width included, in 0.01 mm.</summary>
    public Box Bounds => bounds.Shift((int)Dx, (int)Dy);

    public List<Interval> Visible() => Stroke is null ? [] : Gaps.Visible(Stroke.Samples.Count);

    internal void Arrive(Operation operation, Change.StrokeAdded stroke)
    {
        (Stroke, Stamp, Author) = (stroke, operation.Stamp, operation.Author);
        bounds = stroke.Samples.Bounds().Grow((int)MathF.Ceiling(stroke.Pen.MostRadius));
    }

    internal void SetActive(bool active) => Active = active;

    internal void CountRemoval(int by) => removals += by;

    internal void Shift(long dx, long dy)
    {
        Dx += dx;
        Dy += dy;
    }
}
