using System.Globalization;
using System.Text.Json.Nodes;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Spots;

namespace CalmQuill.Testing.Fuzz;

/// <summary>Values that programs stumble over: signs that are hard to keep, numbers at the edge, things of the wrong kind, and very much of anything.</summary>
/// <param name="random">Chooses.</param>
/// <param name="ids">Ids that mean something here, which say most where they are not expected.</param>
public sealed class Nasties(Random random, IReadOnlyList<Guid> ids)
{
    private static readonly string[] Texts =
    [
        "",
        " ",
        "\0",
        "a\0b",
        "\u0001\u0008\u001b[31m",
        "\r\n",
        "\u2028",
        "\u202Eabc",
        "\u200B",
        "\uFEFF",
        "\uD800",
        "\uDFFF\uD800",
        "é",
        "e\u0301",
        "İı",
        "ﬀ",
        "𝔉𝔞𝔫𝔠𝔶",
        "👩‍👩‍👧‍👦",
        "ㅤ",
        "Z̷͍̏a̵̛͓l̵͠",
        "NULL",
        "null",
        "true",
        "-0",
        "NaN",
        "Infinity",
        "1e999",
        "9223372036854775808",
        "-9223372036854775809",
        "%00",
        "%2e%2e%2f",
        "../../etc/passwd",
        "'; DROP TABLE people; --",
        "\" OR 1=1 --",
        "{{7*7}}",
        "${jndi:x}",
        "<script>alert(1)</script>",
        "=1+1",
        "<?xml version=\"1.0\"?><!DOCTYPE a [<!ENTITY b SYSTEM \"file:///etc/passwd\">]><a>&b;</a>",
        "http://127.0.0.1:1/",
        "webcal://[::1]/",
        "file:///",
        "javascript:alert(1)",
        "a4-ruled-710",
        "A4-RULED-710",
        "a4-dotted-100-around",
        "a4-blank-710-own.",
        "a4-ruled--1",
        "15000x21000-ruled-710",
        "todo",
        "ask",
        "2026-13-45",
        "2026-02-30/2026-01-01",
        "{\"all\":[]}",
        "{\"not\":{\"not\":{\"tag\":\"x\"}}}",
        "[[[[[[[[",
        "V",
        "zzzzzzzz",
        "BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nRRULE:FREQ=SECONDLY\r\nDTSTART:00010101T000000\r\nEND:VEVENT\r\nEND:VCALENDAR",
        "BEGIN:VCALENDAR\r\nEND:VCALENDAR",
        "Europe/Berlin",
        "Etc/Nowhere",
    ];

    private static readonly long[] Numbers =
    [
        0,
        1,
        -1,
        2,
        255,
        256,
        65_535,
        65_536,
        int.MaxValue,
        int.MinValue,
        (long)int.MaxValue + 1,
        long.MaxValue,
        long.MinValue,
        253_402_300_000_000,
        253_402_300_000_001,
        8_640_000_000_000_000,
    ];

    public string Text() =>
        random.Next(10) switch
        {
            0 => new string(Texts[random.Next(Texts.Length)].FirstOrDefault('x'), random.Next(5_000)),
            1 => Id().ToString(random.Next(2) == 0 ? "N" : "D"),
            2 => string.Join(',', Enumerable.Range(0, random.Next(300)).Select(_ => Id())),
            3 => Texts[random.Next(Texts.Length)] + Texts[random.Next(Texts.Length)],
            4 => Number().ToString(CultureInfo.InvariantCulture),
            5 => string.Concat(Enumerable.Range(0, random.Next(40)).Select(_ => (char)random.Next(0x10000))),
            6 => $"{Number()},{Number()},{Number()},{Number()}",
            7 => Texts[random.Next(Texts.Length)].ToUpperInvariant(),
            _ => Texts[random.Next(Texts.Length)],
        };

    public long Number() => random.Next(4) == 0 ? random.NextInt64(-1_000, 1_000) : Numbers[random.Next(Numbers.Length)];

