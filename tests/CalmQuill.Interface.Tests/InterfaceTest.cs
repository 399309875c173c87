using System.Net.Http.Json;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Testing;

namespace CalmQuill.Interface.Tests;

/// <summary>A server with a group whose library holds one notebook of two pages, and browsers to open it.</summary>
public abstract class InterfaceTest : IAsyncLifetime
{
    private readonly List<IDisposable> opened = [];

    protected Guid Notebook { get; } = Guid.NewGuid();

    protected Guid Page { get; } = Guid.NewGuid();

    /// <summary>The page behind that one, on which nothing is.</summary>
    protected Guid OtherPage { get; } = Guid.NewGuid();

    protected QuillHost Host { get; private set; } = null!;

    protected QuillHost.Group Group { get; private set; } = null!;

    /// <summary>How much a document may hold; the usual unless a test needs less.</summary>
    protected virtual CalmQuill.Store.Documents.DocumentLimits? Limits => null;

    /// <summary>What the server is told beyond the usual.</summary>
    protected virtual CalmQuill.Server.Settings With(CalmQuill.Server.Settings settings) => settings;

    /// <summary>Puts other services in place of the usual ones.</summary>
    protected virtual void Services(Microsoft.Extensions.DependencyInjection.IServiceCollection services) { }

    /// <summary>The folder of the front end.</summary>
    protected virtual string FrontEnd => Repository.FrontEnd;

    protected const string Passphrase = "lantern oil";

    /// <summary>The group's owner locks a notebook.</summary>
    protected async Task Lock(Guid notebook)
    {
        using var owner = await Host.SignIn(Group.Owner);
        using var answer = await owner.Http.PutAsJsonAsync(
            $"/api/spaces/{Group.Space}/locks/{notebook}",
            new { passphrase = Passphrase, minutes = 5 }
        );
        answer.EnsureSuccessStatusCode();
    }

    /// <summary>Every view, by its address, and what stands in it once it is there. On the page the contents lie open.</summary>
    protected (string Path, string Ready)[] MainViews =>
        [
            ("/desk", "[data-testid=left-off]"),
            ("/library", "[data-testid=notebook-row]"),
            ("/library/list/tags", "[data-testid=library-heading]"),
            ("/library/list/recent", "[data-testid=page-row]"),
            (PagePath, "[data-testid=margin-contents]"),
            ("/account", "[data-testid=name-form]"),
            ($"/group/{Group.Space}", "[data-testid=member]"),
            ($"/group/{Group.Space}?invite", "[data-testid=invite-uses]"),
            ("/library/list/given", "h1"),
            ("/open#0", "[data-testid=open-nothing]"),
            ("/room", "[data-testid=room-form]"),
            ("/join#share=0", "[data-testid=join-form]"),
            ("/library/list/bin", "[data-testid=library-heading]"),
            (PagePath + $"?beside={Group.Space}/{Notebook}/{Page}", "[data-testid=close-beside]"),
            ("/sign-in", "[data-testid=sign-in-form]"),
            ("/welcome#invitation=0", "[data-testid=welcome-form]"),
            ("/join#group=0", "[data-testid=join-form]"),
            ("/new-password#letter=0", "[data-testid=new-password-form]"),
            ($"/pages/{Group.Space}/{Notebook}", "[data-testid=overview-page]"),
            ($"/pages/{Group.Space}/{Notebook}?past=1", "[data-testid=history-bar]"),
            ($"/library/{Group.Space}?past=1", "[data-testid=history-bar]"),
            ($"/web/{Group.Space}/{Notebook}", "[data-testid=web]"),
            ("/follow-ups", "[data-testid=follow-ups]"),
            ($"/planner/{Group.Space}", "[data-testid=planner-count]"),
            ($"/papers/{Group.Space}", "[data-testid=papers]"),
            ($"/bring/{Group.Space}", "[data-testid=choose-files]"),
        ];

    protected string PagePath => $"/page/{Group.Space}/{Notebook}/{Page}";

