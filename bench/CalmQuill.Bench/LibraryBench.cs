using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Json;
using CalmQuill.Core.Lenses;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Store;
using CalmQuill.Store.Documents;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Bench;

/// <summary>Four years of notes: 5,000 notebooks with 200,000 pages in 400 folders under 60 tags; lists and filters asked over HTTP, and the first rows in Chromium.</summary>
public sealed class LibraryBench(QuillHost host, QuillHost.Group group)
{
    private const int Notebooks = 5_000,
        PagesEach = 40,
        Folders = 400,
        Tags = 60,
        Rounds = 60;
    private const long Day = 86_400_000;
    private static readonly string[] Words =
    [
        "Escapements",
        "Gear trains",
        "Pendulum",
        "Bench log",
        "Oils",
        "Springs",
        "Dials",
        "Cases",
        "Striking",
        "Drawings",
    ];
    private readonly Random random = new(5480);
    private readonly Guid[] folders = [.. Enumerable.Range(0, Folders).Select(_ => Guid.NewGuid())];
    private readonly Guid[] tags = [.. Enumerable.Range(0, Tags).Select(_ => Guid.NewGuid())];
    private int operations;
    private readonly Guid[] notebooks = [.. Enumerable.Range(0, Notebooks).Select(_ => Guid.NewGuid())];

    /// <summary>The server's lists, asked by one person while nobody else is there.</summary>
    public async Task<List<Row>> Lists()
    {
        await Fill();
        using var caller = await host.SignIn(group.Owner);
        string Rule(Rule rule) => RuleJson.Write(rule);
        return
        [
            await Ask(
                "list a folder",
                async i =>
                    await Entries(
                        caller,
                        Rule(new Rule.All([new Rule.OfKind(EntryKind.Notebook), new Rule.Within(folders[i % Folders])])),
                        "name"
                    )
            ),
            await Ask(
                "all pages by last written",
                async _ => await Entries(caller, Rule(new Rule.OfKind(EntryKind.Page)), "written", descending: true)
            ),
            await Ask(
                "filter by three tags (all, any, none)",
                async i =>
                    await Entries(
                        caller,
                        Rule(
                            new Rule.All([
                                new Rule.Any([new Rule.Tagged(Top(i)), new Rule.Tagged(Top(i + 1))]),
                                new Rule.Tagged(Top(i + 2)),
                                new Rule.Not(new Rule.Tagged(Top(i + 3))),
                            ])
                        ),
                        "written",
                        descending: true
                    )
            ),
            await Ask(
                "lens: tag, this term, not another tag",
                async i =>
                    await Entries(
                        caller,
                        Rule(
                            new Rule.All([
                                new Rule.Tagged(Top(i)),
                                new Rule.Written(new Span("this-term")),
                                new Rule.Not(new Rule.Tagged(Top(i + 1))),
                            ])
                        ),
                        "name"
                    )
            ),
            await Ask("tags with their uses", async _ => await caller.Http.GetByteArrayAsync($"/api/spaces/{group.Space}/tag-uses")),
            await Ask(
                "what changed of 5,000 summaries",
                async _ =>
                    await caller.Http.GetByteArrayAsync(
                        $"/api/spaces/{group.Space}/summaries?after={DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()}"
                    )
            ),
            await Ask(
                "page strips of 20 notebooks",
                async i =>
                    await caller.Http.GetByteArrayAsync(
                        $"/api/spaces/{group.Space}/strips?notebooks={string.Join(',', notebooks.Skip(i * 20).Take(20))}"
                    )
            ),
            await Ask("often used", async _ => await caller.Http.GetByteArrayAsync("/api/often")),
            await Ask("the Desk", async _ => await caller.Http.GetByteArrayAsync("/api/desk")),
            await MoveMany(caller),
        ];
    }

    private Guid Top(int i) => tags[i * 7 % Tags];

    private async Task<byte[]> Entries(Caller caller, string rule, string order, bool descending = false)
    {
        using var answer = await caller.Http.PostAsJsonAsync(
            $"/api/spaces/{group.Space}/entries",
            new
            {
                rule,
                order,
                descending,
                limit = 100,
            }
        );
        answer.EnsureSuccessStatusCode();
        return await answer.Content.ReadAsByteArrayAsync();
    }

    private static async Task<Row> Ask(string what, Func<int, Task<byte[]>> ask)
    {
        for (var i = 0; i < 5; i++)
            await ask(i);
        var times = new double[Rounds];
        for (var i = 0; i < Rounds; i++)
        {
            var watch = Stopwatch.StartNew();
            await ask(i);
            times[i] = watch.Elapsed.TotalMilliseconds;
        }

        return Bar($"library of 5,000 notebooks, 200,000 pages: {what}, p95", times.Order().ElementAt((int)(Rounds * 0.95)), 50);
    }

