using System.Globalization;
using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using CalmQuill.Core.Changing;
using CalmQuill.Core.Diagrams;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: selecting what is on a page, and what is done to it afterwards. Items are named by their ids, lengths are 0.01 mm.</summary>
public static partial class HandBridge
{
    /// <summary>The items that a loop (x, y, x, y…) takes, with their groups.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="loop">The loop.</param>
    /// <param name="share">How much of an item must lie inside, 0 to 1.</param>
    /// <param name="kinds">Which kinds, as <see cref="ItemKinds"/>.</param>
    /// <param name="layer">The only layer; empty for all.</param>
    [JSExport]
    public static string[] Select(int page, double[] loop, double share, int kinds, string layer) =>
        Ids(Selecting.Inside(Session.Document<PageDocument>(page), loop, share, Filter(kinds, layer)));

    /// <summary>The foremost thing at a spot, with its group.</summary>
    [JSExport]
    public static string[] At(int page, double x, double y, double reach, int kinds, string layer) =>
        Ids(Selecting.At(Session.Document<PageDocument>(page), x, y, reach, Filter(kinds, layer)));

    /// <summary>The same of what is locked in place.</summary>
    [JSExport]
    public static string[] LockedAt(int page, double x, double y, double reach) =>
        Ids(Selecting.LockedAt(Session.Document<PageDocument>(page), x, y, reach, ItemFilter.All));

    /// <summary>Those of some items that may be changed.</summary>
    [JSExport]
    public static string[] OpenOf(int page, string[] items) => [.. Open(page, items).Select(id => id.ToString())];

    /// <summary>All on the page that may be changed and of which something is seen.</summary>
    [JSExport]
    public static string[] SelectAll(int page, int kinds, string layer) =>
        Ids(Selecting.All(Session.Document<PageDocument>(page), Filter(kinds, layer)));

    /// <summary>All on the page that may be changed, also what was rubbed out whole.</summary>
    [JSExport]
    public static string[] AllOpen(int page) => Ids(Session.Document<PageDocument>(page).Items.Where(ItemFilter.All.Takes));

    /// <summary>The box around items: left, top, right, bottom; empty when none is shown.</summary>
    [JSExport]
    public static int[] BoundsOf(int page, string[] items)
    {
        var all = Box.Around(Items(page, items).Select(item => item.Bounds));
        return all is { } box ? [box.Left, box.Top, box.Right, box.Bottom] : [];
    }

    /// <summary>
    /// What can be said of a selection, as JSON: kinds, colours, widths, whether all is locked, grouped, what of it may be scaled and turned (the most
    /// that any of it allows, and whether all allows the same).
    /// </summary>
    [JSExport]
    public static string About(int page, string[] items)
    {
        var chosen = Items(page, items);
        var lines = chosen.Select(item => item.Content).OfType<LineContent>().ToList();
        return Json.Text(json =>
        {
            json.WriteStartObject();
            json.WriteNumber("count", chosen.Count);
            json.WriteNumber("kinds", chosen.Aggregate(0, (kinds, item) => kinds | (int)item.Kind));
            json.WriteBoolean("locked", chosen.Count > 0 && chosen.TrueForAll(item => item.IsLocked));
            json.WriteBoolean(
                "grouped",
                chosen.Count > 1 && chosen[0].Group.Length > 0 && chosen.TrueForAll(item => item.Group == chosen[0].Group)
            );
            Same(
                json,
                "colour",
                chosen.Where(item => Diagram.HolderOf(item) is null).Select(item => item.Content).Select(ColourOf).OfType<uint>(),
                Hex
            );
            Same(json, "width", lines.Select(line => line.Pen.Width), Whole);
            Same(json, "pen", lines.Select(line => (int)line.Pen.Kind), Whole);
            Same(json, "line", lines.Select(line => (int)line.Pen.Line), Whole);
            var boxes = chosen
                .Select(item => item.Content)
                .OfType<WrittenContent>()
                .Where(content => content is TextContent or TableContent);
            var texts = chosen.Select(item => item.Content).OfType<TextContent>().ToList();
            Same(json, "fill", lines.Select(line => line.Fill).Concat(boxes.Select(box => Read(box, ItemField.Fill))), Hex);
            var tables = chosen.Select(item => item.Content).OfType<TableContent>().ToList();
            Same(json, "edge", texts.Select(text => Read(text, ItemField.Edge)).Concat(tables.Select(table => table.EdgeColour)), Hex);
            Same(json, "edgeWidth", texts.Select(text => text.EdgeWidth).Concat(tables.Select(table => table.EdgeWidth)), Whole);
            Same(json, "corner", texts.Select(text => text.Corner), Whole);
            Same(json, "padding", texts.Select(text => text.Padding), Whole);
            var reshaping = chosen.Select(item => item.Content.Reshaping).Distinct().ToList();
            json.WriteNumber("reshaping", reshaping.Count == 0 ? 0 : (int)reshaping.Max());
            json.WriteBoolean("alike", reshaping.Count <= 1);
            Same(json, "layer", chosen.Select(item => item.Layer!.Id), layer => layer.ToString());
            json.WriteEndObject();
        });
    }

