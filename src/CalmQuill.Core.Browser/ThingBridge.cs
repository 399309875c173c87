using System.Globalization;
using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Formulas;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Links;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Pictures;
using CalmQuill.Core.Plots;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: pictures, files, slips, plots and formulas on a page. Items and assets are named by their ids, lengths are 0.01 mm.</summary>
public static partial class ThingBridge
{
    /// <summary>What is written under a picture looks so until somebody says otherwise.</summary>
    private static readonly Passage Caption = new(
        "",
        [new PassageFormat(0, 1, Trait.Style, "small"), new PassageFormat(0, 1, Trait.Align, "centre")]
    );

    private static string[] made = [];

    /// <summary>Lays pictures down; framed operations, one step. <see cref="Made"/> says their ids.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="assets">Their files.</param>
    /// <param name="boxes">Of each its left and upper edge, its width and its height.</param>
    /// <param name="layer">The layer; empty for the first.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] AddPictures(int page, string[] assets, int[] boxes, string layer, double now) =>
        Add(
            page,
            [
                .. assets.Select(
                    (asset, i) =>
                        new Change.ThingAdded(
                            ThingKind.Picture,
                            Transform.Shift(boxes[4 * i], boxes[4 * i + 1]),
                            Side(boxes[4 * i + 2]),
                            Side(boxes[4 * i + 3]),
                            Caption,
                            [new ItemValue(ItemField.Source, asset)]
                        )
                        {
                            Layer = Session.LayerOf(layer),
                        }
                ),
            ],
            now
        );

    /// <summary>Lays down what a page of the web says of itself; framed, one step. <see cref="Made"/> says its id.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="card">Its address, its title, of which site it is, and what it is about.</param>
    /// <param name="picture">Its picture; empty for none.</param>
    /// <param name="at">The left and upper edge, and how many dots the picture is wide and high.</param>
    /// <param name="layer">The layer; empty for the first.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] AddPreview(int page, string[] card, string picture, int[] at, string layer, double now)
    {
        var asset = picture.Length > 0 ? Guid.Parse(picture) : Guid.Empty;
        var laid = new PreviewCard(card[0], card[1], card[2], card[3]).At(at[0], at[1], asset, at[2], at[3]);
        return Add(page, [laid with { Layer = Session.LayerOf(layer) }], now);
    }

    /// <summary>Lays files down as cards, one under the other; framed operations, one step. <see cref="Made"/> says their ids.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="assets">The files.</param>
    /// <param name="names">What they are called; what no file can be called is left out.</param>
    /// <param name="sizes">How large they are, bytes.</param>
    /// <param name="x">Their left edge.</param>
    /// <param name="y">The upper edge of the first.</param>
    /// <param name="layer">The layer; empty for the first.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] AddFiles(int page, string[] assets, string[] names, int[] sizes, int x, int y, string layer, double now) =>
        Add(
            page,
            [
                .. assets.Select(
                    (asset, i) =>
                        new Change.ThingAdded(
                            ThingKind.File,
                            Transform.Shift(x, y + i * (FileContent.UsualHeight + FileGap)),
                            FileContent.UsualWidth,
                            FileContent.UsualHeight,
                            Caption,
                            [
                                new ItemValue(ItemField.Source, asset),
                                new ItemValue(ItemField.FileName, FileContent.NameOf(names[i])),
                                new ItemValue(ItemField.FileSize, Text(sizes[i])),
                            ]
                        )
                        {
                            Layer = Session.LayerOf(layer),
                        }
                ),
            ],
            now
        );

    /// <summary>Cards lie so far from each other, 0.01 mm.</summary>
    private const int FileGap = 250;

    /// <summary>A file on a page, as JSON; empty where there is none of that id.</summary>
    [JSExport]
    public static string File(int page, string item) =>
        Session.Document<PageDocument>(page).Find(OpId.Parse(item)) is { Shown: true, Content: FileContent content } ? Told(content) : "";

    /// <summary>The foremost file at a spot, likewise.</summary>
    [JSExport]
    public static string FileAt(int page, double x, double y) =>
        Session
            .Document<PageDocument>(page)
            .Items.LastOrDefault(item => item is { Shown: true, Content: FileContent } && item.Content.IsAt(x, y, 0))
            ?.Content
            is FileContent content
            ? Told(content)
            : "";

    private static string Told(FileContent content) =>
        Json.Text(json =>
        {
            json.WriteStartObject();
            json.WriteString("asset", content.Asset);
            json.WriteString("name", content.Name);
            json.WriteNumber("size", content.Size);
            json.WriteEndObject();
        });

