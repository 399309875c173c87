using CalmQuill.Core.Items;
using CalmQuill.Core.Library;
using CalmQuill.Core.Pages;
using CalmQuill.Store.Documents;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>Files whose pages are brought in: looked at, chosen, written on, and taken out again.</summary>
public sealed class BringTests : InterfaceTest, IDisposable
{
    private const double Point = 2540.0 / 72;

    private readonly DirectoryInfo folder = Directory.CreateTempSubdirectory("quill-bring");

    public void Dispose() => folder.Delete(recursive: true);

    [Fact]
    public async Task Slides_are_brought_in_written_on_shown_without_a_connection_and_taken_out_as_they_were()
    {
        var (browser, network) = Open(Group.Writer);
        browser.Go($"/library/{Group.Space}");
        browser.Find("folder-menu");
        WaitUntilKeptItself(browser);
        browser.Press("folder-menu");
        browser.Press("bring-files-in");
        browser.Find("choose-files");
        Assert.Empty(browser.SeriousFindings());
        Choose(browser, File("Escapements.pdf", SlideFile.Write()));
        Sheets(browser, 3);
        browser.Until(() => browser.Count("[data-testid=brought-leaf] [data-drawn]") == 3, "the slides drawn");
        Assert.Empty(browser.SeriousFindings());

        // Chosen by writing them down, and by their sheets; turned; two to a sheet and back.
        browser.Fill("[data-testid=bring-range]", "1, 3");
        browser.Type(Keys.Enter);
        Sheets(browser, 2);
        browser.Press("take-leaf");
        Sheets(browser, 3);
        browser.PressNth("brought-leaf", 1);
        browser.Press("turn-leaf");
        browser.Press("leave-leaf");
        Sheets(browser, 2);
        Assert.Equal("1, 3", browser.Attribute("bring-range", "value"));
        browser.Press("take-leaf");
        browser.Press("lay-two");
        Sheets(browser, 2);
        Assert.Empty(browser.SeriousFindings());
        browser.Press("lay-whole");
        Sheets(browser, 3);

        // Without a connection: they are here all the same.
        network.Cut();
        browser.Press("bring-in");
        browser.WaitForStrokes(1);
        Shows(browser, 200, 320, 90);
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        // The loop takes what was written, and not the slide under it.
        browser.TypeWithControl("a");
        browser.Find("selection");
        Assert.Equal("1", browser.Attribute("selection", "data-items"));
        browser.Press("leave-taken");
        browser.Driver.Navigate().Refresh();
        browser.WaitForStrokes(2);
        Shows(browser, 200, 320, 90);
        network.Mend();
        browser.WaitForSync("All saved");
        Assert.Equal(1, Leaves(await PageShown(browser)).Single().Shown.Leaf);

        // A highlighter that is drawn along a printed line lies on it, as high as its letters are; one that is not stays as it is.
        browser.Press("pen-6");
        Mark(browser, (250, 80), (440, 74));
        browser.WaitForStrokes(3);
        browser.WaitForSync("All saved");
        var mark = Marks(await PageShown(browser)).Single();
        Assert.InRange(((InkContent)mark.Content).Pen.Width, 45 * Point, 55 * Point);
        // “escapement” of “Anchor escapement”, type of 48 points, whose baseline is at 90.
        Assert.InRange(mark.Bounds.Left, 205 * Point, 262 * Point);
        Assert.InRange((mark.Bounds.Top + mark.Bounds.Bottom) / 2.0, 70 * Point, 86 * Point);
        Mark(browser, (250, 470), (440, 465));
        browser.WaitForStrokes(4);
        browser.WaitForSync("All saved");
        Assert.Equal(2, Marks(await PageShown(browser)).Select(one => ((InkContent)one.Content).Pen.Width).Distinct().Count());
        browser.Press("undo");
        browser.Press("undo");
        browser.WaitForStrokes(2);

        // Its links are followed while one reads.
        Assert.Equal(0, browser.Count("[data-testid=leaf-link]"));
        browser.Press("read-mode");
        Assert.Equal("https://bells.example/escapements", browser.Attribute("leaf-link", "href"));
        browser.Press("read-mode");

        // Drawn very large it comes in parts, and a letter that lies in two of them is whole.
        var (x, y) = PageHands.At(browser, 450 * Point, 180 * Point);
        browser.Script(
            """
            const [x, y] = arguments;
            const sheet = document.querySelector('[data-testid=sheet]');
            for (let i = 0; i < 20; i++)
              sheet.dispatchEvent(new WheelEvent('wheel', { deltaY: -120, ctrlKey: true, clientX: x, clientY: y, bubbles: true, cancelable: true }));
            """,
            x + 8,
            y + 48
        );
        browser.Until(() => Dark(browser, 420, 182, 540, 186) > 40, "the lower ends of the letters");

        // Everybody has them, and taken out they are the slides with the ink on them: words as words.
        var path = new Uri(browser.Driver.Url).AbsolutePath;
        var other = Open(Group.Owner).Browser;
        other.Go(path);
        other.WaitForStrokes(2);
        Shows(other, 200, 320, 90);
        using var owner = await Host.SignIn(Group.Owner);
        var notebook = path.Split('/')[3];
        var taken = Path.Combine(folder.FullName, "out.pdf");
        await System.IO.File.WriteAllBytesAsync(
            taken,
            await owner.Http.GetByteArrayAsync($"/api/spaces/{Group.Space}/notebooks/{notebook}/export.pdf")
        );
        Assert.Contains("Pages:           3", Poppler.Run("pdfinfo", taken), StringComparison.Ordinal);
        Assert.Contains("720 x 540", Poppler.Run("pdfinfo", taken), StringComparison.Ordinal);
        Assert.Contains("540 x 720", Poppler.Run("pdfinfo", "-f", "2", "-l", "2", taken), StringComparison.Ordinal);
        Assert.Contains("Anchor escapement", Poppler.Run("pdftotext", "-l", "1", taken, "-"), StringComparison.Ordinal);
        Assert.Equal(2, Poppler.Run("pdfimages", "-list", taken).Split('\n', StringSplitOptions.RemoveEmptyEntries).Length);
        Assert.Empty(browser.Errors());
        Assert.Empty(other.Errors());
    }

