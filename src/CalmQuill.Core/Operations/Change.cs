using CalmQuill.Core.Art;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Library;
using CalmQuill.Core.Shapes;
using CalmQuill.Core.Spots;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Operations;

/// <summary>
/// What an operation does. A closed family: every kind is a nested type, here or beside the thing that it adds, and its number is part of the stored
/// form.
/// </summary>
public abstract partial record Change
{
    private Change() { }

    public abstract ChangeKind Kind { get; }

    /// <summary>Whether it is something done on a page that its author can take back, and have again.</summary>
    public virtual bool IsStep => true;

    /// <summary>
    /// Library: puts a folder, notebook, tag or lens under a parent, making it when it is new; notebook: the same for a section or page.
    /// <see cref="Guid.Empty"/> is the root.
    /// </summary>
    public sealed record NodePlaced(Guid Node, NodeKind NodeKind, Guid Parent, string Order) : Change
    {
        public override ChangeKind Kind => ChangeKind.NodePlaced;
    }

    /// <summary>Library and notebook: writes one register of what lies in it; the later stamp wins.</summary>
    public sealed record PropertySet(Guid Target, Property Property, string Value) : Change
    {
        public override ChangeKind Kind => ChangeKind.PropertySet;
    }

    /// <summary>Notebook: adds a page with its place at the root and its paper.</summary>
    public sealed record PageAdded(Guid Page, string Order, string Paper) : Change
    {
        public override ChangeKind Kind => ChangeKind.PageAdded;
    }

    /// <summary>
    /// Library and notebook: gives things new keys among their siblings, where keys have become long. Nothing moves to another parent, and what is
    /// not there yet is not made; like a move it is done in the order of its stamp.
    /// </summary>
    public sealed record OrdersSet(IReadOnlyList<NodeOrder> Orders) : Change
    {
        public override ChangeKind Kind => ChangeKind.OrdersSet;
    }

    /// <summary>Page: adds an item, whose id is the operation's id. Taking it back brings what it replaced back.</summary>
    public abstract record ItemAdded : Change
    {
        /// <summary>The layer it is made on.</summary>
        public Guid Layer { get; init; }

        /// <summary>What it takes the place of.</summary>
        public virtual IReadOnlyList<OpId> Replaced => [];

        /// <summary>The same with other names for all items that it names.</summary>
        public virtual ItemAdded Naming(Func<OpId, OpId> nameOf) => this;

        /// <summary>All texts in it, which must be of whole characters.</summary>
        public virtual IEnumerable<string> Texts => [];

        /// <summary>What a person calls it: “stroke”.</summary>
        public abstract string Word { get; }

        /// <summary>Null when it is well formed, else why not.</summary>
        public abstract Refusal? Check();

        /// <summary>When its making began, UTC milliseconds since 1970.</summary>
        /// <param name="stamp">When the operation was made.</param>
        public virtual long BegunAt(Hlc stamp) => stamp.UnixMilliseconds;

        /// <summary>What lies in the item's frame.</summary>
        public abstract ItemContent Content(IItemFrame frame);

        /// <summary>The same elsewhere, 0.01 mm, in nothing's place.</summary>
        public abstract ItemAdded Copied(int dx, int dy);
    }

    /// <summary>Page: adds a stroke, whose item id is the operation's id. <paramref name="StartedAt"/> is UTC, in milliseconds since 1970.</summary>
    public sealed record StrokeAdded(Pen Pen, long StartedAt, StrokeSamples Samples) : ItemAdded
    {
        public override ChangeKind Kind => ChangeKind.StrokeAdded;

        public override long BegunAt(Hlc stamp) => StartedAt;

        public override string Word => "stroke";

        public override Refusal? Check() => ItemRules.Check(this);

        public override ItemContent Content(IItemFrame frame) => new InkContent(frame, this);

        public override ItemAdded Copied(int dx, int dy) => this with { Samples = Samples.Moved(dx, dy) };
    }

    /// <summary>Page: removes whole items; they stay as tombstones.</summary>
    public sealed record ItemsRemoved(IReadOnlyList<OpId> Items) : Change
    {
        public override ChangeKind Kind => ChangeKind.ItemsRemoved;
    }

    /// <summary>Page: adds a shift, in 0.01 mm, to items. Shifts add up.</summary>
    public sealed record ItemsShifted(IReadOnlyList<OpId> Items, int Dx, int Dy) : Change
    {
        public override ChangeKind Kind => ChangeKind.ItemsShifted;
    }

    /// <summary>Page: rubs out parts of strokes, as intervals of each stroke's own parameter.</summary>
    public sealed record GapsAdded(IReadOnlyList<StrokeGaps> Strokes) : Change
    {
        public override ChangeKind Kind => ChangeKind.GapsAdded;
    }