    /// <summary>Lays a slip down; framed. <see cref="Made"/> says its id.</summary>
    [JSExport]
    public static byte[] AddSlip(int page, int x, int y, int width, int height, string colour, string layer, double now) =>
        Add(
            page,
            [
                new Change.ThingAdded(
                    ThingKind.Slip,
                    Transform.Shift(x, y),
                    Side(width),
                    Side(height),
                    new Passage("", []),
                    [new ItemValue(ItemField.Colour, colour)]
                )
                {
                    Layer = Session.LayerOf(layer),
                },
            ],
            now
        );

    /// <summary>Lays a plot down; framed. <see cref="Made"/> says its id.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="box">Its left and upper edge, its width and its height.</param>
    /// <param name="table">The table from which they come, and with which they go; empty for none.</param>
    /// <param name="points">The points that it shows, as a field holds them; empty for none.</param>
    /// <param name="axes">The names of its scales, each on a line.</param>
    /// <param name="layer">The layer; empty for the first.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] AddPlot(int page, int[] box, string table, string points, string axes, string layer, double now) =>
        Add(
            page,
            [
                new Change.ThingAdded(
                    ThingKind.Plot,
                    Transform.Shift(box[0], box[1]),
                    Side(box[2]),
                    Side(box[3]),
                    Caption,
                    points.Length > 0 ? [new(ItemField.Data1, points), new(ItemField.Axes, axes)] : []
                )
                {
                    Layer = Session.LayerOf(layer),
                },
            ],
            now,
            table.Length > 0 ? new ItemValue(ItemField.Table, table) : null
        );

    /// <summary>Lays an empty formula down; framed. <see cref="Made"/> says its id.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="x">Where it begins.</param>
    /// <param name="y">Where its first line stands.</param>
    /// <param name="layer">The layer; empty for the first.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] AddFormula(int page, int x, int y, string layer, double now) =>
        Add(
            page,
            [
                new Change.ThingAdded(
                    ThingKind.Formula,
                    Transform.Shift(x, y),
                    ThingRules.LeastSide,
                    ThingRules.LeastSide,
                    new Passage("", []),
                    [new ItemValue(ItemField.Shows, DrawnFormula.Value)]
                )
                {
                    Layer = Session.LayerOf(layer),
                },
            ],
            now
        );

    /// <summary>
    /// What a plot shows, as JSON: its fields by their numbers, the sentences of what is wrong by the same, its range, where that lies in its box and its box on the page, and what was laid through points;
    /// empty where there is none of that id.
    /// </summary>
    [JSExport]
    public static string Plot(int page, string item)
    {
        if (Session.Document<PageDocument>(page).Find(OpId.Parse(item)) is not { Shown: true, Content: PlotContent content })
            return "";
        return Json.Text(json =>
        {
            json.WriteStartObject();
            json.WriteStartObject("fields");
            foreach (var field in PlotFields)
                json.WriteString(
                    Text((int)field),
                    PlotContent.DataFields.Contains(field) ? content.DataOf(field)?.ToText() ?? "" : content[field]
                );
            json.WriteEndObject();
            json.WriteBoolean("followsTable", content.Alone.Count > 0);
            json.WriteStartObject("problems");
            foreach (var (field, problem) in content.Problems)
                json.WriteString(Text((int)field), problem);
            json.WriteEndObject();
            var range = content.Range;
            Json.Numbers(json, "range", [range.Left, range.Right, range.Bottom, range.Top]);
            var plane = content.Drawing.Plane;
            Json.Numbers(json, "plane", [plane.Left, plane.Top, plane.Right, plane.Bottom]);
            Json.Numbers(json, "place", content.OwnPlace(true).Parts);
            json.WriteStartArray("told");
            foreach (var sentence in content.Told)
                json.WriteStringValue(sentence);
            json.WriteEndArray();
            json.WriteEndObject();
        });
    }

    private static readonly ItemField[] PlotFields =
    [
        ItemField.Range,
        ItemField.Axes,
        ItemField.Shows,
        .. PlotContent.CurveFields,
        .. PlotContent.DataFields,
    ];

