using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Faults;
using CalmQuill.Testing;
using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.DependencyInjection;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>What goes to the server and what comes from it, when answers are late, too large, or nonsense.</summary>
public sealed class SendingTests : InterfaceTest
{
    private readonly FaultInjector faults = new();

    protected override void Services(IServiceCollection services) => services.AddSingleton<IStartupFilter>(faults);

    [Fact]
    public async Task What_is_written_between_an_answer_and_joining_is_asked_for_once_more()
    {
        // The page is asked for while there is no live connection; the answer is made, and held back.
        var released = new TaskCompletionSource();
        var browser = Open(Group.Reader).Browser;
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.WaitForSync("All saved");
        var isHeld = 0;
        faults.Answer = http => http.Request.Path.StartsWithSegments("/live") ? 503 : null;
        faults.Hold = http =>
        {
            var isAsked = http.Request.Method == "GET" && http.Request.Path.Value!.Contains($"{Page}/operations", StringComparison.Ordinal);
            return isAsked && Interlocked.Exchange(ref isHeld, 1) == 0 ? released.Task : null;
        };
        browser.Driver.Navigate().Refresh();
        browser.WaitForStrokes(1);
        await faults.Made.Task.WaitAsync(TimeSpan.FromSeconds(30));
        await Write();
        // Now there is a connection, and only then the answer of before comes.
        faults.Hold = null;
        faults.Answer = null;
        browser.Until(() => browser.Count("[data-testid=present] [role=img]") > 0, "the live connection");
        released.SetResult();
        browser.WaitForStrokes(2);
    }

    [Fact]
    public async Task What_is_too_much_at_once_goes_in_parts_and_what_is_too_large_alone_is_named()
    {
        var (browser, network) = Open(Group.Writer);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        network.Cut();
        for (var i = 0; i < 6; i++)
            browser.Wave(420, 240 + i * 40);
        browser.WaitForStrokes(7);
        var largest = 0L;
        faults.Answer = http =>
        {
            if (http.Request.Method != "POST" || !http.Request.Path.Value!.Contains(Page.ToString(), StringComparison.Ordinal))
                return null;
            largest = Math.Max(largest, http.Request.ContentLength ?? 0);
            return http.Request.ContentLength > 400 ? 413 : null;
        };
        network.Mend();
        browser.WaitForSync("All saved");
        Assert.True(largest > 400);
        Assert.Equal(7, await Strokes());

        // One that no request can hold is taken out, and said.
        faults.Answer = http =>
            http.Request.Method == "POST" && http.Request.Path.Value!.Contains(Page.ToString(), StringComparison.Ordinal) ? 413 : null;
        browser.Wave(420, 520);
        browser.Press("show-refused");
        Assert.Contains("1 stroke", browser.Find("refused-list").Text, StringComparison.Ordinal);
        browser.WaitForStrokes(7);
        browser.Press("refused-drop");
        browser.Press("refused-drop-sure");
        browser.Until(() => browser.Count("[data-testid=refused-notice]") == 0, "nothing refused");
        faults.Answer = null;
        browser.Wave(420, 560);
        browser.WaitForSync("All saved");
        Assert.Equal(8, await Strokes());
    }

    [Fact]
    public async Task A_full_space_keeps_what_waits_and_takes_it_when_there_is_room_again()
    {
        var browser = OpenPage(Group.Writer);
        faults.Answer = http =>
            http.Request.Method == "POST" && http.Request.Path.Value!.Contains(Page.ToString(), StringComparison.Ordinal) ? 507 : null;
        browser.Wave(420, 300);
        browser.WaitForSync("cannot be sent");
        browser.Driver.Navigate().Refresh();
        browser.WaitForStrokes(2);
        Assert.Equal(1, await Strokes());
        faults.Answer = null;
        browser.WaitForSync("All saved");
        Assert.Equal(2, await Strokes());
        Assert.Equal(0, browser.Count("[data-testid=refused-notice]"));
    }

    [Fact]
    public async Task A_screen_that_breaks_says_so_leaves_the_others_alone_and_is_told_to_the_server()
    {
        var browser = OpenPage(Group.Writer);
        faults.Instead = http => http.Request.Path == "/api/devices" ? """{"oops":true}""" : null;
        browser.ByRail("[data-testid=account-link]");
        var broken = browser.Find("broken-screen");
        Assert.Contains("Nothing that you wrote is lost", broken.Text, StringComparison.Ordinal);
        Assert.True(browser.Find("save-rescue").Displayed);
        var faultStore = Host.Services.GetRequiredService<FaultStore>();
        await Until(async () => (await faultStore.Latest(10, default)).Exists(one => one.Fault.What == "A screen broke."));
        // Another screen goes on, and the same one when it can.
        faults.Instead = null;
        browser.ByRail("nav a[href='/library']");
        browser.Css("main aside");
        browser.ByRail("[data-testid=account-link]");
        browser.PressCss("[data-testid=broken-screen] [data-testid=reload]");
        browser.Find("device");
        Assert.Equal(0, browser.Count("[data-testid=broken-screen]"));
    }

