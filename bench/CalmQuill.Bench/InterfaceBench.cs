using System.Globalization;
using CalmQuill.Testing;

namespace CalmQuill.Bench;

/// <summary>The real interface in headless Chromium, on a page with five thousand strokes.</summary>
public static class InterfaceBench
{
    private const int StrokesPassedOn = 30;

    /// <summary>From the press on a page in the thread to its ink painted: first from the server, then from the device's own store.</summary>
    public static IEnumerable<Row> Opening(Browser browser, string otherPage, string fullPage)
    {
        browser.Go(otherPage);
        browser.WaitForStrokes(0);
        var server = Open(browser);
        browser.WaitForSync("All saved");
        // A look at the page: its outlines are kept on the device once it has lain still.
        Thread.Sleep(TimeSpan.FromSeconds(4));
        browser.Go(otherPage);
        browser.WaitForStrokes(0);
        var device = Open(browser);
        yield return new Row("opening a page of 5,000 strokes, from the server", $"{server:0} ms", "", "", "at most 600 ms", server <= 600);
        yield return new Row("opening a page of 5,000 strokes, from the device", $"{device:0} ms", "", "", "at most 250 ms", device <= 250);
        browser.Go(fullPage);
        browser.WaitForStrokes(Writing.StrokeCount);
    }

    public static IEnumerable<Row> PenToInk(Browser browser)
    {
        browser.Script(
            """
            window.work = []; window.painted = [];
            let began = 0;
            addEventListener('pointermove', () => { began = performance.now(); }, true);
            addEventListener('pointermove', (event) => {
              window.work.push((performance.now() - began) / Math.max(1, event.getCoalescedEvents().length));
              requestAnimationFrame(() => { const channel = new MessageChannel(); channel.port1.onmessage = () => window.painted.push(performance.now() - event.timeStamp); channel.port2.postMessage(0); });
            });
            """
        );
        for (var i = 0; i < 6; i++)
            browser.Pen(420, 150 + i * 60, [.. Enumerable.Range(0, 60).Select(step => (5, (int)(12 * Math.Sin(step * 0.6))))]);
        var painted = Percentile(Numbers(browser, "return window.painted"), 0.95);
        var work = Percentile(Numbers(browser, "return window.work"), 0.95);
        yield return new Row(
            "pen sample to painted ink, p95, 5,000 strokes on the page",
            $"{painted:0.0} ms",
            "",
            "",
            "at most 16.7 ms",
            painted <= 16.7
        );
        yield return new Row("script work a pen sample, p95", $"{work:0.00} ms", "", "", "at most 2 ms", work <= 2);
    }

    /// <summary>Each tool once over the full page: what the script does from one event of the pen to its end, and the longest of them.</summary>
    public static IEnumerable<Row> Tools(Browser browser)
    {
        browser.Script(
            """
            window.toolWork = [];
            for (const type of ['pointerdown', 'pointermove', 'pointerup']) {
              let began = 0;
              addEventListener(type, () => { began = performance.now(); }, true);
              addEventListener(type, () => window.toolWork.push(performance.now() - began));
            }
            """
        );
        foreach (
            var (name, hold, setting) in new[]
            {
                ("eraser, what it touches", "tool-eraser", "erase-part"),
                ("eraser, whole strokes", "tool-eraser", "erase-whole"),
                ("loop", "tool-loop", "select-loop"),
                ("make room", "tool-room", "room-down"),
                ("shape", "tool-shape", "shape-free"),
            }
        )
        {
            browser.Press(hold);
            if (browser.Count($"[data-testid={setting}]") == 0)
                browser.Press(hold);
            browser.Press(setting);
            browser.Script("window.toolWork.length = 0");
            browser.Pen(640, 240, [.. Enumerable.Range(0, 48).Select(i => ((int)(9 * Math.Cos(i * 0.13)), (int)(9 * Math.Sin(i * 0.13))))]);
            var work = Numbers(browser, "return window.toolWork");
            var p95 = Percentile(work, 0.95);
            yield return new Row(
                $"{name}, 5,000 strokes on the page: script work an event, p95 (longest)",
                $"{p95:0.0} ms ({work.Max():0})",
                "",
                "",
                "at most 16.7 ms",
                p95 <= 16.7
            );
            if (browser.Count("[data-testid=leave-taken]") > 0)
                browser.Press("leave-taken");
        }

        browser.Press("pen-1");
    }

    /// <summary>Both browsers run on one machine, so their clocks are one.</summary>
    public static IEnumerable<Row> PassingOn(Browser here, Browser there)
    {
        here.Script(
            "window.lifted = []; addEventListener('pointerup', () => window.lifted.push(performance.timeOrigin + performance.now()), true);"
        );
        there.Script(
            """
            window.arrived = [];
            new MutationObserver(() => requestAnimationFrame(() => window.arrived.push(performance.timeOrigin + performance.now())))
              .observe(document.querySelector('[data-testid=sheet]'), { attributes: true, attributeFilter: ['data-strokes'] });
            """
        );
        var before = there.Strokes();
        for (var i = 0; i < StrokesPassedOn; i++)
        {
            here.Wave(420 + i % 5 * 90, 120 + i / 5 * 60);
            there.WaitForStrokes(before + i + 1);
        }

        var lifted = Numbers(here, "return window.lifted");
        var arrived = Numbers(there, "return window.arrived");
        var p95 = Percentile([.. lifted.Zip(arrived, (from, to) => to - from)], 0.95);
        yield return new Row(
            "pen lifted on one device, painted on the other, p95",
            $"{p95:0} ms",
            "",
            "",
            "at most 100 ms",
            p95 <= 100 && arrived.Length == lifted.Length
        );
    }

    private static double Open(Browser browser) =>
        Convert.ToDouble(
            browser.AsyncScript(
                """
                const [count, done] = arguments;
                const start = performance.now();
                document.querySelector('[data-testid=tick]').click();
                const look = () => document.querySelector('[data-testid=sheet]')?.dataset.strokes === String(count)
                  ? requestAnimationFrame(() => done(performance.now() - start)) : requestAnimationFrame(look);
                look();
                """,
                Writing.StrokeCount
            ),
            CultureInfo.InvariantCulture
        );

    private static double[] Numbers(Browser browser, string script) =>
        [.. ((IEnumerable<object>)browser.Script(script)!).Select(value => Convert.ToDouble(value, CultureInfo.InvariantCulture))];

    public static double Percentile(IReadOnlyCollection<double> values, double share) =>
        values.Order().ElementAt(Math.Min(values.Count - 1, (int)(values.Count * share)));
}
