using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CalmQuill.Testing;
using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.DependencyInjection;
using OpenQA.Selenium;
using static CalmQuill.Interface.Tests.LibraryHands;
using static CalmQuill.Interface.Tests.PageHands;

namespace CalmQuill.Interface.Tests;

/// <summary>What a device keeps: with two tabs, without room, with a server that fails at one page, after signing out, with an old store.</summary>
public sealed class DeviceTests : InterfaceTest
{
    private readonly FaultInjector faults = new();

    protected override void Services(IServiceCollection services) => services.AddSingleton<IStartupFilter>(faults);

    [Fact]
    public async Task Two_tabs_show_what_the_other_wrote_at_once_without_a_network_and_leave_it_all_on_the_device()
    {
        var (browser, network) = Open(Group.Writer);
        WaitUntilKept(browser);
        var first = browser.Driver.CurrentWindowHandle;
        browser.Driver.SwitchTo().NewWindow(WindowType.Tab);
        var second = browser.Driver.CurrentWindowHandle;
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        network.Cut();
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        browser.Driver.SwitchTo().Window(first);
        browser.WaitForStrokes(2);
        browser.Wave(420, 360);
        browser.WaitForStrokes(3);
        browser.Driver.SwitchTo().Window(second);
        browser.WaitForStrokes(3);
        // What the other sent counts here as well: nothing is missed, and nothing is there twice.
        network.Mend();
        browser.WaitForSync("All saved");
        browser.Wave(420, 420);
        browser.WaitForStrokes(4);
        browser.WaitForSync("All saved");
        browser.Driver.Close();
        browser.Driver.SwitchTo().Window(first);
        browser.WaitForStrokes(4);
        browser.Driver.Navigate().Refresh();
        browser.WaitForStrokes(4);
        var state = await StateOnServer();
        browser.Until(() => StateOn(browser, Group.Writer).AsSpan().SequenceEqual(state), "the same bytes as on the server");
    }

    [Fact]
    public async Task A_device_without_room_says_so_and_sends_what_it_cannot_keep()
    {
        var (browser, network) = Open(Group.Writer);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.WaitForSync("All saved");
        // As a browser answers when there is no room, from now on and for whatever is to be kept.
        browser.Script(
            "for (const name of ['add', 'put']) IDBObjectStore.prototype[name] = () => { throw new DOMException('full', 'QuotaExceededError'); };"
        );
        network.Cut();
        browser.Wave(420, 300);
        browser.Wave(420, 360);
        Assert.Contains("no room left", browser.Find("full-notice").Text, StringComparison.Ordinal);
        browser.WaitForSync("keep this window open");
        // It is sent from memory as soon as there is a network.
        network.Mend();
        browser.WaitForStrokes(3);
        browser.Until(() => browser.Count("[data-testid=full-notice]") == 0, "nothing in memory alone");
        Assert.Equal(3, await StrokesOnServer());
        // What the store could not take is no hole in it: after a reload all is there.
        browser.Driver.Navigate().Refresh();
        browser.WaitForStrokes(3);
    }

    [Fact]
    public async Task Without_a_connection_what_is_here_is_duplicated_and_what_only_the_server_makes_says_so()
    {
        using var caller = await Host.SignIn(Group.Owner);
        var device = new Replica(9, Group.Owner.Id);
        await caller.Send(
            Group.Space,
            DocumentKind.Notebook,
            Notebook,
            device.Make(new Change.PageAdded(Guid.NewGuid(), "X", "a4-ruled-710"), 1),
            device.Make(new Change.PageAdded(Guid.NewGuid(), "Y", "a4-ruled-710"), 1)
        );
        var (browser, network) = Open(Group.Writer);
        WaitUntilKept(browser);
        browser.Go("/library/list/recent");
        browser.Until(() => browser.Count("[data-testid=page-row]") == 1, "the page written on");
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        network.Cut();
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);

        // A file that the server makes: a sentence, and the page stays.
        browser.Press("export");
        browser.Press("export-page");
        browser.Until(() => Said(browser).Contains("The page as PDF is made by the server", StringComparison.Ordinal), "the sentence");
        Assert.EndsWith(PagePath, browser.Driver.Url, StringComparison.Ordinal);

