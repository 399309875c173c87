using System.Text.RegularExpressions;
using System.Xml.Linq;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Writing;
using CalmQuill.Documents.Svg;

namespace CalmQuill.Documents.Tests;

/// <summary>What is more than letters in typed words, in files.</summary>
public sealed class TypedTests : OnPaper
{
    [Fact]
    public void A_box_to_be_ticked_is_empty_in_small_pictures_until_it_is_ticked()
    {
        var text = Write("wind it", new PassageFormat(0, 8, Trait.List, "tick"));
        // A frame: one ring within the other, which runs the other way round.
        var (outer, inner) = Assert.Single(Boxes());
        Assert.True(Area(outer) * Area(inner) < 0 && Math.Abs(Area(inner)) < Math.Abs(Area(outer)));
        var ticked = Page.Find(text)!.Typed.FormatOfParagraphs(0, 0, Trait.Ticked, "1");
        Do(new Change.TextTyped(text, new TextChange([], [], [ticked])));
        Assert.Empty(Boxes());
        Assert.Single(Rings(), rings => rings.Count == 3);
    }

    [Fact]
    public async Task Addresses_lead_on_from_a_pdf_as_they_do_from_the_page()
    {
        Write("see www.example.org, or write to ines@example.org by 4.12.2026");
        Write("the verge", new PassageFormat(0, 9, Trait.Link, "https://example.com/verge"));
        var pdf = await File.ReadAllTextAsync(await Pdf(), System.Text.Encoding.Latin1);
        var links = Regex
            .Matches(pdf, @"/S /URI /URI (?<at><[0-9A-Fa-f]+>|\([^)]*\))")
            .Select(match => Said(match.Groups["at"].Value))
            .Order();
        Assert.Equal(["https://example.com/verge", "https://www.example.org", "mailto:ines@example.org"], links);
    }

    private static string Said(string text) =>
        text[0] == '<' ? System.Text.Encoding.Latin1.GetString(Convert.FromHexString(text[1..^1])) : text[1..^1];

    /// <summary>The paths that are two rings, and nothing else.</summary>
    private IEnumerable<((long X, long Y)[] Outer, (long X, long Y)[] Inner)> Boxes() =>
        Rings().Where(rings => rings.Count == 2).Select(rings => (rings[0], rings[1]));

    private List<List<(long X, long Y)[]>> Rings() =>
        [
            .. XDocument
                .Parse(ThumbnailSvg.WritePart(Printed(), new Box(0, 0, 12_000, 4_000)))
                .Descendants()
                .Where(one => one.Name.LocalName == "path" && one.Attribute("fill") is { Value: not "none" })
                .Select(path =>
                    path.Attribute("d")!
                        .Value.Split('Z', StringSplitOptions.RemoveEmptyEntries)
                        .Where(ring => Regex.IsMatch(ring, "^M[0-9L -]+$"))
                        .Select(ring =>
                            ring[1..]
                                .Split('L')
                                .Select(point => point.Split(' '))
                                .Select(point =>
                                    (
                                        long.Parse(point[0], System.Globalization.CultureInfo.InvariantCulture),
                                        long.Parse(point[1], System.Globalization.CultureInfo.InvariantCulture)
                                    )
                                )
                                .ToArray()
                        )
                        .ToList()
                ),
        ];

    /// <summary>Twice the area of a ring, with the sign that says which way round it runs.</summary>
    private static long Area((long X, long Y)[] ring) =>
        ring.Select((at, i) => (at, Next: ring[(i + 1) % ring.Length])).Sum(pair => pair.at.X * pair.Next.Y - pair.Next.X * pair.at.Y);

    private OpId Write(string words, params PassageFormat[] formats) =>
        Do(new Change.TextAdded(Transform.Shift(2_000, 3_000), 9_000, 0, new Passage(words, formats), [])).Id;

    private Operation Do(Change change)
    {
        var operation = Device.Make(change, 1_700_000_000_000 + Page.OperationCount);
        Page.Apply(operation);
        return operation;
    }
}
