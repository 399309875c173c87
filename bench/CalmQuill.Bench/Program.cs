using System.Runtime.InteropServices;
using CalmQuill.Bench;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Documents;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;

// --shapes alone draws rough shapes and writes how they are taken into docs/shapes.md.
if (args.Contains("--shapes"))
{
    await ShapesBench.Write(Path.Combine(Repository.Root, "docs/shapes.md"));
    return 0;
}

// --fuzz [MINUTES] alone asks everything with nasty values, ten minutes unless said otherwise, and writes what came of it into docs/reliability.md with --write.
if (args.Contains("--fuzz"))
{
    var minutes = args.SkipWhile(arg => arg != "--fuzz")
        .Skip(1)
        .Select(arg => double.TryParse(arg, System.Globalization.CultureInfo.InvariantCulture, out var given) ? given : 10)
        .FirstOrDefault(10);
    return await FuzzRun.Run(TimeSpan.FromMinutes(minutes), args.Contains("--write"));
}

// --torture [KILLS] alone tries to lose something, 200 kills unless said otherwise; --seed N replays a run; --write puts the figures into docs/reliability.md.
if (args.Contains("--torture"))
{
    int? After(string name) =>
        args.SkipWhile(arg => arg != name)
            .Skip(1)
            .Select(arg => int.TryParse(arg, System.Globalization.CultureInfo.InvariantCulture, out var given) ? given : (int?)null)
            .FirstOrDefault();
    return await TortureBench.Run(After("--torture") ?? 200, After("--seed"), args.Contains("--write"));
}

// --orders alone compares how long order keys become.
if (args.Contains("--orders"))
{
    Console.WriteLine(Row.Table(OrderBench.Run()));
    return 0;
}

// --typing alone types into a long text.
if (args.Contains("--typing"))
{
    Console.WriteLine(Row.Table(TypingBench.Run()));
    return 0;
}

