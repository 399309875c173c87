using System.Globalization;
using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Pages;

/// <summary>
/// The frame of a thing on a page: who made it and when, and all that was done to it. What it is lies in it as <see cref="Content"/>. Made also for ids
/// that are named before their item has arrived.
/// </summary>
public sealed class PageItem : IItemFrame
{
    /// <summary>Slips lie on slips at most so high.</summary>
    private const int MostSlips = 32;

    private readonly PageLayers layers;
    private readonly Guarding guarding;
    private readonly Func<OpId, PageItem?> find;
    private readonly Action<PageItem> moved;
    private readonly RetractableRegisters<ItemField> fields = new();
    private ItemContent? content;
    private TypedText? typed;
    private Placement? placement;
    private int removals;
    private Guid madeOn;

    /// <param name="id">Its id.</param>
    /// <param name="layers">The layers of the page.</param>
    /// <param name="guarding">Whose things may be changed.</param>
    /// <param name="find">The other things of the page.</param>
    /// <param name="moved">Hears when it may lie elsewhere, have another form, or be there or not: others may lean on it.</param>
    internal PageItem(OpId id, PageLayers layers, Guarding guarding, Func<OpId, PageItem?> find, Action<PageItem> moved)
    {
        (Id, this.layers, this.guarding, this.find, this.moved) = (id, layers, guarding, find, moved);
    }

    public OpId Id { get; }

    /// <summary>False while only changes to it have arrived.</summary>
    public bool HasArrived => content is not null;

    public Stamp Stamp { get; private set; }

    public Guid Author { get; private set; }

    /// <summary>When its making began, UTC milliseconds since 1970.</summary>
    public long StartedAt { get; private set; }

    /// <summary>What lies in the frame.</summary>
    /// <exception cref="InvalidOperationException">It has not arrived.</exception>
    public ItemContent Content => content ?? throw new InvalidOperationException("The item has not arrived.");

    Placement? IItemFrame.Placement => placement;

    ItemContent? IItemFrame.Beside(OpId item, bool standing) =>
        find(item) is { content: { } beside } other && (!standing || other.IsKept) ? beside : null;

    /// <summary>Where everything that was done to its place puts it; null while it lies where it was made.</summary>
    internal Placement? Placed => placement;

    bool IItemFrame.IsOnlyShifted => IsOnlyShifted;

    /// <summary>The sum of all shifts, in 0.01 mm; 0 once it was scaled or turned.</summary>
    public long Dx => IsOnlyShifted ? placement?.Dx ?? 0 : 0;

    /// <inheritdoc cref="Dx"/>
    public long Dy => IsOnlyShifted ? placement?.Dy ?? 0 : 0;

    /// <summary>By how much its lengths have grown since it was made.</summary>
    public double Growth => placement?.Growth ?? 1;

    public Gaps Gaps { get; } = new();

    /// <summary>What was typed into it; also before it has arrived itself.</summary>
    public TypedText Typed => typed ??= new TypedText();

    /// <summary>False once its author has taken it back.</summary>
    public bool Active { get; private set; }

    /// <summary>Whether it is on the page; it may lie on a layer that is hidden.</summary>
    public bool Stands => IsKept && Layer is not null;

    /// <summary>Whether it was neither taken back nor removed.</summary>
    private bool IsKept => HasArrived && Active && removals == 0;

    /// <summary>Whether it is seen: its layer is, and no folded slip has it.</summary>
    public bool Shown => Stands && Layer is { Hidden: false } && !IsFoldedAway;

    /// <summary>The slip that it is folded away with; none mostly.</summary>
    public OpId Slip { get; private set; }

    private bool IsFoldedAway
    {
        get
        {
            if (Slip == default)
                return false;
            var at = find(Slip);
            if (at is not { Stands: true, Content: SlipContent { IsFolded: true } })
                return false;
            // Slips that are folded into each other would never be seen again.
            for (var slips = 0; at is not null && slips < MostSlips; slips++)
            {
                if (at == this)
                    return false;
                at = at.Slip == default ? null : find(at.Slip);
            }

            return at is null;
        }
    }

    /// <summary>Whether it may be changed by hand.</summary>
    public bool IsOpen => Shown && !IsLocked && IsReached;

    /// <summary>
    /// The same, also where it is locked in place itself, so that it can be unlocked: it lies on no locked layer, and whoever is here may change it.
    /// </summary>
    public bool IsReached => Layer is { Locked: false } && guarding.May(Author);

    public bool IsLocked => Read(ItemField.Locked).Length > 0;

    /// <summary>The layer it lies on; null when that was erased.</summary>
    public Layer? Layer => LayerBy(Read(ItemField.Layer));

    /// <summary>Whether the layer is there on which the item would lie by a value of its field: the empty one for the layer it was made on.</summary>
    internal bool IsThere(string layer) => LayerBy(layer) is not null;

