using System.Globalization;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Store;
using CalmQuill.Store.Assets;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;
using SkiaSharp;

namespace CalmQuill.Interface.Tests;

/// <summary>Pictures and slips on a page, as people put them in and use them.</summary>
public sealed class PictureFlowTests : InterfaceTest
{
    private readonly string folder = Directory.CreateTempSubdirectory("quill-pictures").FullName;

    [Fact]
    public async Task A_picture_is_put_in_made_brighter_cut_written_under_and_laid_behind_the_ink()
    {
        var browser = OpenPage(Group.Writer);
        PutIn(browser, Drawing());
        browser.WaitForStrokes(2);
        var picture = PictureOn(browser)!;
        var (left, top, right, bottom) = picture.Bounds;
        var content = (PictureContent)picture.Content;
        // In the middle of what is seen, selected, as wide as it is high.
        Assert.Equal("1", browser.Attribute("selection", "data-items"));
        Assert.Equal(right - left, bottom - top, 2.0);
        PageHands.Sees(browser, left + 200, top + 200, 212, 200, 178);

        browser.Press("look-taken");
        Slide(browser, "picture-opacity", 50);
        PageHands.Sees(browser, left + 200, top + 200, 233, 226, 212);
        Slide(browser, "picture-opacity", 100);
        Slide(browser, "picture-brightness", 15);
        PageHands.Sees(browser, left + 200, top + 200, 250, 238, 216);
        Assert.Empty(browser.SeriousFindings());
        browser.Press("picture-as-it-was");
        PageHands.Sees(browser, left + 200, top + 200, 212, 200, 178);

        // Its right half, by its edge; and with the loop, then all of it again.
        browser.Press("picture-crop");
        var (x, y) = PageHands.At(browser, right, (top + bottom) / 2.0);
        var (middle, _) = PageHands.At(browser, (left + right) / 2.0, 0);
        browser.Pen(x, y, [(middle - x, 0)]);
        browser.Press("crop-keep");
        browser.Until(() => PictureOn(browser)!.Bounds.Right < right - 500, "half of it");
        PageHands.Sees(browser, right - 300, top + 400, 255, 253, 247);
        browser.Press("look-taken");
        browser.Press("picture-crop");
        browser.Press("crop-loop");
        var (px, py) = PageHands.At(browser, left + 300, top + 300);
        browser.Pen(px, py, [(60, 0), (20, 40), (-20, 40), (-60, 0), (-20, -40)]);
        Assert.Empty(browser.SeriousFindings());
        browser.Press("crop-keep");
        browser.Until(() => ((PictureContent)PictureOn(browser)!.Content).Shown.Cut.Corners.Count > 4, "a loop");
        browser.Press("undo");
        browser.Press("undo");
        browser.Until(() => PictureOn(browser)!.Bounds.Right == right, "all of it");

        browser.Press("look-taken");
        browser.Press("picture-caption");
        browser.Type("Figure one");
        browser.Press("typing-done");
        browser.Until(() => PictureOn(browser)!.Content.Words == "Figure one", "words under it");
        Assert.Equal(content.Shown.Asset, ((PictureContent)PictureOn(browser)!.Content).Shown.Asset);

        // What is written on it lies on it, and behind the ink it lies once it is told to.
        var (ax, ay) = PageHands.At(browser, left + 600, top + 600);
        browser.Press("pen-1");
        browser.Pen(ax, ay, [(20, 0), (20, 0), (20, 0)]);
        browser.WaitForStrokes(3);
        Assert.Equal(ItemKinds.Ink, Shown(browser)[^1].Kind);
        PageHands.Loop(browser, left - 300, top - 300, right + 300, bottom + 900);
        Assert.Equal("2", browser.Attribute("selection", "data-items"));
        browser.Press("leave-taken");
        PageHands.Press(browser, left + 300, bottom - 300);
        browser.Press("more-taken");
        browser.Press("to-back");
        browser.Until(() => Shown(browser)[0].Kind == ItemKinds.Picture, "the picture behind all ink");

        // Everybody has it, and an eraser that takes whole things leaves it.
        var other = OpenPage(Group.Owner, 3);
        PageHands.Sees(other, left + 200, top + 200, 212, 200, 178);
        Assert.Equal("Figure one", PictureOn(other, Group.Owner)!.Content.Words);
        var kept = await Host.Services.GetRequiredService<AssetStore>().Find(content.Shown.Asset, Group.Space, CancellationToken.None);
        Assert.Equal("image/png", kept!.Type);
        Assert.Empty(browser.Errors());
        Assert.Empty(other.Errors());
    }

