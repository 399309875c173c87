using CalmQuill.Core.History;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Documents;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>A notebook and a folder as they were, as somebody looks for what the group took away weeks ago.</summary>
public sealed class PlacesPastTests : InterfaceTest
{
    private const long Minute = 60_000,
        Day = 24 * 60 * Minute;

    private readonly Guid folder = Guid.NewGuid(),
        pendulums = Guid.NewGuid(),
        section = Guid.NewGuid(),
        pallets = Guid.NewGuid(),
        sketches = Guid.NewGuid(),
        fresh = Guid.NewGuid();

    /// <summary>The beginning of a quarter of an hour, about a month ago.</summary>
    private readonly long began = (DateTimeOffset.UtcNow.ToUnixTimeMilliseconds() / Chronicle.Quarter - 3_000) * Chronicle.Quarter;

    private DocumentStore Documents => Host.Services.GetRequiredService<DocumentStore>();

    /// <summary>The writer wrote on two pages of a notebook in a folder; two days later the owner took much of it away, and wrote something else.</summary>
    private async Task HavePast()
    {
        using var owner = await Host.SignIn(Group.Owner);
        using var writer = await Host.SignIn(Group.Writer);
        var (owners, writers) = (new Replica(501, Group.Owner.Id), new Replica(502, Group.Writer.Id));
        async Task Send(Caller caller, Replica replica, DocumentKind kind, Guid document, long at, params Change[] changes)
        {
            using var sent = await caller.Send(Group.Space, kind, document, [.. changes.Select(change => replica.Make(change, at))]);
            sent.EnsureSuccessStatusCode();
        }

        await Send(
            owner,
            owners,
            DocumentKind.Library,
            Group.Space,
            began,
            new Change.NodePlaced(folder, NodeKind.Folder, Guid.Empty, "W"),
            new Change.PropertySet(folder, Property.Name, "Workshop"),
            new Change.NodePlaced(pendulums, NodeKind.Notebook, folder, "V"),
            new Change.PropertySet(pendulums, Property.Name, "Pendulums")
        );
        await Send(
            owner,
            owners,
            DocumentKind.Notebook,
            pendulums,
            began,
            new Change.NodePlaced(section, NodeKind.Section, Guid.Empty, "V"),
            new Change.PropertySet(section, Property.Name, "Beats"),
            new Change.NodePlaced(pallets, NodeKind.Page, section, "V"),
            new Change.PropertySet(pallets, Property.Name, "The pallets"),
            new Change.NodePlaced(sketches, NodeKind.Page, section, "W"),
            new Change.PropertySet(sketches, Property.Name, "Sketches")
        );
        Change Stroke(int y) => new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0x1F3D3AFF), began, Generate.Wave(60, 2000, y));
        var strokes = new[] { writers.Make(Stroke(4000), began + 20 * Minute), writers.Make(Stroke(6000), began + 25 * Minute) };
        using (var sent = await writer.Send(Group.Space, DocumentKind.Page, pallets, strokes))
            sent.EnsureSuccessStatusCode();
        await Send(writer, writers, DocumentKind.Page, sketches, began + 26 * Minute, Stroke(5000));
        var later = began + 2 * Day;
        await Send(
            owner,
            owners,
            DocumentKind.Notebook,
            pendulums,
            later,
            new Change.PropertySet(pallets, Property.Name, "Renamed"),
            new Change.PropertySet(sketches, Property.Binned, "1"),
            new Change.NodePlaced(fresh, NodeKind.Page, section, "X"),
            new Change.PropertySet(fresh, Property.Name, "Fresh")
        );
        await Send(
            owner,
            owners,
            DocumentKind.Page,
            pallets,
            later,
            new Change.ItemsRemoved([.. strokes.Select(stroke => stroke.Id)]),
            Stroke(9000)
        );
        await Send(
            owner,
            owners,
            DocumentKind.Library,
            Group.Space,
            later,
            new Change.PropertySet(pendulums, Property.Name, "Swinging"),
            new Change.PropertySet(folder, Property.Binned, "1")
        );
    }

    [Fact]
    public async Task What_was_taken_out_of_a_notebook_is_seen_compared_and_had_back_and_what_others_did_since_stays()
    {
        await HavePast();
        var writer = AtDesk(Group.Writer).Browser;
        InThePast(writer);
        Assert.Equal("As it is now", writer.Text("history-moment"));
        Assert.Equal(["Renamed", "Fresh"], Pages(writer));
        Assert.False(writer.Find("have-back").Enabled);
        OnBar(writer, Keys.PageDown);
        writer.Until(() => Pages(writer).SequenceEqual(["The pallets", "Sketches"]), "the pages of then");
        Assert.StartsWith("As it was on", writer.Text("history-moment"), StringComparison.Ordinal);
        Assert.Contains("was writing", writer.Text("history-last"), StringComparison.Ordinal);
        writer.Until(() => writer.Count("[data-testid=past-page] img") == 2, "the pictures of then");
        OnBar(writer, Keys.Home);
        writer.Until(() => Pages(writer).Count == 0, "the notebook before all");
        Assert.Equal("Before anything was written", writer.Text("history-moment"));
        OnBar(writer, Keys.PageUp);
        writer.Until(() => Pages(writer).Count == 2, "the pages of then");

        writer.Press("history-compare");
        writer.Until(() => Pages(writer).Count == 3, "what is and what was");
        writer.Until(() => Signs(writer).SequenceEqual(["written", "binned", "came"]), "what became of each");
        Assert.Equal(["Came since: 1", "Gone since: 1", "Otherwise since: 1"], writer.Text("past-sums").Split('\n'));
        Assert.Empty(writer.SeriousFindings());

        writer.Press("have-back");
        writer.Until(() => writer.Count("[data-testid=overview-page]") == 3, "the notebook with what came back");
        var said = writer.Text("said");
        Assert.Contains("3 things are back. It was written on one page.", said, StringComparison.Ordinal);
        // The title that the owner gave it since.
        Assert.Contains("One thing that others changed since was left as it is.", said, StringComparison.Ordinal);
        writer.WaitForSync("All saved");
        Assert.Equal(["Renamed", "Sketches", "Fresh"], await Titles(pendulums));
        Assert.Equal(3, await Standing(pallets));

        writer.Press("take-back");
        writer.Until(() => writer.Count("[data-testid=overview-page]") == 2, "the notebook as before");
        writer.WaitForSync("All saved");
        Assert.Equal(1, await Standing(pallets));
        Assert.Empty(writer.Errors());
    }

    [Fact]
    public async Task One_page_that_is_chosen_comes_back_alone_and_a_press_on_another_opens_it_as_it_was()
    {
        await HavePast();
        var writer = AtDesk(Group.Writer).Browser;
        ToThen(writer);
        writer.Press("history-part-on");
        Assert.False(writer.Find("have-back").Enabled);
        writer.Press("history-part-on");
        // It cannot be opened, so a press on it chooses it.
        writer.PressCss("[data-testid=past-page][data-name=Sketches]");
        Assert.StartsWith("It is in the bin now", writer.Text("said"), StringComparison.Ordinal);
        writer.Until(() => writer.Text("have-back") == "Have 1 back", "one chosen");
        writer.Press("have-back");
        writer.Until(() => writer.Count("[data-testid=overview-page]") == 3, "the page that is back");
        writer.WaitForSync("All saved");
        Assert.Equal(1, await Standing(pallets));

        InThePast(writer);
        OnBar(writer, Keys.PageDown + Keys.PageDown);
        writer.Until(() => Pages(writer).Count == 2 && Pages(writer)[0] == "The pallets", "the pages of then");
        writer.PressCss("[data-testid=past-page][data-name='The pallets']");
        writer.WaitForStrokes(2);
        Assert.StartsWith("As it was on", writer.Text("history-moment"), StringComparison.Ordinal);
        Assert.Empty(writer.Errors());
    }

    [Fact]
    public async Task A_notebook_of_its_own_is_made_as_it_was_and_a_moment_gets_a_name()
    {
        await HavePast();
        var writer = AtDesk(Group.Writer).Browser;
        ToThen(writer);
        writer.Press("history-more");
        writer.Press("history-name");
        writer.Fill("[role=dialog] input", "before the owner tidied");
        writer.Type(Keys.Enter);
        writer.Until(
            () => writer.Text("history-last").StartsWith("“before the owner tidied”", StringComparison.Ordinal),
            "the moment's name"
        );
        OnBar(writer, Keys.End);
        writer.Until(() => Pages(writer).Contains("Fresh"), "the notebook as it is");
        writer.Press("history-more");
        writer.Press("history-go-moment");
        writer.Until(() => Pages(writer).Contains("Sketches"), "the named moment");
        writer.Press("history-more");
        writer.Press("history-copy");
        writer.Until(() => writer.Text("said").Contains("is there", StringComparison.Ordinal), "the copy");
        Assert.StartsWith("“Swinging, as on ", writer.Text("said"), StringComparison.Ordinal);
        writer.Press("take-back");
        writer.Until(
            () => writer.Count("[data-testid=overview-page]") == 2 && writer.Count("[data-testid=overview-page][data-name=Sketches]") == 1,
            "the copy's pages"
        );
        Assert.Empty(writer.Errors());
    }

    [Fact]
    public async Task What_lay_in_a_library_comes_back_with_its_folders_notebooks_and_their_ink()
    {
        await HavePast();
        var writer = AtDesk(Group.Writer).Browser;
        writer.Go($"/library/{Group.Space}");
        writer.Press("folder-menu");
        writer.Press("folder-past");
        writer.Find("history-bar");
        Assert.Equal(["Escapements"], Pieces(writer));
        // Today the first notebook was made; before that is the evening on which the owner tidied, and before that the writing.
        OnBar(writer, Keys.PageDown + Keys.PageDown);
        writer.Until(() => Pieces(writer).SequenceEqual(["Workshop"]), "the folder of then");
        writer.Press("history-compare");
        writer.Until(() => Signs(writer).Order().SequenceEqual(["binned", "came"]), "what became of each");
        Assert.Empty(writer.SeriousFindings());
        writer.PressCss("[data-testid=past-piece][data-name=Workshop]");
        writer.Until(() => Pieces(writer).SequenceEqual(["Pendulums"]), "the notebook in it, as it was called");
        Assert.Equal("Workshop", writer.Text("past-name"));
        writer.Press("past-up");
        writer.Until(() => Pieces(writer).SequenceEqual(["Workshop"]), "the head of the library");
        writer.Press("have-back");
        writer.Until(() => writer.Count("[data-testid=folder-past]") == 0, "the library with what came back");
        writer.WaitForSync("All saved");
        var nodes = (await Documents.Library(Group.Space, default)).Nodes();
        Assert.False(nodes.Single(node => node.Id == pendulums).InBin);
        // The owner called it otherwise since.
        Assert.Equal("Swinging", nodes.Single(node => node.Id == pendulums).Name);
        Assert.Equal(["Renamed", "Sketches", "Fresh"], await Titles(pendulums));
        Assert.Equal(3, await Standing(pallets));
        Assert.Empty(writer.Errors());
    }

    [Fact]
    public async Task Without_a_connection_a_notebook_is_gone_back_in_by_what_was_done_to_it_and_had_back_from_what_is_here()
    {
        await HavePast();
        var (writer, network) = AtDesk(Group.Writer);
        writer.Go($"/page/{Group.Space}/{pendulums}/{pallets}");
        writer.WaitForStrokes(1);
        writer.WaitForSync("All saved");
        writer.Press("open-overview");
        writer.Until(() => writer.Count("[data-testid=overview-page]") == 2, "the pages");
        network.Cut();
        writer.Press("overview-past");
        writer.Find("history-bar");
        Assert.Contains("when there is a connection", writer.Text("history-last"), StringComparison.Ordinal);
        OnBar(writer, Keys.PageDown);
        writer.Until(() => Pages(writer).SequenceEqual(["The pallets", "Sketches"]), "the pages of then");
        // Half an hour later both had been written on; the bar without the server knows of the evening they were made.
        writer.Press("have-back");
        writer.Until(() => writer.Count("[data-testid=overview-page]") == 3, "what is back");
        Assert.Contains("One page or notebook is not on this device", writer.Text("said"), StringComparison.Ordinal);
        network.Mend();
        writer.WaitForSync("All saved");
        Assert.Equal(["Renamed", "Sketches", "Fresh"], await Titles(pendulums));
    }

    [Fact]
    public async Task Who_only_reads_looks_and_has_nothing_back_and_where_the_past_is_closed_does_not_look()
    {
        await HavePast();
        var reader = AtDesk(Group.Reader).Browser;
        ToThen(reader);
        Assert.Equal(0, reader.Count("[data-testid=have-back]"));
        Assert.Equal(0, reader.Count("[data-testid=history-part-on]"));
        // A library's menu has for them what is looked at, and nothing that is made.
        reader.Go($"/library/{Group.Space}");
        reader.Press("folder-menu");
        reader.Find("folder-web");
        Assert.Equal(0, reader.Count("[data-testid=new-planner], [data-testid=own-papers], [data-testid=menu-rename]"));
        reader.Press("folder-past");
        reader.Find("history-bar");
        Assert.Equal(0, reader.Count("[data-testid=have-back]"));
        using var owner = await Host.SignIn(Group.Owner);
        await owner.ClosePast(Group.Space);
        reader.Go($"/library/{Group.Space}");
        reader.Press("folder-menu");
        reader.Find("folder-web");
        Assert.Equal(0, reader.Count("[data-testid=folder-past]"));
        reader.Go($"/pages/{Group.Space}/{pendulums}?past=1");
        reader.Until(() => reader.Count("[data-testid=overview-page]") == 2, "the notebook as it is");
        Assert.Equal(0, reader.Count("[data-testid=overview-past]"));
        Assert.Empty(reader.Errors());
    }

    private void InThePast(Browser browser)
    {
        browser.Go($"/pages/{Group.Space}/{pendulums}");
        browser.Press("overview-past");
        browser.Find("history-bar");
    }

    /// <summary>To the end of the evening on which the writer wrote.</summary>
    private void ToThen(Browser browser)
    {
        InThePast(browser);
        OnBar(browser, Keys.PageDown);
        browser.Until(() => Pages(browser).SequenceEqual(["The pallets", "Sketches"]), "the pages of then");
    }

    private static void OnBar(Browser browser, string keys) => browser.SendKeys("[data-testid=history-bar]", keys);

    private static List<string> Pages(Browser browser) => Names(browser, "past-page");

    private static List<string> Pieces(Browser browser) => Names(browser, "past-piece");

    private static List<string> Names(Browser browser, string testId) => Read(browser, testId, "name");

    private static List<string> Signs(Browser browser) => Read(browser, "became", "became");

    private static List<string> Read(Browser browser, string testId, string what) =>
        [
            .. (
                (IEnumerable<object>)
                    browser.Script($"return [...document.querySelectorAll('[data-testid={testId}]')].map((one) => one.dataset.{what})")!
            ).Cast<string>(),
        ];

    private async Task<List<string>> Titles(Guid notebook) =>
        [.. (await Documents.Notebook(Group.Space, notebook, default)).Pages().Select(page => page.Title)];

    private async Task<int> Standing(Guid page) => (await Documents.Page(Group.Space, page, default)).Items.Count(item => item.Stands);
}
