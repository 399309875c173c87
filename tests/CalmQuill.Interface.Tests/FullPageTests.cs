using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Tables;
using CalmQuill.Core.Writing;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>Full pages are painted in parts: moved by blitting, foreseen, handed out without outlines. Whatever was done, the picture is the one that painting all anew gives.</summary>
public sealed class FullPageTests : InterfaceTest
{
    private const int Hand = 3;

    [Fact]
    public async Task A_full_page_that_was_moved_nudged_coloured_rubbed_out_and_taken_back_looks_as_if_painted_anew()
    {
        var strokes = await Fill();
        var browser = OpenPage(Group.Writer, strokes);
        browser.WaitForSync("All saved");
        Rest(browser);
        Moves(browser);
        Same(browser, "moved by the wheel");

        browser.TypeWithControl("a");
        browser.Find("selection");
        for (var i = 0; i < 3; i++)
            browser.Type(Keys.ArrowRight);
        Rest(browser);
        browser.Press("look-taken");
        browser.PressCss("[data-testid=look-panel] [data-testid^=ink-]:nth-of-type(4)");
        Rest(browser);
        AtOnce(browser, "new KeyboardEvent('keydown', { key: 'ArrowRight', shiftKey: true, bubbles: true })", "nudged");
        AtOnce(browser, "new KeyboardEvent('keydown', { key: 'ArrowLeft', shiftKey: true, bubbles: true })", "nudged back");
        browser.Press("leave-taken");
        Same(browser, "nudged and coloured");

        browser.Press("tool-eraser");
        if (browser.Count("[data-testid=erase-part]") == 0)
            browser.Press("tool-eraser");
        browser.Press("erase-part");
        browser.Pen(420, 200, [.. Enumerable.Range(0, 30).Select(i => (9, i % 6 < 3 ? 12 : -12))]);
        Rest(browser);
        Same(browser, "rubbed out");
        // Taken back: the rubbing, and the colour.
        browser.Press("undo");
        browser.Press("undo");
        Rest(browser);
        browser.WaitForStrokes(strokes);
        Same(browser, "taken back");
        Moves(browser);
        Same(browser, "moved again");
        browser.WaitForSync("All saved");

        // What Core keeps of a selection is that of the window that kept it last; another's is named anew, and never taken for it.
        Assert.Equal(
            "false true Something else was selected in the meantime. Nothing was changed.",
            browser.AsyncScript(
                """
                const done = arguments[0];
                (async () => {
                  const { DocumentBridge, HandBridge } = (await globalThis.getDotnetRuntime(0).getAssemblyExports('CalmQuill.Core.Browser.dll')).CalmQuill.Core.Browser;
                  const page = DocumentBridge.Open(3);
                  const [first, second] = [HandBridge.Keep(page, ['0000000000000001-1']), HandBridge.Keep(page, ['0000000000000001-2'])];
                  let refused = '';
                  try {
                    HandBridge.ShiftKept(page, first, 1, 1, 0);
                  } catch (problem) {
                    refused = String(problem.message).split('\n')[0].replace('Error: ', '');
                  }
                  const told = `${HandBridge.IsKept(page, first)} ${HandBridge.IsKept(page, second)} ${refused}`;
                  DocumentBridge.Close(page);
                  done(`${told}${HandBridge.IsKept(page, second) ? ' still' : ''}`);
                })().catch((problem) => done(String(problem)));
                """
            )
        );

        // Another device, to which all of it comes from the server, shows the same.
        var picture = Picture(browser);
        var other = OpenPage(Group.Owner, strokes);
        Rest(other);
        View(other, browser);
        Rest(other);
        Assert.InRange(Unlike(other, picture), 0, 0.002);
        Assert.Empty(browser.Errors().Concat(other.Errors()));
    }