    [Fact]
    public void The_paper_of_a_photographed_drawing_goes_and_comes_back()
    {
        var browser = OpenPage(Group.Writer);
        PutIn(browser, Drawing());
        browser.WaitForStrokes(2);
        var (left, top, right, bottom) = PictureOn(browser)!.Bounds;
        browser.Press("look-taken");
        browser.Press("picture-clear");
        browser.Until(() => browser.AttributeAt("[data-testid=clear-preview]", "data-strength") == "45", "it is tried out");
        Assert.Empty(browser.SeriousFindings());
        browser.Press("clear-keep");
        browser.Until(() => ((PictureContent)PictureOn(browser)!.Content).Cleared == 45, "a picture without its paper");
        // Between the lines of the sheet there is its own paper now, and the ink stays.
        PageHands.Sees(browser, left + 200, top + 200, 255, 253, 247);
        PageHands.Sees(browser, (left + right) / 2, (top + bottom) / 2, 26, 30, 54);
        browser.Press("look-taken");
        browser.Press("picture-as-it-was");
        PageHands.Sees(browser, left + 200, top + 200, 212, 200, 178);
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void What_is_pasted_and_dropped_comes_onto_the_page_also_without_a_connection()
    {
        var (browser, network) = Open(Group.Writer);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        WaitUntilKept(browser);
        network.Cut();
        Give(browser, "paste", Drawing());
        browser.WaitForStrokes(2);
        var (left, top, _, _) = PictureOn(browser)!.Bounds;
        PageHands.Sees(browser, left + 200, top + 200, 212, 200, 178);
        browser.WaitForSync("1 picture waiting for a connection");
        // It lives through a reload.
        browser.Driver.Navigate().Refresh();
        browser.WaitForStrokes(2);
        PageHands.Sees(browser, left + 200, top + 200, 212, 200, 178);
        network.Mend();
        browser.WaitForSync("All saved");
        Give(browser, "drop", Drawing());
        browser.WaitForStrokes(3);
        browser.WaitForSync("All saved");
        var other = OpenPage(Group.Owner, 3);
        PageHands.Sees(other, left + 200, top + 200, 212, 200, 178);
        Assert.Empty(other.Errors());
    }

    [Fact]
    public async Task A_picture_that_has_not_come_keeps_no_other_back()
    {
        var browser = OpenPage(Group.Writer);
        PutIn(browser, Drawing());
        browser.WaitForStrokes(2);
        var first = (PictureContent)PictureOn(browser)!.Content;
        PutIn(browser, Drawing(90));
        browser.WaitForStrokes(3);
        browser.WaitForSync("All saved");
        var (left, top, _, _) = PictureOn(browser)!.Bounds;
        var database = Host.Services.GetRequiredService<Database>();
        await using (var lose = database.Command($"DELETE FROM assets WHERE id = '{first.Shown.Asset}'"))
            Assert.Equal(1, await lose.ExecuteNonQueryAsync());
        // The one that is missing lies below, and is asked for first.
        var other = OpenPage(Group.Owner, 3);
        PageHands.Sees(other, left + 200, top + 200, 90, 200, 178);
    }

    [Fact]
    public async Task What_is_no_picture_is_refused_in_words_and_a_drawing_that_would_run_is_only_drawn()
    {
        var browser = OpenPage(Group.Writer);
        var lying = Path.Combine(folder, "lying.png");
        File.WriteAllText(lying, "<html>not at all</html>");
        PutIn(browser, lying);
        browser.Until(
            () => browser.Count("[role=status]") > 0 && browser.Driver.PageSource.Contains("not a picture", StringComparison.Ordinal),
            "why it is none"
        );
        Assert.Equal(1, browser.Strokes());
        var svg = Path.Combine(folder, "running.svg");
        File.WriteAllText(
            svg,
            $$"""
            <svg xmlns="http://www.w3.org/2000/svg" width="200" height="200" onload="parent.ran = 1; top.ran = 1">
              <script>top.ran = 1; parent.ran = 1;</script>
              <rect width="200" height="200" fill="#d4c8b2"/>
              <image href="{{Host.Address}}api/session" width="9" height="9"/>
            </svg>
            """
        );
        PutIn(browser, svg);
        browser.WaitForStrokes(2);
        var picture = (PictureContent)PictureOn(browser)!.Content;
        PageHands.Sees(browser, PictureOn(browser)!.Bounds.Left + 900, PictureOn(browser)!.Bounds.Top + 900, 212, 200, 178);
        Assert.Null(browser.Script("return window.ran ?? null"));
        browser.WaitForSync("All saved");
        var kept = await Host.Services.GetRequiredService<AssetStore>().Find(picture.Shown.Asset, Group.Space, CancellationToken.None);
        Assert.Equal("image/webp", kept!.Type);
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void A_slip_is_written_and_typed_on_goes_along_with_all_of_it_and_folds()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("tool-put");
        browser.Press("put-slip");
        PageHands.Press(browser, 12_000, 9_000);
        browser.WaitForStrokes(2);
        var slip = Shown(browser).Single(item => item.Kind == ItemKinds.Slip);
        var (left, top, right, bottom) = slip.Bounds;
        // The pen is in the hand again, and writes on it.
        var (x, y) = PageHands.At(browser, left + 800, top + 2_500);
        browser.Pen(x, y, [(25, 0), (25, 6), (25, 0)]);
        browser.WaitForStrokes(3);
        browser.Press("tool-text");
        PageHands.Press(browser, left + 1_000, top + 700);
        browser.Type("Why does it recoil");
        browser.Press("typing-done");
        browser.Until(() => Find(browser, slip.Id).Content.Words == "Why does it recoil", "words on it");

        browser.Press("tool-loop");
        PageHands.Press(browser, right - 500, bottom - 500);
        browser.Until(() => browser.AttributeAt("[data-testid=selection]", "data-items") == "2", "the slip and what is on it");
        Assert.Empty(browser.SeriousFindings());
        var ink = Shown(browser).Last(item => item.Kind == ItemKinds.Ink);
        browser.Type(Keys.Shift + Keys.ArrowDown + Keys.Null);
        browser.Until(() => Find(browser, slip.Id).Bounds.Top > top, "the slip further down");
        Assert.Equal(Find(browser, slip.Id).Dy, Find(browser, ink.Id).Dy);

        browser.Press("fold-taken");
        browser.WaitForStrokes(2);
        var other = OpenPage(Group.Owner, 2);
        Assert.True(Find(other, slip.Id, Group.Owner).Bounds.Bottom < bottom - 2_000);
        // Pinned it is lifted and let down by a press while reading.
        browser.Press("pin-taken");
        browser.Until(() => ((SlipContent)Find(browser, slip.Id).Content).IsPinned, "the pin");
        Assert.Empty(browser.SeriousFindings());
        browser.Press("leave-taken");
        browser.Type("r");
        browser.Until(() => browser.Attribute("sheet", "data-reading") == "1", "read mode");
        var at = Find(browser, slip.Id).Bounds;
        PageHands.Press(browser, (at.Left + at.Right) / 2.0, at.Top + 250);
        browser.Until(() => !((SlipContent)Find(browser, slip.Id).Content).IsFolded, "the slip let down");
        PageHands.Press(browser, (at.Left + at.Right) / 2.0, at.Top + 2_500);
        browser.Until(() => ((SlipContent)Find(browser, slip.Id).Content).IsFolded, "the slip lifted");
        browser.Type("r");
        browser.Until(() => browser.Attribute("sheet", "data-reading") != "1", "writing again");
        browser.Press("tool-loop");
        PageHands.Press(browser, at.Left + 400, at.Top + 250);
        browser.Press("fold-taken");
        browser.WaitForStrokes(3);
        other.WaitForStrokes(3);
        browser.Press("erase-taken");
        browser.WaitForStrokes(1);
        browser.TypeWithControl("z");
        browser.WaitForStrokes(3);
        Assert.Empty(browser.Errors());
        Assert.Empty(other.Errors());
    }

    [Fact]
    public void A_plot_is_put_in_with_a_curve_with_points_and_what_is_laid_through_them()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("tool-put");
        browser.Press("put-plot");
        browser.WaitForStrokes(2);
        browser.Press("look-taken");
        browser.Fill("[data-testid=plot-curve-1]", "sin(" + Keys.Enter);
        Assert.Contains("missing", browser.Text("plot-problem"), StringComparison.Ordinal);
        Assert.Empty(browser.SeriousFindings());
        browser.Fill("[data-testid=plot-curve-1]", "2 pi sqrt(x/9.81)" + Keys.Enter);
        browser.Until(() => browser.Count("[data-testid=plot-problem]") == 0, "a curve");
        browser.Paste("[data-testid=plot-data-1]", "l\tT\n0,25 1,003\n1 2,006\n0.5 1.419");
        browser.Find("plot-curve-2").Click();
        browser.Until(() => PlotOn(browser)[ItemField.Data1].Length > 0, "points");
        browser.Css("[data-testid=plot-fit-1] option[value='5']").Click();
        Assert.StartsWith("y = 2.00", browser.Text("plot-told"), StringComparison.Ordinal);
        browser.Fill("[data-testid=plot-left]", "0" + Keys.Enter);
        browser.Until(() => PlotOn(browser).Range.Left == 0, "the range that was told");
        browser.Press("plot-wider");
        browser.Until(() => PlotOn(browser).Range.Left < 0, "more of it");
        browser.Press("plot-fit");
        browser.Until(() => PlotOn(browser)[ItemField.Range].Length == 0, "as much as its points need");
        browser.WaitForSync("All saved");
        var other = OpenPage(Group.Owner, 2);
        Assert.Equal(PlotOn(browser).Told, PlotOn(other, Group.Owner).Told);
        Assert.Empty(browser.Errors());
        Assert.Empty(other.Errors());
    }