    /// <summary>Page: takes an own earlier operation back (<paramref name="Active"/> false) or brings it back. This is what undo and redo make.</summary>
    public sealed record EffectSet(OpId Target, bool Active) : Change
    {
        public override ChangeKind Kind => ChangeKind.EffectSet;

        public override bool IsStep => false;
    }

    /// <summary>Library and notebook: puts a tag on a notebook, section or page, or takes it off. A register for each pair of target and tag.</summary>
    public sealed record TagSet(Guid Target, Guid Tag, bool On) : Change
    {
        public override ChangeKind Kind => ChangeKind.TagSet;
    }

    /// <summary>Page: makes a mark, link or heading on an area (0.01 mm) and, where it was put on ink, on those items; it goes along with them.</summary>
    public sealed record SpotAdded(Guid Spot, SpotKind SpotKind, Box Area, IReadOnlyList<OpId> Items, IReadOnlyList<SpotValue> Values)
        : Change
    {
        public override ChangeKind Kind => ChangeKind.SpotAdded;
    }

    /// <summary>Page: writes fields of a spot; for each the later stamp wins.</summary>
    public sealed record SpotSet(Guid Spot, IReadOnlyList<SpotValue> Values) : Change
    {
        public override ChangeKind Kind => ChangeKind.SpotSet;
    }

    /// <summary>
    /// Page: says something to a mark, typed or in ink (a batch of strokes), and to some people in particular. Like all talk it is no step on the page to
    /// be undone; it is withdrawn.
    /// </summary>
    public sealed record AnswerAdded(Guid Spot, string Text, IReadOnlyList<Guid> Mentions, ReadOnlyMemory<byte> Ink) : Change
    {
        public override ChangeKind Kind => ChangeKind.AnswerAdded;

        public override bool IsStep => false;
    }

    /// <summary>Page: takes an answer away.</summary>
    public sealed record AnswerWithdrawn(OpId Answer) : Change
    {
        public override ChangeKind Kind => ChangeKind.AnswerWithdrawn;

        public override bool IsStep => false;
    }

    /// <summary>Page: moves, scales or turns items, and spots that lie on no ink. Such steps are done in the order of their stamps.</summary>
    public sealed record ItemsTransformed(IReadOnlyList<OpId> Items, IReadOnlyList<Guid> Spots, Transform Transform) : Change
    {
        public override ChangeKind Kind => ChangeKind.ItemsTransformed;
    }

    /// <summary>
    /// Page: adds a shape, whose item id is the operation's id, in place of what it was made from. <paramref name="Fill"/> is 0xRRGGBBAA, 0 for
    /// nothing. Taking it back brings what it replaced back.
    /// </summary>
    public sealed record ShapeAdded(Shape Shape, Pen Pen, uint Fill, IReadOnlyList<OpId> Replaces) : ItemAdded
    {
        public override ChangeKind Kind => ChangeKind.ShapeAdded;

        public override IReadOnlyList<OpId> Replaced => Replaces;

        public override ItemAdded Naming(Func<OpId, OpId> nameOf) => this with { Replaces = [.. Replaces.Select(nameOf)] };

        public override string Word => "shape";

        public override Refusal? Check() => ItemRules.Check(this);

        public override ItemContent Content(IItemFrame frame) => new ShapeContent(frame, this);

        public override ItemAdded Copied(int dx, int dy) => this with { Shape = Shape.Map((x, y) => (x + dx, y + dy)), Replaces = [] };
    }

    /// <summary>Page: adds what can be typed into, whose item id is the operation's id.</summary>
    /// <param name="Lay">Puts its own measures, 0.01 mm to the right and down, onto the page: where it lies, in what size and direction.</param>
    /// <param name="Width">How wide it is, 0.01 mm.</param>
    /// <param name="Passage">What stands in it at first.</param>
    /// <param name="Values">How it looks, as far as that is other than usual.</param>
    public abstract record WrittenAdded(Transform Lay, int Width, Passage Passage, IReadOnlyList<ItemValue> Values) : ItemAdded
    {
        public override IEnumerable<string> Texts =>
            Passage.Formats.Select(format => format.Value).Concat(Values.Select(value => value.Value)).Prepend(Passage.Text);

        public override ItemAdded Copied(int dx, int dy) => this with { Lay = Transform.Shift(dx, dy).After(Lay) };

        public override ItemAdded Naming(Func<OpId, OpId> nameOf) =>
            this with
            {
                Values = [.. Values.Select(value => value.Naming(nameOf))],
            };

        /// <summary>The colour that it was made with, 0xRRGGBBAA; another where nothing is said of it.</summary>
        internal uint ColourOr(uint usual) =>
            Values.FirstOrDefault(value => value.Field == ItemField.Colour).Value is { Length: > 0 } colour ? Colours.Read(colour) : usual;
    }

