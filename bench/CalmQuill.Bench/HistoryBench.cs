using CalmQuill.Core.Operations;
using CalmQuill.Testing;

namespace CalmQuill.Bench;

/// <summary>A page of 5,000 strokes as it was, in headless Chromium: from the key to the frame that shows the moment.</summary>
internal static class HistoryBench
{
    private const int Steps = 40;

    public static IEnumerable<Row> Run(Browser browser, string page, IReadOnlyList<Operation> strokes)
    {
        browser.Go(page);
        browser.WaitForStrokes(Writing.StrokeCount);
        browser.Press("export");
        var opened = Took(
            browser,
            "document.querySelector('[data-testid=open-history]').click()",
            "document.querySelector('[data-testid=history-bar]')"
        );
        yield return new Row("history of a page of 5,000 strokes: from the press to its bar", $"{opened:0} ms", "", "", "none named", true);
        var one = Enumerable.Range(1, Steps).Select(step => Key(browser, "ArrowLeft", false, Writing.StrokeCount - step)).Order().ToList();
        var ten = Enumerable
            .Range(1, Steps)
            .Select(step => Key(browser, "ArrowLeft", true, Writing.StrokeCount - Steps - 10 * step))
            .Order()
            .ToList();
        var (afresh, bare) = (Afresh(strokes), one[(int)(Steps * 0.95)]);
        yield return new Row(
            "the same, a step back: from the key to the frame that shows it, p95",
            $"{bare:0.0} ms",
            "the page made anew from its operations up to there, .NET, nothing painted",
            $"{bare / afresh:0.00} of {afresh:0} ms",
            "at most 100 ms",
            bare <= 100
        );
        var many = ten[(int)(Steps * 0.95)];
        yield return new Row("the same, ten steps at once, p95", $"{many:0.0} ms", "", "", "at most 100 ms", many <= 100);
        var back = Key(browser, "Home", false, 0);
        yield return new Row("the same, all the way to before the first stroke", $"{back:0} ms", "", "", "none named", true);
        var forth = Key(browser, "End", false, Writing.StrokeCount);
        yield return new Row("the same, all the way to now", $"{forth:0} ms", "", "", "none named", true);
    }

    private static double Key(Browser browser, string key, bool shift, int count) =>
        Took(
            browser,
            $"document.querySelector('[data-testid=history-bar]').dispatchEvent(new KeyboardEvent('keydown', {{ key: '{key}', shiftKey: {(shift ? "true" : "false")}, bubbles: true }}))",
            $"document.querySelector('[data-testid=sheet]').dataset.strokes === '{count}' && !document.querySelector('[data-testid=sheet]').dataset.painting"
        );

    /// <summary>From doing something to the frame in which a condition holds, milliseconds.</summary>
    internal static double Took(Browser browser, string act, string shown) =>
        Convert.ToDouble(
            browser.AsyncScript(
                $$"""
                const done = arguments[0];
                const began = performance.now();
                {{act}};
                const look = () => requestAnimationFrame(() => ({{shown}}) ? setTimeout(() => done(performance.now() - began)) : look());
                look();
                """
            ),
            System.Globalization.CultureInfo.InvariantCulture
        );

    private static double Afresh(IReadOnlyList<Operation> strokes) =>
        Typically(() =>
        {
            var page = new Core.Pages.PageDocument();
            foreach (var operation in strokes)
                page.Apply(operation);
        });

    /// <summary>What something takes on .NET in the middle of nine times, milliseconds.</summary>
    internal static double Typically(Action work)
    {
        var times = new List<double>();
        for (var i = 0; i < 9; i++)
        {
            var began = System.Diagnostics.Stopwatch.GetTimestamp();
            work();
            times.Add(System.Diagnostics.Stopwatch.GetElapsedTime(began).TotalMilliseconds);
        }

        return times.Order().ElementAt(4);
    }
}