    public async Task InitializeAsync()
    {
        Host = await QuillHost.Start(FrontEnd, With, Limits, Services);
        Group = await Host.MakeGroup();
        using var caller = await Host.SignIn(Group.Owner);
        var device = new Replica(1, Group.Owner.Id);
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds() - 10_000;
        await caller.Send(
            Group.Space,
            DocumentKind.Library,
            Group.Space,
            device.Make(new Change.PropertySet(Notebook, Property.Name, "Escapements"), now),
            device.Make(new Change.NodePlaced(Notebook, NodeKind.Notebook, Guid.Empty, "V"), now)
        );
        await caller.Send(
            Group.Space,
            DocumentKind.Notebook,
            Notebook,
            device.Make(new Change.PageAdded(Page, "V", "a4-ruled-710"), now),
            device.Make(new Change.PageAdded(OtherPage, "W", "a4-ruled-710"), now)
        );
        await caller.Send(
            Group.Space,
            DocumentKind.Page,
            Page,
            device.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), now, Generate.Wave(200)), now)
        );
    }

    public async Task DisposeAsync()
    {
        foreach (var one in opened.AsEnumerable().Reverse())
            one.Dispose();
        await Host.DisposeAsync();
    }

    /// <summary>A browser in which the person is signed in, behind a network of its own, and nothing is opened yet.</summary>
    protected (Browser Browser, CuttableProxy Network) Open(CalmQuill.Store.People.Person person)
    {
        var network = new CuttableProxy(Host.Address);
        opened.Add(network);
        var browser = new Browser(network.Address);
        opened.Add(browser);
        using var caller = Host.SignIn(person).GetAwaiter().GetResult();
        browser.SignInAs(caller);
        return (browser, network);
    }

    /// <summary>The same, with the person's Desk before them.</summary>
    protected (Browser Browser, CuttableProxy Network) AtDesk(CalmQuill.Store.People.Person person)
    {
        var (browser, network) = Open(person);
        browser.Go("/desk");
        browser.Find("desk-heading");
        return (browser, network);
    }

    /// <summary>Somebody without an account makes one where an invitation or a share leads.</summary>
    protected static void MakeAccount(Browser browser, string name, string email)
    {
        browser.Fill("[name=name]", name);
        browser.Fill("[name=email]", email);
        browser.Fill("[name=password]", "clockwork-9");
        browser.Press("sign-in");
    }

    /// <summary>A browser in which nobody is signed in.</summary>
    protected Browser Visitor()
    {
        var browser = new Browser(Host.Address);
        opened.Add(browser);
        return browser;
    }

    /// <summary>Opens the page, and waits until it and the application are on the device and open without a connection.</summary>
    protected void WaitUntilKept(Browser browser)
    {
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.WaitForSync("All saved");
        WaitUntilKeptItself(browser);
    }

    /// <summary>Waits until the application opens without a connection.</summary>
    protected static void WaitUntilKeptItself(Browser browser) =>
        browser.Until(
            () => (bool)browser.Script("return navigator.serviceWorker.controller !== null")!,
            "the application to be kept on the device"
        );

    protected Browser OpenPage(CalmQuill.Store.People.Person person, int strokes = 1)
    {
        var browser = Open(person).Browser;
        browser.Go(PagePath);
        browser.WaitForStrokes(strokes);
        return browser;
    }

    /// <summary>How many rows one of the stores of the person's device holds.</summary>
    protected static long CountIn(Browser browser, string store) =>
        (long)
            browser.AsyncScript(
                """
                const [store, done] = arguments;
                indexedDB.databases().then((all) => {
                  indexedDB.open(all.find((one) => one.name.startsWith('calm-quill')).name).onsuccess = ({ target }) => {
                    target.result.transaction(store).objectStore(store).count().onsuccess = (event) => { target.result.close(); done(event.target.result); };
                  };
                });
                """,
                store
            )!;

    /// <summary>How much the device holds of the group's documents.</summary>
    protected string HeldOf(Browser browser, CalmQuill.Store.People.Person person) =>
        (string)
            browser.AsyncScript(
                """
                const [person, space, done] = arguments;
                indexedDB.open('calm-quill-' + person).onsuccess = async ({ target: { result: database } }) => {
                  const held = [];
                  for (const name of ['outlines', 'documents', 'operations']) {
                    const rows = await new Promise((resolve) => { database.transaction(name).objectStore(name).getAll().onsuccess = (event) => resolve(event.target.result); });
                    // That something of a document was taken back is noted, and says nothing of what it held.
                    const full = rows.filter((row) => (row.document ?? row.id).startsWith(space) && (name !== 'documents' || row.snapshot || row.sequence > 0));
                    held.push(`${name} ${full.length}`);
                  }
                  database.close();
                  done(held.join(', '));
                };
                """,
                person.Id.ToString(),
                Group.Space.ToString()
            )!;

    /// <summary>How many packets the device keeps to paint the page from for the writer.</summary>
    protected long KeptPackets(Browser browser) =>
        (long)
            browser.AsyncScript(
                """
                const [person, page, done] = arguments;
                indexedDB.open('calm-quill-' + person).onsuccess = ({ target: { result: database } }) => {
                  database.transaction('outlines').objectStore('outlines').get(page).onsuccess = (event) => { database.close(); done(event.target.result?.packets.length ?? 0); };
                };
                """,
                Group.Writer.Id.ToString(),
                $"{Group.Space}/page/{Page}"
            )!;

    /// <summary>The encoded state of the page from the operations that a browser's own store holds, worked out by its WebAssembly.</summary>
    protected byte[] StateOn(Browser browser, CalmQuill.Store.People.Person person) => FromStore(browser, person, "EncodeState");

    /// <summary>The page as the device has it; the writer's where nobody else is named.</summary>
    protected PageDocument PageOf(Browser browser, CalmQuill.Store.People.Person? person = null)
    {
        var page = new PageDocument();
        foreach (var operation in OperationsOn(browser, person ?? Group.Writer))
            page.Apply(operation);
        return page;
    }

    /// <summary>The operations of the page that a browser's own store holds.</summary>
    protected List<Operation> OperationsOn(Browser browser, CalmQuill.Store.People.Person person) =>
        OperationCodec.Decode(FromStore(browser, person, "Snapshot"));

    private byte[] FromStore(Browser browser, CalmQuill.Store.People.Person person, string what) =>
        Convert.FromBase64String(
            (string)
                browser.AsyncScript(
                    """
                    const [person, page, what, done] = arguments;
                    (async () => {
                      const database = await new Promise((resolve) => { indexedDB.open('calm-quill-' + person).onsuccess = (event) => resolve(event.target.result); });
                      // All of it at one moment: what is sent meanwhile goes from one store into another.
                      const moment = database.transaction(['documents', 'operations', 'outbox']);
                      const all = (store) => new Promise((resolve) => { moment.objectStore(store).getAll().onsuccess = (event) => resolve(event.target.result); });
                      const [documents, operations, outbox] = await Promise.all(['documents', 'operations', 'outbox'].map(all));
                      const { DocumentBridge } = (await globalThis.getDotnetRuntime(0).getAssemblyExports('CalmQuill.Core.Browser.dll')).CalmQuill.Core.Browser;
                      const handle = DocumentBridge.Open(3);
                      for (const row of documents) if (row.id.endsWith(page) && row.snapshot) DocumentBridge.Apply(handle, row.snapshot);
                      for (const row of [...operations, ...outbox]) if (row.document.endsWith(page)) DocumentBridge.Apply(handle, row.bytes);
                      const state = DocumentBridge[what](handle);
                      DocumentBridge.Close(handle);
                      database.close();
                      done(btoa(Array.from(state, (byte) => String.fromCharCode(byte)).join('')));
                    })().catch((problem) => done(String(problem)));
                    """,
                    person.Id.ToString(),
                    Page.ToString(),
                    what
                )!
        );

    /// <summary>The same from what the server holds, worked out by .NET.</summary>
    protected async Task<byte[]> StateOnServer()
    {
        using var caller = await Host.SignIn(Group.Owner);
        var page = new PageDocument();
        foreach (var operation in await caller.After(Group.Space, DocumentKind.Page, Page))
            page.Apply(operation);
        return page.EncodeState();
    }
}