        // The page's copy holds both strokes and can be written on; the notebook's last pages were never here.
        browser.Press("contents");
        browser.PressCss("[data-testid=contents-panel] [aria-current=page] [data-testid=entry-menu]");
        browser.Press("entry-duplicate");
        browser.Until(() => browser.Count("[data-testid=contents-panel] [data-testid=page]") == 5, "the copy");
        browser.PressCss("[data-testid=contents-panel] [data-testid=page][aria-current=page] + [data-testid=page] button");
        browser.Until(() => !browser.Driver.Url.EndsWith(PagePath, StringComparison.Ordinal), "the copied page");
        browser.WaitForStrokes(2);
        browser.Wave(420, 400);
        browser.WaitForStrokes(3);
        var copied = Guid.Parse(new Uri(browser.Driver.Url).Segments[^1]);
        browser.ByRail("nav a[href='/library']");
        browser.PressCss("[data-testid=notebook-row][data-name=Escapements] [data-testid=row-menu]");
        browser.Press("menu-duplicate");
        browser.Until(() => Said(browser).Contains("2 pages of it are not here", StringComparison.Ordinal), "why not");
        Assert.Equal(1, browser.Count("[data-testid=notebook-row]"));

        // What was written last comes first, also that which is only here.
        browser.PressCss("[data-testid=list-recent]");
        browser.Until(() => browser.Count("[data-testid=page-row]") == 2, "both pages");
        Assert.Contains(copied.ToString(), browser.AttributeAt("[data-testid=page-row] a", "href"), StringComparison.Ordinal);

