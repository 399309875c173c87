using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Store.Documents;
using CalmQuill.Store.People;
using CalmQuill.Store.Spaces;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Store.Tests;

/// <summary>Operations in a real PostgreSQL: numbered without a gap, stored once, read back as they came, snapshot or not.</summary>
public sealed class DocumentStoreTests : IAsyncLifetime
{
    private readonly Guid space = Guid.NewGuid();
    private TestDatabase database = null!;
    private DocumentStore documents = null!;

    public async Task InitializeAsync()
    {
        database = await TestDatabase.Make();
        documents = new DocumentStore(database.Database);
        await new SpaceStore(database.Database).MakeGroup(space, "Group", CancellationToken.None);
        foreach (var person in Generate.People)
            await new PersonStore(database.Database).Register(
                new Person(person, $"{person}@test.example", "Person", "sky", ""),
                Guid.NewGuid(),
                CancellationToken.None
            );
    }

    public async Task DisposeAsync() => await database.DisposeAsync();

    [Fact]
    public async Task Batches_that_overlap_and_repeat_are_stored_once_and_in_order()
    {
        var page = Page();
        var history = Generate.PageHistory.Single(operations => operations.Count > 10, "0N0XIzNsQ0O2");
        var first = (await documents.Append(page, history[..6], default))!;
        var second = (await documents.Append(page, history[3..], default))!;
        var again = (await documents.Append(page, history, default))!;
        Assert.Equal([1, 2, 3, 4, 5, 6], first.Sequences);
        Assert.Equal((7, history.Count - 6), (second.FirstNew, second.New.Count));
        Assert.Empty(again.New);
        Assert.Equal(Enumerable.Range(1, history.Count).Select(i => (long)i), again.Sequences);
        var (read, last) = await documents.After(page, 0, default);
        Assert.Equal(OperationCodec.Encode(history), OperationCodec.Encode(read));
        Assert.Equal(history.Count, last);
        Assert.Equal(OperationCodec.Encode(history[4..]), OperationCodec.Encode((await documents.After(page, 4, default)).Operations));
    }

    [Fact]
    public async Task Many_writers_at_once_get_numbers_without_gap_or_double()
    {
        var page = Page();
        var results = await Task.WhenAll(
            Enumerable
                .Range(1, 12)
                .Select(async device =>
                {
                    var replica = new Replica((ulong)device, Generate.People[device % 3]);
                    var numbers = new List<long>();
                    for (var i = 0; i < 10; i++)
                        numbers.AddRange(
                            (await documents.Append(page, [replica.Make(Stroke(), i), replica.Make(Stroke(), i)], default))!.Sequences
                        );
                    return numbers;
                })
        );
        Assert.Equal(Enumerable.Range(1, 240).Select(i => (long)i), results.SelectMany(numbers => numbers).Order());
    }

    [Fact]
    public async Task A_snapshot_changes_nothing_that_is_read()
    {
        var page = Page();
        var replica = new Replica(1, Generate.People[0]);
        var history = Enumerable.Range(0, DocumentStore.SnapshotEvery + 40).Select(i => replica.Make(Stroke(), i)).ToList();
        await documents.Append(page, history[..^40], default);
        await documents.SnapshotIfDue(page, default);
        await documents.Append(page, history[^40..], default);
        Assert.Equal(StateOf(history), StateOf((await documents.After(page, 0, default)).Operations));
        Assert.Equal(40, (await documents.After(page, DocumentStore.SnapshotEvery, default)).Operations.Count);
    }

    [Fact]
    public async Task An_id_that_stands_for_other_content_is_not_taken()
    {
        var page = Page();
        await documents.Append(page, [new Replica(1, Generate.People[0]).Make(Stroke(), 1)], default);
        var other = (await documents.Append(page, [new Replica(1, Generate.People[0]).Make(Stroke(), 2)], default))!;
        Assert.Equal([0], other.Sequences);
        Assert.Empty(other.New);
    }

    [Fact]
    public async Task The_same_id_in_another_space_or_of_another_kind_is_another_document()
    {
        var page = Page();
        var other = Guid.NewGuid();
        await new SpaceStore(database.Database).MakeGroup(other, "Other", default);
        // Whoever writes first under an id takes it from nobody.
        await documents.Append(
            page with
            {
                Kind = DocumentKind.Notebook,
            },
            [new Replica(2, Generate.People[1]).Make(new Change.PageAdded(Guid.NewGuid(), "V", "a4-ruled-710"), 1)],
            default
        );
        await documents.Append(page with { Space = other }, [new Replica(2, Generate.People[1]).Make(Stroke(), 1)], default);
        var stroke = new Replica(1, Generate.People[0]).Make(Stroke(), 1);
        Assert.Equal([1], (await documents.Append(page, [stroke], default)).Sequences);
        Assert.Equal([stroke.Id], (await documents.After(page, 0, default)).Operations.Select(operation => operation.Id));
    }

