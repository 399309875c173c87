using System.Diagnostics;
using System.IO.Compression;
using System.Text;
using System.Text.Json;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Store.Documents;
using CalmQuill.Testing;

namespace CalmQuill.Bench;

/// <summary>Core on .NET and in WebAssembly beside the references on Node, on the same strokes.</summary>
public static class CoreBench
{
    public static IEnumerable<Row> Run(List<Operation> strokes, Browser browser)
    {
        var samples = strokes.Select(operation => (Change.StrokeAdded)operation.Change).ToList();
        var points = samples.Sum(stroke => stroke.Samples.Count);
        var batches = strokes.Select(operation => OperationCodec.Encode(operation)).ToList();
        var (outlineReference, applyReference) = References(samples);
        var (outlineWasm, applyWasm) = InWebAssembly(browser, batches);

        var outliner = new StrokeOutliner();
        var outline = new Outline();
        var outlineOurs = Best(() =>
        {
            foreach (var stroke in samples)
            {
                outline.Clear();
                outliner.Append(
                    stroke.Samples,
                    new Interval(0, (stroke.Samples.Count - 1) * Interval.PerSample),
                    stroke.Pen,
                    0,
                    0,
                    outline
                );
            }
        });
        var applyOurs = Best(() =>
        {
            var page = new PageDocument();
            foreach (var batch in batches)
                page.Apply(OperationCodec.Decode(batch)[0]);
        });

        string Each(double milliseconds) => $"{milliseconds * 1e6 / points:0} ns a point";
        yield return new Row(
            "outline of a stroke, .NET",
            Each(outlineOurs),
            Each(outlineReference) + " (`perfect-freehand`)",
            $"{outlineOurs / outlineReference:0.00}",
            "at most 1",
            outlineOurs <= outlineReference
        );
        yield return new Row(
            "outline of a stroke, WebAssembly",
            Each(outlineWasm),
            Each(outlineReference) + " (`perfect-freehand`)",
            $"{outlineWasm / outlineReference:0.00}",
            "at most 8",
            outlineWasm <= 8 * outlineReference
        );
        yield return new Row(
            "applying 5,000 stroke operations, .NET",
            $"{applyOurs:0.0} ms",
            $"{applyReference:0.0} ms (`yjs`)",
            $"{applyReference / applyOurs:0.0} times as fast",
            "at least 3",
            applyReference >= 3 * applyOurs
        );
        yield return new Row(
            "applying 5,000 stroke operations, WebAssembly",
            $"{applyWasm:0.0} ms",
            $"{applyReference:0.0} ms (`yjs`)",
            $"{applyReference / applyWasm:0.00} times as fast",
            "at least 0.5",
            applyReference >= 0.5 * applyWasm
        );

        double stored = DocumentStore.Compress(OperationCodec.Encode(strokes)).Length,
            inkMl = GzipOfInkMl(samples);
        yield return new Row(
            $"stored ink, {points:N0} points of x, y, pressure, time",
            $"{stored / points:0.00} bytes a point",
            $"{inkMl / points:0.00} bytes a point (gzip of InkML)",
            $"{stored / inkMl:0.00}",
            "at most 0.39",
            stored <= 0.39 * inkMl
        );
    }

    /// <summary>The best of nine times, milliseconds.</summary>
    internal static double Best(Action run)
    {
        var least = double.MaxValue;
        for (var i = 0; i < 9; i++)
        {
            var watch = Stopwatch.StartNew();
            run();
            least = Math.Min(least, watch.Elapsed.TotalMilliseconds);
        }

        return least;
    }

    private static (double Outline, double Apply) References(List<Change.StrokeAdded> strokes)
    {
        var file = Path.GetTempFileName();
        File.WriteAllText(
            file,
            JsonSerializer.Serialize(
                strokes.Select(stroke =>
                    Enumerable
                        .Range(0, stroke.Samples.Count)
                        .Select(i => new[] { stroke.Samples.X[i], stroke.Samples.Y[i], stroke.Samples.Pressure[i], stroke.Samples.Time[i] })
                )
            )
        );
        var answer = Reference.Of("references.mjs", file);
        File.Delete(file);
        return (answer.GetProperty("outline").GetDouble(), answer.GetProperty("apply").GetDouble());
    }

    /// <summary>The same in Chromium. The outline's time includes packing it for script.</summary>
    private static (double Outline, double Apply) InWebAssembly(Browser browser, List<byte[]> batches)
    {
        var times =
            (IReadOnlyCollection<object>)
                browser.AsyncScript(
                    """
                    const [texts, done] = arguments;
                    globalThis.getDotnetRuntime(0).getAssemblyExports('CalmQuill.Core.Browser.dll').then((exports) => {
                      const { DocumentBridge, PageBridge } = exports.CalmQuill.Core.Browser;
                      const batches = texts.map((text) => Uint8Array.from(atob(text), (c) => c.charCodeAt(0)));
                      let [outline, apply] = [Infinity, Infinity];
                      for (let run = 0; run < 3; run++) {
                        const page = DocumentBridge.Open(3);
                        let start = performance.now();
                        for (const batch of batches) DocumentBridge.Apply(page, batch);
                        apply = Math.min(apply, performance.now() - start);
                        start = performance.now();
                        PageBridge.TakeChanged(page, PageBridge.OpenSurface(page, false), 100000);
                        outline = Math.min(outline, performance.now() - start);
                        DocumentBridge.Close(page);
                      }
                      done([outline, apply]);
                    });
                    """,
                    (object)batches.Select(Convert.ToBase64String).ToArray()
                )!;
        var numbers = times.Select(time => Convert.ToDouble(time, System.Globalization.CultureInfo.InvariantCulture)).ToArray();
        return (numbers[0], numbers[1]);
    }

    /// <summary>InkML (W3C 2011) with one trace a stroke, whole numbers, as a plain writer would put it.</summary>
    private static int GzipOfInkMl(List<Change.StrokeAdded> strokes)
    {
        var ink = new StringBuilder(
            "<ink xmlns=\"http://www.w3.org/2003/InkML\"><traceFormat><channel name=\"X\"/><channel name=\"Y\"/><channel name=\"F\"/><channel name=\"T\"/></traceFormat>"
        );
        foreach (var stroke in strokes)
            ink.Append("<trace>")
                .AppendJoin(
                    ',',
                    Enumerable
                        .Range(0, stroke.Samples.Count)
                        .Select(i => $"{stroke.Samples.X[i]} {stroke.Samples.Y[i]} {stroke.Samples.Pressure[i]} {stroke.Samples.Time[i]}")
                )
                .Append("</trace>");
        using var packed = new MemoryStream();
        using (var gzip = new GZipStream(packed, CompressionLevel.Optimal, leaveOpen: true))
            gzip.Write(Encoding.UTF8.GetBytes(ink.Append("</ink>").ToString()));
        return (int)packed.Length;
    }
}