    /// <summary>
    /// Page: adds a box of typed text. Its own measures run from the beginning of the first line, on which its letters stand.
    /// </summary>
    /// <param name="Lay">See <see cref="WrittenAdded"/>.</param>
    /// <param name="Width">How long lines are, 0.01 mm.</param>
    /// <param name="Ruling">How far apart the lines of the paper are that the letters stand on, 0.01 mm; 0 for free spacing.</param>
    /// <param name="Passage">See <see cref="WrittenAdded"/>.</param>
    /// <param name="Values">See <see cref="WrittenAdded"/>.</param>
    public sealed record TextAdded(Transform Lay, int Width, int Ruling, Passage Passage, IReadOnlyList<ItemValue> Values)
        : WrittenAdded(Lay, Width, Passage, Values)
    {
        public override ChangeKind Kind => ChangeKind.TextAdded;

        public override string Word => "text";

        public override Refusal? Check() => ItemRules.Check(this);

        public override ItemContent Content(IItemFrame frame) => new TextContent(frame, this);
    }

    /// <summary>Page: adds what lies in a box of its own. Its own measures run from its upper left corner.</summary>
    /// <param name="Thing">What it is.</param>
    /// <param name="Lay">See <see cref="WrittenAdded"/>.</param>
    /// <param name="Width">See <see cref="WrittenAdded"/>.</param>
    /// <param name="Height">How high it is, 0.01 mm.</param>
    /// <param name="Passage">See <see cref="WrittenAdded"/>.</param>
    /// <param name="Values">See <see cref="WrittenAdded"/>.</param>
    public sealed record ThingAdded(ThingKind Thing, Transform Lay, int Width, int Height, Passage Passage, IReadOnlyList<ItemValue> Values)
        : WrittenAdded(Lay, Width, Passage, Values)
    {
        public override ChangeKind Kind => ChangeKind.ThingAdded;

        public override string Word =>
            Thing switch
            {
                ThingKind.Slip => "slip",
                ThingKind.Plot => "plot",
                ThingKind.Table => "table",
                ThingKind.File => "file",
                ThingKind.Formula => "formula",
                _ => "picture",
            };

        public override Refusal? Check() => ThingRules.Check(this);

        public override ItemContent Content(IItemFrame frame) =>
            Thing switch
            {
                ThingKind.Slip => new SlipContent(frame, this),
                ThingKind.Plot => new PlotContent(frame, this),
                ThingKind.Table => new TableContent(frame, this),
                ThingKind.File => new FileContent(frame, this),
                ThingKind.Formula => new FormulaContent(frame, this),
                _ => new PictureContent(frame, this),
            };
    }

    /// <summary>Page: types into a box of text, removes letters, or makes them look otherwise; see <see cref="TypedText"/>.</summary>
    /// <param name="Text">The item.</param>
    /// <param name="Typed">What is typed; its own letters are named by <see cref="LetterId.Own"/>.</param>
    public sealed record TextTyped(OpId Text, TextChange Typed) : Change
    {
        public override ChangeKind Kind => ChangeKind.TextTyped;
    }

    /// <summary>Page: writes fields of items; for each the later stamp wins.</summary>
    public sealed record ItemsSet(IReadOnlyList<OpId> Items, IReadOnlyList<ItemValue> Values) : Change
    {
        public override ChangeKind Kind => ChangeKind.ItemsSet;
    }

    /// <summary>Page: writes fields of a layer, making it when it is new; for each the later stamp wins.</summary>
    public sealed record LayerSet(Guid Layer, IReadOnlyList<LayerValue> Values) : Change
    {
        public override ChangeKind Kind => ChangeKind.LayerSet;
    }

    /// <summary>Page: says that own operations were made by one step of the hand, to be undone together.</summary>
    public sealed record StepsJoined(IReadOnlyList<OpId> Steps) : Change
    {
        public override ChangeKind Kind => ChangeKind.StepsJoined;

        public override bool IsStep => false;
    }

    /// <summary>
    /// Aside: says at which thing of the page that it lies over something was written, and where that lay then, so that it goes along with it. It
    /// shows nothing by itself and is no step to be undone.
    /// </summary>
    public sealed record ItemsAnchored(IReadOnlyList<OpId> Items, OpId On, Transform Lay) : Change
    {
        public override ChangeKind Kind => ChangeKind.ItemsAnchored;

        public override bool IsStep => false;
    }

    /// <summary>Personal library: the person opened a notebook of a space. Visits add up; see <see cref="Visits"/>.</summary>
    public sealed record Visited(Guid Space, Guid Target) : Change
    {
        public override ChangeKind Kind => ChangeKind.Visited;
    }
}

/// <summary>A thing and its new key among its siblings.</summary>
public readonly record struct NodeOrder(Guid Node, string Order);

/// <summary>The gaps that one operation makes in one stroke.</summary>
public readonly record struct StrokeGaps(OpId Stroke, IReadOnlyList<Interval> Intervals);
