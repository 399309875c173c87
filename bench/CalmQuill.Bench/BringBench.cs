using System.Globalization;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Bench;

/// <summary>A long PDF file brought in, in headless Chromium, and taken out again with all its pages.</summary>
public sealed class BringBench(QuillHost host, QuillHost.Group group)
{
    private const int Pages = 500;

    /// <summary>Until the first page can be written on, ms.</summary>
    private const double FirstBar = 3_000;

    public async Task<List<Row>> Run()
    {
        var folder = Directory.CreateTempSubdirectory("quill-bring");
        try
        {
            var path = Path.Combine(folder.FullName, "lecture.pdf");
            await File.WriteAllBytesAsync(path, SlideFile.Write(Pages));
            using var browser = new Browser(host.Address);
            browser.SignIn(group.Owner.Email, QuillHost.Password);
            browser.Go($"/bring/{group.Space}");
            browser.Find("choose-files");
            browser.Script("window.began = performance.now()");
            browser.Driver.FindElement(By.CssSelector("[data-testid=bring-files]")).SendKeys(path);
            var laid = Until(browser, $"document.querySelectorAll('[data-testid=brought-sheet]').length === {Pages}");
            browser.Script(
                "window.began = performance.now(); window.tasks = []; new PerformanceObserver((list) => window.tasks.push(...list.getEntries().map((one) => one.duration))).observe({ entryTypes: ['longtask'] }); document.querySelector('[data-testid=bring-in]').click();"
            );
            var first = Until(browser, "document.querySelector('[data-testid=sheet]')?.dataset.strokes === '1'");
            var longest = Convert.ToDouble(browser.Script("return Math.max(0, ...window.tasks)"), CultureInfo.InvariantCulture);
            var kept = Until(browser, "document.querySelector('[data-testid=sync-state]')?.textContent.includes('All saved')");
            var notebook = new Uri(browser.Driver.Url).Segments[3].Trim('/');
            using var owner = await host.SignIn(group.Owner);
            var watch = System.Diagnostics.Stopwatch.StartNew();
            var file = await owner.Http.GetByteArrayAsync($"/api/spaces/{group.Space}/notebooks/{notebook}/export.pdf");
            return
            [
                new Row(
                    $"PDF file of {Pages} pages, from choosing it to its sheets on the desk",
                    $"{laid:0} ms",
                    "",
                    "",
                    "none named",
                    true
                ),
                new Row(
                    "the same, from pressing “Bring in” to its first page in a notebook (longest task)",
                    $"{first:0} ms ({longest:0})",
                    "",
                    "",
                    $"at most {FirstBar:N0} ms",
                    first <= FirstBar
                ),
                new Row("the same, until all of it is on the server", $"{kept:0} ms", "", "", "none named", true),
                new Row(
                    "the same, taken out as PDF by the server, its pages as vectors",
                    $"{watch.ElapsedMilliseconds} ms, {file.Length / 1_000_000.0:0.0} MB",
                    "",
                    "",
                    "none named",
                    true
                ),
            ];
        }
        finally
        {
            folder.Delete(recursive: true);
        }
    }

    /// <summary>Milliseconds from when it began until something holds.</summary>
    private static double Until(Browser browser, string holds) =>
        Convert.ToDouble(
            browser.AsyncScript(
                $$"""
                const done = arguments[0];
                const look = () => ({{holds}}) ? done(performance.now() - window.began) : requestAnimationFrame(look);
                look();
                """
            ),
            CultureInfo.InvariantCulture
        );
}
