using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Papers;
using CalmQuill.Documents;
using CalmQuill.Documents.Pdf;
using CalmQuill.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;
using static CalmQuill.Interface.Tests.LibraryHands;
using static CalmQuill.Interface.Tests.PageHands;

namespace CalmQuill.Interface.Tests;

/// <summary>Papers, the overview, planners: what a notebook is made of.</summary>
public sealed class PaperFlowTests : InterfaceTest
{
    [Fact]
    public void A_notebook_holds_three_papers_and_sizes_and_ink_moves_to_a_new_size()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("open-overview");
        browser.Until(() => browser.Count("[data-testid=overview-page]") == 2, "both pages");

        // A page on music paper, A5 across; the first one to Letter, its ink fitted.
        Menu(browser, 0, "page-add-other");
        browser.PressCss("[data-testid=ready-paper][data-name=Piano]");
        Choose(browser, "paper-size", "a5");
        browser.Press("paper-lies-across");
        browser.Press("dialog-confirm");
        browser.Until(() => browser.Count("[data-testid=overview-page]") == 3, "the third page");
        Menu(browser, 0, "page-paper");
        browser.PressCss("[data-testid=ready-paper][data-name=Cornell]");
        Choose(browser, "paper-size", "a3");
        browser.Fill("[data-testid=paper-spacing]", "0");
        Assert.Contains("1 to 60 mm", browser.Text("paper-problem"), StringComparison.Ordinal);
        browser.Fill("[data-testid=paper-spacing]", "8");
        browser.Press("ink-fit");
        browser.Press("dialog-confirm");
        browser.WaitForSync("All saved");
        browser.PressCss("[data-testid=overview-page]");
        browser.WaitForStrokes(1);
        Assert.Equal("0 0 29700 42000", browser.Attribute("sheet", "data-sheet"));
        // The wave began at 30 mm; A3 is √2 of A4.
        Loop(browser, 4000, 6200, 16500, 8000);
        Assert.Equal("1", browser.Attribute("selection", "data-items"));
        browser.Press("leave-taken");
        browser.Press("undo");
        Loop(browser, 2500, 4300, 11500, 5700);
        Assert.Equal("1", browser.Attribute("selection", "data-items"));
        browser.Press("page-after");
        browser.Until(() => browser.Attribute("sheet", "data-sheet") == "0 0 21000 14800", "the music page");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task A_paper_of_ones_own_is_chosen_among_the_pages_of_a_pdf_file_and_a_header_and_margin_are_set()
    {
        var folder = Directory.CreateTempSubdirectory("quill-own").FullName;
        var file = Path.Combine(folder, "Worksheets.pdf");
        PrintedPage Sheet(string paper) => new(new PageDocument(), Paper.ParseOrDefault(paper), "");
        await File.WriteAllBytesAsync(
            file,
            await PdfExport.Write(
                "Worksheets",
                new[] { Sheet("a4-ruled-710"), Sheet("a5.across-squared-500"), Sheet("a4-staves-180") }.ToAsyncEnumerable(),
                CancellationToken.None
            )
        );
        var broken = Path.Combine(folder, "Broken.pdf");
        await File.WriteAllTextAsync(broken, "%PDF-1.7 and nothing more");
        var browser = Open(Group.Writer).Browser;
        browser.Go($"/papers/{Group.Space}");
        browser.Press("new-paper");
        browser.Find("paper-file").SendKeys(broken);
        browser.Until(
            () => browser.Text("own-paper-problem").StartsWith("This PDF file cannot be read.", StringComparison.Ordinal),
            "the refusal"
        );
        browser.Find("paper-file").SendKeys(file);
        browser.Until(() => browser.Count("[data-testid=pdf-page][data-drawn]") == 3, "its three pages, drawn");
        browser.PressCss("[data-testid=pdf-page]:nth-child(2)");
        browser.Fill("[data-testid=name-input]", "Squares across");
        browser.Press("dialog-confirm");
        browser.Css(
            "[data-testid=own-paper][data-name='Squares across'] img, [data-testid=own-paper][data-name='Squares across'] canvas, [data-testid=own-paper][data-name='Squares across'] svg"
        );
        browser.WaitForSync("All saved");

        // On a page of its own design a margin, a first line and a header can be set; a screen lies across.
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.Press("open-overview");
        browser.Until(() => browser.Count("[data-testid=overview-page]") == 2, "both pages");
        Menu(browser, 1, "page-paper");
        browser.PressCss("[data-testid=ready-paper][data-name='Squared, 5 mm']");
        browser.Fill("[data-testid=paper-margin]", "25");
        browser.Fill("[data-testid=paper-head]", "40");
        browser.Press("paper-headed");
        Choose(browser, "paper-size", "wide");
        Assert.Equal("true", browser.Attribute("paper-lies-across", "aria-pressed"));
        browser.Press("dialog-confirm");
        browser.WaitForSync("All saved");
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.Press("page-after");
        browser.Until(() => browser.Attribute("sheet", "data-sheet") == "0 0 32000 18000", "the sheet across");
        Assert.Empty(browser.Errors());
        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public void A_page_becomes_a_paper_that_others_of_the_group_write_on()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("open-overview");
        Menu(browser, 0, "page-freeze");
        browser.Fill("[data-testid=name-input]", "Wave sheet");
        browser.Press("dialog-confirm");
        browser.Until(() => Said(browser).Contains("Wave sheet", StringComparison.Ordinal), "what was made");
        browser.WaitForSync("All saved");

        var owner = Open(Group.Owner).Browser;
        owner.Go($"/pages/{Group.Space}/{Notebook}");
        Menu(owner, 1, "page-paper");
        owner.PressCss("[data-testid=ready-paper][data-name='Wave sheet']");
        owner.Press("dialog-confirm");
        owner.WaitForSync("All saved");
        owner.PressNth("overview-page", 1);
        owner.WaitForStrokes(0);
        // The frozen wave lies under the page as part of the paper: painted, but not as ink.
        var (x, y) = At(owner, 7000, 5000);
        owner.Until(
            () =>
                (bool)
                    owner.Script(
                        """
                        const [x, y] = arguments;
                        return [...document.querySelectorAll('[data-testid=sheet] canvas')].some((canvas) => {
                          const ratio = canvas.width / canvas.clientWidth;
                          const { data } = canvas.getContext('2d').getImageData((x - 20) * ratio, (y - 14) * ratio, 40 * ratio, 28 * ratio);
                          for (let i = 0; i < data.length; i += 4) if (data[i + 3] > 0 && data[i] < 120) return true;
                          return false;
                        });
                        """,
                        x,
                        y
                    )!,
            "the frozen wave"
        );
        owner.Wave(420, 420);
        owner.WaitForStrokes(1);
        owner.WaitForSync("All saved");
        // Their small pictures show the ink: the first painted by a worker, the one with a picture under it left to the browser.
        owner.Go($"/pages/{Group.Space}/{Notebook}");
        owner.Until(
            () =>
                (bool)
                    owner.Script(
                        """
                        const pictures = [...document.querySelectorAll('[data-testid=overview-page] img')].filter((image) => image.naturalWidth > 0);
                        const isWritten = (image) => {
                          const context = Object.assign(document.createElement('canvas'), { width: 360, height: 510 }).getContext('2d');
                          context.fillStyle = 'white';
                          context.fillRect(0, 0, 360, 510);
                          context.drawImage(image, 0, 0, 360, 510);
                          return context.getImageData(0, 0, 360, 510).data.some((value, i) => i % 4 === 0 && value < 120);
                        };
                        return pictures.length === 2 && pictures.every(isWritten) && pictures.map((image) => image.src.startsWith('blob:')).join() === 'true,false';
                        """
                    )!,
            "both small pictures"
        );
        owner.Go($"/papers/{Group.Space}");
        owner.Until(() => owner.Text("paper-uses") == "on 1 page", "how many pages lie on it");
        Assert.Empty(owner.Errors());
    }