        network.Mend();
        browser.WaitForSync("All saved");
        Assert.Equal(2, await StrokesOnServer());
        var page = new CalmQuill.Core.Pages.PageDocument();
        foreach (var operation in await caller.After(Group.Space, DocumentKind.Page, copied))
            page.Apply(operation);
        Assert.Equal(3, page.Items.Count(item => item.Shown));
        // With a connection the file is there.
        browser.Go(PagePath);
        browser.WaitForStrokes(2);
        browser.Press("export");
        browser.Press("export-page");
        Assert.StartsWith("%PDF", browser.TakeSavedFile(".pdf"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_notebook_that_is_all_here_is_duplicated_without_a_connection_and_a_locked_one_is_not_saved()
    {
        var (browser, network) = Open(Group.Writer);
        WaitUntilKept(browser);
        browser.Type(Keys.PageDown);
        browser.WaitForStrokes(0);
        browser.Wave(420, 300);
        browser.WaitForStrokes(1);
        browser.WaitForSync("All saved");
        network.Cut();
        browser.ByRail("nav a[href='/library']");
        browser.PressCss("[data-testid=notebook-row][data-name=Escapements] [data-testid=row-menu]");
        browser.Press("menu-duplicate");
        browser.Css("[data-testid=notebook-row][data-name='Escapements, copy']");
        OpenNotebook(browser, "Escapements, copy");
        browser.Until(() => browser.Text("page-number") == "page 1 of 2", "the copy");
        browser.WaitForStrokes(1);
        network.Mend();
        browser.WaitForSync("All saved");
        var other = Open(Group.Owner).Browser;
        other.Go(new Uri(browser.Driver.Url).AbsolutePath);
        other.WaitForStrokes(1);
        other.Type(Keys.PageDown);
        other.Until(() => other.Text("page-number") == "page 2 of 2", "its second page");
        other.WaitForStrokes(1);

        await Lock(Notebook);
        browser.Go("/library");
        browser.PressCss("[data-testid=notebook-row][data-name=Escapements] [data-testid=row-menu]");
        browser.Press("menu-pdf");
        browser.Until(() => Said(browser).Contains("locked", StringComparison.Ordinal), "that it is locked");
        Assert.EndsWith("/library", browser.Driver.Url, StringComparison.Ordinal);
    }

    [Fact]
    public void One_page_that_the_server_fails_at_holds_up_no_other()
    {
        var browser = OpenPage(Group.Writer);
        faults.Answer = http => http.Request.Method == "POST" && http.Request.Path.Value!.Contains(Page.ToString()) ? 500 : null;
        browser.Wave(420, 300);
        browser.WaitForSync("cannot be sent");
        // The next page is written and saved all the same.
        browser.Driver.ExecuteScript("document.activeElement.blur()");
        browser.Type(Keys.PageDown);
        browser.Until(() => !browser.Driver.Url.Contains(Page.ToString(), StringComparison.Ordinal), "the next page");
        browser.WaitForStrokes(0);
        browser.Wave(420, 300);
        browser.WaitForStrokes(1);
        browser.Until(() => CountIn(browser, "outbox") == 1, "the other page's stroke to be sent");
        faults.Answer = null;
        browser.WaitForSync("All saved");
    }

    [Fact]
    public async Task What_the_server_refuses_is_taken_out_of_the_page_and_can_be_seen_and_put_back()
    {
        var (browser, network) = Open(Group.Writer);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.WaitForSync("All saved");
        network.Cut();
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        faults.Answer = http => http.Request.Method == "POST" && http.Request.Path.Value!.Contains(Page.ToString()) ? 403 : null;
        network.Mend();
        browser.Press("show-refused");
        Assert.Contains("1 stroke", browser.Find("refused-list").Text, StringComparison.Ordinal);
        browser.WaitForStrokes(1);
        browser.Press("refused-copy");
        browser.Until(() => browser.Text("refused-said").Contains("laid down", StringComparison.Ordinal), "the copy");
        faults.Answer = null;
        browser.Press("refused-again");
        browser.Until(() => browser.Count("[data-testid=refused-list]") == 0, "nothing refused any more");
        browser.WaitForStrokes(2);
        browser.WaitForSync("All saved");
        Assert.Equal(2, await StrokesOnServer());
    }

    [Fact]
    public async Task A_stroke_in_the_hand_outlives_pages_that_a_colleague_adds_and_a_window_that_changes_its_size()
    {
        var browser = OpenPage(Group.Writer);
        browser.Pen(420, 300, [.. Enumerable.Range(0, 12).Select(i => (6, i % 3))], lift: false);
        using var caller = await Host.SignIn(Group.Owner);
        var device = new Replica(77, Group.Owner.Id);
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        var added = Guid.NewGuid();
        await caller.Send(
            Group.Space,
            DocumentKind.Notebook,
            Notebook,
            device.Make(new Change.PageAdded(added, OrderKey.Between(null, "V", 1), "a4-ruled-710"), now),
            device.Make(new Change.PropertySet(Page, Property.Paper, "a4-grid-500"), now)
        );
        browser.Until(() => browser.Text("page-number").Contains("2", StringComparison.Ordinal), "the page before it");
        browser.Driver.Manage().Window.Size = new System.Drawing.Size(1_000, 800);
        browser.Until(() => (long)browser.Script("return innerWidth")! < 1_100, "the other size");
        browser.Driver.ResetInputState();
        browser.WaitForStrokes(2);
        browser.WaitForSync("All saved");
        Assert.Equal(2, await StrokesOnServer());
    }

    [Fact]
    public async Task Who_signs_out_without_a_network_is_asked_and_leaves_nothing_but_what_was_not_sent()
    {
        var (browser, network) = Open(Group.Writer);
        WaitUntilKept(browser);
        network.Cut();
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        browser.WaitForSync("waiting for a connection");
        browser.ByRail("[data-testid=account-link]");
        browser.Press("sign-out");
        Assert.Contains("1 change", browser.Find("unsent-words").Text, StringComparison.Ordinal);
        browser.Press("leave-keeping");
        browser.Until(() => browser.Driver.Url.EndsWith("/sign-in", StringComparison.Ordinal), "the way to the door");
        network.Mend();
        // The server is told as soon as there is a connection.
        browser.Driver.Navigate().Refresh();
        browser.Find("sign-in-form");
        Assert.Equal("outbox", (string)browser.AsyncScript(WhatIsKept)!);
        Assert.Contains("One change", browser.Find("left-behind").Text, StringComparison.Ordinal);

        // Somebody else sees nothing of it, and sends nothing of it.
        browser.SignIn(Group.Owner.Email, QuillHost.Password);
        browser.WaitForSync("All saved");
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        Assert.Equal(1, await StrokesOnServer());
        browser.ByRail("[data-testid=account-link]");
        browser.Press("sign-out");
        browser.Find("sign-in-form");

        // It is sent when its writer comes back.
        browser.SignIn(Group.Writer.Email, QuillHost.Password);
        browser.WaitForSync("All saved");
        browser.Go(PagePath);
        browser.WaitForStrokes(2);
        Assert.Equal(2, await StrokesOnServer());
    }

    [Fact]
    public void Somebody_who_signs_in_in_another_tab_gets_nothing_of_the_first_and_the_first_tab_shows_nothing_more()
    {
        var browser = OpenPage(Group.Writer);
        browser.WaitForSync("All saved");
        var first = browser.Driver.CurrentWindowHandle;
        browser.Driver.SwitchTo().NewWindow(WindowType.Tab);
        browser.SignIn(Group.Owner.Email, QuillHost.Password);
        browser.Driver.SwitchTo().Window(first);
        browser.Until(
            () =>
            {
                if (browser.Count("[data-testid=rail-over]") == 0)
                    browser.Press("open-rail");
                return browser.Count("[data-testid=rail-over] [aria-label='Account of Owner Person']") == 1;
            },
            "the first tab to be the other's"
        );
        var stores = (string)
            browser.AsyncScript(
                "const done = arguments[arguments.length - 1]; indexedDB.databases().then((all) => done(all.map((one) => one.name).join(' ')))"
            )!;
        Assert.DoesNotContain(Group.Writer.Id.ToString(), stores, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public async Task A_store_of_an_earlier_version_is_taken_over_with_what_waits_in_it(int version)
    {
        var stroke = new Replica(0xABCDEF, Group.Writer.Id).Make(
            new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(30)),
            DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()
        );
        var (browser, _) = AtDesk(Group.Writer);
        browser.WaitForSync("All saved");
        // A page without the application, on which a store can be made as an earlier version made it.
        browser.Go("/quill.svg");
        var made = (string)
            browser.AsyncScript(
                OldStore,
                Group.Writer.Id.ToString(),
                version,
                Group.Space.ToString(),
                Page.ToString(),
                Convert.ToBase64String(OperationCodec.Encode(stroke))
            )!;
        Assert.Equal("made", made);
        browser.Go(PagePath);
        browser.WaitForStrokes(2);
        browser.WaitForSync("All saved");
        Assert.Equal(2, await StrokesOnServer());
        Assert.Equal(
            4L,
            browser.AsyncScript(
                "const done = arguments[arguments.length - 1]; indexedDB.databases().then((all) => done(all.find((one) => one.name.startsWith('calm-quill')).version))"
            )
        );
    }

    [Fact]
    public void A_device_that_has_not_met_the_server_for_longer_than_chosen_asks_for_the_password()
    {
        var (browser, network) = Open(Group.Writer);
        WaitUntilKept(browser);
        browser.ByRail("[data-testid=account-link]");
        browser.Press("lock-day");
        browser.Fill("[data-testid=offline-lock] input[name=password]", "not the password");
        browser.Press("lock-confirm");
        browser.Until(
            () => browser.Css("[data-testid=offline-lock] [role=alert]").Text.Contains("not right", StringComparison.Ordinal),
            "the refusal of a wrong password"
        );
        browser.Fill("[data-testid=offline-lock] input[name=password]", QuillHost.Password);
        browser.Press("lock-confirm");
        browser.Until(() => browser.Count("[data-testid=lock-confirm]") == 0, "the choice to be kept");
        network.Cut();
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        // Two days later.
        browser.Script("localStorage.setItem('quill.met', String(Date.now() - 2 * 86400000))");
        browser.Driver.Navigate().Refresh();
        browser.Find("locked-device");
        Assert.Equal(0, browser.Count("[data-testid=sheet]"));
        browser.Fill("input[name=password]", "not the password");
        browser.Press("sign-in");
        browser.Until(() => browser.Text("sign-in-problem").Contains("not the password", StringComparison.Ordinal), "the refusal");
        browser.Until(() => browser.Css("[data-testid=sign-in]").Enabled, "another try");
        browser.Fill("input[name=password]", QuillHost.Password);
        browser.Press("sign-in");
        browser.WaitForStrokes(1);
    }

    [Fact]
    public void Room_is_made_without_touching_what_was_not_sent_which_can_be_saved_as_a_file_and_put_back()
    {
        var (browser, network) = Open(Group.Writer);
        WaitUntilKept(browser);
        network.Cut();
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        browser.WaitForSync("waiting for a connection");
        browser.ByRail("[data-testid=account-link]");
        browser.Press("free-up");
        browser.Until(() => browser.Text("device-said").Contains("Room was made", StringComparison.Ordinal), "the room");
        Assert.Equal(1, CountIn(browser, "outbox"));
        browser.Go(PagePath);
        // The page's own outbox and what is beside it are here still.
        browser.WaitForStrokes(2);
        network.Mend();
        browser.WaitForSync("All saved");
    }

    /// <summary>What a person's store still holds, by the names of its stores.</summary>
    private const string WhatIsKept = """
        const done = arguments[arguments.length - 1];
        (async () => {
          const names = [];
          for (const { name } of await indexedDB.databases()) {
            if (!name.startsWith('calm-quill')) continue;
            const database = await new Promise((resolve) => { indexedDB.open(name).onsuccess = (event) => resolve(event.target.result); });
            for (const store of database.objectStoreNames) {
              const count = await new Promise((resolve) => { database.transaction(store).objectStore(store).count().onsuccess = (event) => resolve(event.target.result); });
              if (count > 0) names.push(store);
            }
            database.close();
          }
          if (await caches.has('thumbnails')) names.push('pictures');
          done(names.join(' '));
        })();
        """;

    /// <summary>Makes a store as version 1, 2 or 3 of the application made it, with one operation that waits.</summary>
    private const string OldStore = """
        const [person, version, space, page, batch, done] = arguments;
        (async () => {
          const name = 'calm-quill-' + person;
          await new Promise((resolve, reject) => { const gone = indexedDB.deleteDatabase(name); gone.onsuccess = resolve; gone.onerror = reject; });
          const opening = indexedDB.open(name, version);
          opening.onupgradeneeded = () => {
            const database = opening.result;
            database.createObjectStore('documents', { keyPath: 'id' });
            database.createObjectStore('operations', { keyPath: ['document', 'sequence'] });
            database.createObjectStore('outbox', { keyPath: 'n', autoIncrement: true }).createIndex('document', 'document');
            database.createObjectStore('refused', { keyPath: 'n' });
            database.createObjectStore('answers');
            if (version > 1) database.createObjectStore('outlines', { keyPath: 'id' });
          };
          const database = await new Promise((resolve) => { opening.onsuccess = () => resolve(opening.result); });
          const transaction = database.transaction(['documents', 'outbox'], 'readwrite');
          const document = version === 1 ? page : `${space}/page/${page}`;
          // It believes to be complete further than it is.
          if (version < 3) transaction.objectStore('documents').put({ id: document, sequence: 1 });
          transaction.objectStore('outbox').add({ space, kind: 'page', document, bytes: Uint8Array.from(atob(batch), (c) => c.charCodeAt(0)) });
          await new Promise((resolve) => { transaction.oncomplete = resolve; });
          database.close();
          done('made');
        })().catch((problem) => done(String(problem)));
        """;

    private async Task<int> StrokesOnServer()
    {
        using var caller = await Host.SignIn(Group.Owner);
        return (await caller.After(Group.Space, DocumentKind.Page, Page)).Count(operation => operation.Change is Change.StrokeAdded);
    }
}
