using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;
using CalmQuill.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;
using static CalmQuill.Interface.Tests.PageHands;

namespace CalmQuill.Interface.Tests;

/// <summary>Every tool of the tray, with a real pen, as a person takes them up one after the other.</summary>
public sealed class HandTests : InterfaceTest
{
    [Fact]
    public async Task Pens_are_changed_added_and_switched_and_the_tray_is_the_same_on_another_device()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("pen-2");
        browser.Press("pen-2");
        browser.Press("kind-calligraphy");
        Type(browser, "pen-width-number", "2.5");
        Type(browser, "hex", "#2c5d9b");
        browser.Press("line-dashed");
        browser.Wave(520, 300);
        browser.WaitForStrokes(2);
        Assert.Equal(0, browser.Count("[data-testid=pen-settings]"));
        browser.Press("pen-2");
        browser.Press("add-pen");
        browser.Press("kind-highlighter");
        browser.Press("pen-straight");
        browser.Pen(520, 380, [(40, 2), (40, -2), (40, 3), (40, 0)]);
        browser.WaitForStrokes(3);
        // X is the pen before, a number the pen of that place.
        browser.Type("x");
        browser.Until(() => browser.Attribute("pen-2", "aria-pressed") == "true", "the pen before");
        browser.Type("1");
        browser.Until(() => browser.Attribute("pen-1", "aria-pressed") == "true", "the first pen");
        browser.WaitForSync("All saved");
        var strokes = (await Shown()).Items.ToList();
        // What marks lies behind all ink.
        Assert.Equal([PenKind.Highlighter, PenKind.Ball, PenKind.Calligraphy], strokes.Select(item => item.Line.Pen.Kind));
        Assert.Equal(
            (250, 0x2C5D9BFFu, LineStyle.Dashed),
            (strokes[2].Line.Pen.Width, strokes[2].Line.Pen.Colour, strokes[2].Line.Pen.Line)
        );
        Assert.Equal(2, strokes[0].Line.Samples.Count);