    /// <summary>
    /// Points as a field holds them, of rows that were typed or pasted, and the first row that is no point, 0 for none: <c>{ text, wrong }</c>.
    /// </summary>
    [JSExport]
    public static string PlotRows(string typed, string colour, int fit)
    {
        var points = PlotData.ReadRows(typed, out var wrong);
        var data = new PlotData(Art.Colours.Read(colour), (FitKind)fit, points);
        return Json.Text(json =>
        {
            json.WriteStartObject();
            json.WriteString("text", points.Count > 0 ? data.ToText() : "");
            json.WriteNumber("wrong", wrong);
            json.WriteEndObject();
        });
    }

    /// <summary>The items that were laid down last.</summary>
    [JSExport]
    public static string[] Made() => made;

    /// <summary>A picture as it is shown, as JSON; empty where there is none of that id.</summary>
    [JSExport]
    public static string Picture(int page, string item)
    {
        if (Session.Document<PageDocument>(page).Find(OpId.Parse(item)) is not { Shown: true, Content: PictureContent content })
            return "";
        var shown = content.Shown;
        return Json.Text(json =>
        {
            json.WriteStartObject();
            json.WriteString("asset", shown.Asset);
            json.WriteString("original", content.Original);
            json.WriteNumber("width", shown.Width);
            json.WriteNumber("height", shown.Height);
            json.WriteString("cut", shown.Cut.ToText());
            json.WriteNumber("opacity", (int)Math.Round(shown.Alpha * 100 / 255.0));
            json.WriteNumber("brightness", shown.Tones.Brightness);
            json.WriteNumber("contrast", shown.Tones.Contrast);
            json.WriteNumber("cleared", content.Cleared);
            json.WriteNumber("leaf", content.Leaf);
            Json.Numbers(json, "place", content.OwnPlace(true).Parts);
            json.WriteEndObject();
        });
    }

    /// <summary>The pages of PDF files that are shown on a page, as a JSON array: of each its file, its number, its size in its own measures and where these lie.</summary>
    [JSExport]
    public static string Leaves(int page) =>
        Json.List(
            Session
                .Document<PageDocument>(page)
                .Items.Where(item => item.Shown)
                .Select(item => item.Content)
                .OfType<PictureContent>()
                .Where(content => content.Leaf > 0),
            (json, content) =>
            {
                json.WriteStartObject();
                json.WriteString("asset", content.Shown.Asset);
                json.WriteNumber("leaf", content.Leaf);
                json.WriteNumber("width", content.Shown.Width);
                json.WriteNumber("height", content.Shown.Height);
                Json.Numbers(json, "place", content.OwnPlace(true).Parts);
                json.WriteEndObject();
            }
        );

    /// <summary>Shows another file in a picture's place: as wide as it, and cut no more.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="item">The picture.</param>
    /// <param name="asset">The file.</param>
    /// <param name="across">How many dots that has across; only the proportion counts.</param>
    /// <param name="down">How many down.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] Replace(int page, string item, string asset, int across, int down, double now) =>
        Set(
            page,
            item,
            now,
            content =>
                [
                    new(ItemField.Source, asset),
                    new(ItemField.Original, asset),
                    new(ItemField.Cleared, "0"),
                    new(ItemField.Cut, PictureCut.Whole.ToText()),
                    new(ItemField.Height, Text(Side((int)Math.Round((double)content.Shown.Width * down / across)))),
                ]
        );

    /// <summary>Shows the picture with its paper cleared away, as another file that was made of it; or as it was, where that is its own.</summary>
    [JSExport]
    public static byte[] Clear(int page, string item, string asset, int strength, double now) =>
        Set(
            page,
            item,
            now,
            content =>
                [new(ItemField.Source, asset), new(ItemField.Original, content.Original.ToString()), new(ItemField.Cleared, Text(strength))]
        );

    /// <summary>Shows a picture as it was brought in, as large as it is.</summary>
    [JSExport]
    public static byte[] AsItWas(int page, string item, double now) =>
        Set(
            page,
            item,
            now,
            content =>
                [
                    new(ItemField.Source, content.Original.ToString()),
                    new(ItemField.Cleared, "0"),
                    new(ItemField.Cut, PictureCut.Whole.ToText()),
                    new(ItemField.Opacity, "100"),
                    new(ItemField.Brightness, "0"),
                    new(ItemField.Contrast, "0"),
                ]
        );

    /// <summary>Whether all slips among some items are folded; and whether there are any: “1”, “0”, or empty for none.</summary>
    [JSExport]
    public static string Folded(int page, string[] items) => AllSlips(page, items, slip => slip.IsFolded);