    private static uint Read(WrittenContent content, ItemField field) =>
        content[field] is { Length: > 0 } colour ? Art.Colours.Read(colour) : 0;

    private static string Whole(int number) => number.ToString(CultureInfo.InvariantCulture);

    private static string Hex(uint colour) => colour.ToString("x8", CultureInfo.InvariantCulture);

    private static uint? ColourOf(ItemContent content) =>
        content switch
        {
            LineContent line => line.Colour,
            SlipContent slip => slip.PaperColour,
            WrittenContent text => text.Colour,
            _ => null,
        };

    [JSExport]
    public static byte[] Remove(int page, string[] items, double now) =>
        Open(page, items) is { Count: > 0 } open ? Session.Perform(page, new Change.ItemsRemoved(open), now) : [];

    /// <summary>The same, framed.</summary>
    [JSExport]
    public static byte[] RemoveFramed(int page, string[] items, double now) =>
        Open(page, items) is { Count: > 0 } open ? Session.PerformAll(page, [new Change.ItemsRemoved(open)], now) : [];

    [JSExport]
    public static byte[] Shift(int page, string[] items, int dx, int dy, double now) => Shift(page, Parse(items), dx, dy, now);

    private static byte[] Shift(int page, OpId[] items, int dx, int dy, double now) =>
        Chosen.Open(Session.Document<PageDocument>(page), items) is { Count: > 0 } open
            ? Session.Perform(page, new Change.ItemsShifted(open, dx, dy), now)
            : [];

    /// <summary>
    /// Keeps very many items that are selected, so that what is done to all of them need not name them: most of what that takes is reading their names.
    /// </summary>
    /// <returns>The number under which they are kept, until others are.</returns>
    [JSExport]
    public static int Keep(int page, string[] items)
    {
        ((OpenPage)Session.Document(page)).Kept = (++lastKept, Parse(items));
        return lastKept;
    }

    /// <summary>Whether what was kept under a number is kept still: another window on the same page may have kept something else.</summary>
    [JSExport]
    public static bool IsKept(int page, int number) => Session.Has(page) && ((OpenPage)Session.Document(page)).Kept.Number == number;

    /// <summary>Moves what is kept; see Shift.</summary>
    [JSExport]
    public static byte[] ShiftKept(int page, int number, int dx, int dy, double now) => Shift(page, Kept(page, number), dx, dy, now);

    /// <summary>Writes fields of what is kept; see Set.</summary>
    [JSExport]
    public static byte[] SetKept(int page, int number, int[] fields, string[] values, double now) =>
        Set(page, Kept(page, number), fields, values, now);

    private static int lastKept;

    private static OpId[] Kept(int page, int number) =>
        ((OpenPage)Session.Document(page)).Kept is var kept && kept.Number == number
            ? kept.Items
            : throw new SentenceException($"Something else was selected in the meantime. Nothing was changed.");

