using CalmQuill.MailServer;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>A group from its making to leaving it, with four browsers: what each of its parts is tried for by itself, one after the other as in a day.</summary>
public sealed class ClassDayTests : InterfaceTest
{
    private readonly LetterBox letters = new(0);

    protected override CalmQuill.Server.Settings With(CalmQuill.Server.Settings settings) =>
        settings with
        {
            Mail = new Uri($"smtp://127.0.0.1:{letters.Port}"),
        };

    [Fact]
    public void A_group_is_made_joined_taught_asked_shared_from_and_left()
    {
        // Made in a minute; one comes by link, one by mail, neither with an account.
        var nela = AtDesk(Group.Stranger).Browser;
        nela.Press("make-group");
        nela.Fill("[data-testid=name-input]", "Bell founders");
        nela.Press("dialog-confirm");
        nela.Find("invite-uses");
        nela.Press("dialog-confirm");
        var link = nela.Attribute("copy-invitation", "data-link")!;
        nela.Type(Keys.Escape);
        nela.Until(() => nela.Count("[role=dialog]") == 0, "the invitation written");
        var group = new Uri(nela.Driver.Url).Segments[^1];
        nela.Go($"/group/{group}?invite");
        nela.Press("invite-by-name");
        nela.Fill("[data-testid=invite-who]", "mara@test.example");
        nela.Press("invite-reader");
        nela.Press("dialog-confirm");
        var juri = Join(link, "Juri Onken", "juri@test.example");
        nela.Until(() => letters.Arrived.Any(letter => letter.To == "mara@test.example"), "the letter");
        var mara = Join(LinkIn(letters.Arrived.Last(letter => letter.To == "mara@test.example").Text), "Mara Lind", "mara@test.example");

        // Written in together: whose role says so writes, and who reads sees it.
        nela.Go($"/library/{group}");
        nela.Press("new-notebook");
        nela.Fill("[data-testid=name-input]", "Castings");
        nela.Press("dialog-confirm");
        nela.WaitForStrokes(0);
        nela.WaitForSync("All saved");
        var page = new Uri(nela.Driver.Url).AbsolutePath;
        foreach (var one in new[] { juri, mara })
        {
            one.Go(page);
            one.WaitForStrokes(0);
        }

        nela.Wave(300, 200);
        juri.Wave(300, 320);
        mara.WaitForStrokes(2);
        Assert.Equal(0, mara.Count("[data-testid=pen-tray]"));
        juri.Press("others-menu");
        juri.PressNth("follow-person", 0);
        juri.Find("following");
        juri.Wave(300, 440);
        juri.Until(() => juri.Count("[data-testid=following]") == 0, "following ended by the hand");

        // Taught from: who only reads follows, sees the pointer, and writes for herself alone.
        nela.Press("export");
        nela.Press("open-lectern");
        mara.Press("follow-lectern");
        juri.Press("follow-lectern");
        mara.WaitForStrokes(3);
        mara.Press("lesson-aside");
        mara.Until(() => mara.Attribute("aside", "data-in-hand") == "1", "the aside in the hand");
        mara.Wave(420, 260);
        mara.Until(() => mara.Attribute("aside", "data-strokes") == "1", "a stroke on the aside");
        var pointed = mara.Watch("pointer-trail", "data-glows", "1");
        nela.Press("point");
        PageHands.Over(nela, "pointing-hand");
        pointed();
        nela.Press("point");

        // Asked on the spot, answered by who reads, told on the Desk.
        juri.Press("ask-here");
        juri.Pen(560, 260, []);
        nela.Find("lesson-asks");
        nela.Press("close-lectern");
        mara.Until(() => mara.Count("[data-testid=taught]") == 0, "the lesson over");
        mara.Press("mark");
        mara.SendKeys("[data-testid=answer-text]", "at the sound bow");
        mara.Press("answer-say");
        mara.WaitForSync("All saved");
        mara.Type(Keys.Escape);
        Assert.Equal(3, nela.Strokes());

        // One removes it all, another has it back, and nothing written since goes.
        juri.Go(page);
        juri.WaitForStrokes(3);
        juri.TypeWithControl("a");
        juri.Find("selection");
        juri.Type(Keys.Delete);
        juri.WaitForStrokes(0);
        juri.Wave(300, 200);
        nela.WaitForStrokes(1);
        nela.Press("export");
        nela.Press("open-history");
        nela.SendKeys("[data-testid=history-bar]", Keys.ArrowLeft + Keys.ArrowLeft);
        nela.WaitForStrokes(3);
        nela.Press("have-back");
        nela.WaitForStrokes(4);
        juri.WaitForStrokes(4);
        juri.Go("/desk");
        Assert.Contains("at the sound bow", juri.Text("told"), StringComparison.Ordinal);

        // One notebook is shared to be read, and taken back; the guest never was in the group.
        nela.WaitForSync("All saved");
        nela.Type(Keys.Escape);
        nela.Press("export");
        nela.Press("share-here");
        nela.Press("share-link");
        nela.Press("dialog-confirm");
        var shared = nela.Text("made-link");
        var guest = Join(shared, "Ove Brandt", "ove@test.example");
        guest.Press("open-shared");
        guest.WaitForStrokes(4);
        guest.Go("/group");
        guest.Find("no-group");
        nela.Go("/library/list/given");
        nela.Press("take-share-back");
        guest.Go("/library/list/given");
        guest.Until(() => guest.Count("[data-testid=shared-thing]") == 0, "nothing shared any more");

        // A reader becomes a writer, writes, and leaves; what was hers alone stays hers.
        nela.Go($"/group/{group}");
        nela.Until(() => nela.Text("happened").Contains("Juri Onken · Castings", StringComparison.Ordinal), "what happened");
        nela.PressCss("[aria-label='Role of Mara Lind'] option[value=writer]");
        mara.Press("write-page");
        mara.Until(() => mara.Attribute("aside", "data-in-hand") is null, "the page in the hand");
        mara.Wave(300, 470);
        nela.Go(page);
        nela.WaitForStrokes(5);
        mara.WaitForSync("All saved");
        mara.Go($"/group/{group}");
        mara.Press("group-menu");
        mara.Press("group-leave");
        mara.Press("dialog-confirm");
        mara.Find("no-group");
        mara.Go("/library/list/asides");
        mara.Until(() => mara.Count("[data-testid=aside-row]") == 1, "the aside");
        Assert.Contains("not there for you any more", mara.Text("aside-where"), StringComparison.Ordinal);
        nela.Go($"/group/{group}");
        nela.Until(() => nela.Count("[data-testid=member]") == 2, "two left");
        foreach (var one in new[] { nela, juri, mara, guest })
            Assert.Empty(one.Errors());
    }

    /// <summary>Somebody without an account comes by a link.</summary>
    private Browser Join(string link, string name, string email)
    {
        var browser = Visitor();
        browser.Go(link[link.IndexOf("/join", StringComparison.Ordinal)..]);
        MakeAccount(browser, name, email);
        browser.Until(() => !browser.Driver.Url.Contains("/join", StringComparison.Ordinal), "to be in");
        return browser;
    }

    private static string LinkIn(string letter)
    {
        var at = letter.IndexOf("http", StringComparison.Ordinal);
        return new string([.. letter[at..].TakeWhile(c => !char.IsWhiteSpace(c))]);
    }
}