    /// <summary>Folds the slips among some items, with all that lies on them, or unfolds them; framed, one step.</summary>
    [JSExport]
    public static byte[] Fold(int page, string[] items, bool folded, double now)
    {
        var document = Session.Document<PageDocument>(page);
        var changes = Slips(page, items).Where(slip => slip.IsOpen).SelectMany(slip => OnSlips.Fold(document, slip, folded)).ToList();
        return changes.Count > 0 ? Session.PerformAll(page, changes, now, true) : [];
    }

    /// <summary>Whether all slips among some items are pinned; and whether there are any: “1”, “0”, or empty for none.</summary>
    [JSExport]
    public static string Pinned(int page, string[] items) => AllSlips(page, items, slip => slip.IsPinned);

    /// <summary>Pins the slips among some items over what they lie on, or takes their pins out.</summary>
    [JSExport]
    public static byte[] Pin(int page, string[] items, bool pinned, double now) =>
        OnSlips.Pin(Slips(page, items).Where(slip => slip.IsOpen), pinned) is { } change ? Session.Perform(page, change, now) : [];

    private static string AllSlips(int page, string[] items, Predicate<SlipContent> holds)
    {
        var slips = Slips(page, items);
        return slips.Count == 0 ? ""
            : slips.All(slip => holds((SlipContent)slip.Content)) ? "1"
            : "0";
    }

    /// <summary>The pinned slip at a spot of the page; empty where there is none.</summary>
    [JSExport]
    public static string PinnedAt(int page, double x, double y) =>
        OnSlips.PinnedAt(Session.Document<PageDocument>(page), x, y)?.Id.ToString() ?? "";

    /// <summary>The files that a piece names which is to be laid down.</summary>
    [JSExport]
    public static string[] AssetsOf(byte[] piece) => Ids(NamedAssets.In(OperationCodec.Decode(piece)));

    /// <summary>The files that a page names, in whatever it says or ever said.</summary>
    [JSExport]
    public static string[] AssetsIn(int page) => Ids(NamedAssets.In(Session.Document<PageDocument>(page).Operations()));

    private static PaperClearing? clearing;

    /// <summary>Begins to clear the paper in a picture of so many dots: all rows are looked at, that is settled, and all rows are cleared.</summary>
    [JSExport]
    public static void BeginClearing(int across, int down) => clearing = new PaperClearing(across, down);

    /// <summary>Looks at rows, as red, green, blue and alpha.</summary>
    [JSExport]
    public static void LookAt(byte[] dots, int from) => clearing?.Look(dots, from);

    [JSExport]
    public static void Settle() => clearing?.Settle();

    /// <summary>Some rows with their paper cleared away.</summary>
    [JSExport]
    public static byte[] ClearRows(byte[] dots, int from, int strength)
    {
        clearing?.Clear(dots, from, strength);
        return dots;
    }

    private static byte[] Add(int page, IReadOnlyList<Change> changes, double now, ItemValue? joined = null)
    {
        var frames = new List<byte[]>();
        var steps = new List<OpId>();
        foreach (var change in changes)
        {
            frames.Add(Session.Perform(page, change, now));
            steps.Add(Session.Replica.LastId);
        }

        made = [.. steps.Select(step => step.ToString())];
        if (joined is { } value)
        {
            frames.Add(Session.Perform(page, new Change.ItemsSet([.. steps], [value]), now));
            steps.Add(Session.Replica.LastId);
        }

        if (steps.Count > 1)
            frames.Add(Session.Perform(page, new Change.StepsJoined(steps), now));
        return Session.Framed(frames);
    }

    private static byte[] Set(int page, string item, double now, Func<PictureContent, List<ItemValue>> values)
    {
        var id = OpId.Parse(item);
        return Session.Document<PageDocument>(page).Find(id) is { IsOpen: true, Content: PictureContent content }
            ? Session.Perform(page, new Change.ItemsSet([id], values(content)), now)
            : [];
    }

    private static List<PageItem> Slips(int page, string[] items)
    {
        var document = Session.Document<PageDocument>(page);
        return
        [
            .. items
                .Select(id => document.Find(OpId.Parse(id)))
                .OfType<PageItem>()
                .Where(item => item is { Shown: true, Content: SlipContent }),
        ];
    }

    private static string[] Ids(IEnumerable<Guid> ids) => [.. ids.Select(id => id.ToString())];

    private static int Side(int length) => Math.Clamp(length, ThingRules.LeastSide, TextContent.MostMeasure);

    private static string Text(int number) => number.ToString(CultureInfo.InvariantCulture);
}
