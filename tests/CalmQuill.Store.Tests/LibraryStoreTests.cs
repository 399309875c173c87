using CalmQuill.Core.Ink;
using CalmQuill.Core.Lenses;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Lenses;
using CalmQuill.Store.Library;
using CalmQuill.Store.Locks;
using CalmQuill.Store.People;
using CalmQuill.Store.Spaces;
using CalmQuill.Testing;
using CsCheck;
using Npgsql;

namespace CalmQuill.Store.Tests;

/// <summary>What lists read: projections that follow the operations, lenses in SQL that say what Core says, and the removal of what has left the bin.</summary>
public sealed class LibraryStoreTests : IAsyncLifetime
{
    private const long Day = 86_400_000;
    private const string Seed = "0N0XIzNsQ0O2";
    private readonly Guid space = Guid.NewGuid();
    private readonly Guid personal = Guid.NewGuid();
    private readonly Replica device = new(77, Generate.People[0]);
    private TestDatabase database = null!;
    private DocumentStore documents = null!;
    private ShelfStore shelf = null!;

    public async Task InitializeAsync()
    {
        database = await TestDatabase.Make();
        (documents, shelf) = (new DocumentStore(database.Database), new ShelfStore(database.Database));
        await new SpaceStore(database.Database).MakeGroup(space, "Group", default);
        foreach (var person in Generate.People)
            await new PersonStore(database.Database).Register(
                new Person(person, $"{person}@test.example", "Person", "sky", ""),
                person == Generate.People[0] ? personal : Guid.NewGuid(),
                default
            );
        await new SpaceStore(database.Database).SetRole(space, Generate.People[0], Core.Access.Role.Owner, default);
    }

    public async Task DisposeAsync() => await database.DisposeAsync();

    [Fact]
    public async Task Lenses_in_SQL_find_what_Core_finds()
    {
        var now = DateTimeOffset.FromUnixTimeMilliseconds(1_700_000_000_000).ToOffset(TimeSpan.FromHours(1));
        var lenses = new LensStore(database.Database);
        var random = new Random(3);
        var facts = await MakeLibrary(random);
        var library = await Library(space);
        var context = new RuleContext(library.Nodes(), "", now);
        var found = 0L;
        foreach (var (i, rule) in Generate.Rule.Array[300].Single(_ => true, Seed).Index())
        {
            var question = new LensStore.Question(rule, (EntryOrder)(i % 5), i % 2 == 0, 0, LensStore.MostAtOnce, now, []);
            var answer = await lenses.Find(space, Generate.People[0], question, default);
            var notebooks = facts
                .Where(fact => fact.Kind == EntryKind.Notebook && rule.Matches(fact.Entry, context))
                .Select(fact => fact.Entry.Id)
                .ToHashSet();
            var expected = facts
                .Where(fact =>
                    fact.Kind switch
                    {
                        EntryKind.Notebook => notebooks.Contains(fact.Entry.Id),
                        EntryKind.Folder => RuleJson.Write(rule).Contains("\"folder\"", StringComparison.Ordinal)
                            && rule.Matches(fact.Entry, context),
                        _ => !notebooks.Contains(fact.Notebook) && rule.Matches(fact.Entry, context),
                    }
                )
                .Select(fact => fact.Entry.Id)
                .Order();
            Assert.True(expected.SequenceEqual(answer.Entries.Select(entry => entry.Id).Order()), RuleJson.Write(rule));
            Assert.Equal(answer.Entries.Count, answer.Total);
            found += answer.Total;
        }

        // The questions were worth asking.
        Assert.True(found > 1000, $"{found} found in all");
    }

    [Fact]
    public async Task A_projection_written_step_by_step_says_what_one_made_anew_says()
    {
        foreach (var (i, history) in Generate.LibraryHistory.Array[12].Single(_ => true, Seed).Index())
        {
            var own = Guid.NewGuid();
            await new SpaceStore(database.Database).MakeGroup(own, "Group", default);
            var steps = new Random(i);
            for (var at = 0; at < history.Count; )
            {
                var count = steps.Next(1, 6);
                await documents.Append(new DocumentRef(own, DocumentKind.Library, own), history.Skip(at).Take(count).ToList(), default);
                at += count;
            }

            var stepwise = await Rows(own);
            Assert.Equal((await Library(own)).Nodes().Count, stepwise.Count);
            await Execute("UPDATE projections SET version = 0");
            await new DocumentStore(database.Database).BringProjectionsUpToDate(default);
            Assert.Equal(await Rows(own), stepwise);
        }
    }

