using System.Globalization;
using CalmQuill.Core.Diagrams;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Core.Shapes;
using CalmQuill.Core.Tables;
using CalmQuill.Core.Writing;
using CalmQuill.Store.Documents;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Bench;

/// <summary>
/// What is typed and put in, in headless Chromium: a key in a very long text and in a full table, each with all that it entails on the
/// screen; and a shape of a large diagram moved, whose connectors follow.
/// </summary>
public sealed class ThingsBench(QuillHost host, QuillHost.Group group)
{
    private const int Paragraphs = 170,
        LettersAParagraph = 590,
        Rows = 250,
        Columns = 8,
        Shapes = 64,
        Keys = 120;

    /// <summary>What a key may take, ms; a table is held to the same.</summary>
    private const double KeyBar = 8;

    private readonly Guid notebook = Guid.NewGuid();
    private readonly Guid[] pages = [Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid()];
    private readonly Replica device = new(12, group.Owner.Id);

    public QuillHost.Group Group => group;

    public async Task Write()
    {
        var documents = host.Services.GetRequiredService<DocumentStore>();
        await documents.Append(
            new DocumentRef(group.Space, DocumentKind.Library, group.Space),
            [device.Make(new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V"), 1)],
            default
        );
        await documents.Append(
            new DocumentRef(group.Space, DocumentKind.Notebook, notebook),
            [.. pages.Select((page, i) => device.Make(new Change.PageAdded(page, $"a{i}V", "a4-ruled-710"), 1))],
            default
        );
        foreach (var (page, made) in pages.Zip([Text(), Table(), Diagram()]))
            await documents.Append(new DocumentRef(group.Space, DocumentKind.Page, page), made, default);
    }

    public IEnumerable<Row> Run(Browser browser)
    {
        var reference = Reference.Of("typing.mjs").GetProperty("key").GetDouble();
        foreach (
            var (page, what, theirs) in new[]
            {
                (
                    pages[0],
                    $"a key in a text of {Paragraphs * LettersAParagraph:N0} letters, on the screen with its line",
                    $"{reference:0.00} ms (`yjs`, its letters alone)"
                ),
                (pages[1], $"a key in a cell of a table of {Rows * Columns:N0} cells, on the screen", ""),
            }
        )
        {
            var (median, p95, longest) = Typing(browser, page);
            yield return new Row(
                $"{what}: script work, median and p95 (longest task)",
                $"{median:0.0} and {p95:0.0} ms ({longest:0})",
                theirs,
                theirs.Length > 0 ? $"{p95 / reference:0}" : "",
                $"at most {KeyBar} ms",
                p95 <= KeyBar
            );
        }

        browser.Go($"/page/{group.Space}/{notebook}/{pages[2]}");
        browser.WaitForStrokes(2 * Shapes - 1);
        browser.Press("tool-loop");
        var (x, y) = At(browser, 1_700, 3_400);
        browser.Pen(x, y, []);
        browser.Find("selection");
        FullPageBench.Rest(browser);
        var moved = FullPageBench.Do(
            browser,
            "document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }))"
        );
        yield return new Row(
            $"the middle of a diagram of {Shapes} shapes moved, its {Shapes - 1} connectors with it: from the key to the frame that shows it",
            $"{moved:0} ms",
            "",
            "",
            "at most 200 ms",
            moved <= 200
        );
    }

    /// <summary>Types into what lies at the upper left, letter by letter once a frame, as a keyboard does.</summary>
    private (double Median, double P95, double Longest) Typing(Browser browser, Guid page)
    {
        browser.Go($"/page/{group.Space}/{notebook}/{page}");
        browser.WaitForStrokes(1);
        FullPageBench.Rest(browser);
        if (browser.Attribute("tool-text", "aria-pressed") != "true")
            browser.Press("tool-text");
        var (x, y) = At(browser, 2_300, 3_150);
        browser.Pen(x, y, []);
        browser.Find("typing-field");
        FullPageBench.Rest(browser);
        browser.Script(FullPageBench.Observe);
        var times =
            (IEnumerable<object>)
                browser.AsyncScript(
                    """
                    const [keys, done] = arguments;
                    const times = [];
                    const letters = 'the beat of the clock is even ';
                    const step = () => {
                      if (times.length === keys) return setTimeout(() => done([...times, Math.max(0, ...window.tasks)]), 300);
                      const start = performance.now();
                      document.activeElement.dispatchEvent(new InputEvent('beforeinput', { inputType: 'insertText', data: letters[times.length % letters.length], bubbles: true, cancelable: true }));
                      times.push(performance.now() - start);
                      requestAnimationFrame(step);
                    };
                    window.tasks.length = 0;
                    step();
                    """,
                    Keys
                )!;
        double[] read = [.. times.Select(one => Convert.ToDouble(one, CultureInfo.InvariantCulture))];
        browser.Press("typing-done");
        return (InterfaceBench.Percentile(read[..^1], 0.5), InterfaceBench.Percentile(read[..^1], 0.95), read[^1]);
    }

    private static (int X, int Y) At(Browser browser, double x, double y)
    {
        double[] view =
        [
            .. browser.Attribute("sheet", "data-view")!.Split(' ').Select(part => double.Parse(part, CultureInfo.InvariantCulture)),
        ];
        return ((int)(x * view[0] + view[1]), (int)(y * view[0] + view[2]));
    }

    private List<Operation> Text()
    {
        const string words = "The pendulum of the clock in the hall goes a little faster in winter. ";
        var paragraph = string.Concat(Enumerable.Repeat(words, LettersAParagraph / words.Length + 1))[..(LettersAParagraph - 1)] + "\n";
        var text = new PageDocument();
        List<Operation> made = [device.Make(new Change.TextAdded(Transform.Shift(2_000, 3_200), 16_000, 0, new Passage("", []), []), 1)];
        text.Apply(made[0]);
        for (var i = 0; i < Paragraphs; i += 10)
        {
            var typed = ((WrittenContent)text.Find(made[0].Id)!.Content).Typed;
            // No two say the same, which would be known from the first.
            var letters = string.Concat(Enumerable.Range(i, Math.Min(10, Paragraphs - i)).Select(number => $"{number} {paragraph}"));
            made.Add(device.Make(new Change.TextTyped(made[0].Id, new TextChange([typed.InsertionAt(typed.Length, letters)], [], [])), 1));
            text.Apply(made[^1]);
        }

        return made;
    }

    private List<Operation> Table()
    {
        List<IReadOnlyList<string>> cells =
        [
            .. Enumerable
                .Range(0, Rows)
                .Select(row => (IReadOnlyList<string>)[.. Enumerable.Range(0, Columns).Select(column => $"row {row}.{column}")]),
        ];
        var passage = TableEdit.New(
            [.. Enumerable.Repeat(2_200, Columns)],
            [.. Enumerable.Repeat(700, Rows)],
            edit => edit.Paste(0, 0, cells)
        );
        return [device.Make(new Change.ThingAdded(ThingKind.Table, Transform.Shift(2_000, 2_900), 17_600, 70_000, passage, []), 1)];
    }

    /// <summary>A shape at the upper left, and all others joined to it.</summary>
    private List<Operation> Diagram()
    {
        var pen = new Pen(PenKind.Ball, 40, 0x22302EFF);
        var made = new List<Operation>();
        for (var i = 0; i < Shapes; i++)
        {
            var (left, top) = (1_000 + i % 8 * 2_400, 3_000 + i / 8 * 2_800);
            made.Add(
                device.Make(
                    new Change.ShapeAdded(
                        ShapeTool.Between(ShapeKind.Rectangle, left, top, left + 1_400, top + 800, false),
                        pen,
                        0xFFFDF7FF,
                        []
                    ),
                    1
                )
            );
        }

        var look = new ConnectorLook(ConnectorRoute.Bent, ConnectorEnd.None, ConnectorEnd.Arrow);
        for (var i = 1; i < Shapes; i++)
        {
            var connector = device.Make(new Change.ShapeAdded(Connecting.Between(0, 0, 100, 100, look), pen, 0, []), 1);
            made.Add(connector);
            made.Add(
                device.Make(
                    new Change.ItemsSet(
                        [connector.Id],
                        [new ItemValue(ItemField.From, made[0].Id.ToString()), new ItemValue(ItemField.To, made[i].Id.ToString())]
                    ),
                    1
                )
            );
        }

        return made;
    }
}
