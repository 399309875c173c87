using System.Globalization;
using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Spots;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: the marks, links, headings and curtains of a page.</summary>
public static partial class SpotBridge
{
    /// <summary>Scales and moves everything on the page: what a change of paper does when sizes differ.</summary>
    [JSExport]
    public static byte[] Fit(int page, double factor, int dx, int dy, double now) => DoToAll(page, Transform.Scale(factor, dx, dy), now);

    /// <summary>Turns everything on the page by a quarter to the right, about a sheet of a height.</summary>
    [JSExport]
    public static byte[] Turn(int page, int height, double now) =>
        DoToAll(page, new Transform(0, Transform.One, -Transform.One, 0, height, 0), now);

    /// <summary>The marks, links and headings of a page, as a JSON array.</summary>
    [JSExport]
    public static string Spots(int page)
    {
        var document = ((OpenPage)Session.Document(page)).Seen;
        return Json.List([.. document.Spots(), .. PageTasks.Of(document)], (json, spot) => Write(json, spot, document.Guarding));
    }

    /// <summary>Makes a mark (1), link (2) or heading (3) on an area and, where given, on items.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="spot">Its id.</param>
    /// <param name="kind">What it is.</param>
    /// <param name="area">Left, top, right, bottom.</param>
    /// <param name="items">The ink it is put on.</param>
    /// <param name="fields">Numbers of fields.</param>
    /// <param name="values">What is written into them, in the same order.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] Add(int page, string spot, int kind, int[] area, string[] items, int[] fields, string[] values, double now) =>
        Session.Perform(
            page,
            new Change.SpotAdded(
                Guid.Parse(spot),
                (SpotKind)kind,
                new Box(area[0], area[1], area[2], area[3]),
                [.. items.Select(OpId.Parse)],
                Values(fields, values)
            ),
            now
        );

    [JSExport]
    public static byte[] Set(int page, string spot, int[] fields, string[] values, double now)
    {
        var (document, id, said) = (Session.Document<PageDocument>(page), Guid.Parse(spot), Values(fields, values));
        // A box among typed words is ticked where it stands; nothing else is said of it.
        if (AssetId.IsOfContent(id) && PageTasks.Of(document).FirstOrDefault(one => one.Id == id) is { Task: { } place })
            return
                said.FirstOrDefault(value => value.Field == SpotField.Done) is { } done
                && PageTasks.Tick(document, place, done.Value.Length > 0) is { } tick
                ? Session.Perform(page, tick, now)
                : [];
        return Session.Perform(page, new Change.SpotSet(id, said), now);
    }

    /// <summary>Moves a spot that lies on no ink.</summary>
    [JSExport]
    public static byte[] Move(int page, string spot, int dx, int dy, double now) =>
        Session.Perform(page, new Change.ItemsTransformed([], [Guid.Parse(spot)], Transform.Shift(dx, dy)), now);

    /// <summary>The ink within an area as a render packet, for a cut-out picture; of a spot that was put on ink only that ink, without its neighbours.</summary>
    [JSExport]
    public static byte[] Cut(int page, int[] area, string spot)
    {
        var document = Session.Document<PageDocument>(page);
        var box = new Box(area[0], area[1], area[2], area[3]);
        var own = document.Spots().FirstOrDefault(one => one.Id.ToString() == spot)?.Items.ToHashSet() ?? [];
        return RenderPacket.Of(
            [.. document.Items.Where(item => item.Shown && (own.Count > 0 ? own.Contains(item.Id) : item.Bounds.Meets(box)))],
            item => item.Visible()
        );
    }

    private static byte[] DoToAll(int page, Transform transform, double now)
    {
        var document = Session.Document<PageDocument>(page);
        OpId[] items = [.. document.Items.Where(item => item.Shown).Select(item => item.Id)];
        Guid[] spots = [.. document.Spots().Select(spot => spot.Id)];
        return items.Length + spots.Length == 0 ? [] : Session.Perform(page, new Change.ItemsTransformed(items, spots, transform), now);
    }

    private static SpotValue[] Values(int[] fields, string[] values) =>
        [.. fields.Select((field, i) => new SpotValue((SpotField)field, values[i]))];

    private static void Write(Utf8JsonWriter json, Spot spot, Guarding guarding)
    {
        json.WriteStartObject();
        json.WriteString("id", spot.Id);
        json.WriteString("kind", spot.Kind.ToString().ToLowerInvariant());
        json.WritePropertyName("area");
        PaperBridge.WriteBox(json, spot.Area);
        json.WriteStartArray("items");
        foreach (var item in spot.Items)
            json.WriteStringValue(item.ToString());
        json.WriteEndArray();
        foreach (var (field, value) in spot.Values)
            json.WriteString(CultureInfo.InvariantCulture.TextInfo.ToLower(field.ToString()), value);
        json.WriteNumber("createdAt", spot.CreatedAt);
        json.WriteString("author", spot.Author);
        json.WriteBoolean("open", spot.IsOpen);
        json.WriteBoolean("answered", spot.IsAnswered);
        if (spot.Task is not null)
            json.WriteBoolean("typed", true);
        json.WriteStartArray("answers");
        foreach (var answer in spot.Answers)
        {
            json.WriteStartObject();
            json.WriteString("id", answer.Id.ToString());
            json.WriteString("author", answer.Author);
            json.WriteNumber("at", answer.At);
            json.WriteString("text", answer.Text);
            json.WriteBoolean("inked", answer.Ink.Length > 0);
            json.WriteBoolean("open", guarding.May(answer.Author));
            json.WriteEndObject();
        }

        json.WriteEndArray();
        if (spot.DoneAt is { } at)
        {
            json.WriteNumber("doneAt", at);
            json.WriteString("doneBy", spot.DoneBy);
        }

        json.WriteEndObject();
    }
}
