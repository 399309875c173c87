using System.Globalization;
using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Spots;
using CalmQuill.Core.Typesetting;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: typing into texts on a page. Positions count UTF-16 code units, lengths are 0.01 mm.</summary>
public static partial class TextBridge
{
    private static readonly Trait[] Traits = [.. Enum.GetValues<Trait>().Where(trait => !trait.IsOfTables())];

    /// <summary>What a press at a spot means to type into: the foremost text, slip, cell or words under a picture; empty for none.</summary>
    [JSExport]
    public static string At(int page, double x, double y, double reach)
    {
        var all = Session.Document<PageDocument>(page).Items;
        for (var i = all.Count - 1; i >= 0; i--)
        {
            var item = all[i];
            if (item.IsOpen && item.Content is WrittenContent text && item.Visible().Count > 0 && text.IsTypedAt(x, y, reach))
                return TypingHand.NameOf(item.Id, text.RoomAt(x, y).Name);
        }

        return "";
    }

    /// <summary>The box to be ticked at a spot, of a text that may be changed: its text and the first letter of its paragraph; empty for none.</summary>
    [JSExport]
    public static string TickAt(int page, double x, double y)
    {
        foreach (var item in Session.Document<PageDocument>(page).Items.Reverse().Where(item => item.IsOpen))
        {
            if (item.Content is WrittenContent { ShowsLetters: true } text && text.RoomAt(x, y).TickAt(x, y) is { } start)
                return string.Create(CultureInfo.InvariantCulture, $"{item.Id} {start}");
        }

        return "";
    }

    /// <summary>Ticks a box, or clears it again.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="tick">What <see cref="TickAt"/> says.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] Tick(int page, string tick, double now)
    {
        var parts = tick.Split(' ');
        var (id, start) = (OpId.Parse(parts[0]), int.Parse(parts[1], CultureInfo.InvariantCulture));
        var document = Session.Document<PageDocument>(page);
        var text = ((WrittenContent)document.Find(id)!.Content).Typed;
        var isTicked = text.Paragraphs().First(one => one.Start == start).Look[Trait.Ticked].Length > 0;
        return PageTasks.Tick(document, new TaskPlace(id, text.At(start)), !isTicked) is { } change
            ? Session.Perform(page, change, now)
            : [];
    }

    /// <summary>
    /// The line of the paper on which a text stands that is begun at a spot: how far down it is, how far apart lines are (0 for none), and where it ends.
    /// </summary>
    [JSExport]
    public static int[] RowAt(int page, string paper, double x, double y)
    {
        var on = Paper.ParseOrDefault(paper);
        var sheet = on.Sheet(Session.Document<PageDocument>(page).Bounds());
        var row = PaperRows.At(on.Draw(sheet), sheet, (int)Math.Round(x), (int)Math.Round(y));
        return [row.Foot, row.Pitch, row.Right];
    }

    /// <summary>Lays an empty text down and begins to type into it; <see cref="Typing"/> says its id.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="x">Where its first line begins.</param>
    /// <param name="y">Where that stands.</param>
    /// <param name="width">How long its lines are.</param>
    /// <param name="ruling">How far apart the paper's lines are that it stands on; 0 for free spacing.</param>
    /// <param name="looks">How it is to look, by the names of traits, as JSON.</param>
    /// <param name="layer">The layer; empty for the first.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] Add(int page, int x, int y, int width, int ruling, string looks, string layer, double now) =>
        Begin(
            page,
            looks,
            (formats, values) =>
                new Change.TextAdded(
                    Transform.Shift(x, y),
                    Math.Clamp(width, TextContent.LeastMeasure, TextContent.MostMeasure),
                    ruling,
                    new Passage("", formats),
                    values
                )
                {
                    Layer = Session.LayerOf(layer),
                },
            now
        );

