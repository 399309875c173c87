using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Pages;

/// <summary>One stroke on a page with all that was done to it. Made also for ids that are named before their stroke has arrived.</summary>
public sealed class PageItem(OpId id)
{
    private Placing? placing;
    private int removals;
    private Box bounds;
    private StrokeSamples? placed;

    public OpId Id { get; } = id;

    /// <summary>The stroke; null while only changes to it have arrived.</summary>
    public Change.StrokeAdded? Stroke { get; private set; }

    public Stamp Stamp { get; private set; }

    public Guid Author { get; private set; }

    /// <summary>The stroke's samples: as they were written while it was only shifted, else as they now lie. Shifts are in <see cref="Dx"/> and <see cref="Dy"/>.</summary>
    public StrokeSamples Samples => IsOnlyShifted ? Stroke!.Samples : placed ??= placing!.Of(Stroke!.Samples);

    /// <summary>The stroke's pen, its width grown with the stroke.</summary>
    public Pen Pen => IsOnlyShifted ? Stroke!.Pen : Stroke!.Pen with { Width = (int)Math.Clamp(Math.Round(Stroke.Pen.Width * placing!.Growth), 1, 100_000) };

    /// <summary>The sum of all shifts, in 0.01 mm; 0 once the stroke was scaled or turned.</summary>
    public long Dx => IsOnlyShifted ? placing?.Dx ?? 0 : 0;

    public long Dy => IsOnlyShifted ? placing?.Dy ?? 0 : 0;

    public Gaps Gaps { get; } = new();

    /// <summary>False once its author has taken it back.</summary>
    public bool Active { get; private set; }

    public bool Shown => Stroke is not null && Active && removals == 0;

    /// <summary>The box of the visible ink, shift and line width included, in 0.01 mm.</summary>
    public Box Bounds => IsOnlyShifted ? bounds.Shift((int)Dx, (int)Dy) : Samples.Bounds().Grow((int)MathF.Ceiling(Pen.MostRadius));

    public List<Interval> Visible() => Stroke is null ? [] : Gaps.Visible(Stroke.Samples.Count);

    internal void Arrive(Operation operation, Change.StrokeAdded stroke)
    {
        (Stroke, Stamp, Author) = (stroke, operation.Stamp, operation.Author);
        bounds = stroke.Samples.Bounds().Grow((int)MathF.Ceiling(stroke.Pen.MostRadius));
    }

    internal void SetActive(bool active) => Active = active;

    internal void CountRemoval(int by) => removals += by;

    internal void Place(Stamp stamp, Transform step, bool adds)
    {
        (placing ??= new Placing()).Add(stamp, step, adds);
        placed = null;
    }

    private bool IsOnlyShifted => placing is null || placing.IsShift;
}