    [Fact]
    public async Task Moving_a_folder_of_many_notebooks_writes_one_row()
    {
        Guid from = Guid.NewGuid(),
            to = Guid.NewGuid();
        List<Operation> made =
        [
            Make(new Change.NodePlaced(from, NodeKind.Folder, Guid.Empty, "V")),
            Make(new Change.NodePlaced(to, NodeKind.Folder, Guid.Empty, "W")),
        ];
        made.AddRange(Enumerable.Range(0, 300).Select(_ => Make(new Change.NodePlaced(Guid.NewGuid(), NodeKind.Notebook, from, "V"))));
        await documents.Append(new DocumentRef(space, DocumentKind.Library, space), made, default);
        var before = await Versions();
        await documents.Append(
            new DocumentRef(space, DocumentKind.Library, space),
            [Make(new Change.NodePlaced(from, NodeKind.Folder, to, "V"))],
            default
        );
        Assert.Equal(from, Assert.Single((await Versions()).Except(before)).Id);
    }

    [Fact]
    public async Task The_shelf_sums_up_notebooks_and_shows_the_pages_written_last()
    {
        var notebook = Guid.NewGuid();
        Guid section = Guid.NewGuid(),
            exam = Guid.NewGuid();
        var pages = Enumerable.Range(0, 7).Select(_ => Guid.NewGuid()).ToArray();
        await Do(
            DocumentKind.Library,
            space,
            new Change.PropertySet(notebook, Property.Name, "Bench log"),
            new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V")
        );
        await Do(
            DocumentKind.Notebook,
            notebook,
            [.. pages.Select((page, i) => new Change.PageAdded(page, "V" + (char)('a' + i), "a4-ruled-710"))]
        );
        await Do(
            DocumentKind.Notebook,
            notebook,
            new Change.PropertySet(section, Property.Name, "Basics"),
            new Change.NodePlaced(section, NodeKind.Section, Guid.Empty, "Vm"),
            new Change.NodePlaced(pages[6], NodeKind.Page, section, "V")
        );
        foreach (var (page, at) in new[] { (pages[2], 2L), (pages[0], 1L), (pages[5], 3L) })
            await documents.Append(
                new DocumentRef(space, DocumentKind.Page, page),
                [new Replica((ulong)at + 50, Generate.People[1]).Make(Stroke(), at * 1000)],
                default
            );

        var summary = Assert.Single(await shelf.Summaries(space, null, [], default));
        Assert.Equal((7, 3000L), (summary.PageCount, summary.WrittenAt));
        Assert.Equal([Generate.People[1]], summary.People);
        Assert.Equal(["Basics"], summary.Sections);
        Assert.True(summary.Size > 100);
        Assert.Equal([6, 3, 1], (await shelf.Strips(space, [notebook], [], default)).Take(3).Select(page => page.Number));
        Assert.Empty(await shelf.Strips(space, [notebook], [notebook], default));
        Assert.Equal("Bench log", await shelf.NotebookName(notebook, space, default));

        // A tag on the notebook reaches its pages, and leaves them with it.
        var lenses = new LensStore(database.Database);
        await Do(
            DocumentKind.Library,
            space,
            new Change.PropertySet(exam, Property.Name, "exam"),
            new Change.NodePlaced(exam, NodeKind.Tag, Guid.Empty, "V"),
            new Change.TagSet(notebook, exam, true)
        );
        Rule tagged = new Rule.All([new Rule.OfKind(EntryKind.Page), new Rule.Tagged(exam)]);
        Task<Found> Ask() =>
            lenses.Find(
                space,
                Generate.People[0],
                new LensStore.Question(tagged, EntryOrder.Name, false, 0, 3, DateTimeOffset.UtcNow, []),
                default
            );
        var (total, entries) = await Ask();
        Assert.Equal((7, 3), (total, entries.Count));
        Assert.Equal(1, (await lenses.Uses(space, [], default))[exam]);
        await Do(DocumentKind.Library, space, new Change.TagSet(notebook, exam, false));
        Assert.Equal(0, (await Ask()).Total);
        Assert.Empty(await shelf.Summaries(space, DateTimeOffset.UtcNow.AddMinutes(1), [], default));
    }