    public Guid Id() =>
        random.Next(6) switch
        {
            0 => Guid.NewGuid(),
            1 => Guid.Empty,
            _ => ids[random.Next(ids.Count)],
        };

    public byte[] Bytes(int most)
    {
        var bytes = new byte[random.Next(most)];
        random.NextBytes(bytes);
        return bytes;
    }

    /// <summary>A form for a type: mostly of the right kinds, sometimes of wrong ones, with fields too many or too few.</summary>
    public JsonNode? Form(Type type)
    {
        if (random.Next(25) == 0)
            return Any(3);
        var form = new JsonObject();
        foreach (var property in type.GetProperties())
        {
            if (random.Next(12) == 0)
                continue;
            var name = char.ToLowerInvariant(property.Name[0]) + property.Name[1..];
            var kind = Nullable.GetUnderlyingType(property.PropertyType) ?? property.PropertyType;
            form[name] =
                random.Next(12) == 0 ? Any(2)
                : kind == typeof(Guid) ? Id().ToString()
                : kind == typeof(bool) ? random.Next(2) == 0
                : kind == typeof(int) ? (int)Math.Clamp(Number(), int.MinValue, int.MaxValue)
                : kind == typeof(long) ? Number()
                : Text();
        }

        return form;
    }

    private JsonNode? Any(int depth) =>
        random.Next(depth > 0 ? 7 : 5) switch
        {
            0 => null,
            1 => random.Next(2) == 0,
            2 => Number(),
            3 => Text(),
            4 => double.MaxValue,
            5 => new JsonArray([.. Enumerable.Range(0, random.Next(4)).Select(_ => Any(depth - 1))]),
            _ => new JsonObject([.. Enumerable.Range(0, random.Next(4)).Select(i => KeyValuePair.Create("field" + i, Any(depth - 1)))]),
        };

    /// <summary>A change of any kind, with nasty values in it.</summary>
    public Change Change() =>
        random.Next(14) switch
        {
            0 => new Change.NodePlaced(Id(), (NodeKind)random.Next(256), Id(), Text()),
            1 => new Change.PropertySet(Id(), (Property)random.Next(256), Short()),
            2 => new Change.PropertySet(Id(), (Property)random.Next(1, 30), Short()),
            3 => new Change.PageAdded(Id(), Short(), Short()),
            4 => new Change.TagSet(Id(), Id(), random.Next(2) == 0),
            5 => new Change.Visited(Id(), Id()),
            6 => new Change.SpotAdded(
                Id(),
                (SpotKind)random.Next(6),
                new Box(Whole(), Whole(), Whole(), Whole()),
                Items(),
                [new SpotValue((SpotField)random.Next(12), Short())]
            ),
            7 => new Change.SpotSet(Id(), [new SpotValue((SpotField)random.Next(12), Short())]),
            8 => new Change.ItemsSet(Items(), [new ItemValue((ItemField)random.Next(12), Short())]),
            9 => new Change.LayerSet(Id(), [new LayerValue((LayerField)random.Next(10), Short())]),
            10 => new Change.ItemsShifted(Items(), Whole(), Whole()),
            11 => new Change.EffectSet(Item(), random.Next(2) == 0),
            12 => new Change.GapsAdded([new StrokeGaps(Item(), [new Interval(Whole(), Whole())])]),
            _ => new Change.StrokeAdded(
                new Pen((PenKind)random.Next(8), random.Next(-5, 5_000), (uint)random.Next()),
                Number(),
                Generate.Wave(random.Next(1, 60), random.Next(-3_000_000, 3_000_000), random.Next(-3_000_000, 3_000_000))
            ),
        };

    private string Short() => Text() is var text && text.Length > 900 ? text[..900] : text;

    private int Whole() => (int)Math.Clamp(Number(), int.MinValue, int.MaxValue);

    private OpId Item() => new((ulong)random.NextInt64(), (ulong)random.Next(1, 100));

    private OpId[] Items() => [.. Enumerable.Range(0, random.Next(4)).Select(_ => Item())];
}