// Measures ours and the references in one call on the same data, and prints one table; --write also puts it into docs/benchmarks.md.
await using var host = await QuillHost.Start(Repository.FrontEnd);
var group = await host.MakeGroup();
var strokes = Writing.Strokes(group.Owner.Id);
var (notebook, page, other) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
var documents = host.Services.GetRequiredService<DocumentStore>();
var device = new Replica(1, group.Owner.Id);
await documents.Append(
    new DocumentRef(group.Space, DocumentKind.Library, group.Space),
    [device.Make(new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V"), 1)],
    default
);
await documents.Append(
    new DocumentRef(group.Space, DocumentKind.Notebook, notebook),
    [device.Make(new Change.PageAdded(page, "V", "a4-ruled-710"), 1), device.Make(new Change.PageAdded(other, "W", "a4-ruled-710"), 1)],
    default
);
await documents.Append(new DocumentRef(group.Space, DocumentKind.Page, page), strokes, default);
await documents.SnapshotIfDue(DocumentRef.Page(group.Space, page), default);

var rows = new List<Row>();
var pages = new PagesBench(host, await host.MakeGroup());
if (args.Contains("--ink"))
{
    using var only = new Browser(host.Address);
    only.SignIn(group.Owner.Email, QuillHost.Password);
    rows.AddRange(InterfaceBench.Opening(only, $"/page/{group.Space}/{notebook}/{other}", $"/page/{group.Space}/{notebook}/{page}"));
    rows.AddRange(InterfaceBench.PenToInk(only));
    rows.AddRange(InterfaceBench.Tools(only));
    rows.AddRange(CoreBench.Run(strokes, only));
    Console.WriteLine(Row.Table(rows));
    return 0;
}

// --history alone goes back on the full page.
if (args.Contains("--history"))
{
    using var only = new Browser(host.Address);
    only.SignIn(group.Owner.Email, QuillHost.Password);
    Console.WriteLine(Row.Table(HistoryBench.Run(only, $"/page/{group.Space}/{notebook}/{page}", strokes)));
    return 0;
}

// --together alone has ten people write on one page, and a hundred follow a lesson.
async Task<List<Row>> Together()
{
    var (company, book, sheet) = await NewPage();
    var lesson = await NewPage();
    using var watching = new Browser(host.Address);
    watching.SignIn(company.Owner.Email, QuillHost.Password);
    watching.Go($"/page/{company.Space}/{book}/{sheet}");
    watching.WaitForStrokes(0);
    return
    [
        .. await new TogetherBench(host, company).Run(watching, sheet),
        .. await new LessonBench(host, lesson.Group).Run(lesson.Notebook, lesson.Page),
    ];
}

async Task<(QuillHost.Group Group, Guid Notebook, Guid Page)> NewPage()
{
    var company = await host.MakeGroup();
    var (book, sheet, own) = (Guid.NewGuid(), Guid.NewGuid(), new Replica(7, company.Owner.Id));
    await documents.Append(
        new DocumentRef(company.Space, DocumentKind.Library, company.Space),
        [own.Make(new Change.NodePlaced(book, NodeKind.Notebook, Guid.Empty, "V"), 1)],
        default
    );
    await documents.Append(
        new DocumentRef(company.Space, DocumentKind.Notebook, book),
        [own.Make(new Change.PageAdded(sheet, "V", "a4-ruled-710"), 1)],
        default
    );
    return (company, book, sheet);
}

if (args.Contains("--together"))
{
    Console.WriteLine(Row.Table(await Together()));
    return 0;
}

var full = new FullPageBench(host, await host.MakeGroup());
if (args.Contains("--full"))
{
    await full.Write();
    using var only = new Browser(host.Address);
    only.SignIn(full.Group.Owner.Email, QuillHost.Password);
    Console.WriteLine(Row.Table(full.Run(only)));
    return 0;
}

// --things alone types into a text and a table and moves a diagram.
var things = new ThingsBench(host, await host.MakeGroup());
async Task<List<Row>> Things()
{
    await things.Write();
    using var typist = new Browser(host.Address);
    typist.SignIn(things.Group.Owner.Email, QuillHost.Password);
    return [.. things.Run(typist)];
}

if (args.Contains("--things"))
{
    Console.WriteLine(Row.Table(await Things()));
    return 0;
}

// --bring alone brings a long PDF file in and takes it out.
async Task<List<Row>> Bring() => await new BringBench(host, await host.MakeGroup()).Run();

if (args.Contains("--bring"))
{
    Console.WriteLine(Row.Table(await Bring()));
    return 0;
}

if (args.Contains("--daily"))
{
    await pages.Write();
    using var daily = new Browser(host.Address);
    daily.SignIn(pages.Group.Owner.Email, QuillHost.Password);
    Console.WriteLine(Row.Table(pages.Daily(daily)));
    return 0;
}

if (!args.Contains("--library"))
{
    await pages.Write();
    using var reader = new Browser(host.Address);
    reader.SignIn(pages.Group.Owner.Email, QuillHost.Password);
    rows.AddRange(pages.Daily(reader));
    rows.AddRange(pages.Run(reader));
}

if (args.Contains("--pages"))
{
    Console.WriteLine(Row.Table(rows));
    return 0;
}

var big = await host.MakeGroup();
var library = new LibraryBench(host, big);
rows.AddRange(await library.Lists());
using (var reader = new Browser(host.Address))
{
    reader.SignIn(big.Owner.Email, QuillHost.Password);
    rows.AddRange(library.Interface(reader));
}

Console.WriteLine(Row.Table(rows));
if (args.Contains("--library"))
    return 0;
string AddressOf(Guid which) => $"/page/{group.Space}/{notebook}/{which}";
using var here = new Browser(host.Address);
here.SignIn(group.Owner.Email, QuillHost.Password);
rows.AddRange(InterfaceBench.Opening(here, AddressOf(other), AddressOf(page)));
rows.AddRange(InterfaceBench.PenToInk(here));
rows.AddRange(InterfaceBench.Tools(here));
rows.AddRange(HistoryBench.Run(here, AddressOf(page), strokes));
await full.Write();
using (var writer = new Browser(host.Address))
{
    writer.SignIn(full.Group.Owner.Email, QuillHost.Password);
    rows.AddRange(full.Run(writer));
}

using (var there = new Browser(host.Address))
{
    there.SignIn(group.Writer.Email, QuillHost.Password);
    foreach (var browser in new[] { here, there })
        browser.Go(AddressOf(other));
    foreach (var browser in new[] { here, there })
        browser.WaitForStrokes(0);
    here.Until(() => here.Count("[data-testid=present] [role=img]") == 2, "both to be here");
    rows.AddRange(InterfaceBench.PassingOn(here, there));
}

rows.AddRange(await Things());
rows.AddRange(await Bring());
rows.AddRange(await Together());

Console.WriteLine(Row.Table(rows));
rows.AddRange(CoreBench.Run(strokes, here));
rows.AddRange(TypingBench.Run());
rows.AddRange(OrderBench.Run());
var table = Row.Table(rows);
Console.WriteLine(table);
if (args.Contains("--write"))
{
    await File.WriteAllTextAsync(
        Path.Combine(Repository.Root, "docs/benchmarks.md"),
        $"""
        # Benchmarks

        Printed by `./quill bench --write`: ours and the references in one run on the same data, {RuntimeInformation.ProcessArchitecture}, {Environment.ProcessorCount} cores, .NET {Environment.Version}, headless Chromium without a graphics processor.
        Times of one run on a shared machine say little by themselves; the ratios say more.

        {table}
        """
    );
}

return 0;