    [Fact]
    public async Task Bookmarks_become_sections_behind_the_page_one_is_on_and_a_step_back_takes_all_away()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("tool-put");
        browser.Press("put-pages");
        Choose(browser, File("Lesson.pdf", WithBookmarks()));
        Sheets(browser, 4);
        Assert.Equal(["The anchor", "The wheel"], Texts(browser, "brought-section"));
        browser.Press("bring-in");
        browser.WaitForStrokes(1);
        browser.Press("open-overview");
        browser.Until(() => browser.Count("[data-testid=overview-page]") > 2, "the pages among the others");
        browser.WaitForSync("All saved");
        var notebook = await Documents.Notebook(Group.Space, Notebook, default);
        Assert.Equal(
            [("", Page), ("The anchor", Guid.Empty), ("The wheel", Guid.Empty), ("", OtherPage)],
            notebook
                .Outline()
                .Where(entry => entry.Parent == Guid.Empty)
                .Select(entry => (entry.Title, entry.Kind is NodeKind.Section ? Guid.Empty : entry.Id))
        );
        browser.TypeWithControl("z");
        browser.Until(() => browser.Count("[data-testid=overview-page]") == 2, "all taken back");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task What_cannot_be_read_is_said_and_the_rest_comes_and_a_protected_file_asks()
    {
        var browser = Open(Group.Writer).Browser;
        browser.Go($"/bring/{Group.Space}");
        Choose(browser, File("torn.pdf", SlideFile.Write()[..900]));
        browser.Until(() => browser.Text("bring-problem").Contains("cannot be read", StringComparison.Ordinal), "that it is torn");
        Choose(browser, File("notes.docx", [1, 2, 3]));
        browser.Until(() => browser.Text("bring-problem").Contains("notes.docx", StringComparison.Ordinal), "that it is neither");
        var open = File("open.pdf", RawPdf.Of("").Bytes());
        var locked = Path.Combine(folder.FullName, "locked.pdf");
        Poppler.Run("qpdf", "--encrypt", "key of the tower", "other", "256", "--", open, locked);
        Choose(browser, locked);
        browser.Fill("[data-testid=file-password]", "key of the shed");
        browser.Press("open-file");
        browser.Until(() => browser.Css("[role=alert]").Text.Contains("not the password", StringComparison.Ordinal), "that it is not");
        browser.Fill("[data-testid=file-password]", "key of the tower");
        browser.Press("open-file");
        Sheets(browser, 1);
        Choose(browser, File("drawing.png", Picture()));
        Sheets(browser, 2);
        browser.Press("lay-together");
        Sheets(browser, 1);
        browser.Press("bring-in");
        browser.WaitForStrokes(2);
        browser.WaitForSync("All saved");
        Assert.Equal([1, 0], Leaves(await PageShown(browser)).Select(leaf => leaf.Shown.Leaf));
        Assert.Empty(browser.Errors());
    }

    private string File(string name, byte[] bytes)
    {
        var path = Path.Combine(folder.FullName, name);
        System.IO.File.WriteAllBytes(path, bytes);
        return path;
    }