    /// <summary>Lays an empty text down and begins to type into it.</summary>
    internal static byte[] Begin(
        int page,
        string looks,
        Func<IReadOnlyList<PassageFormat>, IReadOnlyList<ItemValue>, Change.TextAdded> added,
        double now
    )
    {
        using var json = JsonDocument.Parse(looks);
        var formats = new List<PassageFormat>();
        var values = new List<ItemValue>();
        foreach (var look in json.RootElement.EnumerateObject())
        {
            var value = look.Value.GetString() ?? "";
            if (value.Length == 0)
                continue;
            if (look.Name == "colour")
                values.Add(new ItemValue(ItemField.Colour, value));
            else if (Named(look.Name) is var trait && trait.IsOfParagraphs())
                formats.Add(new PassageFormat(0, 1, trait, value));
        }

        var bytes = Session.Perform(page, added(formats, values), now);
        var made = Session.Replica.LastId;
        var hand = new TypingHand(Session.Document<PageDocument>(page), made, "", made);
        On(page).Typing = hand;
        foreach (var look in json.RootElement.EnumerateObject().Where(look => look.Name != "colour" && !Named(look.Name).IsOfParagraphs()))
            hand.Do(0, 0, (typist, from, to) => Format(typist, from, to, Named(look.Name), look.Value.GetString() ?? ""));
        return bytes;
    }

    /// <summary>Begins to type into a text.</summary>
    [JSExport]
    public static void Open(int page, string item) => On(page).Typing = TypingHand.At(Session.Document<PageDocument>(page), item);

    /// <summary>Nobody types any more; what was typed must have been taken by <see cref="End"/>.</summary>
    [JSExport]
    public static void Close(int page) => On(page).Typing = null;

    /// <summary>The text that is being typed into; empty where there is none any more.</summary>
    [JSExport]
    public static string Typing(int page) => On(page).Typing is { IsThere: true } hand ? hand.Name : "";

    /// <summary>Where a press sets the caret.</summary>
    [JSExport]
    public static int LetterAt(int page, double x, double y) => Hand(page).Room.LetterAt(x, y);

    /// <summary>
    /// The text that is typed into, and the letters before which the selection begins and ends, by names that stay theirs: what others are told. Empty
    /// where others do not know them yet.
    /// </summary>
    [JSExport]
    public static string[] Caret(int page) => On(page).Typing is { IsThere: true } hand ? hand.Caret() : [];

    /// <summary>
    /// Where somebody else's caret stands: x and y of its upper and its lower end, and then the four corners of what they have selected, line by
    /// line; 0.01 mm. Empty where their text, or a letter of it, is not here.
    /// </summary>
    [JSExport]
    public static double[] CaretOf(int page, string item, string from, string to)
    {
        var (id, name) = TypingHand.Read(item);
        if (Session.Document<PageDocument>(page).Find(id) is not { Shown: true, Content: WrittenContent text })
            return [];
        if (text.RoomBy(name) is not { } room)
            return [];
        if (text.Typed.PositionOf(LetterId.Parse(from)) is not { } first || text.Typed.PositionOf(LetterId.Parse(to)) is not { } last)
            return [];
        var (top, foot) = room.CaretAt(last);
        return
        [
            top.X,
            top.Y,
            foot.X,
            foot.Y,
            .. room.Behind(first, last).SelectMany(corners => corners).SelectMany(corner => new[] { corner.X, corner.Y }),
        ];
    }

    /// <summary>The letters from one to another.</summary>
    [JSExport]
    public static string Text(int page, int from, int to) => Hand(page).Text.Text[from..to];

    /// <summary>So much is selected.</summary>
    [JSExport]
    public static void Select(int page, int from, int to) => Hand(page).Select(from, to);

    /// <summary>Types letters in place of what is selected.</summary>
    [JSExport]
    public static void Type(int page, int from, int to, string letters) =>
        Hand(page).Do(from, to, (typist, from, to) => typist.Type(from, to, Clean(letters)));

    /// <summary>Lays a passage down in place of what is selected.</summary>
    /// <param name="page">Handle of the page.</param>
    /// <param name="from">The first letter that is selected.</param>
    /// <param name="to">Behind the last one.</param>
    /// <param name="passage"><c>{ text, looks: [{ from, to, trait, value }] }</c>.</param>
    [JSExport]
    public static void Paste(int page, int from, int to, string passage)
    {
        using var json = JsonDocument.Parse(passage);
        var laid = new Passage(
            Clean(json.RootElement.GetProperty("text").GetString() ?? ""),
            [
                .. json
                    .RootElement.GetProperty("looks")
                    .EnumerateArray()
                    .Select(look => new PassageFormat(
                        look.GetProperty("from").GetInt32(),
                        look.GetProperty("to").GetInt32(),
                        Named(look.GetProperty("trait").GetString()!),
                        look.GetProperty("value").GetString()!
                    )),
            ]
        );
        if (WritingRules.Check(laid) is { } refusal)
            throw new SentenceException(refusal.Sentence);
        Hand(page).Do(from, to, (typist, from, to) => typist.Paste(from, to, laid));
    }

