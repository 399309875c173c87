using System.Runtime.InteropServices.JavaScript;
using CalmQuill.Core.Bringing;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Browser;

/// <summary>Exported to script: the pages of files that are brought in, first as they will be and then into a notebook. Lengths are 0.01 mm.</summary>
public static partial class BringBridge
{
    /// <summary>Of a leaf its page (0 for a picture), width, height (points, or dots of a picture), and by how many quarters it is turned.</summary>
    private const int Measures = 4;

    private static IReadOnlyList<LaidSheet> sheets = [];
    private static Chapters chapters = new([], [], []);
    private static BroughtPages? brought;

    /// <summary>Lays leaves on sheets, as JSON: of each sheet its paper, its size, its title, in how many sections it lies, and its leaves.</summary>
    /// <param name="assets">The file of each leaf.</param>
    /// <param name="measures">Of each leaf four numbers, see <see cref="Measures"/>.</param>
    /// <param name="laying">Number of a <see cref="Laying"/>.</param>
    /// <param name="levels">How deep each bookmark lies.</param>
    /// <param name="titles">What each is called.</param>
    /// <param name="leads">To which leaf each leads, counted from 0.</param>
    [JSExport]
    public static string Lay(string[] assets, double[] measures, int laying, int[] levels, string[] titles, int[] leads)
    {
        var leaves = assets
            .Select(
                (asset, i) =>
                {
                    var (number, width, height, turn) = (
                        (int)measures[Measures * i],
                        measures[Measures * i + 1],
                        measures[Measures * i + 2],
                        (int)measures[Measures * i + 3]
                    );
                    var id = Guid.Parse(asset);
                    return number > 0 ? Leaf.OfPage(id, number, width, height, turn) : Leaf.OfPicture(id, width, height, turn);
                }
            )
            .ToList();
        sheets = Imposition.Of(leaves, (Laying)laying);
        var sheetOf = sheets.SelectMany((sheet, i) => Enumerable.Repeat(i, sheet.Leaves.Count)).ToList();
        chapters = Chapters.Of(
            [.. levels.Select((level, i) => new Bookmark(level, titles[i], leads[i] < sheetOf.Count ? sheetOf[leads[i]] : sheets.Count))],
            sheets.Count
        );
        var first = 0;
        return Json.List(
            sheets.Select((sheet, i) => (Sheet: sheet, Index: i)),
            (json, one) =>
            {
                json.WriteStartObject();
                json.WriteString("paper", one.Sheet.Paper.ToString());
                json.WriteNumber("width", one.Sheet.Paper.Width);
                json.WriteNumber("height", one.Sheet.Paper.Height);
                json.WriteString("title", chapters.Titles[one.Index]);
                json.WriteStartArray("begins");
                foreach (var section in chapters.Sections.Where(section => section.First == one.Index))
                    json.WriteStringValue(section.Title);
                json.WriteEndArray();
                json.WriteNumber("first", first);
                json.WriteStartArray("leaves");
                foreach (var leaf in one.Sheet.Leaves)
                {
                    json.WriteStartObject();
                    json.WriteNumber("left", leaf.Lies.Left);
                    json.WriteNumber("top", leaf.Lies.Top);
                    json.WriteNumber("width", leaf.Lies.Right - leaf.Lies.Left);
                    json.WriteNumber("height", leaf.Lies.Bottom - leaf.Lies.Top);
                    json.WriteEndObject();
                }

                json.WriteEndArray();
                json.WriteEndObject();
                first += one.Sheet.Leaves.Count;
            }
        );
    }

    /// <summary>The pages that somebody wrote down, in order: see <see cref="PageRange"/>. Throws what is wrong, in a sentence.</summary>
    [JSExport]
    public static int[] Range(string text, int count)
    {
        var (pages, problem) = PageRange.Read(text, count);
        return problem is null ? [.. pages] : throw new SentenceException(problem);
    }

    /// <summary>Some pages, written down.</summary>
    [JSExport]
    public static string RangeOf(int[] pages) => PageRange.Write(pages);

    /// <summary>Makes pages of the sheets that were laid last; framed operations on the notebook, one step.</summary>
    /// <param name="notebook">Handle of the notebook.</param>
    /// <param name="parent">What they go into; the empty id for the notebook itself.</param>
    /// <param name="after">The sibling behind which they go; empty for the end.</param>
    /// <param name="seed">A fresh id, from which those of all that is made follow.</param>
    /// <param name="now">The device's clock.</param>
    [JSExport]
    public static byte[] Into(int notebook, string parent, string after, string seed, double now) =>
        Session.PerformAll(notebook, Plan(notebook, parent, after, seed).Notebook, now);

    /// <summary>The ids of the pages that <see cref="Into"/> makes of the same.</summary>
    [JSExport]
    public static string[] Pages(int notebook, string parent, string after, string seed) =>
        [.. (brought = Plan(notebook, parent, after, seed)).Pages.Select(page => page.Page.ToString())];

    /// <summary>What is laid on one of <see cref="Pages"/>: batches of one operation, framed, for a page that nothing is on yet.</summary>
    [JSExport]
    public static byte[] Laid(int page, double now) =>
        Session.Framed([
            .. brought!.Pages[page].Sheet.Operations(Session.Replica, (long)now).Select(operation => OperationCodec.Encode(operation)),
        ]);

    private static BroughtPages Plan(int notebook, string parent, string after, string seed)
    {
        var document = Session.Document<NotebookDocument>(notebook);
        var (into, behind) = (Guid.Parse(parent), after.Length == 0 ? Guid.Empty : Guid.Parse(after));
        // What belongs to a page stays with it: they go behind that one.
        for (var i = 0; i < NotebookDocument.MostDepth && document.PlaceOf(into) is { Kind: NodeKind.Page } page; i++)
            (into, behind) = (page.Parent, into);
        var siblings = document.Inside(into, Guid.Empty);
        var index = behind == Guid.Empty ? siblings.Count : siblings.FindIndex(one => one.Id == behind) + 1;
        return BroughtPages.Of(
            sheets,
            chapters,
            into,
            index > 0 ? siblings[index - 1].Order : null,
            index < siblings.Count ? siblings[index].Order : null,
            Session.Replica.Id,
            new SeededIds(Guid.Parse(seed)).Next
        );
    }
}