    [Fact]
    public async Task Data_goes_only_after_the_bins_days_and_grace_and_a_page_that_also_stands_elsewhere_stays()
    {
        Guid kept = Guid.NewGuid(),
            binned = Guid.NewGuid(),
            erased = Guid.NewGuid(),
            page = Guid.NewGuid(),
            erasedPage = Guid.NewGuid(),
            shared = Guid.NewGuid(),
            single = Guid.NewGuid();
        foreach (var notebook in new[] { kept, binned, erased })
            await Do(DocumentKind.Library, space, new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V"));
        foreach (var (notebook, inside) in new[] { (binned, page), (erased, erasedPage), (binned, shared), (kept, shared), (kept, single) })
        {
            await Do(DocumentKind.Notebook, notebook, new Change.PageAdded(inside, "V", "a4-ruled-710"));
            await documents.Append(DocumentRef.Page(space, inside), [Make(Stroke())], default);
        }

        var told = DateTimeOffset.UtcNow;
        await Do(
            DocumentKind.Library,
            space,
            new Change.PropertySet(binned, Property.Binned, "1"),
            new Change.PropertySet(erased, Property.Binned, "1"),
            new Change.PropertySet(erased, Property.Erased, "1")
        );
        await Do(DocumentKind.Notebook, kept, new Change.PropertySet(single, Property.Binned, "1"));
        var bin = new BinStore(database.Database);
        async Task<bool> IsGone(Guid id, DocumentKind kind = DocumentKind.Page) =>
            (await documents.Find(new DocumentRef(space, kind, id), default))!.Erased;
        Assert.Empty(await bin.RemoveData(told.AddDays(Bin.GraceDays).AddSeconds(-1), default));
        // The erased notebook with its page, after the grace.
        Assert.Equal(2, (await bin.RemoveData(told.AddDays(Bin.GraceDays).AddMinutes(1), default)).Count);
        Assert.True(await IsGone(erasedPage));
        Assert.True(await IsGone(erased, DocumentKind.Notebook));
        Assert.Empty((await documents.After(DocumentRef.Page(space, erasedPage), 0, default)).Operations);
        Assert.Empty(await bin.RemoveData(told.AddDays(Bin.UsualDays + Bin.GraceDays).AddSeconds(-1), default));
        Assert.NotEmpty((await documents.After(DocumentRef.Page(space, page), 0, default)).Operations);
        // The binned notebook with the page that is in it alone, and the single page.
        Assert.Equal(3, (await bin.RemoveData(told.AddDays(Bin.UsualDays + Bin.GraceDays).AddMinutes(1), default)).Count);
        Assert.True(await IsGone(page));
        Assert.True(await IsGone(single));
        Assert.NotEmpty((await documents.After(DocumentRef.Page(space, shared), 0, default)).Operations);
        Assert.Empty(await bin.RemoveData(told.AddDays(300), default));
        Assert.Equal([5L], await Query("SELECT count(*) FROM removals WHERE space_id = $1", space, row => row.GetInt64(0)));
    }

    [Fact]
    public async Task A_lie_about_the_time_removes_nothing_and_what_was_put_back_has_all_its_time_again()
    {
        Guid folder = Guid.NewGuid(),
            notebook = Guid.NewGuid(),
            page = Guid.NewGuid();
        await Do(
            DocumentKind.Library,
            space,
            new Change.NodePlaced(folder, NodeKind.Folder, Guid.Empty, "V"),
            new Change.NodePlaced(notebook, NodeKind.Notebook, folder, "V")
        );
        await Do(DocumentKind.Notebook, notebook, new Change.PageAdded(page, "V", "a4-ruled-710"));
        await documents.Append(DocumentRef.Page(space, page), [Make(Stroke())], default);
        var bin = new BinStore(database.Database);
        var now = DateTimeOffset.UtcNow;
        foreach (var lie in new[] { "0", "-5", "1", "-999999999999999" })
        {
            await Do(
                DocumentKind.Library,
                space,
                new Change.PropertySet(folder, Property.Binned, lie),
                new Change.PropertySet(folder, Property.Erased, lie)
            );
            await Do(
                DocumentKind.Notebook,
                notebook,
                new Change.PropertySet(page, Property.Binned, lie),
                new Change.PropertySet(page, Property.Erased, lie)
            );
            Assert.Empty(await bin.RemoveData(now.AddDays(Bin.GraceDays - 1), default));
        }

        // Put back: what was told before no longer counts, also not for what lies inside.
        await Do(
            DocumentKind.Library,
            space,
            new Change.PropertySet(folder, Property.Binned, ""),
            new Change.PropertySet(folder, Property.Erased, "")
        );
        await Do(
            DocumentKind.Notebook,
            notebook,
            new Change.PropertySet(page, Property.Binned, ""),
            new Change.PropertySet(page, Property.Erased, "")
        );
        Assert.Empty(await bin.RemoveData(now.AddDays(1000), default));
        // Taken out of an erased folder.
        await Do(DocumentKind.Library, space, new Change.PropertySet(folder, Property.Erased, "1"));
        await Do(DocumentKind.Library, space, new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "W"));
        Assert.Empty(await bin.RemoveData(now.AddDays(1000), default));
        Assert.NotEmpty((await documents.After(DocumentRef.Page(space, page), 0, default)).Operations);
    }