    private Layer? LayerBy(string field) =>
        layers.IsPlain ? Core.Layers.Layer.First : layers.Of(field.Length > 0 ? Guid.Parse(field) : madeOn);

    /// <summary>What it is grouped with; empty for nothing.</summary>
    public string Group => Read(ItemField.Group);

    /// <summary>How far to the front it lies in its layer.</summary>
    public int Order { get; private set; }

    public ItemKinds Kind => Content.Kind;

    /// <summary>The box of all that is painted of it, 0.01 mm.</summary>
    public Box Bounds => Content.Bounds;

    /// <summary>What of it is seen: see <see cref="ItemContent.Visible"/>.</summary>
    public List<Interval> Visible() => content?.Visible() ?? [];

    private bool IsOnlyShifted => placement is null || placement.IsShift;

    /// <summary>How far from the back the layer lies that it is on.</summary>
    public int LayerPlace => layers.IsPlain ? 0 : layers.PlaceOf(Layer?.Id ?? Guid.Empty);

    /// <summary>How many sheets lie below it; see <see cref="PaintOrder"/>.</summary>
    public int Sheet { get; internal set; }

    /// <summary>Where a spot lies back in the place where it was made, for changes to its shape.</summary>
    public (double X, double Y) Unplace(double x, double y) => placement?.Back(x, y) ?? (x, y);

    /// <summary>A colour of it at the opacity of its layer, 0xRRGGBBAA.</summary>
    public uint Faded(uint colour) => Layer is { Opacity: < 100 } layer ? Colours.Thinned(colour, layer.Opacity) : colour;

    public string Read(ItemField field) => fields.Read(field);

    internal void Arrive(Operation operation, Change.ItemAdded added)
    {
        (Stamp, Author) = (operation.Stamp, operation.Author);
        (madeOn, StartedAt) = (added.Layer, added.BegunAt(operation.Time));
        content = added.Content(this);
        if (added is Change.WrittenAdded { Passage: not { Text.Length: 0, Formats.Count: 0 } } text)
            Typed.Take(Id, Stamp, text.Passage.Whole(Id));
        WorkOut();
        moved(this);
    }

    /// <summary>It has not arrived: of a page that goes back in its history.</summary>
    internal void Leave()
    {
        typed?.Withdraw(Id);
        (content, Active) = (null, false);
        moved(this);
    }

    /// <summary>Something was typed into it, or is taken back.</summary>
    internal void Retyped()
    {
        content?.WorkOut(true);
        moved(this);
    }

    /// <summary>What it leans on lies elsewhere, or is another.</summary>
    internal void Follow() => content?.WorkOut(true);

    internal void SetActive(bool active)
    {
        Active = active;
        moved(this);
    }

    internal void CountRemoval(int by)
    {
        removals += by;
        moved(this);
    }

    internal void AddGaps(OpId operation, IReadOnlyList<Interval> intervals)
    {
        Gaps.Add(operation, intervals);
        content?.Rubbed();
    }

    internal void TakeGapsBack(OpId operation)
    {
        Gaps.TakeBack(operation);
        content?.Rubbed();
    }

    internal void Place(Stamp stamp, Transform step, bool adds)
    {
        var wasShifted = IsOnlyShifted;
        (placement ??= new Placement()).Add(stamp, step, adds);
        // A thing that is only moved looks as it did.
        if (wasShifted && placement.IsShift)
            content?.Shifted();
        else
            WorkOut();
        moved(this);
    }

    /// <summary>Writes a field, or takes that write out again.</summary>
    internal void Set(Stamp stamp, Guid author, ItemValue value, bool adds)
    {
        fields.Write(stamp, author, value.Field, value.Value, adds);
        // By far the most that is written at once is colours: where a thing lies stays.
        var mayLieElsewhere =
            value.Field is not (ItemField.Colour or ItemField.Order or ItemField.Group or ItemField.Locked or ItemField.Within);
        WorkOut(mayLieElsewhere);
        if (mayLieElsewhere)
            moved(this);
    }

    /// <summary>What it shows, in one canonical form.</summary>
    internal void WriteState(ByteWriter writer, SampleCodec.Writers columns)
    {
        writer.Guid(Layer?.Id ?? Guid.Empty);
        writer.Signed(Order);
        writer.Text(Group);
        writer.Byte(IsLocked ? (byte)1 : (byte)0);
        writer.Signed(Dx);
        writer.Signed(Dy);
        writer.Byte((byte)Kind);
        Content.WriteState(writer, columns);
    }

    private void WorkOut(bool mayLieElsewhere = true)
    {
        Order = Read(ItemField.Order) is { Length: > 0 } order ? int.Parse(order, CultureInfo.InvariantCulture) : 0;
        Slip = Read(ItemField.Within) is { Length: > 0 } slip ? OpId.Parse(slip) : default;
        content?.WorkOut(mayLieElsewhere);
    }
}