    /// <summary>
    /// Scales, turns or mirrors: x' = a·x + c·y + e, y' = b·x + d·y + f, with a to d as plain numbers. Each thing follows as far as it may; framed
    /// operations, one step.
    /// </summary>
    [JSExport]
    public static byte[] Transform(int page, string[] items, double[] matrix, double now) =>
        Session.PerformAll(page, Changes(Reshape.Of(OpenItems(page, items), Whole(matrix))), now, true);

    /// <summary>What the same would do, as JSON: a list of <c>{ "items": ids, "matrix": six numbers }</c>.</summary>
    [JSExport]
    public static string Reshaped(int page, string[] items, double[] matrix) => Steps(Reshape.Of(OpenItems(page, items), Whole(matrix)));

    /// <summary>Writes fields of items; see <see cref="ItemField"/>.</summary>
    [JSExport]
    public static byte[] Set(int page, string[] items, int[] fields, string[] values, double now) =>
        Set(page, Parse(items), fields, values, now);

    private static byte[] Set(int page, OpId[] items, int[] fields, string[] values, double now) =>
        Session.Perform(
            page,
            Chosen.Set(
                Session.Document<PageDocument>(page),
                items,
                [.. fields.Select((field, i) => new ItemValue((ItemField)field, values[i]))]
            ),
            now
        );

    /// <summary>Gives lines a width as it is seen on the page, 0.01 mm; framed operations, one step.</summary>
    [JSExport]
    public static byte[] SetWidth(int page, string[] items, int width, double now) =>
        Session.PerformAll(page, Chosen.Width(Session.Document<PageDocument>(page), Parse(items), width), now, true);

    /// <summary>Brings items in front of, or behind, all others on the page.</summary>
    [JSExport]
    public static byte[] Order(int page, string[] items, bool front, double now)
    {
        var open = Open(page, items);
        if (open.Count == 0)
            return [];
        var chosen = open.ToHashSet();
        var others = Session
            .Document<PageDocument>(page)
            .Items.Where(item => item.Stands && !chosen.Contains(item.Id))
            .Select(item => item.Order)
            .DefaultIfEmpty(0)
            .ToList();
        var order = Math.Clamp(front ? others.Max() + 1 : others.Min() - 1, -ItemRules.MostOrder, ItemRules.MostOrder);
        return Session.Perform(
            page,
            new Change.ItemsSet(open, [new ItemValue(ItemField.Order, order.ToString(CultureInfo.InvariantCulture))]),
            now
        );
    }

    /// <summary>A piece of the page, to be laid down elsewhere.</summary>
    [JSExport]
    public static byte[] Cut(int page, string[] items) => Cutting.Of(Session.Document<PageDocument>(page), Parse(items).ToHashSet());

    /// <summary>The box of a piece; empty when it holds nothing.</summary>
    [JSExport]
    public static int[] BoundsOfPiece(byte[] piece) => Cutting.Bounds(piece) is { } box ? [box.Left, box.Top, box.Right, box.Bottom] : [];

    /// <summary>
    /// Begins to lay a piece down and says how many changes that takes. When it is no piece, or one change is against the rules, it throws with a
    /// sentence and nothing is laid.
    /// </summary>
    [JSExport]
    public static int BeginLay(int page, byte[] piece, int dx, int dy, string layer)
    {
        return Begin(page, new Laying(piece, dx, dy, Session.LayerOf(layer)));
    }

    /// <summary>The same with what was worked out elsewhere.</summary>
    internal static int Begin(int page, Laying work)
    {
        work.Try(Session.For(page).Check);
        ((OpenPage)Session.Document(page)).Laying = work;
        return work.Count;
    }

    /// <summary>Lays a few things down at once that were worked out here; framed operations, one step.</summary>
    internal static byte[] LayAll(int page, List<Operation> piece, double now) => LayMore(page, Begin(page, new Laying(piece)) + 1, now);