    [Fact]
    public async Task What_somebody_wrote_into_the_bin_without_having_heard_of_it_is_shown_there_for_all_its_time()
    {
        Guid folder = Guid.NewGuid(),
            notebook = Guid.NewGuid(),
            section = Guid.NewGuid(),
            page = Guid.NewGuid(),
            late = Guid.NewGuid();
        await Do(
            DocumentKind.Library,
            space,
            new Change.NodePlaced(folder, NodeKind.Folder, Guid.Empty, "V"),
            new Change.NodePlaced(notebook, NodeKind.Notebook, folder, "V")
        );
        await Do(
            DocumentKind.Notebook,
            notebook,
            new Change.NodePlaced(section, NodeKind.Section, Guid.Empty, "V"),
            new Change.NodePlaced(page, NodeKind.Page, section, "V"),
            new Change.PropertySet(section, Property.Binned, "1")
        );
        await documents.Append(DocumentRef.Page(space, page), [Make(Stroke())], default);
        var bin = new BinStore(database.Database);
        var shelf = new ShelfStore(database.Database);
        Task Age() => Execute("UPDATE bin_receipts SET received_at = received_at - interval '40 days'");
        async Task<Guid[]> Rows() => [.. (await shelf.Binned(space, DateTimeOffset.UtcNow, [], default)).Select(entry => entry.Id)];

        await Execute("UPDATE spaces SET bin_days_since = now() - interval '100 days'");
        // On a page of a section that is over.
        await Age();
        Assert.Empty(await Rows());
        await documents.Append(DocumentRef.Page(space, page), [Make(Stroke())], default);
        Assert.Equal([section], await Rows());
        Assert.Empty(await bin.RemoveData(DateTimeOffset.UtcNow, default));
        // A page that comes into it.
        await Age();
        await Do(DocumentKind.Notebook, notebook, new Change.NodePlaced(late, NodeKind.Page, section, "W"));
        Assert.Equal([section], await Rows());
        Assert.Empty(await bin.RemoveData(DateTimeOffset.UtcNow, default));
        // In a notebook whose folder is over.
        await Do(DocumentKind.Notebook, notebook, new Change.PropertySet(section, Property.Binned, ""));
        await Do(DocumentKind.Library, space, new Change.PropertySet(folder, Property.Binned, "1"));
        await Age();
        await documents.Append(DocumentRef.Page(space, late), [Make(Stroke())], default);
        Assert.InRange(
            Assert.Single(await shelf.BinTimes(space, default)).At,
            DateTimeOffset.UtcNow.AddMinutes(-5).ToUnixTimeMilliseconds(),
            DateTimeOffset.UtcNow.AddMinutes(5).ToUnixTimeMilliseconds()
        );
        Assert.Empty(await bin.RemoveData(DateTimeOffset.UtcNow, default));
        // Where nobody wrote, the time runs on.
        await Age();
        Assert.Equal(3, (await bin.RemoveData(DateTimeOffset.UtcNow, default)).Count);
    }

