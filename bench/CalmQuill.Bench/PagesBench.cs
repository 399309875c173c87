using System.Globalization;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Documents;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Bench;

/// <summary>A notebook of a thousand written pages seen at once, and a planner of a year, in headless Chromium.</summary>
public sealed class PagesBench(QuillHost host, QuillHost.Group group)
{
    private const int PageCount = 1000;
    private const int ScreensASecond = 3;
    private const int FlungScreensASecond = 12;
    private readonly Guid notebook = Guid.NewGuid();
    private readonly Guid[] pages = [.. Enumerable.Range(0, PageCount).Select(_ => Guid.NewGuid())];

    public QuillHost.Group Group => group;

    public async Task Write()
    {
        var documents = host.Services.GetRequiredService<DocumentStore>();
        var device = new Replica(7, group.Owner.Id);
        await documents.Append(
            new DocumentRef(group.Space, DocumentKind.Library, group.Space),
            [device.Make(new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "W"), 1)],
            default
        );
        await documents.Append(
            new DocumentRef(group.Space, DocumentKind.Notebook, notebook),
            [.. pages.Select((page, i) => device.Make(Added(page, i), (i + 1) * 1_000))],
            default
        );
        var lines = Writing.Strokes(group.Owner.Id).Take(40).ToArray();
        foreach (var page in pages)
            await documents.Append(
                new DocumentRef(group.Space, DocumentKind.Page, page),
                [.. lines.Select(line => device.Make(line.Change, 1))],
                default
            );
    }

    /// <summary>What a person does many times a day, in the notebook of a thousand pages with its contents open: from the press to the first right picture.</summary>
    public IEnumerable<Row> Daily(Browser browser)
    {
        const double Bar = 150;
        browser.Go($"/page/{group.Space}/{notebook}/{pages[3]}");
        browser.WaitForStrokes(40);
        browser.Press("contents");
        browser.WaitForSync("All saved");
        // Each once before it is measured, as in a day's work.
        foreach (
            var (words, press, shown) in new[]
            {
                ("turning to the next page", "page-after", "sheet?.dataset.strokes === '40' && chip() !== before"),
                ("“+ Page”", "add-page", "sheet?.dataset.strokes === '0' && chip() !== before"),
                (
                    "the overview",
                    "open-overview",
                    "document.querySelector('[data-testid=overview-page] svg, [data-testid=overview-page] img, [data-testid=overview-page] canvas')"
                ),
                ("“Jot”", "rail-jot", "sheet?.dataset.strokes === '0' && location.pathname !== path"),
                ("a new notebook", "dialog-confirm", "sheet?.dataset.strokes === '0' && location.pathname !== path"),
            }
        )
        {
            List<double> times = [],
                bare = [];
            for (var i = 0; i < 4; i++)
            {
                if (press is "page-after" or "add-page" || i > 0)
                {
                    browser.Go($"/page/{group.Space}/{notebook}/{pages[100 + i * 40]}");
                    browser.WaitForStrokes(40);
                    browser.WaitForSync("All saved");
                }

                if (press == "dialog-confirm")
                {
                    browser.ByRail("nav a[href='/library']");
                    browser.Press("new-notebook");
                    browser.Fill("[data-testid=name-input]", $"Notebook {i}");
                }

                if (press == "rail-jot" && browser.Count("[data-testid=open-rail]") > 0)
                    browser.Press("open-rail");
                browser.Find(press);
                bare.Add(Bare(browser));
                times.Add(
                    Convert.ToDouble(
                        browser.AsyncScript(
                            $$"""
                            const done = arguments[0];
                            const chip = () => document.querySelector('[data-testid=page-number]')?.textContent ?? location.pathname;
                            const [before, path] = [chip(), location.pathname];
                            const start = performance.now();
                            document.querySelector('[data-testid={{press}}]').click();
                            // Until the frame that shows it has been painted.
                            const look = () => requestAnimationFrame(() => {
                              const sheet = document.querySelector('[data-testid=sheet]');
                              if ({{shown}}) setTimeout(() => done(performance.now() - start));
                              else look();
                            });
                            look();
                            """
                        ),
                        CultureInfo.InvariantCulture
                    )
                );
            }

            // The first is the application's own warming up after a reload.
            var typical = times.Order().ElementAt(times.Count / 2);
            var usual = bare.Order().ElementAt(bare.Count / 2);
            yield return new Row(
                $"notebook of 1,000 pages, contents open: {words}, from the press to its picture",
                $"{typical:0} ms (first {times[0]:0})",
                $"1,000 bare elements, to the frame that shows them: {usual:0} ms",
                $"{typical / usual:0.0}",
                $"at most {Bar:0} ms",
                typical <= Bar
            );
        }
    }

    /// <summary>What the browser itself takes at the same moment, without the application: a fixed number of bare elements, until the frame that shows them; ms.</summary>
    private static double Bare(Browser browser) =>
        Convert.ToDouble(
            browser.AsyncScript(
                """
                const done = arguments[0];
                const frame = document.body.appendChild(document.createElement('iframe'));
                frame.style.cssText = 'position: fixed; inset: 0; width: 100%; height: 100%; background: white; z-index: 9999';
                const inside = frame.contentDocument;
                requestAnimationFrame(() => requestAnimationFrame(() => {
                  const start = performance.now();
                  for (let i = 0; i < 1000; i++) {
                    const line = inside.body.appendChild(inside.createElement('button'));
                    line.textContent = `line ${i}`;
                    line.style.cssText = 'padding: 4px; margin: 2px; border-radius: 6px';
                  }
                  requestAnimationFrame(() => setTimeout(() => {
                    const took = performance.now() - start;
                    frame.remove();
                    requestAnimationFrame(() => requestAnimationFrame(() => done(took)));
                  }));
                }));
                """
            ),
            CultureInfo.InvariantCulture
        );

    private static Change Added(Guid page, int i) => new Change.PageAdded(page, $"a{i:0000}V", "a4-ruled-710");

    /// <summary>The notebook as it was, one column of the bar after the other back: from the key to the frame that shows the pages of then.</summary>
    private Row Past(Browser browser)
    {
        const int steps = 30;
        browser.Go($"/pages/{group.Space}/{notebook}?past=1");
        browser.Find("history-bar");
        const string shown = "document.querySelector('[data-testid=notebook-past]').dataset.pages";
        const string then = "document.querySelector('[data-testid=notebook-past]').dataset.shown";
        // Others may have come to them meanwhile.
        browser.Until(() => (bool)browser.Script($"return Number({shown}) >= {PageCount}")!, "all pages");
        var times = Enumerable
            .Range(0, steps)
            .Select(_ =>
                HistoryBench.Took(
                    browser,
                    $"window.before = {then}; document.querySelector('[data-testid=history-bar]').dispatchEvent(new KeyboardEvent('keydown', {{ key: 'ArrowLeft', bubbles: true }}))",
                    $"{then} !== window.before"
                )
            )
            .Order()
            .ToList();
        var device = new Replica(7, group.Owner.Id);
        Operation[] made = [.. pages.Select((page, i) => device.Make(Added(page, i), (i + 1) * 1_000))];
        var afresh = HistoryBench.Typically(() =>
        {
            var then = new Core.Notebooks.NotebookDocument();
            foreach (var operation in made)
                then.Apply(operation);
            then.Outline();
        });
        var took = times[(int)(steps * 0.95)];
        return new Row(
            "notebook of 1,000 pages as it was, a step back: from the key to the frame that shows it, p95",
            $"{took:0} ms",
            "its outline made anew up to there, .NET, nothing painted",
            $"{took / afresh:0.0} of {afresh:0.0} ms",
            "none named",
            true
        );
    }

    public IEnumerable<Row> Run(Browser browser)
    {
        yield return Past(browser);
        browser.Go($"/pages/{group.Space}/{notebook}");
        browser.Find("overview-page");
        var (frame, task) = Scroll(browser, ScreensASecond);
        yield return new Row(
            "overview of 1,000 written pages, scrolled by three screens a second: frame, p95",
            $"{frame:0.0} ms",
            "",
            "",
            "at most 33 ms",
            frame <= 33
        );
        yield return new Row("the same: longest task", $"{task:0} ms", "", "", "at most 50 ms", task <= 50);
        (frame, _) = Scroll(browser, FlungScreensASecond);
        yield return new Row("the same, flung by twelve screens a second: frame, p95", $"{frame:0.0} ms", "", "", "none named", true);

        browser.Go($"/planner/{group.Space}");
        browser.Find("make-planner");
        foreach (var (field, day) in new[] { ("planner-first", "2027-01-01"), ("planner-last", "2027-12-31") })
            browser.SetDay(field, day);
        browser.Until(() => browser.Text("planner-count").Contains(" pages", StringComparison.Ordinal), "the count");
        var count = browser.Text("planner-count").Split(' ')[0];
        var made = Convert.ToDouble(
            browser.AsyncScript(
                """
                const done = arguments[0];
                const start = performance.now();
                document.querySelector('[data-testid=make-planner]').click();
                const look = () => document.querySelector('[data-testid=sheet]')?.dataset.strokes === '0' ? requestAnimationFrame(() => done(performance.now() - start)) : requestAnimationFrame(look);
                look();
                """
            ),
            CultureInfo.InvariantCulture
        );
        yield return new Row(
            $"planner of 365 days, {count} pages, from pressing “Make” to its first page",
            $"{made:0} ms",
            "",
            "",
            "at most 5,000 ms",
            made <= 5000
        );
    }

    private static (double Frame, double LongestTask) Scroll(Browser browser, int screensASecond)
    {
        var measured = (
            (IEnumerable<object>)
                browser.AsyncScript(
                    """
                    const [screens, done] = arguments;
                    const list = document.querySelector('[data-testid=overview] [role=group]').parentElement;
                    const frames = [], tasks = [0];
                    new PerformanceObserver((seen) => tasks.push(...seen.getEntries().map((entry) => entry.duration))).observe({ entryTypes: ['longtask'] });
                    const start = performance.now();
                    let last = start;
                    const step = () => {
                      const now = performance.now();
                      frames.push(now - last);
                      last = now;
                      if (now - start > 5000) return setTimeout(() => done([frames.sort((a, b) => a - b)[Math.floor(frames.length * 0.95)], Math.max(...tasks)]), 100);
                      list.scrollTop = list.clientHeight * screens * (now - start) / 1000;
                      requestAnimationFrame(step);
                    };
                    requestAnimationFrame(step);
                    """,
                    screensASecond
                )!
        ).Select(value => Convert.ToDouble(value, CultureInfo.InvariantCulture)).ToArray();
        return (measured[0], measured[1]);
    }
}