    /// <summary>
    /// Of typed words only what became another is handed out and painted; and a page that is painted from what the device kept of it names its paragraphs anew.
    /// </summary>
    [Fact]
    public async Task Words_typed_on_a_full_page_look_as_if_painted_anew_also_once_it_was_opened_from_what_the_device_kept()
    {
        var strokes = await Fill() + 2;
        const string words = "first words\nsecond words\nthird words\nfourth words";
        using (var caller = await Host.SignIn(Group.Owner))
        {
            var device = new Replica(6, Group.Owner.Id);
            var cells = Enumerable.Range(0, 4).Select(row => Enumerable.Range(0, 3).Select(column => $"cell {row} {column}").ToList());
            await caller.Send(
                Group.Space,
                DocumentKind.Page,
                Page,
                device.Make(
                    new Change.TextAdded(
                        Transform.Shift(3_000, 12_000),
                        12_000,
                        0,
                        new Passage(words, [new PassageFormat(0, words.Length + 1, Trait.Style, "title")]),
                        []
                    ),
                    2
                ),
                device.Make(
                    new Change.ThingAdded(
                        ThingKind.Table,
                        Transform.Shift(3_000, 4_000),
                        9_000,
                        3_200,
                        TableEdit.New([3_000, 3_000, 3_000], [800, 800, 800, 800], edit => edit.Paste(0, 0, [.. cells])),
                        [new ItemValue(ItemField.Fill, "fffdf7ff")]
                    ),
                    2
                )
            );
        }

        var browser = OpenPage(Group.Writer, strokes);
        Rest(browser);
        var kept = KeptPackets(browser);
        // A paragraph comes above all others, and rows below a cell that grows move.
        Type(browser, 3_300, 11_900, Keys.Home + "words above" + Keys.Enter);
        Same(browser, "typed above all others");
        Type(browser, 6_500, 5_200, " and words that take several lines of it");
        Same(browser, "typed into a cell");
        browser.WaitForSync("All saved");
        browser.Until(
            () =>
            {
                browser.Script("document.dispatchEvent(new Event('visibilitychange'))");
                return KeptPackets(browser) > kept;
            },
            "what was typed to be kept"
        );

        browser.Go(PagePath);
        browser.WaitForStrokes(strokes);
        Rest(browser);
        Type(browser, 3_300, 11_900, Keys.Home + "many ");
        Type(browser, 3_300, 4_400, "!");
        Same(browser, "typed once it was opened again");
        browser.WaitForSync("All saved");
        var picture = Picture(browser);
        var other = OpenPage(Group.Owner, strokes);
        Rest(other);
        View(other, browser);
        Rest(other);
        Assert.InRange(Unlike(other, picture), 0, 0.0005);
        Assert.Empty(browser.Errors().Concat(other.Errors()));
    }

    /// <summary>Types into what lies at a spot of the page, and is done.</summary>
    private static void Type(Browser browser, double x, double y, string keys)
    {
        PageHands.PressToType(browser, x, y);
        browser.Type(keys);
        browser.Press("typing-done");
        browser.Until(() => browser.Count("[data-testid=typing]") == 0, "nobody typing");
    }

    /// <summary>Four written pages' worth of strokes by ball, pencil, brush and highlighter.</summary>
    private async Task<int> Fill()
    {
        var (random, device, count) = (new Random(11), new Replica(5, Group.Owner.Id), 1);
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        Pen[] pens =
        [
            new(PenKind.Ball, 40, 0x22302EFF),
            new(PenKind.Pencil, 90, 0x7C2D12FF),
            new(PenKind.Brush, 90, 0x2C5D9BFF),
            new(PenKind.Highlighter, 300, 0xFFE06680),
        ];
        using var caller = await Host.SignIn(Group.Owner);
        foreach (var pen in pens)
        {
            var written = WrittenPages.Write(Hand, 0, random).Take(160).ToList();
            count += written.Count;
            await caller.Send(
                Group.Space,
                DocumentKind.Page,
                Page,
                [.. written.Select(stroke => device.Make(new Change.StrokeAdded(pen, now, stroke.Samples), now))]
            );
        }

        return count;
    }

    private static void Moves(Browser browser)
    {
        browser.AsyncScript(
            """
            const done = arguments[0];
            const sheet = document.querySelector('[data-testid=sheet]');
            const { left, top, width, height } = sheet.getBoundingClientRect();
            const at = { clientX: left + width / 2, clientY: top + height / 2, bubbles: true, cancelable: true };
            const turns = [[0, 37], [13, 21], [-41.5, 3.25], [0, 90], [22, -130], [0, 64], [0.4, 0.4], [0.4, 0.4], [0, -55]];
            const step = () => {
              const turn = turns.shift();
              if (!turn) return done();
              sheet.dispatchEvent(new WheelEvent('wheel', { ...at, deltaX: turn[0], deltaY: turn[1] }));
              requestAnimationFrame(step);
            };
            step();
            """
        );
        Rest(browser);
    }

