using System.Globalization;
using System.IO.Compression;
using System.Text;
using CalmQuill.Core.Pictures;
using UglyToad.PdfPig.Tokens;

namespace CalmQuill.Documents.Pdf;

/// <summary>Where something of a leaf leads.</summary>
/// <param name="Area">Left, top, right, bottom, as shares of the leaf as it is shown, from its upper left corner.</param>
/// <param name="Address">An address of the web or of mail; null where it leads to a page of its own file.</param>
/// <param name="Page">That page, from 1; 0 for none.</param>
internal sealed record LeafLink((double Left, double Top, double Right, double Bottom) Area, string? Address, int Page);

/// <summary>
/// Pages of other PDF files as form XObjects (ISO 32000-1 §8.10): what is drawn on them as it was drawn, fonts and vectors with it, on white, in a space one
/// unit wide and high as pictures have. Each is put in once.
/// </summary>
internal sealed class PdfLeaves(PdfFile file) : IDisposable
{
    /// <summary>Flags of annotations that are not shown (§12.5.3): invisible, hidden, not viewed.</summary>
    private const int NotShown = 1 | 2 | 32;

    /// <summary>So many annotations of one page are looked at.</summary>
    private const int MostAnnotations = 5_000;

    private readonly Dictionary<Guid, Source?> sources = [];
    private readonly Dictionary<(Guid Asset, int Leaf), int?> put = [];

    private sealed record Source(PdfSource File, PdfCopy Copy);

    /// <summary>The number of the object that is a leaf; null where its file is not there or cannot be read.</summary>
    public int? Of(PrintedPage page, PictureLook leaf)
    {
        var key = (leaf.Asset, leaf.Leaf);
        if (!put.TryGetValue(key, out var number))
            put[key] = number = PdfSource.Tried(() =>
                SourceOf(page, leaf.Asset) is { } source && source.File[leaf.Leaf] is { } one ? Put(source, one) : (int?)null
            );
        return number;
    }

    /// <summary>Where a leaf's links lead.</summary>
    public IReadOnlyList<LeafLink> LinksOf(PrintedPage page, PictureLook leaf) =>
        PdfSource.Tried(() => SourceOf(page, leaf.Asset) is { } source && source.File[leaf.Leaf] is { } one ? Links(source.File, one) : [])
        ?? [];

    public void Dispose()
    {
        foreach (var source in sources.Values)
            source?.File.Dispose();
    }

    private Source? SourceOf(PrintedPage page, Guid asset)
    {
        if (!sources.TryGetValue(asset, out var source))
            sources[asset] = source =
                page.Pictures.TryGetValue(asset, out var bytes) && PdfSource.Open(bytes) is { } read
                    ? new Source(read, new PdfCopy(read, file))
                    : null;
        return source;
    }

    private int Put(Source source, PdfSource.Page page)
    {
        var (left, bottom, right, top) = page.Seen;
        var box = Numbers(left, bottom, right, top);
        var drawn = new StringBuilder();
        drawn.Append(CultureInfo.InvariantCulture, $"q 1 1 1 rg {Numbers(left, bottom, right - left, top - bottom)} re f Q\n");
        var used = new StringBuilder();
        if (Content(source, page, box) is { } content)
        {
            drawn.Append("q /Page Do Q\n");
            used.Append(CultureInfo.InvariantCulture, $"/Page {content} 0 R ");
        }

        var shown = 0;
        foreach (var annotation in Annotations(source.File, page))
        {
            if (Appearance(source, annotation) is not var (number, place))
                continue;
            drawn.Append(CultureInfo.InvariantCulture, $"q {place} cm /Note{shown} Do Q\n");
            used.Append(CultureInfo.InvariantCulture, $"/Note{shown++} {number} 0 R ");
        }

        // What it refers to must come along while it can be read.
        source.Copy.Finish();
        return file.AddStream(
            Encoding.ASCII.GetBytes(drawn.ToString()),
            $"/Type /XObject /Subtype /Form /BBox [{box}] /Matrix [{Numbers([.. ToUnit(page)])}] /Group << /S /Transparency >> /Resources << /XObject << {used}>> >>",
            CompressionLevel.Optimal
        );
    }

    /// <summary>What a page draws, as a form; null where that is nothing.</summary>
    private int? Content(Source source, PdfSource.Page page, string box)
    {
        var entries = new[]
        {
            ("Type", "/XObject"),
            ("Subtype", "/Form"),
            ("BBox", $"[{box}]"),
            ("Resources", source.Copy.Text(page.Resources)),
        };
        if (page.Own.TryGet(NameToken.Create("Group"), out var group))
            entries = [.. entries, ("Group", source.Copy.Text(group))];
        if (source.File.Read<StreamToken>(page.Own, "Contents") is { } whole)
            return source.Copy.Put(whole, entries);
        if (source.File.Read<ArrayToken>(page.Own, "Contents") is not { } parts)
            return null;
        // The parts of one content are parted where a token ends (§7.8.2).
        using var joined = new MemoryStream();
        foreach (var part in parts.Data)
        {
            if (source.File.Resolved(part) is not StreamToken stream)
                continue;
            joined.Write(source.File.Decoded(stream));
            joined.WriteByte((byte)'\n');
            if (joined.Length > PdfExport.MostBytes)
                throw new PrintBudgetException($"This is too much for one file. Export fewer pages at once.");
        }

        return file.AddStream(
            joined.ToArray(),
            string.Join(' ', entries.Select(entry => $"/{entry.Item1} {entry.Item2}")),
            CompressionLevel.Optimal
        );
    }

