using System.Globalization;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Shapes;

namespace CalmQuill.Core.Pages;

/// <summary>A stroke or shape on a page with all that was done to it. Made also for ids that are named before their item has arrived.</summary>
public sealed class PageItem
{
    private static readonly Comparer<Stamp> ByStamp = Comparer<Stamp>.Create((one, other) => one.CompareTo(other));
    private readonly PageLayers layers;
    private Dictionary<ItemField, SortedList<Stamp, string>>? fields;
    private Placing? placing;
    private int removals;
    private StrokeSamples? made,
        placed;
    private Pen madeWith;
    private uint madeFill;
    private Shape? madeAs;
    private Guid madeOn;
    private Box? madeBox,
        bounds;
    private List<Interval>? visible;

    internal PageItem(OpId id, PageLayers layers)
    {
        (Id, this.layers) = (id, layers);
    }

    public OpId Id { get; }

    /// <summary>False while only changes to it have arrived.</summary>
    public bool HasArrived { get; private set; }

    public Stamp Stamp { get; private set; }

    public Guid Author { get; private set; }

    /// <summary>When its writing began, UTC milliseconds since 1970.</summary>
    public long StartedAt { get; private set; }

    /// <summary>The samples: as they were written while it was only shifted, else as they now lie. Shifts are in <see cref="Dx"/> and <see cref="Dy"/>.</summary>
    public StrokeSamples Samples => IsOnlyShifted ? Made : placed ??= placing!.Of(Made);

    /// <summary>The pen, its width grown with the item.</summary>
    public Pen Pen { get; private set; }

    /// <summary>By how much its lengths have grown since it was made.</summary>
    public double Growth => placing?.Growth ?? 1;

    /// <summary>What it is filled with, 0xRRGGBBAA; 0 for nothing, and for all that does not close.</summary>
    public uint Fill { get; private set; }

    /// <summary>The shape it is, where it was made; null for ink. <see cref="PlacedShape"/> says where it now lies.</summary>
    public Shape? Shape { get; private set; }

    /// <summary>The shape as it lies; null for ink, and for what was squeezed into no shape of a kind.</summary>
    public Shape? PlacedShape =>
        Shape is null || placing is null ? Shape
        : placing.IsSimilar ? Shape.Map(placing.Of)
        : Shape.Squeeze(placing.Of);

    /// <summary>The sum of all shifts, in 0.01 mm; 0 once it was scaled or turned.</summary>
    public long Dx => IsOnlyShifted ? placing?.Dx ?? 0 : 0;

    public long Dy => IsOnlyShifted ? placing?.Dy ?? 0 : 0;

    public Gaps Gaps { get; } = new();

    /// <summary>False once its author has taken it back.</summary>
    public bool Active { get; private set; }

    /// <summary>Whether it is on the page; it may lie on a layer that is hidden.</summary>
    public bool Stands => HasArrived && Active && removals == 0 && Layer is not null;

    /// <summary>Whether it is seen.</summary>
    public bool Shown => Stands && Layer is { Hidden: false };

    /// <summary>Whether it may be changed by hand.</summary>
    public bool IsOpen => Shown && !IsLocked && Layer is { Locked: false };

    public bool IsLocked => Read(ItemField.Locked).Length > 0;

    /// <summary>The layer it lies on; null when that was erased.</summary>
    public Layer? Layer =>
        layers.IsPlain ? Core.Layers.Layer.First : layers.Of(Read(ItemField.Layer) is { Length: > 0 } moved ? Guid.Parse(moved) : madeOn);

    /// <summary>What it is grouped with; empty for nothing.</summary>
    public string Group => Read(ItemField.Group);

    /// <summary>How far to the front it lies in its layer.</summary>
    public int Order { get; private set; }

    public ItemKinds Kind { get; private set; }

    /// <summary>The box of the ink, shift and line width included, in 0.01 mm.</summary>
    public Box Bounds =>
        bounds ??= (IsOnlyShifted ? (madeBox ??= Made.Bounds()).Shift((int)Dx, (int)Dy) : Samples.Bounds()).Grow(
            (int)MathF.Ceiling(Pen.MostRadius)
        );

    /// <summary>What was not rubbed out. Not to be written to.</summary>
    public List<Interval> Visible() => HasArrived ? visible ??= Gaps.Visible(Made.Count) : [];

    private StrokeSamples Made => made ??= Shape!.Trace();

    private bool IsOnlyShifted => placing is null || placing.IsShift;

    /// <summary>Fills lie behind highlighters, and both behind all ink.</summary>
    public int Rank =>
        Kind switch
        {
            ItemKinds.Area => 0,
            ItemKinds.Highlighter => 1,
            _ => 2,
        };

    /// <summary>How far from the back the layer lies that it is on.</summary>
    public int LayerPlace => layers.IsPlain ? 0 : layers.PlaceOf(Layer?.Id ?? Guid.Empty);

    /// <summary>By what things are painted: rank, then the layers, then the order set by hand, then time.</summary>
    internal static int InPaintOrder(PageItem one, PageItem other)
    {
        var rank = one.Rank - other.Rank;
        if (rank != 0)
            return rank;
        var place = one.LayerPlace - other.LayerPlace;
        if (place != 0)
            return place;
        return one.Order != other.Order ? one.Order.CompareTo(other.Order) : one.Stamp.CompareTo(other.Stamp);
    }