    [Fact]
    public async Task What_a_device_cannot_read_any_more_is_set_aside_named_and_told_and_the_rest_opens()
    {
        var browser = OpenPage(Group.Writer);
        browser.WaitForSync("All saved");
        browser.Driver.Navigate().GoToUrl(new Uri(browser.Address, "/quill.svg"));
        // A snapshot and an operation that waits, both damaged.
        Assert.Equal(
            "done",
            browser.AsyncScript(
                """
                const [person, page, done] = arguments;
                indexedDB.open('calm-quill-' + person).onsuccess = ({ target }) => {
                  const transaction = target.result.transaction(['documents', 'outbox'], 'readwrite');
                  transaction.objectStore('documents').put({ id: page, sequence: 7, snapshot: Uint8Array.from([1, 2, 3]) });
                  transaction.objectStore('outbox').add({ space: page.split('/')[0], kind: 'page', document: page, bytes: Uint8Array.from([9, 9]) });
                  transaction.oncomplete = () => { target.result.close(); done('done'); };
                };
                """,
                Group.Writer.Id.ToString(),
                $"{Group.Space}/page/{Page}"
            )
        );
        browser.Go(PagePath);
        // What the server has comes again.
        browser.WaitForStrokes(1);
        browser.Press("show-refused");
        Assert.Contains("cannot be read", browser.Find("refused-list").Text, StringComparison.Ordinal);
        browser.Type(Keys.Escape);
        browser.Wave(420, 300);
        browser.Until(() => Strokes().Result == 2, "the new stroke to be stored");
        var told = await Host.Services.GetRequiredService<FaultStore>().Latest(10, default);
        Assert.Contains(told, one => one.Fault.Bytes.AsSpan().SequenceEqual((ReadOnlySpan<byte>)[1, 2, 3]));
    }

    [Fact]
    public void An_older_tab_that_holds_the_store_is_named_and_when_it_goes_the_new_one_goes_on()
    {
        var (browser, _) = AtDesk(Group.Writer);
        browser.WaitForSync("All saved");
        browser.Driver.Navigate().GoToUrl(new Uri(browser.Address, "/quill.svg"));
        // As an older version does: it holds its store open and hears of nothing.
        Assert.Equal(
            "held",
            browser.AsyncScript(
                """
                const [person, done] = arguments;
                const name = 'calm-quill-' + person;
                indexedDB.deleteDatabase(name).onsuccess = () => {
                  const opening = indexedDB.open(name, 2);
                  opening.onupgradeneeded = () => {
                    const database = opening.result;
                    database.createObjectStore('documents', { keyPath: 'id' });
                    database.createObjectStore('operations', { keyPath: ['document', 'sequence'] });
                    database.createObjectStore('outbox', { keyPath: 'n', autoIncrement: true }).createIndex('document', 'document');
                    database.createObjectStore('refused', { keyPath: 'n' });
                    database.createObjectStore('answers');
                    database.createObjectStore('outlines', { keyPath: 'id' });
                  };
                  opening.onsuccess = () => { globalThis.held = opening.result; done('held'); };
                };
                """,
                Group.Writer.Id.ToString()
            )
        );
        var older = browser.Driver.CurrentWindowHandle;
        browser.Driver.SwitchTo().NewWindow(WindowType.Tab);
        browser.Go(PagePath);
        Assert.Contains("older version", browser.Find("store-blocked").Text, StringComparison.Ordinal);
        var newer = browser.Driver.CurrentWindowHandle;
        browser.Driver.SwitchTo().Window(older);
        browser.Driver.Close();
        browser.Driver.SwitchTo().Window(newer);
        browser.WaitForStrokes(1);
    }

    private async Task Write()
    {
        using var caller = await Host.SignIn(Group.Owner);
        await caller.Send(
            Group.Space,
            DocumentKind.Page,
            Page,
            new Replica(0x5555, Group.Owner.Id).Make(
                new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(30, 6_000, 9_000)),
                DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()
            )
        );
    }

    private async Task<int> Strokes()
    {
        using var caller = await Host.SignIn(Group.Owner);
        return (await caller.After(Group.Space, DocumentKind.Page, Page)).Count(operation => operation.Change is Change.StrokeAdded);
    }

    private static async Task Until(Func<Task<bool>> condition)
    {
        for (var waited = System.Diagnostics.Stopwatch.StartNew(); !await condition(); await Task.Delay(50))
            Assert.True(waited.Elapsed < TimeSpan.FromSeconds(30), "waited in vain");
    }
}