    /// <summary>From a page's points to one unit, as it is shown: turned to the right, its foot at 0.</summary>
    private static double[] ToUnit(PdfSource.Page page)
    {
        var (left, bottom, right, top) = page.Seen;
        double wide = right - left,
            high = top - bottom;
        return page.Quarters switch
        {
            0 => [1 / wide, 0, 0, 1 / high, -left / wide, -bottom / high],
            1 => [0, -1 / wide, 1 / high, 0, -bottom / high, 1 + left / wide],
            2 => [-1 / wide, 0, 0, -1 / high, 1 + left / wide, 1 + bottom / high],
            _ => [0, 1 / wide, -1 / high, 0, 1 + bottom / high, -left / wide],
        };
    }

    private static IEnumerable<DictionaryToken> Annotations(PdfSource file, PdfSource.Page page)
    {
        var all = file.Read<ArrayToken>(page.Own, "Annots");
        return (all?.Data ?? [])
            .Take(MostAnnotations)
            .Select(file.Resolved)
            .OfType<DictionaryToken>()
            .Where(annotation => ((int)(file.Number(annotation, "F") ?? 0) & NotShown) == 0);
    }

    /// <summary>What an annotation looks like, as a form, and where that lies on the page (§12.5.5, algorithm 8.1); null where it looks like nothing.</summary>
    private static (int Number, string Place)? Appearance(Source source, DictionaryToken annotation)
    {
        var file = source.File;
        if (
            file.Read<NameToken>(annotation, "Subtype")?.Data is "Popup" or "Link"
            || file.Read<DictionaryToken>(annotation, "AP") is not { } looks
            || file.Numbers(annotation, "Rect", 4) is not { } rect
            || !looks.TryGet(NameToken.Create("N"), out var normal)
        )
            return null;
        var look = file.Resolved(normal);
        if (look is DictionaryToken states && file.Read<NameToken>(annotation, "AS") is { } state)
            look = states.TryGet(state, out var one) ? file.Resolved(one) : null;
        if (look is not StreamToken form || file.Numbers(form.StreamDictionary, "BBox", 4) is not { } box)
            return null;
        var matrix = file.Numbers(form.StreamDictionary, "Matrix", 6) ?? [1, 0, 0, 1, 0, 0];
        double[] xs = [.. Corners(box).Select(at => matrix[0] * at.X + matrix[2] * at.Y + matrix[4])],
            ys = [.. Corners(box).Select(at => matrix[1] * at.X + matrix[3] * at.Y + matrix[5])];
        double wide = xs.Max() - xs.Min(),
            high = ys.Max() - ys.Min();
        if (wide <= 0 || high <= 0)
            return null;
        double left = Math.Min(rect[0], rect[2]),
            bottom = Math.Min(rect[1], rect[3]),
            across = Math.Abs(rect[2] - rect[0]) / wide,
            up = Math.Abs(rect[3] - rect[1]) / high;
        var place = Numbers(across, 0, 0, up, left - xs.Min() * across, bottom - ys.Min() * up);
        return (source.Copy.Put(form, ("Type", "/XObject"), ("Subtype", "/Form")), place);
    }

    private static (double X, double Y)[] Corners(double[] box) => [(box[0], box[1]), (box[2], box[1]), (box[2], box[3]), (box[0], box[3])];

    private static List<LeafLink> Links(PdfSource file, PdfSource.Page page)
    {
        var links = new List<LeafLink>();
        var unit = ToUnit(page);
        foreach (var annotation in Annotations(file, page))
        {
            if (file.Read<NameToken>(annotation, "Subtype")?.Data != "Link" || file.Numbers(annotation, "Rect", 4) is not { } rect)
                continue;
            var (address, number) = Target(file, annotation);
            if (address is null && number == 0)
                continue;
            double[] xs = [.. Corners(rect).Select(at => unit[0] * at.X + unit[2] * at.Y + unit[4])],
                ys = [.. Corners(rect).Select(at => unit[1] * at.X + unit[3] * at.Y + unit[5])];
            links.Add(new LeafLink((xs.Min(), 1 - ys.Max(), xs.Max(), 1 - ys.Min()), address, number));
        }

        return links;
    }

    /// <summary>Where a link leads: an address that may stand in a file, or a page of its own.</summary>
    private static (string? Address, int Page) Target(PdfSource file, DictionaryToken annotation)
    {
        var action = file.Read<DictionaryToken>(annotation, "A");
        if (action is not null && file.Read<NameToken>(action, "S")?.Data == "URI")
        {
            var said = action.TryGet(NameToken.Create("URI"), out var uri) ? file.Resolved(uri) : null;
            var address = said switch
            {
                StringToken plain => plain.Data,
                HexToken hex => hex.Data,
                _ => "",
            };
            return Uri.TryCreate(address, UriKind.Absolute, out var read) && read.Scheme is "http" or "https" or "mailto"
                ? (read.AbsoluteUri, 0)
                : (null, 0);
        }

        IToken? destination = null;
        if (action is not null && file.Read<NameToken>(action, "S")?.Data == "GoTo")
            action.TryGet(NameToken.Create("D"), out destination);
        else if (action is null)
            annotation.TryGet(NameToken.Create("Dest"), out destination);
        return (null, file.PageOf(destination));
    }

    private static string Numbers(params double[] numbers) =>
        string.Join(' ', numbers.Select(number => number.ToString("0.##########", CultureInfo.InvariantCulture)));
}