    [JSExport]
    public static void Enter(int page, int from, int to) => Hand(page).Do(from, to, (typist, from, to) => typist.Enter(from, to));

    /// <summary>What the key that removes backwards does of its own; false where it just removes.</summary>
    [JSExport]
    public static bool Back(int page, int at)
    {
        var isDone = false;
        Hand(page)
            .Do(
                at,
                at,
                (typist, at, _) =>
                {
                    isDone = typist.Back(at);
                    return isDone ? at : null;
                }
            );
        return isDone;
    }

    [JSExport]
    public static void Tab(int page, int from, int to, int by) => Hand(page).Do(from, to, (typist, from, to) => typist.Tab(from, to, by));

    /// <summary>Makes what is selected look otherwise, in a trait by its name.</summary>
    [JSExport]
    public static void Format(int page, int from, int to, string trait, string value) =>
        Hand(page).Do(from, to, (typist, from, to) => Format(typist, from, to, Named(trait), value));

    /// <summary>Makes the lines of the text that is typed into so long.</summary>
    [JSExport]
    public static byte[] SetMeasure(int page, int lines, double now) =>
        On(page).Typing is { IsThere: true } hand && hand.Content.MeasureFor(lines) is { } measure
            ? Session.Perform(
                page,
                new Change.ItemsSet(
                    [hand.Item],
                    [
                        new ItemValue(
                            ItemField.Measure,
                            Math.Clamp(measure, TextContent.LeastMeasure, TextContent.MostMeasure).ToString(CultureInfo.InvariantCulture)
                        ),
                    ]
                ),
                now
            )
            : [];

    /// <summary>What was typed since the last call, as operations: framed, none where there is nothing.</summary>
    [JSExport]
    public static byte[] End(int page, double now) => On(page).Typing?.End(page, now) ?? [];

    /// <summary>What is being typed and is no operation yet, to be kept ahead: a batch of one that stands for it; empty for nothing.</summary>
    [JSExport]
    public static byte[] Ahead(int page) =>
        On(page).Typing?.Pending is { } pending ? OperationCodec.Encode(new Operation(new OpId(0, 1), default, Guid.Empty, pending)) : [];

    /// <summary>Makes what <see cref="Ahead"/> kept an operation.</summary>
    [JSExport]
    public static byte[] Finish(int page, byte[] ahead, double now) =>
        Session.Perform(page, OperationCodec.Decode(ahead).Single().Change, now);

    /// <summary>What stands of each trait where something is selected, by their names, as JSON; null for what is not the same throughout.</summary>
    [JSExport]
    public static string Looks(int page, int from, int to)
    {
        var standing = Hand(page).Standing(from, to);
        return Json.Text(json =>
        {
            json.WriteStartObject();
            foreach (var trait in Traits)
            {
                json.WritePropertyName(NameOf(trait));
                if (standing(trait) is { } value)
                    json.WriteStringValue(value);
                else
                    json.WriteNullValue();
            }

            json.WriteEndObject();
        });
    }

