using System.Globalization;
using System.Text.Json;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Core.Typesetting;
using CalmQuill.Core.Writing;
using CalmQuill.Documents;
using CalmQuill.Documents.Letters;
using CalmQuill.Documents.Pdf;
using CalmQuill.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace CalmQuill.Interface.Tests;

/// <summary>Typed text on a page, as people type it.</summary>
public sealed class TypingTests : InterfaceTest
{
    [Fact]
    public void What_is_typed_stands_on_the_papers_lines_looks_as_it_is_told_to_and_is_taken_back_step_by_step()
    {
        var browser = OpenPage(Group.Writer);
        // Between two lines: it stands on the lower one.
        Begin(browser, 4_000, 9_300);
        browser.Type("Beat error");
        browser.TypeWith(Keys.Shift, Keys.Home);
        browser.Press("typing-style");
        browser.Press("typing-style-heading");
        browser.Type(Keys.End + Keys.Enter);
        browser.Type("- the crutch" + Keys.Enter + "the ");
        browser.TypeWithControl("b");
        browser.Type("pallets");
        browser.TypeWithControl("b");
        browser.Type(" too" + Keys.Enter + Keys.Enter + "[] oil");
        var text = Until(browser, "Beat error\nthe crutch\nthe pallets too\noil");
        var added = (Change.TextAdded)OperationsOn(browser, Group.Writer).Single(operation => operation.Change is Change.TextAdded).Change;
        // Paper.Default: lines of 7.1 mm from 31.95 mm on.
        Assert.Equal((710, 0), (added.Ruling, (added.Lay.F - 3_195) % 710));
        Assert.Equal(9_585, added.Lay.F);
        var paragraphs = text.Paragraphs().ToList();
        Assert.Equal(["heading", "", "", ""], paragraphs.Select(paragraph => paragraph.Look[Trait.Style]));
        Assert.Equal(["", "bullet", "bullet", "tick"], paragraphs.Select(paragraph => paragraph.Look[Trait.List]));
        Assert.Equal(["the ", "pallets", " too"], paragraphs[2].Spans.Select(span => span.Text));
        Assert.Equal(["", "1", ""], paragraphs[2].Spans.Select(span => span.Look[Trait.Bold]));
        Assert.Empty(browser.SeriousFindings());

        // A step is what was typed in one go, or what was told.
        browser.Press("typing-done");
        browser.Until(() => browser.Count("[data-testid=typing]") == 0, "nobody typing");
        var shown = text.Text;
        browser.TypeWithControl("z");
        browser.Until(() => TextOn(browser)?.Text != shown, "a step back");
        browser.Press("redo");
        Until(browser, shown);
        browser.Driver.Navigate().Refresh();
        browser.WaitForStrokes(2);
        Until(browser, shown);
        // Whoever presses into it goes on in it.
        browser.Press("tool-text");
        PageHands.Press(browser, 5_200, 9_450);
        browser.Find("typing-edge");
        browser.Type(Keys.End + ", ms");
        Until(browser, "Beat error, ms\nthe crutch\nthe pallets too\noil");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void The_caret_and_a_press_are_where_the_letters_are_seen()
    {
        var browser = OpenPage(Group.Writer);
        Begin(browser, 4_000, 9_300);
        browser.Type("first line" + Keys.Enter + "second line" + Keys.Enter + "third line");
        browser.Until(() => TextOn(browser)?.Text == "first line\nsecond line\nthird line", "three lines");
        var content = (TextContent)TextItemOn(browser)!.Content;
        HarfBuzzShaper.Install();
        var scale = PageHands.View(browser)[0];
        var sheet = browser.Find("sheet").Location;
        var rows = (
            (IEnumerable<object>)
                browser.Script(
                    "return [...document.querySelectorAll('[data-row]')].map((row) => { const { top, bottom } = row.getBoundingClientRect(); return `${top} ${bottom}`; })"
                )!
        )
            .Select(row => ((string)row).Split(' ').Select(edge => double.Parse(edge, CultureInfo.InvariantCulture)).ToArray())
            .ToList();
        var lines = content.Set.Paragraphs.Select(one => (one.Y + one.Paragraph.Lines[0].Y, one.Paragraph.Lines[0])).ToList();
        Assert.Equal(3, rows.Count);
        foreach (var (row, (y, line)) in rows.Zip(lines))
        {
            // Where the line stands, in pixels: its letters reach from its ascent above that to its descent below.
            var (_, stands) = PageHands.At(browser, 0, content.Place.F + y / (double)Lengths.PerUnit);
            Assert.Equal(sheet.Y + stands - line.Ascent / (double)Lengths.PerUnit * scale, row[0], 1.5);
            Assert.Equal(sheet.Y + stands + line.Descent / (double)Lengths.PerUnit * scale, row[1], 1.5);
        }

        // A press into the middle of the second line: what is typed next stands there.
        var (x, _) = PageHands.At(browser, content.Place.E, 0);
        new Actions(browser.Driver)
            .MoveToLocation(sheet.X + x + 1, (int)((rows[1][0] + rows[1][1]) / 2))
            .Click()
            .SendKeys("the ")
            .Perform();
        browser.Until(
            () => TextOn(browser)!.Text == "first line\nthe second line\nthird line",
            $"letters in the second line, it is {TextOn(browser)!.Text}"
        );
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Two_type_into_one_text_and_both_keep_their_words_also_who_was_away()
    {
        var (ines, network) = Open(Group.Writer);
        ines.Go(PagePath);
        ines.WaitForStrokes(1);
        Begin(ines, 4_000, 9_300);
        ines.Type("The pendulum swings.");
        ines.Press("typing-done");
        var maren = OpenPage(Group.Owner, 2);
        Press(maren, 7_200, 9_500);
        Press(ines, 4_050, 9_500);
        // Each sees where the other types.
        ines.Until(() => ines.Count("[data-testid=other-caret]") == 1, "Maren’s caret");
        maren.Until(() => maren.Count("[data-testid=other-caret]") == 1, "Ines’s caret");
        maren.Type(Keys.End + " It beats seconds.");
        ines.Type(Keys.Home + "So: ");
        Until(ines, "So: The pendulum swings. It beats seconds.");
        Until(maren, "So: The pendulum swings. It beats seconds.", Group.Owner);

        // Without a connection both go on at one place; when it is there again neither is mixed up with the other.
        network.Cut();
        ines.Type(Keys.End + " Iron grows.");
        maren.Type(Keys.End + " Wood less.");
        Until(ines, "So: The pendulum swings. It beats seconds. Iron grows.");
        Until(maren, "So: The pendulum swings. It beats seconds. Wood less.", Group.Owner);
        network.Mend();
        ines.Until(
            () =>
                TextOn(ines)?.Text
                    is "So: The pendulum swings. It beats seconds. Iron grows. Wood less."
                        or "So: The pendulum swings. It beats seconds. Wood less. Iron grows.",
            "both sentences"
        );
        maren.Until(() => TextOn(maren, Group.Owner)?.Text == TextOn(ines)!.Text, "the same on both");
        ines.Press("typing-done");
        maren.Press("typing-done");
        ines.Until(() => ines.Count("[data-testid=other-caret]") == 0, "nobody else typing");
        // Undo is each one's own.
        ines.WaitForSync("All saved");
        ines.TypeWithControl("z");
        maren.Until(() => TextOn(maren, Group.Owner)?.Text is { } left && !left.Contains("Iron") && left.Contains("Wood"), "one step back");
        Assert.Empty(maren.Errors());
    }

    [Fact]
    public async Task The_same_lines_stand_on_the_screen_and_in_files()
    {
        var browser = OpenPage(Group.Writer);
        Begin(browser, 4_000, 9_300);
        // Kerning, ligatures, marks that are put on, and letters that change with their neighbours; numbers in what runs from the right.
        browser.Type("AVATAR: first fitting office, Tj. \u0301e" + Keys.Enter);
        browser.Type("Ζυγός και γρανάζι · Маятник и якорь — and so on to the end of the line and beyond it" + Keys.Enter);
        browser.Type("שלום 12 עולם (anchor) ושוב" + Keys.Enter + "مرحبا بالعالم" + Keys.Enter);
        browser.TypeWithControl("i");
        browser.Type("घड़ी की सुई");
        browser.Press("typing-done");
        browser.Until(() => TextOn(browser)!.Paragraphs().Count() == 5, "five paragraphs");
        Assert.InRange(SameLines(browser), 40, 100);

        // Poppler paints the file, and the browser its canvas: of the pixels of the text's box less than one in two hundred differs.
        var view = PageHands.View(browser);
        var page = PageOf(browser);
        var folder = Directory.CreateTempSubdirectory("quill-typing").FullName;
        var file = Path.Combine(folder, "page.pdf");
        // A file's pixels are counted from its foot: on paper that is a whole number of them high they are the screen's.
        var paper = Paper.Default with
        {
            Size = new PaperSize("210x297", 21_000, (int)(Math.Round(29_700 * view[0]) / view[0])),
        };
        var printed = new PrintedPage(page, paper, "");
        await File.WriteAllBytesAsync(file, await PdfExport.Write("", new[] { printed }.ToAsyncEnumerable(), default));
        // So many dots an inch that some of the file's pixels are one of the screen: Poppler sets letters on whole rows, which must not matter.
        const int fine = 4;
        var dots = (fine * view[0] * 2_540).ToString(CultureInfo.InvariantCulture);
        Poppler.Run("pdftoppm", "-r", dots, "-gray", "-singlefile", file, Path.Combine(folder, "page"));
        var (width, _, pixels) = Poppler.ReadPgm(Path.Combine(folder, "page.pgm"));
        var box = BoundsOn(browser);
        int left = (int)(box.Left * view[0]),
            top = (int)(box.Top * view[0]),
            wide = (int)(box.Right * view[0]) - left,
            high = (int)(box.Bottom * view[0]) - top;
        var seen = Convert.FromBase64String(
            (string)
                browser.Script(
                    """
                    const [left, top, width, height] = arguments;
                    const canvas = [...document.querySelectorAll('[data-testid=sheet] canvas')].find((one) => one.style.visibility === 'visible');
                    const { data } = canvas.getContext('2d').getImageData(left, top, width, height);
                    const grey = Array.from({ length: width * height }, (_, i) => Math.round(data[4 * i] * 0.3 + data[4 * i + 1] * 0.59 + data[4 * i + 2] * 0.11));
                    return btoa(grey.map((one) => String.fromCharCode(one)).join(''));
                    """,
                    left + view[1],
                    top + view[2],
                    wide,
                    high
                )!
        );
        var (others, dark) = (0, 0);
        for (var i = 0; i < seen.Length; i++)
        {
            int x = fine * (left + i % wide),
                y = fine * (top + i / wide);
            var inFile = Enumerable.Range(0, fine * fine).Average(k => pixels[(y + k / fine) * width + x + k % fine]);
            if (Math.Abs(inFile - seen[i]) > 96)
                others++;
            if (seen[i] < 128)
                dark++;
        }

        Assert.True(dark > seen.Length / 50, $"{dark} of {seen.Length} pixels are dark");
        Assert.True(others < seen.Length / 200, $"{others} of {seen.Length} pixels differ");
        Directory.Delete(folder, true);
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void A_text_brings_the_slices_of_eastern_fonts_that_it_needs_and_stands_as_in_files()
    {
        var browser = OpenPage(Group.Writer);
        Begin(browser, 4_000, 9_300);
        browser.Type("A beat");
        browser.Until(() => TextOn(browser)?.Text == "A beat", "Latin letters");
        Assert.Equal(0, Slices(browser));
        browser.Type(Keys.Enter + "振り子の周期は長さだけで決まる。だから店の時計は夏に遅れる。" + Keys.Enter);
        browser.Type("摆的周期只看长度，不看重量。" + Keys.Enter + "흔들이의 주기를 잰다");
        browser.Press("typing-done");
        browser.Until(() => TextOn(browser)!.Paragraphs().Count() == 4, "four paragraphs");
        browser.Until(() => Slices(browser) > 0 && Missing(browser) == 0, "all slices here");
        Assert.InRange(SameLines(browser), 40, 100);
        Assert.InRange(Slices(browser), 4, 40);
        Assert.Empty(browser.Errors());

        static long Slices(Browser browser) =>
            (long)
                browser.Script(
                    "return performance.getEntriesByType('resource').filter((one) => /\\/(chinese|japanese|korean)-/.test(one.name)).length"
                )!;

        static long Missing(Browser browser) =>
            (long)
                browser.AsyncScript(
                    """
                    const [done] = arguments;
                    globalThis.getDotnetRuntime(0).getAssemblyExports('CalmQuill.Core.Browser.dll').then(
                      (all) => done(all.CalmQuill.Core.Browser.LetterBridge.Wanted().length),
                      (problem) => done(-1),
                    );
                    """
                )!;
    }

    /// <summary>Holds the lines that the browser sets against those that are set here, letter by letter and length by length.</summary>
    /// <returns>How many words there are.</returns>
    private int SameLines(Browser browser)
    {
        var text = (TextContent)TextItemOn(browser)!.Content;
        HarfBuzzShaper.Install();
        var words = 0;
        var here = text.Set.Paragraphs.SelectMany(one => one.Paragraph.Lines.Select(line => (one.Start, one.Y, Line: line))).ToList();
        using var told = JsonDocument.Parse(ToldBy(browser));
        var there = told
            .RootElement.GetProperty("paragraphs")
            .EnumerateArray()
            .SelectMany(one => one.GetProperty("lines").EnumerateArray().Select(line => (Paragraph: one, Line: line)))
            .ToList();
        Assert.Equal(here.Count, there.Count);
        foreach (var (one, other) in here.Zip(there))
        {
            Assert.Equal(
                (one.Line.Start, one.Line.End),
                (other.Line.GetProperty("start").GetInt32(), other.Line.GetProperty("end").GetInt32())
            );
            Assert.Equal(one.Line.Left / 64.0, other.Line.GetProperty("x").GetDouble());
            Assert.Equal(
                (one.Y + one.Line.Y) / 64.0,
                other.Paragraph.GetProperty("y").GetDouble() + other.Line.GetProperty("y").GetDouble()
            );
            foreach (
                var (piece, span) in one.Line.Pieces.OrderBy(piece => piece.Start).Zip(other.Line.GetProperty("spans").EnumerateArray())
            )
            {
                words++;
                Assert.Equal(piece.Shape.Text, span.GetProperty("text").GetString());
                Assert.Equal(piece.Width / 64.0, span.GetProperty("width").GetDouble());
            }
        }

        return words;
    }

    /// <summary>How the browser sets the text that the device holds.</summary>
    private string ToldBy(Browser browser) =>
        (string)
            browser.AsyncScript(
                """
                const [bytes, item, done] = arguments;
                (async () => {
                  const { DocumentBridge, TextBridge } = (await globalThis.getDotnetRuntime(0).getAssemblyExports('CalmQuill.Core.Browser.dll')).CalmQuill.Core.Browser;
                  const handle = DocumentBridge.Open(3);
                  DocumentBridge.Apply(handle, Uint8Array.from(atob(bytes), (letter) => letter.charCodeAt(0)));
                  TextBridge.Open(handle, item);
                  done(TextBridge.Told(handle));
                })().catch((problem) => done(String(problem)));
                """,
                Convert.ToBase64String(OperationCodec.Encode(OperationsOn(browser, Group.Writer))),
                TextItemOn(browser)!.Id.ToString()
            )!;

    [Fact]
    public void What_a_web_page_or_a_word_processor_wrote_keeps_its_structure_and_nothing_of_it_runs()
    {
        var browser = OpenPage(Group.Writer);
        Begin(browser, 4_000, 9_300);
        Paste(
            browser,
            """
            <html><head><style>p { color: red }</style><title>Not this</title></head><body onload="document.title = 'ran'">
            <script>document.title = 'ran'</script><img src="x" onerror="document.title = 'ran'">
            <h2>What  to
            bring</h2>
            <p>a <b>good</b> <i>loupe</i>, <span style="font-weight:700">two</span> <a href="javascript:alert(1)">drivers</a>
            and <a href="https://clock.example/oil">oil</a></p>
            <ul><li>pegwood<ul><li>ground</li></ul></li><li><input type="checkbox" checked>apron</li></ul>
            <table><tr><td>L</td><td>994 mm</td></tr></table>
            </body></html>
            """
        );
        var text = Until(browser, "What to bring\na good loupe, two drivers and oil\npegwood\nground\napron\nL\t994 mm");
        var paragraphs = text.Paragraphs().ToList();
        Assert.Equal(["heading", "", "", "", "", ""], paragraphs.Select(one => one.Look[Trait.Style]));
        Assert.Equal(["", "", "bullet", "bullet", "tick", ""], paragraphs.Select(one => one.Look[Trait.List]));
        Assert.Equal(["", "", "", "1", "", ""], paragraphs.Select(one => one.Look[Trait.Indent]));
        Assert.Equal("1", paragraphs[4].Look[Trait.Ticked]);
        Assert.Equal(["good", "two"], text.Spans().Where(span => span.Look[Trait.Bold] == "1").Select(span => span.Text));
        Assert.Equal(["oil"], text.Spans().Where(span => span.Look[Trait.Link] == "https://clock.example/oil").Select(span => span.Text));
        Assert.DoesNotContain(text.Spans(), span => span.Look[Trait.Link].StartsWith("javascript", StringComparison.Ordinal));
        Assert.NotEqual("ran", browser.Driver.Title);
        // It was one step.
        browser.Press("typing-done");
        browser.TypeWithControl("z");
        browser.WaitForStrokes(1);

        // However deep it is, it is read; and what is no HTML is plain.
        Begin(browser, 4_000, 15_000);
        Paste(
            browser,
            string.Concat(Enumerable.Repeat("<div><b>", 5_000)) + "deep" + string.Concat(Enumerable.Repeat("</b></div>", 5_000))
        );
        browser.Until(() => TextsOn(browser).Contains("deep"), "the deep word");
        Assert.Empty(browser.Errors());
    }

    private List<string> TextsOn(Browser browser) =>
        [.. PageOf(browser).Items.Where(item => item.Stands).Select(item => item.Content.Words)];

    private static void Paste(Browser browser, string html) =>
        browser.Script(
            """
            const data = new DataTransfer();
            data.setData('text/html', arguments[0]);
            data.setData('text/plain', 'plain');
            document.activeElement.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
            """,
            html
        );

    [Fact]
    public void A_word_that_was_being_typed_when_its_tab_was_closed_is_there_on_the_next_opening()
    {
        var browser = OpenPage(Group.Writer);
        Begin(browser, 4_000, 9_300);
        browser.Type("half a wo");
        // No time to rest, and no farewell: the tab is gone.
        PageHands.LoseTab(browser);
        browser.Go(PagePath);
        browser.WaitForStrokes(2);
        Until(browser, "half a wo");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Boxes_are_ticked_while_reading_and_what_is_empty_is_not_there()
    {
        var browser = OpenPage(Group.Writer);
        Begin(browser, 4_000, 9_300);
        browser.Type("[] oil the pallets");
        browser.Press("typing-done");
        Until(browser, "oil the pallets");
        // A place to type that nothing was typed at leaves nothing.
        PageHands.Press(browser, 4_000, 14_000);
        browser.Find("typing-field");
        browser.Press("typing-done");
        browser.TypeWith(Keys.Null, "r");
        browser.Until(() => browser.Attribute("sheet", "data-reading") == "1", "read mode");
        PageHands.Press(browser, 4_150, 9_450);
        browser.Until(() => TextOn(browser)!.Paragraphs().Single().Look[Trait.Ticked] == "1", "a tick");
        PageHands.Press(browser, 4_150, 9_450);
        browser.Until(() => TextOn(browser)!.Paragraphs().Single().Look[Trait.Ticked] == "", "no tick");
        Assert.Single(OperationsOn(browser, Group.Writer), operation => operation.Change is Change.TextAdded);
        browser.WaitForStrokes(2);

        // A text of which all is removed again is seen by nobody, and is there for its last step back.
        browser.TypeWith(Keys.Null, "r");
        browser.Press("tool-text");
        PageHands.Press(browser, 6_000, 9_450);
        browser.Find("typing-edge");
        browser.TypeWithControl("a");
        browser.Type(Keys.Delete);
        browser.Press("typing-done");
        browser.WaitForStrokes(1);
        browser.TypeWithControl("z");
        browser.WaitForStrokes(2);
        Until(browser, "oil the pallets");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void A_text_is_selected_moved_doubled_and_removed_like_anything_on_the_page()
    {
        var browser = OpenPage(Group.Writer);
        Begin(browser, 4_000, 9_300);
        browser.Type("hall clock");
        browser.Press("typing-done");
        Until(browser, "hall clock");
        var before = BoundsOn(browser);
        PageHands.Loop(browser, 3_600, 8_600, 20_400, 10_300);
        browser.TypeWith(Keys.Shift, Keys.ArrowDown);
        browser.Until(() => BoundsOn(browser).Top > before.Top, "it lies lower");
        browser.TypeWithControl("d");
        browser.WaitForStrokes(3);
        browser.Type(Keys.Delete);
        browser.WaitForStrokes(2);
        Until(browser, "hall clock");
        Assert.Empty(browser.Errors());
    }

    private static void Begin(Browser browser, double x, double y)
    {
        browser.TakeTool("text");
        Press(browser, x, y);
    }

    private static void Press(Browser browser, double x, double y) => PageHands.PressToType(browser, x, y);

    /// <summary>The text on the page as the device has it; null while there is none.</summary>
    private TypedText? TextOn(Browser browser, CalmQuill.Store.People.Person? person = null) => TextItemOn(browser, person)?.Typed;

    private PageItem? TextItemOn(Browser browser, CalmQuill.Store.People.Person? person = null) =>
        PageOf(browser, person).Items.FirstOrDefault(item => item.Stands && item.Content is TextContent);

    private Core.Ink.Box BoundsOn(Browser browser) => TextItemOn(browser)!.Bounds;

    private TypedText Until(Browser browser, string text, CalmQuill.Store.People.Person? person = null)
    {
        browser.Until(() => TextOn(browser, person)?.Text == text, $"“{text}”, it is “{TextOn(browser, person)?.Text}”");
        return TextOn(browser, person)!;
    }
}
