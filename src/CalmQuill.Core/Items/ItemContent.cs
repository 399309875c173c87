using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Items;

/// <summary>
/// What lies in the frame of an item, and answers for itself: where it reaches, what hits it, what an eraser does to it, how it is painted. Erasers, loops, copies,
/// pictures and files go by these answers alone, so that a new kind of thing is a new content and nothing else.
/// </summary>
/// <remarks>A content has a parameter of its own, from 0 to <see cref="End"/>: of ink the way along the line. What is rubbed out and what is seen are intervals of it.</remarks>
public abstract class ItemContent(IItemFrame frame)
{
    protected IItemFrame Frame => frame;

    public abstract ItemKinds Kind { get; }

    /// <summary>What lies behind what: fills (0) behind highlighters (1), and both behind all else.</summary>
    public virtual int Rank => 2;

    /// <summary>Whether it lies on the page as paper does, so that what lies above it is written on it: see <see cref="Pages.PaintOrder"/>.</summary>
    public virtual bool Covers => false;

    /// <summary>Whether what lies on it goes along when it is moved, copied and removed; see <see cref="Pages.OnSlips"/>.</summary>
    public virtual bool Carries => false;

    /// <summary>The things by which it goes, and the fields that name them: it is worked out anew when one of them lies elsewhere or has another form. Mostly none.</summary>
    public virtual IReadOnlyList<(ItemField Field, OpId On)> LeansOn => [];

    /// <summary>What is to be said of it where what it leans on is not there, so that it looks as it does now.</summary>
    public virtual IReadOnlyList<ItemValue> Alone => [];

    /// <summary>How it may be made another size or turned; see <see cref="Changing.Reshape"/>.</summary>
    public virtual Reshaping Reshaping => Reshaping.Freely;

    /// <summary>The words in it that can be looked for, as they are read; empty where there are none. What is written by hand has none before it is read.</summary>
    public virtual string Words => "";

    /// <summary>The box of all that is painted of it where it lies, 0.01 mm.</summary>
    public abstract Box Bounds { get; }

    /// <summary>The end of its own parameter.</summary>
    public abstract int End { get; }

    /// <summary>All that decides its outlines where it was made.</summary>
    public abstract OutlineKey OutlineKey { get; }

    /// <summary>What is seen of it, ascending and disjoint; empty when nothing is left. Not to be written to.</summary>
    public abstract List<Interval> Visible();

    /// <summary>Whether nothing was rubbed out of it.</summary>
    public bool IsWhole => Visible() is [{ Start: 0 } all] && all.End == End;

    /// <summary>Whether a spot is on it, or so near that a press there still means it; 0.01 mm.</summary>
    public abstract bool IsAt(double x, double y, double reach);

    /// <summary>Which share of what is seen of it lies inside a closed polygon (even-odd), 0 to 1.</summary>
    /// <param name="loop">Corners as x, y, x, y… in 0.01 mm; the last is joined to the first.</param>
    public abstract double ShareInside(ReadOnlySpan<double> loop);

    /// <summary>What an eraser does to it on a piece of its way. False when it touches nothing that is seen.</summary>
    /// <param name="way">The piece of the way.</param>
    /// <param name="whole">Whether the eraser takes whole things.</param>
    /// <param name="gone">Receives what goes of its parameter.</param>
    public abstract bool Rub(in EraserWay way, bool whole, List<Interval> gone);

    /// <summary>In how many coats it is painted; none where nothing of it has a colour.</summary>
    public abstract int Coats { get; }

    /// <summary>What a coat is painted with, counted from the back.</summary>
    public abstract Coat Coat(int index);

    /// <summary>Paints parts of it, coat by coat, from the back to the front: one outline is filled for each.</summary>
    /// <param name="painter">What is painted onto.</param>
    /// <param name="parts">The parts of its own parameter.</param>
    /// <param name="shifted">Whether it is painted where it lies, or where it was made: without <see cref="IItemFrame.Dx"/> and <see cref="IItemFrame.Dy"/>.</param>
    public abstract void Paint(ItemPainter painter, List<Interval> parts, bool shifted);

    /// <summary>Draws what is seen of it with few points, for a small picture.</summary>
    /// <param name="sketcher">What is drawn onto.</param>
    /// <param name="tolerance">How far a line may lie off, 0.01 mm.</param>
    public abstract void Sketch(IItemSketcher sketcher, double tolerance);

    /// <summary>How long its making took, milliseconds, for it to be seen being made.</summary>
    public abstract int MadeWithin { get; }

    /// <summary>What of it was there so long after it was begun, when its making is shown in so long; milliseconds.</summary>
    public abstract List<Interval> MadeAfter(int after, int takes);

    /// <summary>What makes it anew as it lies and looks now, but for what was rubbed out.</summary>
    public abstract Change.ItemAdded Copy();

    /// <summary>Works out how it looks from all that was written of it.</summary>
    /// <param name="mayLieElsewhere">Whether where it lies, and how far it reaches, may be another now.</param>
    protected internal abstract void WorkOut(bool mayLieElsewhere);

    /// <summary>It was placed otherwise, but looks as it did.</summary>
    protected internal abstract void Shifted();

    /// <summary>Something was rubbed out of it, or came back.</summary>
    protected internal abstract void Rubbed();

    /// <summary>Where it reaches as far as that is the same on every device, whatever fonts have come there.</summary>
    protected internal virtual Box StateBounds => Bounds;

    /// <summary>What it shows, in one canonical form.</summary>
    protected internal abstract void WriteState(ByteWriter writer, SampleCodec.Writers columns);
}
