using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Testing;
using CsCheck;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace CalmQuill.Interface.Tests;

/// <summary>Writing with a pen, erasing, undoing, and the same rules on both sides.</summary>
public sealed class WritingTests : InterfaceTest
{
    [Fact]
    public async Task What_a_pen_writes_is_there_after_a_reload_with_its_pressure_and_tilt()
    {
        var browser = OpenPage(Group.Writer);
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        browser.WaitForSync("All saved");
        browser.Driver.Navigate().Refresh();
        browser.WaitForStrokes(2);
        using var caller = await Host.SignIn(Group.Owner);
        var stroke = (await caller.After(Group.Space, DocumentKind.Page, Page))[^1];
        var samples = Assert.IsType<Change.StrokeAdded>(stroke.Change).Samples;
        Assert.Equal(Group.Writer.Id, stroke.Author);
        Assert.True(samples.Count >= 10);
        Assert.InRange(samples.Pressure[3], 600, 625);
        Assert.Equal(20, samples.TiltX![3]);
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void A_person_writes_erases_a_part_then_a_stroke_and_undoes_it_all()
    {
        var browser = OpenPage(Group.Writer);
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        browser.Press("tool-eraser");
        browser.Pen(450, 270, [.. Enumerable.Repeat((0, 8), 8)]);
        Assert.Equal(2, browser.Strokes());
        browser.Press("tool-eraser");
        browser.Press("erase-whole");
        browser.Pen(470, 270, [.. Enumerable.Repeat((0, 8), 8)]);
        browser.WaitForStrokes(1);
        browser.Press("undo");
        browser.WaitForStrokes(2);
        browser.SendKeys("body", Keys.Control + "z");
        browser.Press("undo");
        // The other person's stroke is not this person's to undo.
        browser.WaitForStrokes(1);
        browser.Until(() => !browser.Find("undo").Enabled, "nothing left to undo");
        browser.Press("redo");
        browser.WaitForStrokes(2);
        browser.WaitForSync("All saved");
    }

    [Fact]
    public void What_the_palm_touched_before_the_pen_came_down_is_no_ink_and_a_device_with_a_pen_stays_one()
    {
        var browser = OpenPage(Group.Writer);
        var sheet = browser.Find("sheet");
        var (palm, pen) = (new PointerInputDevice(PointerKind.Touch, "palm"), new PointerInputDevice(PointerKind.Pen, "pen"));
        var (resting, writing) = (new ActionSequence(palm), new ActionSequence(pen));
        resting.AddAction(palm.CreatePointerMove(sheet, 60, 120, TimeSpan.Zero));
        resting.AddAction(palm.CreatePointerDown(MouseButton.Left));
        writing.AddAction(pen.CreatePause(TimeSpan.Zero));
        writing.AddAction(pen.CreatePause(TimeSpan.FromMilliseconds(250)));
        resting.AddAction(palm.CreatePointerMove(CoordinateOrigin.Pointer, 2, 1, TimeSpan.FromMilliseconds(250)));
        writing.AddAction(pen.CreatePointerMove(sheet, 0, 0, TimeSpan.Zero));
        writing.AddAction(pen.CreatePointerDown(MouseButton.Left));
        for (var i = 0; i < 10; i++)
            writing.AddAction(pen.CreatePointerMove(CoordinateOrigin.Pointer, 6, i % 2 == 0 ? 8 : -8, TimeSpan.FromMilliseconds(10)));
        writing.AddAction(pen.CreatePointerUp(MouseButton.Left));
        for (var i = 0; i < 14; i++)
            resting.AddAction(palm.CreatePause(TimeSpan.FromMilliseconds(10)));
        resting.AddAction(palm.CreatePointerUp(MouseButton.Left));
        browser.Driver.PerformActions([resting, writing]);
        browser.WaitForStrokes(2);
        browser.WaitForSync("All saved");

        // After a reload a finger still only scrolls here.
        browser.Go(PagePath);
        browser.WaitForStrokes(2);
        var before = browser.Attribute("sheet", "data-view");
        browser.Wave(420, 420, PointerKind.Touch);
        browser.Until(() => browser.Attribute("sheet", "data-view") != before, "the sheet moved");
        Assert.Equal(2, browser.Strokes());
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void Once_a_pen_was_seen_a_finger_scrolls_and_does_not_write()
    {
        var browser = OpenPage(Group.Writer);
        browser.Wave(420, 300, PointerKind.Touch);
        browser.WaitForStrokes(2);
        browser.Wave(420, 360);
        browser.WaitForStrokes(3);
        var before = browser.Attribute("sheet", "data-view");
        browser.Wave(420, 420, PointerKind.Touch);
        browser.Until(() => browser.Attribute("sheet", "data-view") != before, "the sheet to move");
        Assert.Equal(3, browser.Strokes());
    }

    [Fact]
    public void A_reader_sees_the_page_and_has_no_pen()
    {
        var browser = OpenPage(Group.Reader);
        Assert.Equal(0, browser.Count("[data-testid=pen-tray]") + browser.Count("[data-testid=add-page]"));
        browser.Wave(420, 300);
        Assert.Equal(1, browser.Strokes());
    }

    [Fact]
    public void The_same_operations_give_the_same_bytes_in_dotnet_and_in_webassembly()
    {
        var browser = OpenPage(Group.Writer);
        Gen.Select(Generate.LibraryHistory.Array[6], Generate.NotebookHistory.Array[6], Generate.PageHistory.Array[12])
            .Sample(
                (libraries, notebooks, pages) =>
                {
                    foreach (
                        var (kind, history) in Corpus
                            .Histories.Select(one => ((int)one.Key, one.Value.ToList()))
                            .Concat(libraries.Select(one => (1, one)))
                            .Concat(notebooks.Select(one => (2, one)))
                            .Concat(pages.Select(one => (3, one)))
                    )
                    {
                        var (state, operations) = StateIn(kind, history);
                        var answer = (string)
                            browser.AsyncScript(
                                """
                                const [batch, kind, done] = arguments;
                                globalThis.getDotnetRuntime(0).getAssemblyExports('CalmQuill.Core.Browser.dll').then((exports) => {
                                  const { DocumentBridge } = exports.CalmQuill.Core.Browser;
                                  const handle = DocumentBridge.Open(kind);
                                  DocumentBridge.Apply(handle, Uint8Array.from(atob(batch), (c) => c.charCodeAt(0)));
                                  const bytes = [DocumentBridge.EncodeState(handle), DocumentBridge.Snapshot(handle)];
                                  DocumentBridge.Close(handle);
                                  done(bytes.map((one) => btoa(Array.from(one, (byte) => String.fromCharCode(byte)).join(''))).join(' '));
                                });
                                """,
                                Convert.ToBase64String(OperationCodec.Encode(history)),
                                kind
                            )!;
                        Assert.Equal(
                            $"{Convert.ToBase64String(state)} {Convert.ToBase64String(OperationCodec.Encode(operations))}",
                            answer
                        );
                    }
                },
                iter: 5,
                threads: 1
            );
    }

    /// <summary>The encoded state of a library (1), notebook (2) or page (3), and its operations in their order.</summary>
    private static (byte[] State, List<Operation> Operations) StateIn(int kind, List<Operation> history)
    {
        LibraryDocument library = new();
        NotebookDocument notebook = new();
        PageDocument page = new();
        foreach (var operation in history)
            _ =
                kind == 1 ? library.Apply(operation)
                : kind == 2 ? notebook.Apply(operation)
                : page.Apply(operation);
        return kind == 1 ? (library.EncodeState(), library.Operations())
            : kind == 2 ? (notebook.EncodeState(), notebook.Operations())
            : (page.EncodeState(), page.Operations());
    }
}