    /// <summary>A folder with 2,000 notebooks goes into another: one operation, from sending to its answer.</summary>
    private async Task<Row> MoveMany(Caller caller)
    {
        var device = new Replica(5, group.Owner.Id);
        var times = new List<double>();
        for (var i = 0; i < 20; i++)
        {
            var operation = device.Make(
                new Change.NodePlaced(folders[0], NodeKind.Folder, i % 2 == 0 ? folders[^1] : Guid.Empty, "V"),
                DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()
            );
            var watch = Stopwatch.StartNew();
            (await caller.Send(group.Space, DocumentKind.Library, group.Space, operation)).EnsureSuccessStatusCode();
            times.Add(watch.Elapsed.TotalMilliseconds);
        }

        return Bar("moving a folder of 2,000 notebooks, p95", times.Order().ElementAt(18), 50);
    }

    /// <summary>The same library in the application.</summary>
    public IEnumerable<Row> Interface(Browser browser)
    {
        browser.Go($"/library/{group.Space}/{folders[3]}");
        browser.Find("notebook-row");
        browser.WaitForSync("All saved");
        yield return Bar(
            "first rows painted, from pressing “Library”",
            Painted(browser, "document.querySelector('a[href=\"/library\"]').click()"),
            300
        );
        yield return Bar(
            "first rows painted, from pressing “All notebooks”",
            Painted(browser, "document.querySelector('[data-testid=list-all]').click()"),
            300
        );
        browser.Go("/desk");
        browser.Find("desk-heading");
        yield return Bar(
            "from pressing “Jot” to an empty page",
            Until(
                browser,
                "document.querySelector('[data-testid=jot]').click()",
                "document.querySelector('[data-testid=sheet]')?.dataset.strokes === '0'"
            ),
            300
        );
        browser.WaitForSync("All saved");
        browser.Go($"/library/{group.Space}/{folders[3]}");
        var cold = Convert.ToDouble(
            browser.AsyncScript(
                """
                const done = arguments[0];
                const look = () => document.querySelector('[data-testid=notebook-row]') ? requestAnimationFrame(() => done(performance.now())) : requestAnimationFrame(look);
                look();
                """
            ),
            CultureInfo.InvariantCulture
        );
        yield return new Row(
            $"the same from a cold start of the application, {operations:N0} operations of the library on the device",
            $"{cold:0} ms",
            "",
            "",
            "none named",
            true
        );
    }

    /// <summary>From a press to the frame after the first row of another list stands there.</summary>
    private static double Painted(Browser browser, string press) =>
        Until(
            browser,
            press,
            "document.querySelector('[data-testid=library-heading]')?.textContent !== before && document.querySelector('[data-testid=notebook-row]')"
        );

    /// <summary>Pressed once the screen before has all its pictures, as a person would.</summary>
    private static double Until(Browser browser, string press, string condition)
    {
        browser.Until(
            () =>
                (bool)
                    browser.Script(
                        "return [...document.images].every((image) => image.complete) && !document.querySelector('[data-coming]')"
                    )!,
            "the pictures"
        );
        return Convert.ToDouble(
            browser.AsyncScript(
                $$"""
                const done = arguments[0];
                const before = document.querySelector('[data-testid=library-heading]')?.textContent;
                const start = performance.now();
                {{press}};
                const look = () => {{condition}} ? requestAnimationFrame(() => done(performance.now() - start)) : requestAnimationFrame(look);
                look();
                """
            ),
            CultureInfo.InvariantCulture
        );
    }

    private static Row Bar(string what, double milliseconds, double most) =>
        new(what, $"{milliseconds:0.0} ms", "", "", $"at most {most:0} ms", milliseconds <= most);