    private static void Choose(Browser browser, string path) =>
        browser
            .Until(
                () => browser.Driver.FindElements(By.CssSelector("[data-testid=bring-files]")).SingleOrDefault(),
                "where files are chosen"
            )!
            .SendKeys(path);

    private static void Sheets(Browser browser, int count) =>
        browser.Until(
            () => browser.Count("[data-testid=brought-sheet]") == count && browser.Count("[data-testid=bring-reading]") == 0,
            $"{count} sheets"
        );

    private static IEnumerable<string> Texts(Browser browser, string testId) =>
        browser.Driver.FindElements(By.CssSelector($"[data-testid={testId}]")).Select(element => element.Text);

    private Task<PageDocument> PageShown(Browser browser) =>
        Documents.Page(Group.Space, Guid.Parse(new Uri(browser.Driver.Url).Segments[4].Trim('/')), default);

    private DocumentStore Documents => Host.Services.GetRequiredService<DocumentStore>();

    /// <summary>Waits for the red ring of a slide to be seen on the sheet, at its uppermost point; places are the slide's own, points.</summary>
    private static void Shows(Browser browser, double x, double y, double radius)
    {
        PageHands.Sees(browser, x * Point, (y - radius) * Point, 180, 83, 60);
    }

    /// <summary>A stroke of the pen from one place of a slide to another, points.</summary>
    private static void Mark(Browser browser, (double X, double Y) from, (double X, double Y) to)
    {
        var (x, y) = PageHands.At(browser, from.X * Point, from.Y * Point);
        var (right, down) = PageHands.At(browser, to.X * Point, to.Y * Point);
        browser.Pen(x, y, [((right - x) / 2, (down - y) / 2), (right - x - (right - x) / 2, down - y - (down - y) / 2)]);
    }

    /// <summary>How many dark dots are seen in a part of the slide; −1 while it is not in sight as large as can be.</summary>
    private static long Dark(Browser browser, double left, double top, double right, double bottom) =>
        (long)
            browser.Script(
                """
                const [left, top, right, bottom] = [...arguments].map((points) => (points * 2540) / 72);
                const sheet = document.querySelector('[data-testid=sheet]');
                const canvas = [...sheet.querySelectorAll('canvas')].find((one) => one.style.visibility === 'visible');
                const [scale, x, y] = sheet.dataset.view.split(' ').map(Number);
                if (!canvas || canvas.style.transform || scale < 0.3) return -1;
                const ratio = canvas.width / canvas.clientWidth;
                const at = (place, shift) => Math.round((place * scale + shift) * ratio);
                const { data } = canvas.getContext('2d').getImageData(at(left, x), at(top, y), at(right, x) - at(left, x), at(bottom, y) - at(top, y));
                let dark = 0;
                for (let i = 0; i < data.length; i += 4) if (data[i] < 90 && data[i + 3] > 200) dark++;
                return dark;
                """,
                left,
                top,
                right,
                bottom
            )!;

    private static IEnumerable<PageItem> Marks(PageDocument page) =>
        page.Items.Where(item => item is { Shown: true, Kind: ItemKinds.Highlighter });

    private static IEnumerable<PictureContent> Leaves(PageDocument page) =>
        page.Items.Where(item => item.Shown).Select(item => item.Content).OfType<PictureContent>();

    /// <summary>Four pages, of which bookmarks make two chapters of two.</summary>
    private static byte[] WithBookmarks()
    {
        var raw = RawPdf.Of("");
        raw[1] = "<< /Type /Catalog /Pages 2 0 R /Outlines 10 0 R >>";
        raw[2] =
            "<< /Type /Pages /Kids [3 0 R 6 0 R 7 0 R 8 0 R] /Count 4 /MediaBox [0 0 200 100] /Resources << /Font << /F1 5 0 R >> >> >>";
        for (var page = 6; page <= 8; page++)
            raw[page] = "<< /Type /Page /Parent 2 0 R /Contents 4 0 R >>";
        raw[10] = "<< /Type /Outlines /First 11 0 R /Last 12 0 R /Count 2 >>";
        raw[11] = "<< /Title (The anchor) /Parent 10 0 R /Next 12 0 R /Dest [3 0 R /Fit] >>";
        raw[12] = "<< /Title (The wheel) /Parent 10 0 R /Prev 11 0 R /Dest [7 0 R /Fit] >>";
        return raw.Bytes();
    }

    private static byte[] Picture()
    {
        using var bitmap = new SkiaSharp.SKBitmap(60, 90);
        bitmap.Erase(new SkiaSharp.SKColor(212, 200, 178));
        using var packed = bitmap.Encode(SkiaSharp.SKEncodedImageFormat.Png, 100);
        return packed.ToArray();
    }
}