    [Fact]
    public void A_plot_shows_what_lies_beside_by_a_drag_and_more_or_less_by_fingers_wheel_and_keys_each_one_step()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("tool-put");
        browser.Press("put-plot");
        browser.WaitForStrokes(2);
        browser.Press("look-taken");
        browser.Fill("[data-testid=plot-curve-1]", "x^2/5" + Keys.Enter);
        browser.Until(() => PlotOn(browser)[ItemField.Curve1].Length > 0, "a curve");
        var view = PageHands.View(browser);
        var plane = browser.Find("plot-plane");
        // Its panel lies over the lower part.
        var above = 40 - plane.Size.Height / 2;
        // The pen drags: what it would show is drawn, and is written when it is lifted.
        var pen = new PointerInputDevice(PointerKind.Pen, "pen");
        var drag = new ActionSequence(pen);
        drag.AddAction(pen.CreatePointerMove(plane, 0, above, TimeSpan.Zero));
        drag.AddAction(pen.CreatePointerDown(MouseButton.Left));
        drag.AddAction(pen.CreatePointerMove(plane, plane.Size.Width / 5, above, TimeSpan.FromMilliseconds(80)));
        browser.Driver.PerformActions([drag]);
        browser.Until(() => browser.Count("[data-testid=plot-moving] path") > 10, "what it would show");
        Assert.Equal("", PlotOn(browser)[ItemField.Range]);
        var lift = new ActionSequence(pen);
        lift.AddAction(pen.CreatePointerUp(MouseButton.Left));
        browser.Driver.PerformActions([lift]);
        browser.Until(() => PlotOn(browser).Range is { Left: < -6.9 and > -7.1, Bottom: -5, Top: 5 }, "what lies to the left");
        browser.Until(() => browser.Count("[data-testid=plot-moving] path") == 0, "the plot itself again");
        PageHands.Spread(browser, plane, 40, 80, above);
        browser.Until(() => PlotOn(browser).Range is { Width: > 4.8 and < 5.2, Height: 10 }, "half as wide");
        var wheel = new WheelInputDevice("wheel");
        var turn = new ActionSequence(wheel);
        turn.AddAction(wheel.CreateWheelScroll(plane, 0, above, 0, 360, TimeSpan.Zero));
        browser.Driver.PerformActions([turn]);
        browser.Until(() => PlotOn(browser).Range is { Width: > 9.6 and < 10.4, Height: > 19.9 and < 20.1 }, "twice as much");
        browser.Script("document.querySelector('[data-testid=plot-plane]').focus()");
        var (left, wide) = (PlotOn(browser).Range.Left, PlotOn(browser).Range.Width);
        browser.Type(Keys.ArrowRight);
        browser.Until(() => PlotOn(browser).Range.Left > left + wide / 11, "a step to the right");
        browser.Type("+");
        browser.Until(() => PlotOn(browser).Range.Width < wide / 1.4, "closer");
        Assert.Empty(browser.SeriousFindings());
        Assert.Equal(view, PageHands.View(browser));
        for (var i = 0; i < 5; i++)
            browser.TypeWithControl("z");
        browser.Until(() => PlotOn(browser)[ItemField.Range].Length == 0, "five steps back");
        Assert.NotEqual("", PlotOn(browser)[ItemField.Curve1]);
        Assert.Empty(browser.Errors());
    }

    private PlotContent PlotOn(Browser browser, Store.People.Person? person = null) =>
        (PlotContent)PageOf(browser, person).Items.Single(item => item is { Shown: true, Kind: ItemKinds.Plot }).Content;

    /// <summary>A drawing on paper in a shade, 400 dots square: a dark line across its middle.</summary>
    /// <param name="red">How red the paper is, 0 to 255.</param>
    private string Drawing(byte red = 212)
    {
        var file = Path.Combine(folder, $"drawing-{red}.png");
        using var bitmap = new SKBitmap(new SKImageInfo(400, 400, SKColorType.Rgba8888, SKAlphaType.Opaque));
        bitmap.Erase(new SKColor(red, 200, 178));
        using (var canvas = new SKCanvas(bitmap))
        using (var paint = new SKPaint { Color = new SKColor(26, 30, 54) })
            canvas.DrawRect(20, 185, 360, 30, paint);
        using var packed = bitmap.Encode(SKEncodedImageFormat.Png, 100);
        File.WriteAllBytes(file, packed.ToArray());
        return file;
    }

    private static void PutIn(Browser browser, string file)
    {
        browser.Press("tool-put");
        browser.Find("put-panel");
        PageHands.ChooseFile(browser, "put-files", file);
    }

    /// <summary>Pastes a file, or drops it onto the middle of the sheet.</summary>
    private static void Give(Browser browser, string how, string file) =>
        browser.AsyncScript(
            """
            const [how, packed, done] = arguments;
            const bytes = Uint8Array.from(atob(packed), (letter) => letter.charCodeAt(0));
            const data = new DataTransfer();
            data.items.add(new File([bytes], 'drawing.png', { type: 'image/png' }));
            const sheet = document.querySelector('[data-testid=sheet]');
            const { left, top, width, height } = sheet.getBoundingClientRect();
            const event = how === 'paste'
              ? new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true })
              : new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true, clientX: left + width / 2, clientY: top + height / 2 });
            sheet.dispatchEvent(event);
            done(event.defaultPrevented);
            """,
            how,
            Convert.ToBase64String(File.ReadAllBytes(file))
        );

    /// <summary>Moves a slider to a value, as a hand that lets go of it there does.</summary>
    private static void Slide(Browser browser, string testId, int to) =>
        browser.Script(
            """
            const field = arguments[0];
            Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(field, arguments[1]);
            field.dispatchEvent(new Event('input', { bubbles: true }));
            field.dispatchEvent(new Event('change', { bubbles: true }));
            """,
            browser.Find(testId),
            to.ToString(CultureInfo.InvariantCulture)
        );

    private PageItem? PictureOn(Browser browser, Store.People.Person? person = null) =>
        PageOf(browser, person).Items.LastOrDefault(item => item is { Shown: true, Kind: ItemKinds.Picture });

    private List<PageItem> Shown(Browser browser) => [.. PageOf(browser).Items.Where(item => item.Shown)];

    private PageItem Find(Browser browser, OpId id, Store.People.Person? person = null) => PageOf(browser, person).Find(id)!;
}