    /// <summary>
    /// The text as it is set, and what is selected, as JSON. Of paragraphs that were told before only where they are; the others with their lines,
    /// and the letters of those in the order in which they are read. Those at the beginning that are where they were, and those at the end that all moved
    /// alike, are only counted: <c>head</c> and <c>tail</c>, and how far the latter moved, <c>startBy</c> and <c>yBy</c>.
    /// </summary>
    [JSExport]
    public static string Told(int page)
    {
        var hand = Hand(page);
        var (content, room) = (hand.Content, hand.Room);
        var (from, to) = hand.Selection;
        return Json.Text(json =>
        {
            json.WriteStartObject();
            Json.Numbers(json, "place", room.Place.Parts);
            json.WriteNumber("measure", room.Measure);
            json.WriteString("cell", room.Name);
            json.WriteNumber("edition", content is TableContent table ? table.Layout.Edition : 0);
            json.WriteBoolean("hasEdge", content.MeasureFor(content.Measure) is not null);
            var box = room.Box;
            json.WriteStartArray("box");
            foreach (var edge in new[] { box.Left, box.Top, box.Right, box.Bottom })
                json.WriteNumberValue(edge);
            json.WriteEndArray();
            json.WriteNumber("from", from);
            json.WriteNumber("to", to);
            json.WriteNumber("length", hand.Text.Length);
            var (now, before) = (room.Set.Paragraphs, hand.Told);
            var (head, tail) = SetText.SameParagraphs(before, now);
            json.WriteNumber("head", head);
            json.WriteNumber("tail", tail);
            json.WriteNumber("startBy", tail > 0 ? now[^1].Start - before[^1].Start : 0);
            json.WriteNumber("yBy", tail > 0 ? (now[^1].Y - before[^1].Y) / (double)Lengths.PerUnit : 0);
            var known = before.Skip(head).Take(before.Count - head - tail).Select(one => LetterPacket.NumberOf(one.Paragraph)).ToHashSet();
            json.WriteStartArray("paragraphs");
            foreach (var (paragraph, start, y) in now.Skip(head).Take(now.Count - head - tail))
                Write(json, known, paragraph, start, y);
            json.WriteEndArray();
            json.WriteEndObject();
            hand.Told = now;
        });
    }

    private static void Write(Utf8JsonWriter json, HashSet<uint> known, SetParagraph paragraph, int start, int y)
    {
        var number = LetterPacket.NumberOf(paragraph);
        json.WriteStartObject();
        json.WriteNumber("id", number);
        json.WriteNumber("start", start);
        json.WriteNumber("y", y / (double)Lengths.PerUnit);
        if (known.Add(number))
        {
            json.WriteStartArray("lines");
            foreach (var line in paragraph.Lines)
                Write(json, line);
            json.WriteEndArray();
        }

        json.WriteEndObject();
    }

    private static void Write(Utf8JsonWriter json, SetLine line)
    {
        json.WriteStartObject();
        json.WriteNumber("start", line.Start);
        json.WriteNumber("end", line.End);
        json.WriteNumber("x", line.Left / (double)Lengths.PerUnit);
        json.WriteNumber("y", line.Y / (double)Lengths.PerUnit);
        json.WriteNumber("width", line.Width / (double)Lengths.PerUnit);
        json.WriteNumber("ascent", line.Ascent / (double)Lengths.PerUnit);
        json.WriteNumber("descent", line.Descent / (double)Lengths.PerUnit);
        json.WriteNumber("stretch", line.Stretch / (double)Lengths.PerUnit);
        json.WriteBoolean("fromRight", line.FromRight);
        json.WriteStartArray("spans");
        foreach (var piece in line.Pieces.OrderBy(piece => piece.Start))
        {
            json.WriteStartObject();
            json.WriteString("text", piece.Shape.Text);
            json.WriteString("family", piece.Style.Family);
            json.WriteNumber("size", Lengths.OfType(piece.Style.OwnSize) / (double)Lengths.PerUnit);
            json.WriteBoolean("bold", piece.Style.Bold);
            json.WriteBoolean("italic", piece.Style.Italic);
            json.WriteNumber("rise", piece.Style.Rise / (double)Lengths.PerUnit);
            json.WriteNumber("width", piece.Width / (double)Lengths.PerUnit);
            json.WriteEndObject();
        }

        json.WriteEndArray();
        json.WriteEndObject();
    }

    private static int? Format(Typist typist, int from, int to, Trait trait, string value)
    {
        typist.Format(from, to, trait, value);
        return null;
    }

    /// <summary>Letters as a text may hold them: no control characters but lines and tabs.</summary>
    internal static string Clean(string letters) =>
        new([.. letters.ReplaceLineEndings("\n").Where(letter => letter is '\n' or '\t' || !char.IsControl(letter))]);

    private static TypingHand Hand(int page) =>
        On(page).Typing is { IsThere: true } hand ? hand : throw new SentenceException($"This text is not there any more.");

    private static OpenPage On(int page) => (OpenPage)Session.Document(page);

    internal static Trait Named(string name) => Enum.Parse<Trait>(name, true);

    private static string NameOf(Trait trait) => JsonNamingPolicy.CamelCase.ConvertName(trait.ToString());
}