    /// <summary>Lays up to so many more; framed operations. With the last of them all become one step.</summary>
    [JSExport]
    public static byte[] LayMore(int page, int most, double now)
    {
        var frames = new List<byte[]>();
        if (LayingOn(page) is not { } laying)
            return [];
        var more = true;
        while (more && frames.Count < most)
            more = laying.Next(change => Made(frames, page, change, now));
        if (laying.Done == laying.Count && frames.Count > 0 && laying.Steps.Count > 1)
            Made(frames, page, new Change.StepsJoined(laying.Steps), now);
        return Session.Framed(frames);
    }

    /// <summary>What was laid down last may be taken back from outside of its page, as <see cref="UndoBridge.Last"/> says.</summary>
    [JSExport]
    public static void NoteLaid(int page) => Session.NoteBack([.. LayingOn(page)?.Back ?? []]);

    /// <summary>Begins to give laying down up, for <see cref="PageBridge.GoOn"/>: what was laid becomes one step and is taken back.</summary>
    [JSExport]
    public static int GiveUpLaying(int page) =>
        PageBridge.Begin(
            page,
            [.. LayingOn(page) is { Steps.Count: > 0 } laying ? laying.Back.Prepend(new Change.StepsJoined(laying.Steps)) : []]
        );

    /// <summary>The items that were laid down on a page last.</summary>
    [JSExport]
    public static string[] LastLaid(int page) => [.. LayingOn(page)?.Items.Select(id => id.ToString()) ?? []];

    private static Laying? LayingOn(int page) => ((OpenPage)Session.Document(page)).Laying;

    /// <summary>What making room at a line moves: the most that can be taken away, then the ids follow by <see cref="RoomItems"/>.</summary>
    [JSExport]
    public static int BeginRoom(int page, int line, bool sideways)
    {
        room = new MakeRoom(Session.Document<PageDocument>(page), line, sideways);
        return room.MostBack;
    }

    [JSExport]
    public static string[] RoomItems() => Ids(room?.Moved ?? []);

    /// <summary>Makes the room; what would leave the sheet is named by <see cref="RoomLeaving"/> beforehand.</summary>
    [JSExport]
    public static byte[] EndRoom(int page, int by, double now)
    {
        var change = room?.Change(by);
        room = null;
        return Session.Perform(page, change, now);
    }

    /// <summary>The same, and takes away what goes to another page; framed operations, one step.</summary>
    [JSExport]
    public static byte[] EndRoomCarrying(int page, int by, string[] leaving, double now)
    {
        var change = room?.Change(by);
        room = null;
        List<Change> changes = change is null ? [] : [change];
        if (Open(page, leaving) is { Count: > 0 } open)
            changes.Add(new Change.ItemsRemoved(open));
        return changes.Count > 0 ? Session.PerformAll(page, changes, now, true) : [];
    }

    [JSExport]
    public static string[] RoomLeaving(int by, int end) => Ids(room?.Leaving(by, end) ?? []);

    /// <summary>How even lines would lie: for each word its items and matrix, as JSON; for a preview.</summary>
    [JSExport]
    public static string EvenLines(int page, string[] items, double strength, bool words, bool height) =>
        Steps(Work(page, items, strength, words, height));

    /// <summary>Evens lines; framed operations, one step.</summary>
    [JSExport]
    public static byte[] MakeLinesEven(int page, string[] items, double strength, bool words, bool height, double now) =>
        Session.PerformAll(page, Changes(Work(page, items, strength, words, height)), now, true);

    /// <summary>What a stroke that is being written would scratch out.</summary>
    [JSExport]
    public static string[] Scratched(int page, int stroke) =>
        Ids(Scratch.Of(PenBridge.Of(stroke).ToSamples(), Session.Document<PageDocument>(page), ItemFilter.All));

    /// <summary>When things came to the page: for each its id, start and end in milliseconds and its author, as JSON.</summary>
    [JSExport]
    public static string RetracePlan(int page, string[] items)
    {
        var document = Session.Document<PageDocument>(page);
        return Json.List(
            Retrace.Plan(items.Length == 0 ? document.Items : Items(page, items)),
            (json, step) =>
            {
                json.WriteStartObject();
                json.WriteString("id", step.Item.Id.ToString());
                json.WriteNumber("start", step.Start);
                json.WriteNumber("end", step.End);
                json.WriteString("author", step.Item.Author);
                json.WriteEndObject();
            }
        );
    }