    /// <summary>What is on the screen is what a whole repaint gives, which a window of another size asks for.</summary>
    private static void Same(Browser browser, string what)
    {
        Rest(browser);
        var picture = Picture(browser);
        var size = browser.Driver.Manage().Window.Size;
        browser.Driver.Manage().Window.Size = new(size.Width, size.Height - 40);
        Rest(browser);
        browser.Driver.Manage().Window.Size = size;
        Rest(browser);
        Assert.True(Unlike(browser, picture) <= 0.0005, $"{what}: {Unlike(browser, picture):P3} of the picture differ");
    }

    /// <summary>What is done to all that is selected is seen in the next frame, nearly as it is when it has been painted anew.</summary>
    private static void AtOnce(Browser browser, string key, string what)
    {
        string before,
            first;
        var tried = 0;
        do
        {
            Rest(browser);
            before = Picture(browser);
            first = (string)
                browser.AsyncScript(
                    Taken
                        + $$"""
                        const done = arguments[0];
                        const sheet = document.querySelector('[data-testid=sheet]');
                        document.body.dispatchEvent({{key}});
                        requestAnimationFrame(() => done(sheet.dataset.painting === 'sharp' ? taken().canvas.toDataURL() : ''));
                        """
                )!;
            Rest(browser);
            // The picture of it may not have been ready yet.
        } while (first.Length == 0 && ++tried < 20);
        Assert.True(first.Length > 0, $"{what}: nothing was seen at once");
        var (moved, off) = (Unlike(browser, before), Unlike(browser, first));
        Assert.True(moved > 0.01, $"{what}: only {moved:P3} of the picture changed");
        Assert.True(off < moved / 4, $"{what}: {off:P3} of the picture were wrong at first, of {moved:P3} that changed");
    }

    private static void View(Browser browser, Browser like)
    {
        double[] Of(Browser one) =>
            [
                .. one.Attribute("sheet", "data-view")!
                    .Split(' ')
                    .Select(part => double.Parse(part, System.Globalization.CultureInfo.InvariantCulture)),
            ];
        var (from, to) = (Of(browser), Of(like));
        Assert.Equal(to[0], from[0], 1e-9);
        browser.Script(
            """
            const [dx, dy] = arguments;
            const sheet = document.querySelector('[data-testid=sheet]');
            const { left, top } = sheet.getBoundingClientRect();
            sheet.dispatchEvent(new WheelEvent('wheel', { clientX: left + 300, clientY: top + 300, deltaX: dx, deltaY: dy, bubbles: true, cancelable: true }));
            """,
            from[1] - to[1],
            from[2] - to[2]
        );
    }

    private static string Picture(Browser browser) => (string)browser.Script(Taken + "return taken().canvas.toDataURL();")!;

    /// <summary>Which share of the points differs from a picture by more than a shade.</summary>
    private static double Unlike(Browser browser, string picture) =>
        Convert.ToDouble(
            browser.AsyncScript(
                Taken
                    + """
                    const [address, done] = arguments;
                    const now = taken();
                    const image = new Image();
                    image.onload = () => {
                      const { width, height } = now.canvas;
                      const before = new OffscreenCanvas(width, height).getContext('2d');
                      before.drawImage(image, 0, 0);
                      const [one, other] = [now, before].map((context) => context.getImageData(0, 0, width, height).data);
                      let unlike = 0;
                      for (let i = 0; i < one.length; i += 4)
                        if ([0, 1, 2].some((k) => Math.abs(one[i + k] - other[i + k]) > 24)) unlike++;
                      done(unlike / (width * height));
                    };
                    image.src = address;
                    """,
                picture
            ),
            System.Globalization.CultureInfo.InvariantCulture
        );

    /// <summary>The canvases of the sheet as one picture.</summary>
    private const string Taken = """
        const taken = () => {
          const sheet = document.querySelector('[data-testid=sheet]');
          const canvas = document.createElement('canvas');
          [canvas.width, canvas.height] = [sheet.clientWidth, sheet.clientHeight];
          const context = canvas.getContext('2d');
          for (const one of sheet.querySelectorAll('canvas'))
            if (one.style.visibility !== 'hidden') {
              const box = one.getBoundingClientRect(), outer = sheet.getBoundingClientRect();
              context.drawImage(one, box.left - outer.left, box.top - outer.top, box.width, box.height);
            }
          return context;
        };

        """;

    private static void Rest(Browser browser) =>
        browser.AsyncScript(
            """
            const done = arguments[0];
            const sheet = document.querySelector('[data-testid=sheet]');
            let still = 0;
            const look = () => {
              still = sheet.dataset.painting ? 0 : still + 1;
              if (still > 12) done(); else requestAnimationFrame(look);
            };
            look();
            """
        );
}
