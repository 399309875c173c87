using System.Globalization;
using CalmQuill.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace CalmQuill.Interface.Tests;

/// <summary>Teaching from a page as a class does it: one shows, the others follow, ask and look elsewhere, and a screen in the room shows the sheet.</summary>
public sealed class LecternTests : InterfaceTest
{
    [Fact]
    public void A_class_follows_a_lesson_asks_looks_elsewhere_and_comes_back()
    {
        var leader = OpenPage(Group.Owner);
        leader.Press("export");
        leader.Press("open-lectern");
        Assert.Contains("Nobody follows yet", leader.Text("followers"), StringComparison.Ordinal);

        // Who comes late is in place by one press, from wherever they are.
        var (pupil, network) = Open(Group.Writer);
        pupil.Go("/desk");
        leader.Press("page-after");
        leader.Until(() => leader.Text("page-number").StartsWith("page 2", StringComparison.Ordinal), "the second page");
        pupil.Press("go-to-lesson");
        pupil.Until(() => pupil.Text("page-number").StartsWith("page 2", StringComparison.Ordinal), "the page that is taught from");
        Assert.Contains("You follow", pupil.Text("taught"), StringComparison.Ordinal);
        leader.Until(() => leader.Text("followers").StartsWith("One follows", StringComparison.Ordinal), "that one follows");
        Keyed(leader, "+");
        pupil.Until(() => Math.Abs(Scale(pupil) / Scale(leader) - 1) < 0.02, "the same part as large");
        leader.Wave(420, 300);
        pupil.WaitForStrokes(1);

        // One goes on following while one writes; turning by oneself is looking elsewhere.
        pupil.Wave(520, 420);
        leader.WaitForStrokes(2);
        leader.Press("page-before");
        pupil.Until(() => pupil.Text("page-number").StartsWith("page 1", StringComparison.Ordinal), "the page turned with it");
        pupil.Press("page-after");
        pupil.Find("follow-lectern");
        Assert.Contains("page 1", pupil.Text("taught"), StringComparison.Ordinal);
        pupil.Press("follow-lectern");
        pupil.Until(() => pupil.Text("page-number").StartsWith("page 1", StringComparison.Ordinal), "back in place");

        // A hand is raised, seen and taken down from the lectern.
        pupil.Press("raise-hand");
        leader.Press("hands");
        Assert.Contains(Group.Writer.Name.Split(' ')[0], leader.Text("lower-hand"), StringComparison.Ordinal);
        leader.Press("lower-hand");
        pupil.Until(() => pupil.Attribute("raise-hand", "aria-pressed") == "false", "the hand down");
        leader.Until(() => leader.Count("[data-testid=hands]") == 0, "no hand");

        Assert.Empty(pupil.SeriousFindings());
        // An ask on its spot stands in the list of the lesson, which leads to it.
        pupil.Press("ask-here");
        pupil.Pen(560, 360, []);
        leader.Find("lesson-asks");
        Assert.Empty(leader.SeriousFindings());
        leader.Press("lesson-asks");
        leader.Press("lesson-ask");
        leader.Find("mark-card");
        leader.Type(Keys.Escape);

        // The leader's connection breaks and comes back: who follows is told, and goes on.
        leader.Driver.Navigate().Refresh();
        leader.Find("leading");
        leader.Until(() => leader.Text("followers").StartsWith("One follows", StringComparison.Ordinal), "the follower again");
        network.Cut();
        leader.Until(() => leader.Text("followers").StartsWith("Nobody", StringComparison.Ordinal), "nobody following");
        network.Mend();
        leader.Until(() => leader.Text("followers").StartsWith("One follows", StringComparison.Ordinal), "the follower once more");
        leader.Press("page-after");
        pupil.Until(() => pupil.Text("page-number").StartsWith("page 2", StringComparison.Ordinal), "following still");

        leader.Press("close-lectern");
        pupil.Until(() => pupil.Count("[data-testid=taught]") == 0, "the lesson over");
        Assert.Equal(0, leader.Count("[data-testid=leading]"));
        Assert.Empty(leader.Errors());
    }

    [Fact]
    public void The_pointer_leaves_nothing_the_light_dims_the_rest_and_a_curtain_lifts_for_all()
    {
        var leader = OpenPage(Group.Owner);
        HangCurtain(leader);
        var pupil = OpenPage(Group.Reader);
        pupil.Find("curtain");
        leader.Press("export");
        leader.Press("open-lectern");
        pupil.Press("follow-lectern");
        leader.Until(() => leader.Text("followers").StartsWith("One follows", StringComparison.Ordinal), "that one follows");

        leader.PressCss("[data-testid=curtain] button");
        pupil.Until(() => pupil.Attribute("curtain", "data-lifted") == "1", "the curtain lifted for all");
        leader.PressCss("[data-testid=curtain] button");
        pupil.Until(() => pupil.Attribute("curtain", "data-lifted") is null, "the curtain fallen for all");
        // For oneself one lifts it as always.
        pupil.PressCss("[data-testid=curtain] button");
        pupil.Until(() => pupil.Attribute("curtain", "data-lifted") == "1", "lifted for oneself");
        Assert.Null(leader.Attribute("curtain", "data-lifted"));

        var pointed = pupil.Watch("pointer-trail", "data-glows", "1");
        leader.Press("point");
        PageHands.Over(leader, "pointing-hand");
        pointed();
        pupil.Until(() => pupil.Attribute("pointer-trail", "data-glows") == "0", "that it faded");
        leader.Press("light");
        PageHands.Over(leader, "pointing-hand");
        pupil.Until(() => pupil.Count("[data-testid=spotlight]") == 1, "the light");
        var before = pupil.Attribute("spotlight", "style");
        leader.Press("light-larger");
        pupil.Until(() => pupil.Attribute("spotlight", "style") != before, "a larger light");
        leader.Type(Keys.Escape);
        pupil.Until(() => pupil.Count("[data-testid=spotlight]") == 0, "the light off");
        // The pen writes again, and what was pointed at is nowhere.
        leader.Wave(420, 300);
        pupil.WaitForStrokes(2);
        // Who reads raises a hand, and is not offered to write an ask.
        Assert.Equal(0, pupil.Count("[data-testid=ask-here]"));
        Assert.Empty(pupil.Errors());
    }