    /// <summary>An item as far as it was written so long after it was begun, as a render packet.</summary>
    [JSExport]
    public static byte[] RetracePart(int page, string item, int after, int takes) =>
        RenderPacket.Of(Items(page, [item]), one => one.Content.MadeAfter(after, takes));

    /// <summary>Where the loupe's box goes: 0 on, 1 back, 2 to the next line.</summary>
    [JSExport]
    public static int[] LoupeStep(int page, string paper, int[] box, int begin, int way)
    {
        var on = Paper.ParseOrDefault(paper);
        var sheet = on.Sheet(Session.Document<PageDocument>(page).Bounds());
        var at = new Box(box[0], box[1], box[2], box[3]);
        var to = way switch
        {
            0 => LoupeSteps.On(at, on, sheet, begin),
            1 => LoupeSteps.Back(at, sheet),
            _ => LoupeSteps.NextLine(at, on, sheet, begin),
        };
        return [to.Left, to.Top, to.Right, to.Bottom];
    }

    internal static ItemFilter Filter(int kinds, string layer) => new((ItemKinds)kinds, Guid.TryParse(layer, out var id) ? id : null);

    private static MakeRoom? room;

    private static List<(IReadOnlyList<PageItem> Items, Transform Transform)> Work(
        int page,
        string[] items,
        double strength,
        bool words,
        bool height
    ) =>
        Changing.EvenLines.Work(
            [.. Items(page, items).Where(item => item.Kind == ItemKinds.Ink)],
            new EvenLines.Wish(strength, words, height)
        );

    internal static List<PageItem> Items(int page, string[] ids)
    {
        var document = Session.Document<PageDocument>(page);
        return [.. ids.Select(id => document.Find(OpId.Parse(id))).OfType<PageItem>().Where(item => item.Shown)];
    }

    private static OpId Made(List<byte[]> frames, int page, Change change, double now)
    {
        frames.Add(Session.Perform(page, change, now));
        return Session.Replica.LastId;
    }

    private static List<OpId> Open(int page, string[] items) => Chosen.Open(Session.Document<PageDocument>(page), Parse(items));

    private static List<PageItem> OpenItems(int page, string[] items) => Items(page, items).FindAll(item => item.IsOpen);

    private static List<Change> Changes(List<(IReadOnlyList<PageItem> Items, Transform Transform)> steps) =>
        [.. steps.Select(step => new Change.ItemsTransformed([.. step.Items.Select(item => item.Id)], [], step.Transform))];

    private static string Steps(List<(IReadOnlyList<PageItem> Items, Transform Transform)> steps) =>
        Json.List(
            steps,
            (json, step) =>
            {
                json.WriteStartObject();
                json.WriteStartArray("items");
                foreach (var item in step.Items)
                    json.WriteStringValue(item.Id.ToString());
                json.WriteEndArray();
                json.WriteStartArray("matrix");
                var (a, b, c, d, e, f) = step.Transform;
                foreach (var number in new[] { a, b, c, d })
                    json.WriteNumberValue(number / (double)Ink.Transform.One);
                json.WriteNumberValue(e);
                json.WriteNumberValue(f);
                json.WriteEndArray();
                json.WriteEndObject();
            }
        );

    private static OpId[] Parse(string[] items) => [.. items.Select(OpId.Parse)];

    private static string[] Ids(IEnumerable<PageItem> items) => [.. items.Select(item => item.Id.ToString())];

    private static Transform Whole(double[] m) =>
        Ink.Transform.Near(new Affine(Part(m[0]), Part(m[1]), Part(m[2]), Part(m[3]), m[4], m[5]));

    private static double Part(double number) => Math.Clamp(number, -1000, 1000);

    private static void Same<T>(Utf8JsonWriter json, string name, IEnumerable<T> values, Func<T, string> write)
    {
        var distinct = values.Distinct().Take(2).ToList();
        if (distinct.Count == 1)
            json.WriteString(name, write(distinct[0]));
    }
}