    [Fact]
    public void Pages_are_put_in_order_in_the_overview_and_copied_elsewhere()
    {
        var browser = AtDesk(Group.Writer).Browser;
        NewNotebook(browser, "Bench log");
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.Fill("[data-testid=page-title]", "Wave" + Keys.Enter);
        browser.Press("add-page");
        WaitForPage(browser, "page 2 of 3");
        browser.Press("bookmark");
        browser.Press("open-overview");
        string[] Order() =>
            [.. browser.Driver.FindElements(By.CssSelector("[data-testid=overview-page]")).Select(page => page.GetAttribute("data-name")!)];
        browser.Until(() => Order().SequenceEqual(["Wave", "", ""]), "the order");
        browser.Css("[aria-label=Bookmarked]");

        // By hand behind the last one, by key one back.
        browser.Drag(
            () => browser.Css("[data-testid=overview-page][data-name=Wave]"),
            () => browser.Driver.FindElements(By.CssSelector("[data-testid=overview-page]"))[2]
        );
        browser.Until(() => Order()[0] != "Wave", "the page moved on");
        while (Order()[2] != "Wave")
            Key(browser, "Wave", Keys.ArrowRight);
        Key(browser, "Wave", Keys.ArrowLeft);
        browser.Until(() => Order().SequenceEqual(["", "Wave", ""]), "one back");
        browser.WaitForSync("All saved");

        // Two are chosen and copied into the other notebook, with their ink.
        browser.Press("overview-choose");
        browser.PressCss("[data-testid=overview-page][data-name=Wave]");
        browser.Until(() => browser.Count("[data-testid=overview-bar]") == 1, "the bar");
        browser.Press("bar-star");
        browser.Css("[aria-label=Starred]");
        browser.Press("bar-copy");
        browser.Fill("[data-testid=place-typed]", "bench" + Keys.Enter);
        browser.Until(() => Said(browser).Contains("Copied to Bench log", StringComparison.Ordinal), "what was done");
        browser.WaitForSync("All saved");
        OpenNotebook(browser, "Bench log");
        browser.Press("page-after");
        browser.WaitForStrokes(1);
        WaitForPage(browser, "page 2 of 2");
        browser.Go("/library/list/starred");
        Assert.Contains(
            "Wave",
            browser.Until(() => browser.Css("[data-testid=page-row]").Text, "the starred page"),
            StringComparison.Ordinal
        );
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task A_planner_comes_of_two_dates_and_a_calendar_and_takes_a_newer_one_over()
    {
        var folder = Directory.CreateTempSubdirectory("quill-calendar").FullName;
        var file = Path.Combine(folder, "class.ics");
        File.WriteAllText(file, Calendar("20261008T190000", "20261008T210000", "Clock class", extra: true));
        var browser = Open(Group.Writer).Browser;
        browser.Go($"/planner/{Group.Space}");
        browser.Fill("[data-testid=name-input]", "Autumn");
        foreach (var (field, day) in new[] { ("planner-first", "2026-10-01"), ("planner-last", "2106-10-01") })
            browser.SetDay(field, day);
        browser.Until(() => browser.Text("planner-problem").Contains("at most", StringComparison.Ordinal), "eighty years refused");
        browser.SetDay("planner-last", "2026-10-31");
        ChooseFile(browser, "calendar-file", file);
        browser.Press("make-planner");
        browser.WaitForStrokes(0);

        // From the year to the day by the printed date, to the entry's own page, and back to the day; the ink on the day stays.
        browser.Press("read-mode");
        GoTo(browser, "Thursday 8 October");
        browser.Press("read-mode");
        browser.Wave(300, 500);
        browser.WaitForStrokes(1);
        browser.Press("read-mode");
        browser.Press("zoom");
        browser.Press("zoom-fit");
        // 19:00 on the day's grid, which runs from 7 to 22 between 30 and 282 mm.
        Press(browser, 5000, 24500);
        browser.Until(() => browser.AttributeAt("[data-testid=page-title]", "value") == "Clock class, 8 October", "the entry's page");
        browser.Until(() => browser.Strokes() == 0, "the empty page");
        Press(browser, 3000, 900);
        browser.WaitForStrokes(1);

        // The newer file moves the class by a day, and no longer has the other entry.
        File.WriteAllText(file, Calendar("20261009T190000", "20261009T210000", "Clock class", extra: false));
        browser.Press("export");
        browser.Press("take-calendar");
        ChooseFile(browser, "calendar-file", file);
        browser.Press("dialog-confirm");
        browser.Until(
            () => Said(browser).Contains("2 entries were changed", StringComparison.Ordinal),
            $"what was changed, it says “{Said(browser)}”"
        );
        browser.Until(() => browser.Count("[data-testid=sheet]") == 1 && browser.Strokes() == 1, "the ink");
        Assert.Equal("Thursday 8 October", browser.AttributeAt("[data-testid=page-title]", "value"));
        browser.WaitForSync("All saved");
        // Its note page, which nobody named, is called by the new day.
        using (var caller = await Host.SignIn(Group.Writer))
        {
            var parts = new Uri(browser.Driver.Url).AbsolutePath.Split('/');
            var planner = new NotebookDocument();
            foreach (var operation in await caller.After(Guid.Parse(parts[2]), DocumentKind.Notebook, Guid.Parse(parts[3])))
                planner.Apply(operation);
            Assert.Contains("Clock class, 9 October", planner.Outline().Select(entry => entry.Title));
        }

        // A file that is none says so, and leaves all as it was.
        File.WriteAllText(file, "BEGIN:NOTHING");
        browser.Press("export");
        browser.Press("take-calendar");
        ChooseFile(browser, "calendar-file", file);
        browser.Press("dialog-confirm");
        browser.Until(() => browser.Text("calendar-problem").Contains("not an iCalendar file", StringComparison.Ordinal), "the refusal");
        Assert.Empty(browser.Errors());
        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public void Pages_turn_by_pulling_run_on_without_a_gap_and_are_read_without_writing()
    {
        var browser = OpenPage(Group.Writer);
        // Pulled past its end with a finger once a pen was seen: the next page; past the last: a new one.
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        for (var pages = 2; pages <= 3; pages++)
        {
            PullUp(browser);
            WaitForPage(browser, $"page {pages} of {Math.Max(2, pages)}");
            browser.Until(() => browser.Strokes() >= 0, "the sheet");
        }

        // Reading makes nothing, however it is pulled, scrolled or paged.
        browser.Press("read-mode");
        PullUp(browser);
        PullUp(browser);
        Wheel(browser, 900);
        browser.TypeWithControl(Keys.PageDown);
        WaitForPage(browser, "page 3 of 3");
        browser.Press("read-mode");
        // Nor does scrolling on while one writes: it takes a pull, which begins at the end and says what letting go does.
        Wheel(browser, 900);
        browser.Pen(400, 500, [.. Enumerable.Repeat((0, -30), 15)], kind: PointerKind.Touch, lift: false);
        browser.Until(() => browser.Css("[data-testid=pull]").Text == "Let go for a new page", "the sign");
        WaitForPage(browser, "page 3 of 3");
        LetGoAfter(browser, 400);
        WaitForPage(browser, "page 3 of 3");

        // Seamless: scrolling on changes the page, and ink at its end brings another one.
        browser.Press("export");
        browser.Press("turn-seamless");
        browser.WaitForStrokes(0);
        browser.Wave(420, 300);
        browser.WaitForStrokes(1);
        WaitForPage(browser, "page 3 of 4");
        PullUp(browser);
        WaitForPage(browser, "page 4 of 4");

        // In read mode the pen moves the sheet and writes nothing.
        browser.Press("read-mode");
        var before = browser.Attribute("sheet", "data-view");
        browser.Wave(420, 300);
        browser.Until(() => browser.Attribute("sheet", "data-view") != before, "the sheet moved");
        Assert.Equal(0, browser.Strokes());
        browser.Press("zoom");
        browser.Press("zoom-true");
        browser.Until(() => browser.Text("zoom").Contains("100 %", StringComparison.Ordinal), "true size");
        browser.Press("full-view");
        browser.Until(
            () =>
                browser
                    .Driver.FindElements(
                        By.CssSelector("nav[aria-label=Main], nav[aria-label=Pages], [data-testid=page-title], [data-testid=full-view]")
                    )
                    .All(one => !one.Displayed),
            "the page alone"
        );
        // Who reads has no tray to be given back; a corner leads out.
        Assert.Equal(0, browser.Count("[data-testid=full-corner]"));
        browser.Press("leave-full");
        browser.Press("read-mode");
        browser.Press("full-view");
        // A corner gives the tray back and takes it away; Escape leaves.
        bool HasTools() => browser.Driver.FindElements(By.CssSelector("[data-testid=pen-tray]")).Any(one => one.Displayed);
        browser.Press("full-corner");
        browser.Until(HasTools, "the tools");
        browser.Press("full-corner");
        browser.Until(() => !HasTools(), "the page alone again");
        browser.Type(Keys.Escape);
        browser.Until(() => browser.Css("nav[aria-label=Pages]").Displayed, "all of it");
        Assert.Empty(browser.Errors());
    }

    /// <summary>The finger that is down goes back so far, and is lifted.</summary>
    private static void LetGoAfter(Browser browser, int down)
    {
        var finger = new PointerInputDevice(PointerKind.Touch, "hand Touch");
        var actions = new ActionSequence(finger);
        actions.AddAction(finger.CreatePointerMove(CoordinateOrigin.Pointer, 0, down, TimeSpan.FromMilliseconds(60)));
        actions.AddAction(finger.CreatePointerUp(MouseButton.Left));
        browser.Driver.PerformActions([actions]);
    }

    private static void Wheel(Browser browser, int down)
    {
        var sheet = browser.Find("sheet");
        for (var at = 0; at < down; at += 100)
            new Actions(browser.Driver).ScrollFromOrigin(new WheelInputDevice.ScrollOrigin { Element = sheet }, 0, 100).Perform();
    }

    /// <summary>Twice with a finger: to the sheet's end, and past it.</summary>
    private static void PullUp(Browser browser)
    {
        for (var i = 0; i < 3; i++)
            browser.Pen(400, 520, [.. Enumerable.Repeat((0, -30), 13)], kind: PointerKind.Touch);
    }

    private static void Menu(Browser browser, int page, string entry)
    {
        browser.Until(() => browser.Driver.FindElements(By.CssSelector("[data-testid=overview-menu]")).Count > page, "the page");
        browser.PressNth("overview-menu", page);
        browser.Press(entry);
    }

    private static void Key(Browser browser, string page, string arrow)
    {
        browser.SendKeys($"[data-testid=overview-page][data-name={page}]", Keys.Alt + arrow);
        browser.Find("overview");
    }

    private static void GoTo(Browser browser, string title)
    {
        browser.Press("contents");
        browser.PressCss($"[data-testid=page][data-name='{title}'] button");
        browser.Until(() => browser.AttributeAt("[data-testid=page-title]", "value") == title, title);
        browser.Press("contents");
    }

    private static string Calendar(string start, string end, string title, bool extra)
    {
        var other = extra
            ? "BEGIN:VEVENT\r\nUID:tea@test\r\nDTSTAMP:20260101T000000Z\r\nDTSTART:20261012T150000\r\nSUMMARY:Tea\r\nEND:VEVENT\r\n"
            : "";
        return $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Test//EN\r\nBEGIN:VEVENT\r\nUID:class@test\r\nDTSTAMP:20260101T000000Z\r\nDTSTART:{start}\r\nDTEND:{end}\r\nSUMMARY:{title}\r\nEND:VEVENT\r\n{other}END:VCALENDAR\r\n";
    }
}
