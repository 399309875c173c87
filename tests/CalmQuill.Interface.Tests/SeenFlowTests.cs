using CalmQuill.Core.Items;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Spots;
using CalmQuill.Core.Writing;
using CalmQuill.Server;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>What is seen in typed words, and what is done with it; boxes to be ticked among the follow-ups.</summary>
public sealed class SeenFlowTests : InterfaceTest
{
    private static readonly byte[] Dot = Convert.FromBase64String(
        "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="
    );

    private readonly WebStand web = new();

    protected override Settings With(Settings settings) => settings with { CalendarHosts = web.Host };

    [Fact]
    public void A_sum_is_worked_out_a_day_is_followed_up_and_all_is_quiet_when_that_is_wanted()
    {
        var browser = OpenPage(Group.Writer);
        Begin(browser, 4_000, 9_300);
        Assert.Equal(0, browser.Count("[data-testid=typing-seen]"));
        browser.Type("12 + 30 =");
        browser.Press("typing-seen");
        Assert.Equal("12 + 30 = 42", browser.Text("seen-said"));
        Assert.Empty(browser.SeriousFindings());
        browser.Press("seen-work-out");
        browser.Until(() => TextOn(browser) == "12 + 30 = 42", "the result behind it");
        // What is worked out asks for nothing more, and goes on being typed in.
        browser.Until(() => browser.Count("[data-testid=typing-seen]") == 0, "nothing to be done");
        browser.Type(Keys.Enter + "set the beat by 4.12.2026");
        browser.Until(() => browser.Count("[data-testid=seen-lines] [data-kind=day]") == 1, "a line under the day");
        browser.Press("typing-seen");
        browser.Press("seen-follow-up");
        var mark = browser.Until(() => PageOf(browser).Spots().Find(spot => spot.Kind == SpotKind.Mark), "a mark")!;
        Assert.Equal(
            (MarkKinds.ToDo, "2026-12-04", "set the beat by 4.12.2026"),
            (mark[SpotField.Mark], mark[SpotField.Due], mark[SpotField.Note])
        );
        browser.Press("typing-done");
        browser.Press("tool-text");
        browser.Press("text-sees-words");
        browser.Until(() => browser.Count("[data-testid=seen-lines] line") == 0, "no lines");
        browser.Press("text-sees-words");
        browser.Until(() => browser.Count("[data-testid=seen-lines] line") == 1, "a line again");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void While_reading_a_press_on_words_unfolds_what_can_be_done_with_them()
    {
        var browser = OpenPage(Group.Writer);
        Begin(browser, 4_000, 9_300);
        browser.Type($"ines@example.org{Keys.Enter}+49 30 1234567{Keys.Enter}www.example.org");
        browser.Press("typing-done");
        browser.Until(() => browser.Count("[data-testid=seen-lines] line") == 3, "three lines");
        browser.TypeWith(Keys.Null, "r");
        browser.Until(() => browser.Attribute("sheet", "data-reading") == "1", "read mode");
        Assert.Empty(browser.SeriousFindings());
        PageHands.Press(browser, 4_600, 9_400);
        Assert.Equal("mailto:ines@example.org", browser.Attribute("seen-mail", "href"));
        Assert.Empty(browser.SeriousFindings());
        browser.Type(Keys.Escape);
        browser.Until(() => browser.Count("[data-testid=seen-card]") == 0, "no card");
        PageHands.Press(browser, 4_600, 9_400 + 710);
        Assert.Equal("tel:+49301234567", browser.Attribute("seen-call", "href"));
        browser.Type(Keys.Escape);
        browser.Until(() => browser.Count("[data-testid=seen-card]") == 0, "no card");
        // An address leads on, once one has seen where to.
        PageHands.Press(browser, 4_600, 9_400 + 1_420);
        browser.Until(() => browser.Count("a[href='https://www.example.org']") == 1, "the way there");
        browser.Type(Keys.Escape);
        // With keys alone as well.
        browser.Script("document.querySelector('[data-testid=seen][data-kind=mail]').focus()");
        browser.Type(Keys.Enter);
        browser.Find("seen-mail");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void A_day_and_its_time_become_an_entry_of_a_planner()
    {
        var browser = OpenPage(Group.Writer);
        Begin(browser, 4_000, 9_300);
        browser.Type("Clock fair on 4.12.2026, 14:30");
        browser.Press("typing-seen");
        browser.Press("seen-plan");
        browser.Find("no-planner");
        browser.Type(Keys.Escape);
        MakePlanner();
        browser.Until(
            () =>
            {
                browser.Press("typing-seen");
                browser.Press("seen-plan");
                browser.Until(() => browser.Count("[data-testid=plan-planner], [data-testid=no-planner]") > 0, "what is at hand");
                if (browser.Count("[data-testid=plan-planner]") > 0)
                    return true;
                browser.Type(Keys.Escape);
                return false;
            },
            "the planner"
        );
        Assert.Equal("2026-12-04", browser.Attribute("plan-day", "value"));
        Assert.Equal("14:30", browser.Attribute("plan-time", "value"));
        Assert.Equal("Clock fair on 4.12.2026", browser.Attribute("plan-title", "value"));
        Assert.Empty(browser.SeriousFindings());
        browser.Fill("[data-testid=plan-title]", "Clock fair");
        browser.Press("dialog-confirm");
        browser.Until(() => Entries().Any(), "an entry");
        var entry = Entries().Single();
        Assert.Equal(("Clock fair", new DateTime(2026, 12, 4, 14, 30, 0), true), (entry.Title, entry.Start, entry.IsOwn));
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void A_preview_of_an_address_is_fetched_when_asked_and_kept_with_the_page()
    {
        web.Put(
            "/verge",
            "text/html",
            "<title>The verge</title><meta property='og:image' content='/dot.png'><meta name='description' content='How pallets are cut.'>"
        );
        web.Put("/dot.png", "image/png", Dot);
        var browser = OpenPage(Group.Writer);
        Begin(browser, 4_000, 9_300);
        browser.Type(web.At("/verge"));
        Assert.Empty(web.Asked);
        browser.Press("typing-seen");
        browser.Press("seen-preview");
        var picture = browser.Until(() => Things(browser).OfType<PictureContent>().SingleOrDefault(), "the preview")!;
        Assert.StartsWith("The verge\n127.0.0.1", picture.Typed.Text, StringComparison.Ordinal);
        Assert.EndsWith("How pallets are cut.", picture.Typed.Text, StringComparison.Ordinal);
        Assert.Equal(web.At("/verge"), picture.Typed.Spans()[0].Look[Trait.Link]);
        Assert.Equal(["/verge", "/dot.png"], web.Asked);
        // What there is no preview of is said, and nothing is laid down.
        web.Put("/words", "text/plain", "words");
        browser.Press("tool-text");
        Begin(browser, 4_000, 6_500);
        browser.Type(web.At("/words"));
        browser.Press("typing-seen");
        browser.Press("seen-preview");
        browser.Until(() => browser.Driver.PageSource.Contains("no page of the web", StringComparison.Ordinal), "a sentence");
        Assert.Single(Things(browser).OfType<PictureContent>());
    }

    [Fact]
    public void A_box_to_be_ticked_stands_among_the_follow_ups_and_is_ticked_there()
    {
        var browser = OpenPage(Group.Writer);
        Begin(browser, 4_000, 9_300);
        browser.Type($"[] oil the pallets{Keys.Enter}wind it by 4.12.2026");
        browser.Press("typing-done");
        browser.WaitForSync("All saved");
        browser.Go("/follow-ups");
        browser.Until(() => browser.Count("[data-testid=follow-up]") == 2, "two follow-ups");
        Assert.Contains("oil the pallets", browser.Text("follow-ups"), StringComparison.Ordinal);
        Assert.Contains("4 December", browser.Text("follow-ups"), StringComparison.Ordinal);
        Assert.Empty(browser.SeriousFindings());
        browser.PressNth("tick-off", 0);
        browser.Until(() => browser.Count("[data-testid=follow-up]") == 1, "one is done");
        browser.Go(PagePath);
        browser.Find("sheet");
        browser.Until(() => Ticked(browser).Count(one => one) == 1, "a tick in the text");
        browser.TypeWith(Keys.Null, "r");
        // With keys alone, while reading.
        browser.Until(() => browser.Count("[data-testid=typed-task][aria-checked=true]") == 1, "a box that is ticked");
        browser.Script("document.querySelector('[data-testid=typed-task][aria-checked=false]').focus()");
        browser.Type(" ");
        browser.Until(() => Ticked(browser).All(one => one), "both ticked");
        Assert.Empty(browser.SeriousFindings());
        Assert.Empty(browser.Errors());
    }

    private static void Begin(Browser browser, double x, double y)
    {
        if (browser.AttributeAt("[data-testid=tool-text]", "aria-pressed") != "true")
            browser.Press("tool-text");
        PageHands.Press(browser, x, y);
        browser.Find("typing-field");
    }

    private IEnumerable<ItemContent> Things(Browser browser) =>
        PageOf(browser).Items.Where(item => item.Shown).Select(item => item.Content);

    private string? TextOn(Browser browser) => Things(browser).OfType<TextContent>().SingleOrDefault()?.Typed.Text;

    private List<bool> Ticked(Browser browser) =>
        [
            .. Things(browser)
                .OfType<TextContent>()
                .SelectMany(text => text.Typed.Paragraphs())
                .Select(paragraph => paragraph.Look[Trait.Ticked] == "1"),
        ];

    /// <summary>The notebook is a planner from now on.</summary>
    private void MakePlanner()
    {
        using var caller = Host.SignIn(Group.Writer).GetAwaiter().GetResult();
        var planner = new Change.PropertySet(Notebook, Property.Planner, "2026-09-01/2027-07-31 monday day en");
        var made = new Replica(91, Group.Writer.Id).Make(planner, DateTimeOffset.UtcNow.ToUnixTimeMilliseconds());
        using var answer = caller.Send(Group.Space, DocumentKind.Notebook, Notebook, made).GetAwaiter().GetResult();
        Assert.All(Caller.Results(answer).GetAwaiter().GetResult(), one => Assert.Null(one.Code));
    }

    private List<CalmQuill.Core.Planner.CalendarEntry> Entries()
    {
        var document = new CalmQuill.Core.Notebooks.NotebookDocument();
        using var caller = Host.SignIn(Group.Writer).GetAwaiter().GetResult();
        foreach (var operation in caller.After(Group.Space, DocumentKind.Notebook, Notebook).GetAwaiter().GetResult())
            document.Apply(operation);
        return document.Entries();
    }
}