        var other = OpenPage(Group.Writer, strokes: 3);
        other.Until(() => other.Count("[data-testid^=pen-][aria-label^=Pen]") == 7, "seven pens on the other device");
        Assert.Contains("Calligraphy pen, 2.50 mm, #2c5d9b", other.Attribute("pen-2", "aria-label")!, StringComparison.Ordinal);
        other.Press("pen-3");
        other.Press("pen-3");
        other.Press("own-tray");
        other.Press("remove-pen");
        other.Until(() => other.Count("[data-testid^=pen-][aria-label^=Pen]") == 6, "one pen less in this notebook");
        Assert.Empty(browser.Errors().Concat(other.Errors()));
    }

    [Fact]
    public async Task A_word_stays_a_word_when_the_pen_rests_and_a_shape_is_proposed_and_dropped_by_moving_on()
    {
        var browser = OpenPage(Group.Writer);
        // As “mmm” is written, and rested on.
        browser.Pen(
            420,
            420,
            [.. Enumerable.Range(0, 16).Select(i => (6, (int)(14 * Math.Sin(i * 0.9))))],
            rest: TimeSpan.FromMilliseconds(1200)
        );
        browser.WaitForStrokes(2);
        // A square is proposed while the pen rests: the ink is still there, and nothing has come to the page.
        (int, int)[] square = [.. Side(9, 0, 10), .. Side(0, 9, 10), .. Side(-9, 0, 10), .. Side(0, -9, 9)];
        bool IsProposed() => browser.Count("canvas[data-part=proposal][data-shown='1']") == 1;
        browser.Pen(420, 500, square, lift: false, rest: TimeSpan.FromMilliseconds(1200));
        browser.Until(IsProposed, "the proposal");
        Assert.Equal(2, browser.Strokes());
        var pen = new PointerInputDevice(PointerKind.Pen, "hand Pen");
        var on = new ActionSequence(pen);
        on.AddAction(pen.CreatePointerMove(CoordinateOrigin.Pointer, 40, 30, TimeSpan.FromMilliseconds(80)));
        on.AddAction(pen.CreatePointerUp(MouseButton.Left));
        browser.Driver.PerformActions([on]);
        browser.WaitForStrokes(3);
        Assert.False(IsProposed());
        browser.WaitForSync("All saved");
        Assert.DoesNotContain((await Shown()).Items, item => item.AsShape() is not null);
        // Who wants larger things only gets no proposal for a small one.
        browser.Press("tool-shape");
        var least = browser.Find("tidy-least");
        least.SendKeys(Keys.End);
        browser.Press("pen-1");
        browser.Pen(700, 300, square, rest: TimeSpan.FromMilliseconds(1200));
        browser.WaitForStrokes(4);
        browser.WaitForSync("All saved");
        Assert.DoesNotContain((await Shown()).Items, item => item.AsShape() is not null);
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task A_rough_shape_comes_out_true_when_the_pen_rests_and_one_undo_has_the_rough_one_back()
    {
        var browser = OpenPage(Group.Writer);
        browser.Pen(
            420,
            300,
            [.. Side(9, 0, 10), .. Side(0, 9, 10), .. Side(-9, 0, 10), .. Side(0, -9, 9)],
            rest: TimeSpan.FromMilliseconds(1200)
        );
        browser.WaitForStrokes(2);
        browser.WaitForSync("All saved");
        var square = (await Shown()).Items.Single(item => item.AsShape() is not null);
        Assert.Equal(ShapeKind.Square, square.AsShape()!.Shape.Kind);
        browser.Press("undo");
        browser.WaitForStrokes(2);
        browser.WaitForSync("All saved");
        Assert.DoesNotContain((await Shown()).Items, item => item.Shown && item.AsShape() is not null);
        browser.Press("redo");

        // The shape tool needs no rest; a head makes a line an arrow, and a fill fills what is closed.
        browser.Press("tool-shape");
        browser.Pen(600, 320, [.. Side(12, 0, 12)]);
        browser.WaitForStrokes(3);
        browser.Pen(722, 306, [.. Side(3, 2, 7), .. Side(-3, 2, 7)]);
        browser.TakeTool("fill");
        browser.Pen(465, 345, []);
        browser.WaitForSync("All saved");
        await UntilPage(
            page =>
                page.Items.Any(item => item.Shown && item.AsShape()?.Shape?.Kind == ShapeKind.Arrow)
                && page.Items.Any(item => item.Shown && item.AsShape()?.Shape?.Kind == ShapeKind.Square && item.Line.Fill != 0),
            "an arrow and a filled square"
        );

        // A handle changes the shape; the square stays one.
        browser.Press("tool-loop");
        browser.Pen(465, 300, []);
        browser.Find("shape-handle");
        var before = (await Shown())
            .Items.Single(item => item.Shown && item.AsShape()?.Shape?.Kind == ShapeKind.Square)
            .AsShape()!
            .PlacedShape!;
        DragHandle(browser, 2, 60, 60);
        browser.WaitForSync("All saved");
        var after = (await Shown()).Items.Single(item => item.Shown && item.AsShape()?.Shape is { IsClosed: true }).AsShape()!.PlacedShape!;
        Assert.Equal(ShapeKind.Square, after.Kind);
        Assert.True(after.Points[0].To(after.Points[1]) > before.Points[0].To(before.Points[1]) + 1000);
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task What_is_selected_is_moved_turned_scaled_restyled_doubled_grouped_locked_and_laid_on_another_page()
    {
        var browser = OpenPage(Group.Writer);
        browser.Wave(420, 420);
        browser.WaitForStrokes(2);
        browser.Press("tool-loop");
        browser.Pen(470, 420, []);
        var first = await Stroke();
        DragCss(browser, "[data-testid=selection-frame]", 80, 40);
        browser.Until(() => browser.Attribute("selection", "data-items") == "1", "the selection to stay");
        var along = 80 * 10_000 / (At(browser, 10_000, 0).X - At(browser, 0, 0).X);
        Assert.InRange((await Stroke()).Dx - first.Dx, along - 400, along + 400);
        browser.Type(Keys.ArrowDown);
        browser.Type(Keys.ArrowDown);
        browser.WaitForSync("All saved");
        var moved = await Stroke();
        Assert.InRange(moved.Dy - first.Dy, along / 2 + 0, along / 2 + 400);
        DragCss(browser, "[data-testid=grip][data-grip='1,1']", 50, 20);
        await UntilPage(page => Last(page).Line.Pen.Width > 44, "a wider line, grown with its stroke");
        DragCss(browser, "[data-testid=turn-grip]", -123, 41);
        await UntilPage(page => Height(Last(page)) > Width(Last(page)), "a stroke turned upright");
        browser.Press("look-taken");
        browser.Press("ink-madder");
        await UntilPage(page => Last(page).Line.Pen.Colour == 0xB4533CFF, "madder ink");
        Assert.Contains("black", browser.Attribute("pen-1", "aria-label")!, StringComparison.Ordinal);
        browser.Press("duplicate-taken");
        browser.WaitForStrokes(3);
        browser.TypeWithControl("a");
        browser.Until(() => browser.Attribute("selection", "data-items") == "3", "all three");
        More(browser);
        browser.Press("group");
        browser.Press("mirror");
        await UntilPage(
            page => page.Items.Where(item => item.Shown).Select(item => item.Group).Distinct().Single().Length > 0,
            "one group"
        );
        browser.TypeWithControl("x");
        browser.WaitForStrokes(0);
        browser.Type(Keys.PageDown);
        WaitForPage(browser, "page 2 of 2");
        browser.TypeWithControl("v");
        browser.WaitForStrokes(3);
        More(browser);
        browser.Press("lock-taken");
        browser.Press("tool-eraser");
        browser.Press("tool-eraser");
        browser.Press("erase-whole");
        browser.Pen(640, 360, [.. Side(6, 6, 20)]);
        Assert.Equal(3, browser.Strokes());
        browser.Press("undo");
        browser.Press("undo");
        browser.WaitForStrokes(0);
        Assert.Empty(browser.Errors());

        async Task<PageItem> Stroke()
        {
            browser.WaitForSync("All saved");
            return Last(await Shown());
        }
    }

    [Fact]
    public async Task Held_at_the_lower_edge_a_selection_goes_to_the_next_page()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("tool-loop");
        Loop(browser, 2000, 4000, 12000, 6000);
        var frame = browser.Find("selection-frame");
        var pen = new PointerInputDevice(PointerKind.Pen, "hand");
        var edge = Convert.ToInt32(
            browser.Script("return document.querySelector('[data-testid=sheet]').getBoundingClientRect().bottom - 10"),
            System.Globalization.CultureInfo.InvariantCulture
        );
        var sequence = new ActionSequence(pen);
        sequence.AddAction(pen.CreatePointerMove(frame, 0, 0, TimeSpan.Zero));
        sequence.AddAction(pen.CreatePointerDown(MouseButton.Left));
        sequence.AddAction(pen.CreatePointerMove(CoordinateOrigin.Viewport, 640, edge, TimeSpan.FromMilliseconds(120)));
        browser.Driver.PerformActions([sequence]);
        WaitForPage(browser, "page 2 of 2");
        browser.WaitForStrokes(1);
        browser.Driver.ResetInputState();
        browser.WaitForSync("All saved");
        Assert.DoesNotContain((await Shown()).Items, item => item.Shown);
    }

    [Fact]
    public async Task Room_is_made_and_what_leaves_the_sheet_goes_to_the_next_page()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("tool-room");
        var (x, y) = At(browser, 10000, 3000);
        browser.Pen(x, y, [.. Side(0, 10, 10)]);
        browser.WaitForSync("All saved");
        Assert.InRange((await Shown()).Items[0].Dy, 2500, 4500);
        browser.Press("undo");
        // Drawn back as far as there is empty space, and no farther.
        var (_, low) = At(browser, 10000, 8000);
        browser.Pen(x, y, [.. Side(0, low - y, 3)]);
        browser.WaitForSync("All saved");
        browser.Wave(x, y + 40);
        browser.Press("tool-room");
        browser.Press("zoom");
        browser.Press("zoom-fit");
        var (px, py) = At(browser, 10000, 10000);
        var (_, end) = At(browser, 10000, 29000);
        browser.Pen(px, py, [.. Side(0, (end - py) / 8, 8)]);
        WaitForPage(browser, "page 2 of 2");
        browser.WaitForStrokes(1);

        // It was one step on both pages, from whichever of them it is taken back or done again.
        void See(int page, int strokes)
        {
            if (!browser.Text("page-number").StartsWith($"page {page} ", StringComparison.Ordinal))
                browser.Press(page == 1 ? "page-before" : "page-after");
            WaitForPage(browser, $"page {page} of 2");
            browser.WaitForStrokes(strokes);
        }

        See(1, 0);
        browser.Press("undo");
        See(1, 1);
        See(2, 0);
        See(1, 1);
        browser.Press("redo");
        See(1, 0);
        See(2, 1);
        browser.Press("undo");
        See(2, 0);
        See(1, 1);
        browser.Press("redo");
        See(1, 0);

        // Behind the last page one is offered; until then what is beyond the sheet can be come to.
        See(2, 1);
        browser.Press("zoom");
        browser.Press("zoom-fit");
        (px, py) = At(browser, 10000, 500);
        (_, end) = At(browser, 10000, 29500);
        browser.Press("tool-room");
        browser.Pen(px, py, [.. Side(0, (end - py) / 8, 8)]);
        browser.Until(() => LibraryHands.Said(browser).Contains("beyond the sheet", StringComparison.Ordinal), "the offer");
        browser.WaitForStrokes(1);
        browser.Press("take-back");
        WaitForPage(browser, "page 3 of 3");
        browser.WaitForStrokes(1);
        browser.WaitForSync("All saved");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task What_lies_far_beyond_the_sheet_can_be_come_to()
    {
        using (var caller = await Host.SignIn(Group.Owner))
            await caller.Send(
                Group.Space,
                DocumentKind.Page,
                Page,
                new Replica(7, Group.Owner.Id).Make(
                    new Change.StrokeAdded(new Pen(PenKind.Ball, 300, 0xFF), 1, new([9000, 12000], [90_000, 90_000], [500, 500], [0, 8])),
                    1
                )
            );
        var browser = OpenPage(Group.Writer, strokes: 2);
        // The hand goes down and down; no page is turned on the way, and the ink comes into sight.
        browser.TakeTool("habits");
        browser.Until(
            () =>
            {
                new Actions(browser.Driver)
                    .ScrollFromOrigin(new WheelInputDevice.ScrollOrigin { Element = browser.Find("sheet") }, 0, 300)
                    .Perform();
                return At(browser, 10_500, 90_000).Y < 600;
            },
            "the ink to come into sight"
        );
        WaitForPage(browser, "page 1 of 2");
        WaitForInk(browser, 10_500, 90_000);
    }

    [Fact]
    public async Task Layers_are_added_written_on_hidden_and_merged()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("tool-layers");
        browser.Press("add-layer");
        browser.Until(() => browser.Count("[data-testid=layer]") == 2, "two layers");
        Type(browser, "layer-name", "Answers");
        browser.Wave(560, 420);
        browser.WaitForStrokes(2);
        browser.PressCss("[data-testid=layer][data-name=Answers] [data-testid=layer-hide]");
        browser.WaitForStrokes(1);
        browser.PressCss("[data-testid=layer][data-name=Answers] [data-testid=layer-hide]");
        browser.WaitForStrokes(2);
        browser.PressCss("[data-testid=layer][data-name=Answers] [data-testid=layer-lock]");
        browser.WaitForSync("All saved");
        var page = await Shown();
        Assert.Equal("Answers", page.Layers[1].Name);
        Assert.False(page.Items[^1].IsOpen);
        browser.Press("layer-merge");
        await UntilPage(merged => merged.Layers.Count == 1 && merged.Items.Count(item => item.IsOpen) == 2, "one layer with both");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task A_curtain_hangs_lifts_and_falls_and_a_ruler_keeps_ink_straight()
    {
        var browser = OpenPage(Group.Writer);
        browser.TakeTool("curtain");
        browser.Pen(520, 420, [.. Side(20, 10, 10)]);
        browser.SendKeys("[data-testid=curtain-note]", "How many teeth?", Keys.Enter);
        browser.PressCss("[data-testid=curtain] button");
        browser.Until(() => browser.Attribute("curtain", "data-lifted") == "1", "the curtain lifted");
        browser.PressCss("[data-testid=curtain] button");
        browser.Until(() => browser.Attribute("curtain", "data-lifted") is null, "the curtain fallen");
        browser.WaitForSync("All saved");
        Assert.Equal("How many teeth?", Assert.Single((await Shown()).Spots())[Core.Spots.SpotField.Note]);

        browser.Press("pen-1");
        browser.TakeTool("guide");
        browser.Press("guide-ruler");
        browser.Type(Keys.Escape);
        var edge = browser.Find("guide-body").Location;
        var sheet = browser.Find("sheet").Location;
        browser.Pen(edge.X - sheet.X + 60, edge.Y - sheet.Y - 6, [(30, -5), (30, 6), (30, -8), (30, 7), (30, -4)]);
        browser.WaitForStrokes(2);
        browser.WaitForSync("All saved");
        var ruled = (await Shown()).Items[^1].Line.Samples;
        Assert.True(ruled.Y.Max() - ruled.Y.Min() <= 1);
        // With a pen in the hand its body stays and ink goes to the lower edge; its grip moves it.
        var body = browser.Find("guide-body");
        var high = body.Size.Height;
        browser.Pen(edge.X - sheet.X + 60, edge.Y - sheet.Y + high * 3 / 4, [(30, -3), (30, 4), (30, -5), (30, 3)]);
        browser.WaitForStrokes(3);
        browser.WaitForSync("All saved");
        var lower = (await Shown()).Items[^1].Line.Samples;
        Assert.True(lower.Y.Max() - lower.Y.Min() <= 1);
        Assert.InRange(lower.Y[0] - ruled.Y[0], 1850, 1950);
        Assert.Equal(edge, browser.Find("guide-body").Location);
        DragCss(browser, "[data-testid=guide-move]", 0, 40);
        Assert.InRange(browser.Find("guide-body").Location.Y - edge.Y, 37, 43);
        browser.Press("guide-away");
        Assert.Equal(0, browser.Count("[data-testid=guide]"));
    }

    [Fact]
    public async Task The_loupe_writes_small_and_steps_on_and_retracing_shows_it_being_written()
    {
        var browser = OpenPage(Group.Writer);
        browser.TakeTool("loupe");
        var box = Box();
        var strip = browser.Find("loupe-strip");
        var pen = new PointerInputDevice(PointerKind.Pen, "hand");
        var sequence = new ActionSequence(pen);
        sequence.AddAction(pen.CreatePointerMove(strip, strip.Size.Width * 3 / 8, 0, TimeSpan.Zero));
        sequence.AddAction(pen.CreatePointerDown(MouseButton.Left, new PointerInputDevice.PointerEventProperties { Pressure = 0.5 }));
        for (var i = 0; i < 12; i++)
            sequence.AddAction(pen.CreatePointerMove(CoordinateOrigin.Pointer, 5, i % 2 == 0 ? 20 : -20, TimeSpan.FromMilliseconds(8)));
        sequence.AddAction(pen.CreatePointerUp(MouseButton.Left));
        browser.Driver.PerformActions([sequence]);
        browser.WaitForStrokes(2);
        browser.Until(() => Box() > box + 20, "the box to step on");
        browser.WaitForSync("All saved");
        // Drawn 60 pixels wide at three times the size.
        var small = (await Shown()).Items[^1];
        Assert.InRange(
            Width(small)
                * (double)browser.Script("return Number(document.querySelector('[data-testid=sheet]').dataset.view.split(' ')[0])")!,
            15,
            30
        );
        // However often it goes to the next line, the page follows.
        for (var i = 0; i < 30; i++)
            browser.Press("loupe-line");
        browser.Until(
            () =>
                (bool)
                    browser.Script(
                        "const box = document.querySelector('[data-testid=loupe-box]').getBoundingClientRect(), strip = document.querySelector('[data-testid=loupe-strip]').getBoundingClientRect(); return box.bottom < strip.top && box.top > 0"
                    )!,
            "the box in sight above the strip"
        );
        browser.Press("loupe-close");
        browser.TakeTool("retrace");
        browser.Until(
            () => browser.Text("retrace-time").StartsWith(browser.Text("retrace-time").Split(" / ")[1], StringComparison.Ordinal),
            "the end of the writing"
        );
        browser.Press("retrace-close");
        Assert.Equal(2, browser.Strokes());
        Assert.Empty(browser.Errors());

        double Box() =>
            Convert.ToDouble(
                browser.Script("return document.querySelector('[data-testid=loupe-box]').getBoundingClientRect().left"),
                System.Globalization.CultureInfo.InvariantCulture
            );
    }

    [Fact]
    public void Fingers_do_as_chosen_two_of_them_undo_and_a_scratch_takes_ink_away()
    {
        var browser = OpenPage(Group.Writer);
        browser.Wave(520, 420);
        browser.WaitForStrokes(2);
        Touch(browser, 2);
        browser.WaitForStrokes(1);
        Touch(browser, 3);
        browser.WaitForStrokes(2);
        browser.TakeTool("habits");
        browser.Press("finger-erase");
        browser.Type(Keys.Escape);
        browser.Press("tool-eraser");
        browser.Press("tool-eraser");
        browser.Press("erase-loop");
        browser.Press("scratch");
        browser.Press("pen-1");
        // The finger goes round what the pen wrote.
        browser.Pen(500, 390, [.. Side(17, 0, 8), .. Side(0, 8, 8), .. Side(-17, 0, 8), .. Side(0, -8, 7)], kind: PointerKind.Touch);
        browser.WaitForStrokes(1);
        browser.Press("undo");
        browser.WaitForStrokes(2);
        browser.Pen(515, 400, [.. Enumerable.Range(0, 9).SelectMany(i => Side(i % 2 == 0 ? 14 : -14, 1, 8))]);
        browser.WaitForStrokes(1);
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task Very_much_is_laid_down_step_by_step_can_be_given_up_and_is_undone_at_once()
    {
        const int many = 4_000;
        using (var caller = await Host.SignIn(Group.Owner))
        {
            var device = new Replica(7, Group.Owner.Id);
            StrokeSamples Dash(int i) =>
                new([1500 + i % 90 * 190, 1600 + i % 90 * 190], [3000 + i / 90 * 500, 3250 + i / 90 * 500], [500, 500], [0, 8]);
            var strokes = Enumerable
                .Range(0, many)
                .Select(i => device.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 30, 0xFF), 1, Dash(i)), 1));
            foreach (var part in strokes.Chunk(400))
                await caller.Send(Group.Space, DocumentKind.Page, Page, part);
        }

        var browser = OpenPage(Group.Writer, many + 1);
        browser.TypeWithControl("a");
        browser.Until(() => browser.Attribute("selection", "data-items") == $"{many + 1}", "all to be selected");
        browser.TypeWithControl("c");
        browser.TypeWithControl("v");
        browser.Press("give-up");
        browser.Until(
            () => browser.Count("[data-testid=long-work]") == 0 && browser.Strokes() == many + 1,
            "what was laid down to go again"
        );
        browser.TypeWithControl("v");
        // It goes on while something else is laid down on another page.
        browser.Press("page-after");
        WaitForPage(browser, "page 2 of 2");
        browser.Wave(520, 420);
        browser.WaitForStrokes(1);
        browser.TypeWithControl("a");
        browser.Find("selection");
        browser.TypeWithControl("c");
        browser.TypeWithControl("v");
        browser.WaitForStrokes(2);
        browser.Press("page-before");
        browser.WaitForStrokes(2 * (many + 1));
        browser.Until(() => browser.Count("[data-testid=long-work]") == 0, "all to be laid down");
        browser.Press("undo");
        browser.Press("give-up");
        browser.Until(
            () => browser.Count("[data-testid=long-work]") == 0 && browser.Strokes() == 2 * (many + 1),
            "what was undone to be there again"
        );
        browser.Press("undo");
        browser.WaitForStrokes(many + 1);
        browser.WaitForSync("All saved");
        Assert.Equal(many + 1, (await Shown()).Items.Count(item => item.Shown));

        // A full page is painted from what the device kept of its outlines; what has come since is not missing.
        browser.Until(() => KeptPackets(browser) > 0, "the outlines to be kept");
        browser.Go(PagePath);
        browser.WaitForStrokes(many + 1);
        WaitForInk(browser, 1550, 3125);
        browser.Wave(520, 640);
        browser.WaitForStrokes(many + 2);
        browser.WaitForSync("All saved");
        browser.Go(PagePath);
        browser.WaitForStrokes(many + 2);
        WaitForInk(browser, 1550, 3125);

        // Turned back to while the layers are unfolded, which only Core knows.
        browser.Press("tool-layers");
        browser.Find("layers-panel");
        browser.Press("page-after");
        WaitForPage(browser, "page 2 of 2");
        browser.Press("page-before");
        browser.WaitForStrokes(many + 2);
        browser.Until(() => browser.Count("[data-testid=layer]") == 1, "the page's layer");
        Assert.Empty(browser.Errors());
    }

    /// <summary>Waits until something dark is painted around a spot of the page, 0.01 mm.</summary>
    private static void WaitForInk(Browser browser, double x, double y)
    {
        var (px, py) = At(browser, x, y);
        browser.Until(
            () =>
                (bool)
                    browser.Script(
                        """
                        const [x, y] = arguments;
                        return [...document.querySelectorAll('[data-testid=sheet] canvas')].filter((one) => one.style.visibility !== 'hidden').some((canvas) => {
                          const { data } = canvas.getContext('2d').getImageData(x * devicePixelRatio - 4, y * devicePixelRatio - 4, 8, 8);
                          return data.some((value, i) => i % 4 === 3 && value > 128 && data[i - 1] + data[i - 2] + data[i - 3] < 300);
                        });
                        """,
                        px,
                        py
                    )!,
            "ink to be painted"
        );
    }

    /// <summary>Unfolds the rest of what can be done with a selection.</summary>
    private static void More(Browser browser) =>
        browser.Until(
            () =>
            {
                if (browser.Count("[data-testid=more-panel]") == 0)
                    browser.Press("more-taken");
                return browser.Count("[data-testid=more-panel]") == 1;
            },
            "more to do"
        );

    private static (int Dx, int Dy)[] Side(int dx, int dy, int steps) => [.. Enumerable.Repeat((dx, dy), steps)];

    private static PageItem Last(PageDocument page) => page.Items.Last(item => item.Shown);

    private static int Width(PageItem item) => item.Bounds.Right - item.Bounds.Left;

    private static int Height(PageItem item) => item.Bounds.Bottom - item.Bounds.Top;

    /// <summary>The page as the server holds it.</summary>
    private async Task<PageDocument> Shown()
    {
        using var caller = await Host.SignIn(Group.Owner);
        var page = new PageDocument();
        foreach (var operation in await caller.After(Group.Space, DocumentKind.Page, Page))
            page.Apply(operation);
        return page;
    }

    private async Task UntilPage(Func<PageDocument, bool> holds, string what)
    {
        for (var until = DateTime.UtcNow.AddSeconds(20); DateTime.UtcNow < until; )
        {
            if (holds(await Shown()))
                return;
        }

        Assert.Fail("waited for " + what);
    }

    private static void Type(Browser browser, string testId, string text) =>
        browser.SendKeys($"[data-testid={testId}]", Keys.Control + "a", text + Keys.Enter);

    private static void DragCss(Browser browser, string css, int dx, int dy) => Drag(browser, () => browser.Css(css), dx, dy);

    private static void DragHandle(Browser browser, int nth, int dx, int dy) =>
        Drag(browser, () => browser.Driver.FindElements(By.CssSelector("[data-testid=shape-handle]"))[nth], dx, dy);

    private static void Drag(Browser browser, Func<IWebElement> from, int dx, int dy) =>
        browser.Until(
            () =>
            {
                new Actions(browser.Driver)
                    .ClickAndHold(from())
                    .MoveByOffset(dx / 2, dy / 2)
                    .MoveByOffset(dx - dx / 2, dy - dy / 2)
                    .Release()
                    .Perform();
                return true;
            },
            "what is dragged"
        );

    /// <summary>Several fingers come down together and go again.</summary>
    private static void Touch(Browser browser, int fingers)
    {
        var sheet = browser.Find("sheet");
        browser.Driver.PerformActions([
            .. Enumerable
                .Range(0, fingers)
                .Select(i =>
                {
                    var finger = new PointerInputDevice(PointerKind.Touch, $"finger {i}");
                    var sequence = new ActionSequence(finger);
                    sequence.AddAction(finger.CreatePointerMove(sheet, 80 * i, 40, TimeSpan.Zero));
                    sequence.AddAction(finger.CreatePointerDown(MouseButton.Left));
                    sequence.AddAction(finger.CreatePointerUp(MouseButton.Left));
                    return sequence;
                }),
        ]);
    }
}