    private async Task Fill()
    {
        var documents = host.Services.GetRequiredService<DocumentStore>();
        var database = host.Services.GetRequiredService<Database>();
        var device = new Replica(3, group.Owner.Id);
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        var start = now - 4 * 365 * Day;
        var library = new List<Operation>();
        void Do(Change change, long at) => library.Add(device.Make(change, at));
        for (var i = 0; i < Folders; i++)
        {
            Do(new Change.PropertySet(folders[i], Property.Name, $"{Words[i % Words.Length]} {i}"), start);
            // The first folder holds two thousand notebooks; the others branch.
            Do(
                new Change.NodePlaced(
                    folders[i],
                    NodeKind.Folder,
                    i < 20 ? Guid.Empty : folders[1 + random.Next(i - 1)],
                    "V" + (char)('A' + i % 26)
                ),
                start
            );
        }

        for (var i = 0; i < Tags; i++)
        {
            Do(new Change.PropertySet(tags[i], Property.Name, $"tag {i}"), start);
            Do(new Change.NodePlaced(tags[i], NodeKind.Tag, i % 3 == 0 ? Guid.Empty : tags[i - i % 3], "V"), start);
        }

        for (var i = 0; i < Notebooks; i++)
        {
            var at = start + i * (now - start) / Notebooks;
            Do(new Change.PropertySet(notebooks[i], Property.Name, $"{Words[random.Next(Words.Length)]} {random.Next(1000)}"), at);
            Do(
                new Change.NodePlaced(
                    notebooks[i],
                    NodeKind.Notebook,
                    i < 2000 ? folders[0] : folders[random.Next(1, Folders)],
                    "V" + (char)('A' + i % 26)
                ),
                at
            );
            Do(new Change.PropertySet(notebooks[i], Property.Colour, "spruce"), at);
            Do(new Change.PropertySet(notebooks[i], Property.Cover, "rings"), at);
            for (var tag = random.Next(3); tag > 0; tag--)
                Do(new Change.TagSet(notebooks[i], tags[random.Next(Tags)], true), at);
        }

        operations = library.Count;
        await documents.Append(new DocumentRef(group.Space, DocumentKind.Library, group.Space), library, default);
        await documents.SnapshotIfDue(DocumentRef.Library(group.Space), default);
        // Pages count as written on; their ink does not matter here.
        var pages = notebooks.Select(_ => Enumerable.Range(0, PagesEach).Select(_ => Guid.NewGuid()).ToArray()).ToArray();
        await using (var connection = await database.Connect(default))
        {
            await using var copy = await connection.BeginBinaryImportAsync(
                "COPY documents (id, space_id, kind, last_seq, written_at, size) FROM STDIN (FORMAT binary)"
            );
            for (var i = 0; i < Notebooks; i++)
            {
                foreach (var page in pages[i])
                {
                    await copy.StartRowAsync();
                    await copy.WriteAsync(page, NpgsqlTypes.NpgsqlDbType.Uuid);
                    await copy.WriteAsync(group.Space, NpgsqlTypes.NpgsqlDbType.Uuid);
                    await copy.WriteAsync((short)3, NpgsqlTypes.NpgsqlDbType.Smallint);
                    await copy.WriteAsync(1L, NpgsqlTypes.NpgsqlDbType.Bigint);
                    await copy.WriteAsync(
                        DateTimeOffset
                            .FromUnixTimeMilliseconds(start + i * (now - start) / Notebooks + random.NextInt64(30 * Day))
                            .UtcDateTime,
                        NpgsqlTypes.NpgsqlDbType.TimestampTz
                    );
                    await copy.WriteAsync(20_000L, NpgsqlTypes.NpgsqlDbType.Bigint);
                }
            }

            await copy.CompleteAsync();
        }

        await Parallel.ForEachAsync(
            Enumerable.Range(0, Notebooks),
            new ParallelOptions { MaxDegreeOfParallelism = 4 },
            async (i, cancel) =>
            {
                var own = new Replica((ulong)i + 1000, group.Owner.Id);
                var dice = new Random(i);
                var inside = new List<Operation>(PagesEach * 2);
                for (var p = 0; p < PagesEach; p++)
                {
                    inside.Add(
                        own.Make(
                            new Change.PageAdded(pages[i][p], "V" + (char)('A' + p % 26) + (char)('A' + p / 26), "a4-ruled-710"),
                            start
                        )
                    );
                    inside.Add(
                        own.Make(new Change.PropertySet(pages[i][p], Property.Name, $"{Words[dice.Next(Words.Length)]} {p}"), start)
                    );
                    if (dice.Next(5) == 0)
                        inside.Add(own.Make(new Change.TagSet(pages[i][p], tags[dice.Next(Tags)], true), start));
                }

                await documents.Append(new DocumentRef(group.Space, DocumentKind.Notebook, notebooks[i]), inside, cancel);
            }
        );
        var personal = new Replica(4, group.Owner.Id);
        using var caller = await host.SignIn(group.Owner);
        var own = (await caller.Refresh())
            .GetProperty("spaces")
            .EnumerateArray()
            .Single(space => space.GetProperty("personal").GetBoolean())
            .GetProperty("id")
            .GetGuid();
        await documents.Append(
            new DocumentRef(own, DocumentKind.Library, own),
            [
                .. Enumerable
                    .Range(0, 3000)
                    .Select(i =>
                        personal.Make(new Change.Visited(group.Space, notebooks[random.Next(Notebooks)]), start + i * (now - start) / 3000)
                    ),
            ],
            default
        );
        // What PostgreSQL's own keeper does by itself after a while.
        await using var analyse = database.Command("VACUUM ANALYZE");
        await analyse.ExecuteNonQueryAsync();
    }
}