    [Fact]
    public async Task A_document_that_is_full_says_so_and_keeps_what_it_has()
    {
        var small = new DocumentStore(database.Database, new DocumentLimits(10, 1_000_000));
        var page = Page();
        var replica = new Replica(1, Generate.People[0]);
        var nine = await small.Append(page, Enumerable.Range(0, 9).Select(i => replica.Make(Stroke(), i)).ToList(), default);
        Assert.Equal(DocumentLimits.Near, nine.Fullness);
        var over = await small.Append(page, [replica.Make(Stroke(), 10), replica.Make(Stroke(), 11)], default);
        Assert.Equal(DocumentLimits.FullCode, over.Refused!.Code);
        Assert.Contains("new page", over.Refused.Sentence.English, StringComparison.Ordinal);
        Assert.Equal(9, (await small.After(page, 0, default)).LastSequence);
        Assert.Null((await small.Append(page, [replica.Make(Stroke(), 12)], default)).Refused);
        var heavy = new DocumentStore(database.Database, new DocumentLimits(1000, 2_000));
        Assert.NotNull(
            (await heavy.Append(Page(), Enumerable.Range(0, 90).Select(i => replica.Make(Stroke(), i)).ToList(), default)).Refused
        );
    }

    [Fact]
    public async Task Counts_add_up_over_servers_and_are_forgotten_once_their_minute_is_over()
    {
        var counts = new CalmQuill.Store.Limits.CountStore(database.Database);
        Assert.Equal(3, await counts.Add("somebody", 7, 3, default));
        Assert.Equal(5, await new CalmQuill.Store.Limits.CountStore(database.Database).Add("somebody", 7, 2, default));
        Assert.Equal(1, await counts.Add("somebody", 8, 1, default));
        await counts.Forget(8, default);
        Assert.Equal(1, await counts.Add("somebody", 7, 1, default));
        Assert.Equal(2, await counts.Add("somebody", 8, 1, default));
    }

    [Fact]
    public async Task A_replica_belongs_to_whoever_used_it_first()
    {
        var replicas = new ReplicaStore(database.Database);
        Guid laptop = Guid.NewGuid(),
            tablet = Guid.NewGuid();
        Assert.Empty(await replicas.Bind(Generate.People[0], laptop, [7, 9], default));
        Assert.Equal([7UL], await replicas.Bind(Generate.People[1], laptop, [7, 8], default));
        // Another browser of the same person is another application, too.
        Assert.Equal([9UL], await replicas.Bind(Generate.People[0], tablet, [9, 10], default));
        // What one of them saved as a file is the person's wherever it is put back, and stays the first one's to sign with.
        Assert.Empty(await replicas.Bind(Generate.People[0], null, [7, 9], default));
        Assert.Equal([7UL, 9UL], (await replicas.Bind(Generate.People[1], null, [7, 9], default)).Order());
        Assert.Equal([9UL], await replicas.Bind(Generate.People[0], tablet, [9], default));
        // Put back before the first has sent anything: any of theirs may go on with it.
        Assert.Empty(await replicas.Bind(Generate.People[0], null, [11], default));
        Assert.Empty(await replicas.Bind(Generate.People[0], laptop, [11], default));
        Assert.Equal([11UL], await replicas.Bind(Generate.People[1], laptop, [11], default));
        // Another server, that remembers nothing.
        var another = new ReplicaStore(database.Database);
        Assert.Equal([8UL, 10UL], (await another.Bind(Generate.People[0], laptop, [7, 8, 9, 10, ulong.MaxValue], default)).Order());
        // What was used before browsers were known again is any of the person's.
        await using (var command = database.Database.Command("UPDATE replicas SET device_id = NULL"))
            await command.ExecuteNonQueryAsync();
        Assert.Empty(await new ReplicaStore(database.Database).Bind(Generate.People[0], tablet, [7, 9], default));
        Assert.Equal([7UL], await new ReplicaStore(database.Database).Bind(Generate.People[1], tablet, [7], default));
    }

    private DocumentRef Page() => new(space, DocumentKind.Page, Guid.NewGuid());

    private static Change.StrokeAdded Stroke() => new(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(12));

    private static byte[] StateOf(IEnumerable<Operation> operations)
    {
        var page = new PageDocument();
        foreach (var operation in operations)
            page.Apply(operation);
        return page.EncodeState();
    }
}