    /// <summary>Where it lies back in the place where it was made, for changes to its shape.</summary>
    public (double X, double Y) Unplace(double x, double y) => placing?.Back(x, y) ?? (x, y);

    internal void Arrive(Operation operation)
    {
        (HasArrived, Stamp, Author) = (true, operation.Stamp, operation.Author);
        switch (operation.Change)
        {
            case Change.StrokeAdded stroke:
                (made, madeWith, madeOn, StartedAt) = (stroke.Samples, stroke.Pen, stroke.Layer, stroke.StartedAt);
                break;
            case Change.ShapeAdded added:
                (madeAs, madeWith, madeOn, madeFill, StartedAt) = (
                    added.Shape,
                    added.Pen,
                    added.Layer,
                    added.Fill,
                    operation.Time.UnixMilliseconds
                );
                break;
        }

        WorkOut();
    }

    internal void SetActive(bool active) => Active = active;

    internal void CountRemoval(int by) => removals += by;

    internal void AddGaps(OpId operation, IReadOnlyList<Interval> intervals)
    {
        Gaps.Add(operation, intervals);
        visible = null;
    }

    internal void TakeGapsBack(OpId operation)
    {
        Gaps.TakeBack(operation);
        visible = null;
    }

    internal void Place(Stamp stamp, Transform step, bool adds)
    {
        (placing ??= new Placing()).Add(stamp, step, adds);
        bounds = null;
        // A thing that is only moved looks as it did.
        if (!placing.IsShift || placed is not null || !step.IsShift)
            WorkOut();
    }

    /// <summary>Writes a field, or takes that write out again.</summary>
    internal void Set(Stamp stamp, ItemValue value, bool adds)
    {
        fields ??= [];
        if (!fields.TryGetValue(value.Field, out var writes))
            fields[value.Field] = writes = new(ByStamp);
        if (adds)
            writes[stamp] = value.Value;
        else
            writes.Remove(stamp);
        // By far the most that is written at once is colours: where a thing lies stays.
        WorkOut(value.Field is not (ItemField.Colour or ItemField.Order or ItemField.Group or ItemField.Locked));
    }

    /// <summary>What was written of it, in one canonical order.</summary>
    internal void WriteFields(ByteWriter writer)
    {
        writer.Guid(Layer?.Id ?? Guid.Empty);
        writer.Signed(Order);
        writer.Text(Group);
        writer.Byte(IsLocked ? (byte)1 : (byte)0);
        writer.Fixed32(Fill);
        writer.Text(Shape is null ? "" : ((int)Shape.Kind).ToString(CultureInfo.InvariantCulture));
    }

    private string Read(ItemField field) =>
        fields is not null && fields.TryGetValue(field, out var writes) && writes.Count > 0 ? writes.Values[^1] : "";

    /// <summary>Works out how it looks from all that was written of it.</summary>
    /// <param name="mayLieElsewhere">Whether where it lies, and how far it reaches, may be another now.</param>
    private void WorkOut(bool mayLieElsewhere = true)
    {
        if (mayLieElsewhere)
            (placed, bounds) = (null, null);
        if (!HasArrived)
            return;
        if (madeAs is not null)
        {
            var shape = Read(ItemField.Shape) is { Length: > 0 } changed ? Shape.Read(changed)! : madeAs;
            if (shape != Shape)
                (Shape, made, madeBox, visible) = (shape, null, null, null);
        }

        var pen = madeWith;
        Fill = madeFill;
        if (fields is not null)
        {
            if (Read(ItemField.Colour) is { Length: > 0 } colour)
                pen = pen with { Colour = Hex(colour) };
            if (Read(ItemField.Width) is { Length: > 0 } width)
                pen = pen with { Width = int.Parse(width, CultureInfo.InvariantCulture) };
            if (Read(ItemField.Pen) is { Length: > 0 } kind)
                pen = pen with { Kind = (PenKind)int.Parse(kind, CultureInfo.InvariantCulture) };
            if (Read(ItemField.Line) is { Length: > 0 } line)
                pen = pen with { Line = (LineStyle)int.Parse(line, CultureInfo.InvariantCulture) };
            if (Read(ItemField.Fill) is { Length: > 0 } fill)
                Fill = Hex(fill);
            // Whatever became a highlighter never fully covers.
            if (pen.Kind == PenKind.Highlighter && (pen.Colour & 0xFF) > Pen.MostHighlighterAlpha)
                pen = pen with { Colour = (pen.Colour & ~0xFFu) | Pen.MostHighlighterAlpha };
        }

        if (Shape is not { IsClosed: true })
            Fill = 0;
        Order = Read(ItemField.Order) is { Length: > 0 } order ? int.Parse(order, CultureInfo.InvariantCulture) : 0;
        Kind =
            Shape is { Kind: ShapeKind.Area } ? ItemKinds.Area
            : Shape is not null ? ItemKinds.Shape
            : pen.LiesBehind ? ItemKinds.Highlighter
            : ItemKinds.Ink;
        Pen = IsOnlyShifted
            ? pen
            : pen with
            {
                Width = (int)Math.Clamp(Math.Round(pen.Width * placing!.Growth), 1, 100_000),
                Angle = placing.Turned(pen.Angle),
            };
    }

    private static uint Hex(string text) => uint.Parse(text, NumberStyles.HexNumber, CultureInfo.InvariantCulture);
}
