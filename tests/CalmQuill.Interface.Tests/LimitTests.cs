using CalmQuill.Store;
using CalmQuill.Store.Documents;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace CalmQuill.Interface.Tests;

/// <summary>What a person sees when a limit is reached: it is said, nothing is lost, and there is a way on.</summary>
public sealed class LimitTests : InterfaceTest
{
    protected override DocumentLimits Limits => new(40, 1_000_000);

    [Fact]
    public async Task A_page_that_is_nearly_full_offers_to_go_on_on_a_new_one()
    {
        await Write(33);
        var browser = OpenPage(Group.Writer, 34);
        browser.Wave(330, 300);
        browser.WaitForSync("All saved");
        Assert.Equal(0, browser.Count("[data-testid=nearly-full]"));
        browser.Wave(330, 360);
        browser.WaitForSync("All saved");
        browser.PressCss("[data-testid=nearly-full] button");
        browser.Until(() => browser.Text("page-number").StartsWith("page 2 of 3", StringComparison.Ordinal), "the new page after this one");
        Assert.Equal(0, browser.Count("[data-testid=nearly-full]"));
        browser.WaitForStrokes(0);
        browser.Wave(330, 300);
        browser.WaitForSync("All saved");
    }

    [Fact]
    public async Task What_a_full_page_does_not_take_stays_on_the_device_and_is_said()
    {
        await Write(39);
        var browser = OpenPage(Group.Writer, 40);
        browser.Wave(330, 300);
        browser.Find("refused-notice");
        Assert.Contains("This page is full. Go on on a new page.", browser.Text("refused-notice"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task While_the_server_is_busy_the_front_end_waits_says_so_and_sends_by_itself()
    {
        var browser = OpenPage(Group.Writer);
        browser.WaitForSync("All saved");
        await using (var connection = await Host.Services.GetRequiredService<Database>().Connect(default))
        await using (var transaction = await connection.BeginTransactionAsync())
        {
            // Somebody holds the page's row for longer than anybody waits.
            await using (var hold = new NpgsqlCommand($"SELECT 1 FROM documents WHERE id = '{Page}' FOR UPDATE", connection))
                await hold.ExecuteScalarAsync();
            browser.Wave(330, 300);
            browser.WaitForStrokes(2);
            browser.WaitForSync("the server is busy");
            await transaction.RollbackAsync();
        }

        browser.WaitForSync("All saved");
        using var caller = await Host.SignIn(Group.Owner);
        Assert.Equal(2, (await caller.After(Group.Space, Core.Operations.DocumentKind.Page, Page)).Count);
    }

    [Fact]
    public void What_an_earlier_version_kept_under_ids_alone_opens_without_a_connection_and_is_sent()
    {
        var (browser, network) = Open(Group.Writer);
        WaitUntilKept(browser);
        network.Cut();
        browser.Wave(330, 300);
        browser.WaitForStrokes(2);
        browser.WaitForSync("waiting for a connection");
        // As it was kept before: rows by the document's id.
        browser.AsyncScript(
            """
            const [person, done] = arguments;
            const bare = (address) => address.slice(address.lastIndexOf('/') + 1);
            indexedDB.open('calm-quill-' + person).onsuccess = ({ target: { result: database } }) => {
              const transaction = database.transaction(['documents', 'operations', 'outbox', 'outlines'], 'readwrite');
              transaction.objectStore('outlines').clear();
              for (const [store, field] of [['documents', 'id'], ['operations', 'document'], ['outbox', 'document']]) {
                const rows = transaction.objectStore(store);
                rows.getAll().onsuccess = ({ target: { result } }) => { rows.clear(); for (const row of result) rows.put({ ...row, [field]: bare(row[field]) }); };
              }
              transaction.oncomplete = () => { database.close(); done(true); };
            };
            """,
            Group.Writer.Id.ToString()
        );
        browser.Go(PagePath);
        browser.WaitForStrokes(2);
        network.Mend();
        browser.WaitForSync("All saved");
        browser.Until(
            () => StateOn(browser, Group.Writer).AsSpan().SequenceEqual(StateOnServer().Result),
            "the device and the server to hold the same"
        );
        Assert.Equal(0, browser.Count("[data-testid=refused-notice]"));
    }

    private async Task Write(int strokes)
    {
        using var caller = await Host.SignIn(Group.Owner);
        var device = new Core.Operations.Replica(unchecked((ulong)Random.Shared.NextInt64()), Group.Owner.Id);
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds() - 1_000;
        var sent = await caller.Send(
            Group.Space,
            Core.Operations.DocumentKind.Page,
            Page,
            Enumerable
                .Range(0, strokes)
                .Select(i =>
                    device.Make(
                        new Core.Operations.Change.StrokeAdded(
                            new Core.Ink.Pen(Core.Ink.PenKind.Ball, 40, 0xFF),
                            now,
                            Generate.Wave(9, 3_000, 9_000 + i * 300)
                        ),
                        now
                    )
                )
        );
        Assert.All(await Caller.Results(sent), result => Assert.Null(result.Code));
    }
}