    [Fact]
    public async Task A_notebook_that_was_erased_takes_nothing_more_but_a_page_that_left_it_before_does()
    {
        Guid erased = Guid.NewGuid(),
            kept = Guid.NewGuid(),
            stays = Guid.NewGuid(),
            left = Guid.NewGuid(),
            alone = Guid.NewGuid();
        foreach (var notebook in new[] { erased, kept })
            await Do(DocumentKind.Library, space, new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V"));
        foreach (var page in new[] { stays, left })
            await Do(DocumentKind.Notebook, erased, new Change.PageAdded(page, "V", "a4-ruled-710"));
        await Do(DocumentKind.Notebook, kept, new Change.PageAdded(left, "V", "a4-ruled-710"));
        await Do(DocumentKind.Notebook, kept, new Change.PageAdded(alone, "W", "a4-ruled-710"));
        await Do(
            DocumentKind.Library,
            space,
            new Change.PropertySet(erased, Property.Binned, "1"),
            new Change.PropertySet(erased, Property.Erased, Erasings.Alone)
        );
        await Do(DocumentKind.Notebook, kept, new Change.PropertySet(alone, Property.Erased, Erasings.Alone));
        async Task<bool> Takes(DocumentRef document, Change change) =>
            (await documents.Append(document, [Make(change)], default)).Refused is null;
        Assert.False(await Takes(DocumentRef.Page(space, stays), Stroke()));
        Assert.False(await Takes(DocumentRef.Page(space, alone), Stroke()));
        Assert.False(await Takes(DocumentRef.Notebook(space, erased), new Change.PageAdded(Guid.NewGuid(), "X", "a4-ruled-710")));
        Assert.True(await Takes(DocumentRef.Page(space, left), Stroke()));
        Assert.True(await Takes(DocumentRef.Notebook(space, kept), new Change.PageAdded(Guid.NewGuid(), "X", "a4-ruled-710")));
        // Of another library nothing is meant.
        Assert.True(await Takes(DocumentRef.Page(personal, stays), Stroke()));
        // Taken back, it takes all again.
        await Do(DocumentKind.Library, space, new Change.PropertySet(erased, Property.Erased, ""));
        Assert.True(await Takes(DocumentRef.Page(space, stays), Stroke()));
    }

    [Fact]
    public async Task The_bin_says_how_many_pages_each_thing_in_it_holds()
    {
        Guid notebook = Guid.NewGuid(),
            section = Guid.NewGuid(),
            page = Guid.NewGuid(),
            below = Guid.NewGuid(),
            single = Guid.NewGuid();
        await Do(DocumentKind.Library, space, new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V"));
        await Do(
            DocumentKind.Notebook,
            notebook,
            new Change.NodePlaced(section, NodeKind.Section, Guid.Empty, "V"),
            new Change.NodePlaced(page, NodeKind.Page, section, "V"),
            new Change.NodePlaced(below, NodeKind.Page, page, "V"),
            new Change.NodePlaced(single, NodeKind.Page, section, "W"),
            new Change.PropertySet(single, Property.Binned, "1"),
            new Change.PropertySet(section, Property.Binned, "1")
        );
        var rows = await new ShelfStore(database.Database).Binned(space, DateTimeOffset.UtcNow, [], default);
        Assert.Equal([(section, 2), (single, 1)], rows.Select(row => (row.Id, row.Pages)).OrderByDescending(row => row.Pages));
    }

    [Fact]
    public async Task A_shorter_time_in_the_bin_takes_hold_after_the_grace()
    {
        var notebook = Guid.NewGuid();
        await Do(
            DocumentKind.Library,
            space,
            new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V"),
            new Change.PropertySet(notebook, Property.Binned, "1")
        );
        await Do(DocumentKind.Notebook, notebook, new Change.PageAdded(Guid.NewGuid(), "V", "a4-ruled-710"));
        await Execute(
            "UPDATE bin_receipts SET received_at = now() - interval '20 days'; UPDATE spaces SET bin_days_since = now() - interval '20 days'"
        );
        await Do(DocumentKind.Library, space, new Change.PropertySet(Guid.Empty, Property.BinDays, "7"));
        var bin = new BinStore(database.Database);
        Assert.Empty(await bin.RemoveData(DateTimeOffset.UtcNow.AddDays(Bin.GraceDays - 1), default));
        Assert.Single(await bin.RemoveData(DateTimeOffset.UtcNow.AddDays(Bin.GraceDays).AddMinutes(1), default));
    }

    [Fact]
    public async Task A_page_moved_to_another_notebook_counts_there_with_its_ink_and_tags_and_no_longer_here()
    {
        Guid from = Guid.NewGuid(),
            to = Guid.NewGuid(),
            page = Guid.NewGuid(),
            exam = Guid.NewGuid();
        foreach (var notebook in new[] { from, to })
            await Do(DocumentKind.Library, space, new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V"));
        await Do(
            DocumentKind.Library,
            space,
            new Change.PropertySet(exam, Property.Name, "exam"),
            new Change.NodePlaced(exam, NodeKind.Tag, Guid.Empty, "V"),
            new Change.TagSet(to, exam, true)
        );
        await Do(DocumentKind.Notebook, from, new Change.PageAdded(page, "V", "a4-ruled-710"));
        await documents.Append(new DocumentRef(space, DocumentKind.Page, page), [Make(Stroke())], default);
        await Do(
            DocumentKind.Notebook,
            to,
            new Change.PropertySet(page, Property.Paper, "a4-ruled-710"),
            new Change.NodePlaced(page, NodeKind.Page, Guid.Empty, "V")
        );
        await Do(DocumentKind.Notebook, from, new Change.PropertySet(page, Property.MovedTo, to.ToString()));
        var summaries = (await shelf.Summaries(space, null, [], default)).ToDictionary(summary => summary.Notebook);
        Assert.Equal((0, null), (summaries[from].PageCount, summaries[from].WrittenAt));
        Assert.Equal(1, summaries[to].PageCount);
        Assert.NotNull(summaries[to].WrittenAt);
        Assert.Equal([Generate.People[0]], summaries[to].People);
        // It lies in a notebook tagged for the exam now, so it is found by that tag.
        Rule tagged = new Rule.All([new Rule.OfKind(EntryKind.Page), new Rule.Tagged(exam)]);
        var found = await new LensStore(database.Database).Find(
            space,
            Generate.People[0],
            new LensStore.Question(tagged, EntryOrder.Name, false, 0, 9, DateTimeOffset.UtcNow, []),
            default
        );
        Assert.Equal((page, to), (Assert.Single(found.Entries).Id, found.Entries[0].Notebook));
    }

    [Fact]
    public async Task A_lock_is_shut_again_when_its_time_is_over_and_holds_for_what_is_at_home_in_the_notebook_alone()
    {
        Guid notebook = Guid.NewGuid(),
            other = Guid.NewGuid(),
            page = Guid.NewGuid(),
            elsewhere = Guid.NewGuid(),
            phone = Guid.NewGuid(),
            laptop = Guid.NewGuid(),
            person = Generate.People[0];
        foreach (var one in new[] { notebook, other })
            await Do(DocumentKind.Library, space, new Change.NodePlaced(one, NodeKind.Notebook, Guid.Empty, "V"));
        await Do(DocumentKind.Notebook, notebook, new Change.PageAdded(page, "V", "a4-ruled-710"));
        // Another notebook that names the page too changes nothing, whichever of them is locked.
        await Do(
            DocumentKind.Notebook,
            other,
            new Change.PageAdded(page, "V", "a4-ruled-710"),
            new Change.PageAdded(elsewhere, "W", "a4-ruled-710")
        );
        var locks = new LockStore(database.Database);
        Assert.True(await locks.Set(new NotebookLock(notebook, space, "hash", person, 5), default));
        Assert.False(await locks.Set(new NotebookLock(notebook, space, "other", Generate.People[1], 5), default));
        Assert.Equal((notebook, other), (await locks.HomeOf(space, page, default), await locks.HomeOf(space, elsewhere, default)));
        Assert.Null(await locks.HomeOf(personal, page, default));
        Assert.True(await locks.IsShut(space, notebook, phone, default));
        Assert.False(await locks.IsShut(personal, notebook, phone, default));
        Assert.Equal([page], await locks.ShutPages(space, [page, elsewhere], phone, default));
        await locks.Open(space, notebook, phone, DateTimeOffset.UtcNow.AddMinutes(5), default);
        Assert.False(await locks.IsShut(space, notebook, phone, default));
        Assert.Equal([new NotebookRef(space, notebook)], await locks.ShutFor(laptop, person, space, default));
        Assert.True(await locks.IsLocked(space, notebook, default));
        await locks.Open(space, notebook, phone, DateTimeOffset.UtcNow.AddSeconds(-1), default);
        Assert.True(await locks.IsShut(space, notebook, phone, default));
        Assert.Null(Assert.Single(await locks.Of(space, phone, default)).OpenUntil);
        await locks.Remove(space, notebook, default);
        Assert.Empty(await locks.ShutFor(phone, person, null, default));
        // A page that moves is at home where it went.
        await Do(DocumentKind.Notebook, notebook, new Change.PropertySet(page, Property.MovedTo, other.ToString()));
        Assert.Equal(other, await locks.HomeOf(space, page, default));
    }

    [Fact]
    public async Task The_bin_lists_pages_until_their_time_is_over()
    {
        Guid notebook = Guid.NewGuid(),
            page = Guid.NewGuid();
        await Do(
            DocumentKind.Library,
            space,
            new Change.PropertySet(notebook, Property.Name, "Bench log"),
            new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V")
        );
        await Do(
            DocumentKind.Notebook,
            notebook,
            new Change.PageAdded(page, "V", "a4-ruled-710"),
            new Change.PropertySet(page, Property.Binned, "1000")
        );
        // By when the server was told: the device's clock, and what it wrote, were half a century behind.
        var told = DateTimeOffset.UtcNow;
        Assert.Equal("Bench log", Assert.Single(await shelf.Binned(space, told.AddDays(30).AddMinutes(-1), [], default)).NotebookName);
        Assert.Empty(await shelf.Binned(space, told.AddDays(30).AddMinutes(1), [], default));
        await Do(DocumentKind.Library, space, new Change.PropertySet(notebook, Property.Binned, "0"));
        var time = Assert.Single(await shelf.BinTimes(space, default));
        Assert.Equal(notebook, time.Id);
        Assert.InRange(time.At, told.AddMinutes(-1).ToUnixTimeMilliseconds(), told.AddMinutes(1).ToUnixTimeMilliseconds());
        await Do(DocumentKind.Library, space, new Change.PropertySet(notebook, Property.Binned, ""));
        Assert.Empty(await shelf.BinTimes(space, default));
        await Do(DocumentKind.Library, space, new Change.PropertySet(Guid.Empty, Property.BinDays, "0"));
        Assert.Single(await shelf.Binned(space, told.AddDays(3_000), [], default));
    }

    [Fact]
    public async Task Visits_of_a_person_come_from_their_own_library_and_from_no_other()
    {
        Guid often = Guid.NewGuid(),
            once = Guid.NewGuid();
        foreach (var notebook in new[] { often, once })
            await Do(
                DocumentKind.Library,
                space,
                new Change.PropertySet(notebook, Property.Name, "Bench log"),
                new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V")
            );
        await Do(
            DocumentKind.Library,
            personal,
            new Change.Visited(space, often),
            new Change.Visited(space, once),
            new Change.Visited(space, often),
            new Change.PropertySet(once, Property.Starred, "1")
        );
        await Do(
            DocumentKind.Library,
            space,
            new Change.Visited(space, once),
            new Change.Visited(space, once),
            new Change.Visited(space, once)
        );
        Assert.Equal(
            [often, once],
            (await new DeskStore(database.Database).Often(Generate.People[0], 10, default)).Select(used => used.Notebook)
        );
        Rule starred = new Rule.Starred();
        Task<Found> Starred(Guid person) =>
            new LensStore(database.Database).Find(
                space,
                person,
                new LensStore.Question(starred, EntryOrder.Name, false, 0, 9, DateTimeOffset.UtcNow, []),
                default
            );
        Assert.Equal(once, Assert.Single((await Starred(Generate.People[0])).Entries).Id);
        Assert.Empty((await Starred(Generate.People[1])).Entries);
    }

    private sealed record Fact(EntryKind Kind, Guid Notebook, Entry Entry);

    /// <summary>A generated library with sections, pages and ink, and what Core is to know of each thing in it.</summary>
    private async Task<List<Fact>> MakeLibrary(Random random)
    {
        for (var i = 1; i <= 13; i++)
        {
            await Do(
                DocumentKind.Library,
                space,
                new Change.PropertySet(Generate.Node(i), Property.Name, $"Name {i}"),
                new Change.NodePlaced(
                    Generate.Node(i),
                    Generate.KindOf(i),
                    i is > 1 and < 10 ? Generate.Node(random.Next(0, Math.Min(i, 6)))
                        : i is 11 or 13 ? Generate.Node(i - 1)
                        : Guid.Empty,
                    "V"
                )
            );
            if (Generate.KindOf(i) == NodeKind.Notebook && i % 2 == 0)
                await Do(DocumentKind.Library, space, new Change.TagSet(Generate.Node(i), Generate.Node(10 + i % 4), true));
        }

        await Do(
            DocumentKind.Library,
            personal,
            new Change.PropertySet(Generate.Node(7), Property.Starred, "1"),
            new Change.PropertySet(Generate.Node(205), Property.Starred, "1")
        );
        var written = new Dictionary<Guid, (long At, List<Guid> People)>();
        var notebooks = new Dictionary<Guid, NotebookDocument>();
        for (var i = 0; i < 40; i++)
        {
            var (notebook, entry) = (Generate.Node(6 + i % 4), Generate.Node(200 + i));
            var isSection = i < 8;
            await Do(
                DocumentKind.Notebook,
                notebook,
                new Change.PropertySet(entry, Property.Name, $"Title {i}"),
                new Change.NodePlaced(
                    entry,
                    isSection ? NodeKind.Section : NodeKind.Page,
                    isSection ? Guid.Empty : Generate.Node(200 + i % 8),
                    "V"
                )
            );
            if (random.Next(3) == 0)
                await Do(DocumentKind.Notebook, notebook, new Change.TagSet(entry, Generate.Node(10 + random.Next(4)), true));
            if (random.Next(9) == 0)
                await Do(DocumentKind.Notebook, notebook, new Change.PropertySet(entry, Property.Binned, "1"));
            if (isSection || random.Next(3) == 0)
                continue;
            var at = 1_700_000_000_000 - random.Next(60) * Day;
            var writer = Generate.People[random.Next(3)];
            await documents.Append(
                new DocumentRef(space, DocumentKind.Page, entry),
                [new Replica((ulong)i + 900, writer).Make(Stroke(), at)],
                default
            );
            written[entry] = (at, [writer]);
        }

        var library = await Library(space);
        foreach (var id in Enumerable.Range(6, 4).Select(Generate.Node))
            notebooks[id] = await Notebook(id);
        foreach (var (id, notebook) in notebooks)
        {
            var inside = notebook
                .Pages(withBinned: true)
                .Where(page => written.ContainsKey(page.Id))
                .Select(page => (page.InBin, Ink: written[page.Id]))
                .ToList();
            if (inside.Count > 0)
                written[id] = (inside.Max(one => one.Ink.At), [.. inside.SelectMany(one => one.Ink.People)]);
        }

        Entry Of(Guid id, EntryKind kind, Guid folder, string title, TagSet tags, long createdAt) =>
            new(
                id,
                kind,
                folder,
                title,
                tags,
                createdAt,
                written.TryGetValue(id, out var ink) ? ink.At : null,
                ink.People ?? [],
                id == Generate.Node(7) || id == Generate.Node(205)
            );
        var facts = new List<Fact>();
        foreach (var node in library.Nodes().Where(node => node.Kind is NodeKind.Folder or NodeKind.Notebook))
        {
            facts.Add(
                new Fact(
                    (EntryKind)node.Kind,
                    node.Id,
                    Of(node.Id, (EntryKind)node.Kind, node.Parent, node.Name, node.Tags, node.CreatedAt)
                )
            );
            if (!notebooks.TryGetValue(node.Id, out var notebook))
                continue;
            facts.AddRange(
                notebook
                    .Outline()
                    .Select(entry => new Fact(
                        (EntryKind)entry.Kind,
                        node.Id,
                        Of(entry.Id, (EntryKind)entry.Kind, node.Parent, entry.Title, entry.Tags.With(node.Tags), entry.CreatedAt)
                    ))
            );
        }

        return facts;
    }

    private async Task<LibraryDocument> Library(Guid of)
    {
        var library = new LibraryDocument();
        foreach (var operation in (await documents.After(DocumentRef.Library(of), 0, default)).Operations)
            library.Apply(operation);
        return library;
    }

    private async Task<NotebookDocument> Notebook(Guid id)
    {
        var notebook = new NotebookDocument();
        foreach (var operation in (await documents.After(DocumentRef.Notebook(space, id), 0, default)).Operations)
            notebook.Apply(operation);
        return notebook;
    }

    private Operation Make(Change change) => device.Make(change, 1_700_000_000_000);

    private async Task Do(DocumentKind kind, Guid id, params Change[] changes) =>
        Assert.NotNull(
            await documents.Append(new DocumentRef(id == personal ? personal : space, kind, id), [.. changes.Select(Make)], default)
        );

    private Task<List<string>> Rows(Guid of) =>
        Query("SELECT row_to_json(n)::text FROM library_nodes n WHERE space_id = $1 ORDER BY id", of, row => row.GetString(0));

    private Task<List<(Guid Id, string Version)>> Versions() =>
        Query("SELECT id, xmin::text FROM library_nodes WHERE space_id = $1", space, row => (row.GetGuid(0), row.GetString(1)));

    private async Task<List<T>> Query<T>(string sql, Guid of, Func<NpgsqlDataReader, T> read)
    {
        await using var command = database.Database.Command(sql);
        command.Parameters.AddWithValue(of);
        await using var reader = await command.ExecuteReaderAsync();
        var rows = new List<T>();
        while (await reader.ReadAsync())
            rows.Add(read(reader));
        return rows;
    }

    private async Task Execute(string sql)
    {
        await using var command = database.Database.Command(sql);
        await command.ExecuteNonQueryAsync();
    }

    private static Change.StrokeAdded Stroke() => new(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(12));
}
