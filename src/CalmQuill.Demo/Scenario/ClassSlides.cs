using CalmQuill.Core.Assets;
using CalmQuill.Core.Bringing;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CalmQuill.Demo.Hand;
using CalmQuill.Store.Assets;
using CalmQuill.Store.Documents;

namespace CalmQuill.Demo.Scenario;

/// <summary>Slides that were brought in for a lesson, and the leaflet of a movement, both written on.</summary>
/// <param name="documents">Where operations are kept.</param>
/// <param name="assets">Where files are kept.</param>
/// <param name="group">The group's space.</param>
/// <param name="writers">Who is in it.</param>
/// <param name="seed">The one source of ids and of the hand's unevenness; apart from the others, so that theirs stay.</param>
/// <param name="now">When it is.</param>
internal sealed class ClassSlides(
    DocumentStore documents,
    AssetStore assets,
    Guid group,
    IReadOnlyList<(Guid Id, SingleLineFont Font)> writers,
    int seed,
    DateTimeOffset now
)
{
    private readonly Random random = new(seed ^ 0x51DE);

    /// <param name="lessons">The folder of the slides.</param>
    /// <param name="repairs">The folder of the leaflet.</param>
    /// <param name="cancel">Gives up.</param>
    public async Task BringIn(Guid lessons, Guid repairs, CancellationToken cancel)
    {
        var slides = PrintedSheets.Lesson();
        var id = AssetId.Of(slides);
        await Keep(
            "Slides, lesson 7",
            lessons,
            "sky",
            slides,
            [
                .. Enumerable
                    .Range(1, PrintedSheets.SlideCount)
                    .Select(number => Leaf.OfPage(id, number, PrintedSheets.SlideWidth, PrintedSheets.SlideHeight, 0)),
            ],
            2,
            [
                null,
                writer =>
                {
                    writer.Highlight(3.63, 100, 152);
                    writer.Line(12, "push comes from the weight, not from the pendulum", PageWriter.Madder, 20);
                },
                writer =>
                {
                    writer.Line(11.5, "mine: 36 teeth, 100 turns", PageWriter.Sky, 20);
                    writer.Line(13, "2 x 36 x 100 = 7200 an hour", PageWriter.Sky, 20);
                },
                writer =>
                {
                    writer.Highlight(5.3, 17, 92);
                    writer.Line(13.5, "seen on Oskar's clock, about half a second", PageWriter.Ink, 20);
                },
                null,
                writer => writer.Line(10, "50 teeth x 72 turns x 2 = 7200, so 248 mm", PageWriter.Ink, 20),
            ],
            cancel
        );
        var leaflet = PrintedSheets.Leaflet();
        var sheet = AssetId.Of(leaflet);
        await Keep(
            "Leaflet LS 21",
            repairs,
            "lichen",
            leaflet,
            [Leaf.OfPage(sheet, 1, 420, 595, 0), Leaf.OfPage(sheet, 2, 420, 595, 0)],
            1,
            [
                writer => writer.Line(11.2, "checked, all three agree", PageWriter.Madder, 60),
                writer =>
                {
                    writer.Line(14, "beat set with the phone's", PageWriter.Sky, 16);
                    writer.Line(15, "recorder: 0.49 and 0.51 s", PageWriter.Sky, 16);
                },
            ],
            cancel
        );
    }

    private async Task Keep(
        string name,
        Guid folder,
        string colour,
        byte[] file,
        IReadOnlyList<Leaf> leaves,
        int who,
        Action<PageWriter>?[] written,
        CancellationToken cancel
    )
    {
        var at = now.AddDays(-1);
        var (notebook, person) = (NewId(), writers[who]);
        var device = new Replica((ulong)random.NextInt64(), person.Id);
        var type = FileType.Of(file);
        await assets.Add(new Asset(AssetId.Of(file), group, type.MediaType, type.Width, type.Height, file, person.Id), cancel);
        var sheets = Imposition.Of(leaves, Laying.Whole);
        var brought = BroughtPages.Of(sheets, Chapters.Of([], sheets.Count), Guid.Empty, null, null, device.Id, NewId);
        for (var i = 0; i < brought.Pages.Count; i++)
        {
            var (page, sheet) = brought.Pages[i];
            var writer = new PageWriter(device, person.Font, random, at.AddMinutes(3 * i));
            var laid = sheet.Operations(device, at.ToUnixTimeMilliseconds());
            written[i]?.Invoke(writer);
            await documents.Append(new DocumentRef(group, DocumentKind.Page, page), [.. laid, .. writer.Operations], cancel);
        }

        var moment = at.ToUnixTimeMilliseconds();
        await documents.Append(
            new DocumentRef(group, DocumentKind.Notebook, notebook),
            [.. brought.Notebook.Select(change => device.Make(change, moment))],
            cancel
        );
        Change[] made =
        [
            new Change.PropertySet(notebook, Property.Name, name),
            new Change.PropertySet(notebook, Property.Colour, colour),
            new Change.PropertySet(notebook, Property.Cover, "rings"),
            new Change.NodePlaced(notebook, NodeKind.Notebook, folder, OrderKey.Between(null, null, device.Id)),
        ];
        await documents.Append(
            new DocumentRef(group, DocumentKind.Library, group),
            [.. made.Select(change => device.Make(change, moment))],
            cancel
        );
    }

    private Guid NewId() => random.NextId();
}