    [Fact]
    public void A_screen_in_the_room_shows_the_sheet_by_a_code_until_the_lectern_is_closed()
    {
        var leader = OpenPage(Group.Owner);
        HangCurtain(leader);
        leader.WaitForSync("All saved");
        leader.Press("export");
        leader.Press("open-lectern");
        leader.Press("room");
        var code = leader.Text("room-code");
        Assert.EndsWith("/room", leader.Text("room-address"), StringComparison.Ordinal);
        leader.Press("room-done");

        var room = Visitor();
        room.Go("/room");
        room.Fill("input[name=code]", "ABCD EFGH");
        room.Press("sign-in");
        room.Until(() => room.Text("sign-in-problem").Length > 0, "that there is none");
        room.Fill("input[name=code]", code.ToLowerInvariant());
        room.Press("sign-in");
        room.Until(() => room.Attribute("room-sheet", "data-page") == Page.ToString(), "the page that is shown");
        Assert.Contains("How many teeth?", room.Text("room-curtain"), StringComparison.Ordinal);
        Assert.Empty(room.SeriousFindings());
        var picture = room.Attribute("room-sheet", "src");

        // What is written is seen while it is written, and stays.
        leader.Pen(420, 300, [(40, 10), (40, -10), (40, 10)], lift: false);
        room.Until(() => room.Attribute("others-ink", "data-strokes") == "1", "wet ink");
        leader.Pen(420, 300, [(40, 10)]);
        room.Until(() => room.Attribute("room-sheet", "src") != picture, "the ink dry");
        leader.PressCss("[data-testid=curtain] button");
        room.Until(() => room.Attribute("room-curtain", "data-lifted") == "1", "the curtain lifted");
        var pointed = room.Watch("pointer-trail", "data-glows", "1");
        leader.Press("point");
        PageHands.Over(leader, "pointing-hand");
        pointed();
        leader.Press("point");
        leader.Press("page-after");
        room.Until(() => room.Attribute("room-sheet", "data-page") != Page.ToString(), "the page turned");
        // Nothing of the application stands around it.
        Assert.Equal(0, room.Count("header, nav, [data-testid=thread], [data-testid=open-rail]"));

        // A reload comes back to it; a lectern that is closed shows nothing any more.
        room.Driver.Navigate().Refresh();
        room.Find("room-sheet");
        leader.Press("close-lectern");
        room.Find("room-form");
        room.Fill("input[name=code]", code);
        room.Press("sign-in");
        room.Until(() => room.Text("sign-in-problem").Length > 0, "that it is closed");
        Assert.DoesNotContain(room.Errors(), error => !error.Contains("/api/room", StringComparison.Ordinal));
    }

    [Fact]
    public void A_page_that_goes_to_the_bin_under_who_follows_is_told_and_another_is_shown()
    {
        var leader = OpenPage(Group.Owner);
        leader.Press("export");
        leader.Press("open-lectern");
        var pupil = OpenPage(Group.Writer);
        pupil.Press("follow-lectern");
        leader.Until(() => leader.Text("followers").StartsWith("One follows", StringComparison.Ordinal), "that one follows");
        leader.Go($"/pages/{Group.Space}/{Notebook}");
        leader.PressNth("overview-menu", 0);
        leader.Press("page-bin");
        pupil.Until(() => pupil.Text("said").Contains("bin", StringComparison.Ordinal), "that it went to the bin");
        pupil.WaitForStrokes(0);
        // The lesson goes on where the leader goes.
        leader.Go($"/page/{Group.Space}/{Notebook}");
        leader.Find("leading");
        leader.Until(() => leader.Text("followers").StartsWith("One follows", StringComparison.Ordinal), "the follower again");
        Assert.Empty(pupil.Errors());
    }

    private static void HangCurtain(Browser browser)
    {
        browser.TakeTool("curtain");
        browser.Pen(380, 420, [(160, 0), (0, 100)]);
        browser.SendKeys("[data-testid=curtain-note]", "How many teeth?", Keys.Enter);
        browser.Press("pen-1");
    }

    private static void Keyed(Browser browser, string key)
    {
        browser.Script("document.querySelector('[data-testid=sheet]').focus()");
        browser.Type(key);
    }

    /// <summary>Goes over something with a pen that does not touch it.</summary>
    private static double Scale(Browser browser) =>
        double.Parse(browser.Attribute("sheet", "data-view")!.Split(' ')[0], CultureInfo.InvariantCulture);
}
