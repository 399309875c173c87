using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>A page as it was, and what happened to it, as somebody looks for what was removed.</summary>
public sealed class HistoryTests : InterfaceTest
{
    [Fact]
    public void What_another_removed_is_found_compared_and_had_back_without_undoing_what_they_wrote_since()
    {
        var writer = OpenPage(Group.Writer);
        writer.Wave(300, 300);
        writer.Wave(300, 400);
        writer.WaitForStrokes(3);
        writer.WaitForSync("All saved");
        var owner = OpenPage(Group.Owner, 3);
        owner.TypeWithControl("a");
        owner.Find("selection");
        owner.Type(Keys.Delete);
        owner.WaitForStrokes(0);
        owner.Wave(500, 200);
        owner.WaitForSync("All saved");
        writer.WaitForStrokes(1);

        OpenHistory(writer);
        Assert.Equal("As it is now", writer.Text("history-moment"));
        Assert.Equal(1, writer.Strokes());
        Assert.False(writer.Find("have-back").Enabled);
        OnBar(writer, Keys.Home);
        Assert.Equal("Before anything was written", writer.Text("history-moment"));
        writer.WaitForStrokes(0);
        OnBar(writer, Keys.ArrowRight + Keys.ArrowRight);
        writer.WaitForStrokes(2);
        OnBar(writer, Keys.ArrowRight);
        writer.WaitForStrokes(3);
        Assert.StartsWith("As it was on", writer.Text("history-moment"), StringComparison.Ordinal);
        Assert.Contains("was writing", writer.Text("history-last"), StringComparison.Ordinal);
        Assert.Empty(writer.SeriousFindings());

        // While one looks, nothing is written by hand, and others go on.
        writer.Wave(500, 300);
        owner.Wave(500, 400);
        owner.WaitForSync("All saved");
        Assert.Equal(3, writer.Strokes());

        writer.Press("history-compare");
        writer.WaitForStrokes(5);
        Assert.Equal("Gone since: 3", writer.Text("history-removed"));
        writer.Press("history-added");
        writer.WaitForStrokes(3);
        writer.Press("history-compare");
        writer.WaitForStrokes(3);

        writer.Press("have-back");
        writer.WaitForStrokes(5);
        Assert.Equal(0, writer.Count("[data-testid=history]"));
        Assert.Equal("3 things are back.", writer.Text("said").Split('\n')[0]);
        writer.WaitForSync("All saved");
        owner.WaitForStrokes(5);
        // One step takes all of it away again.
        writer.Type(Keys.Escape);
        writer.TypeWithControl("z");
        writer.WaitForStrokes(2);
        Assert.Empty(writer.Errors());
        Assert.Empty(owner.Errors());
    }

    [Fact]
    public void A_part_comes_back_that_a_frame_is_drawn_round_by_pen()
    {
        var writer = OpenPage(Group.Writer);
        writer.Wave(300, 160);
        var lower = PageHands.Of(writer, 300, 300);
        writer.Wave(300, 300);
        writer.WaitForStrokes(3);
        writer.TypeWithControl("a");
        writer.Find("selection");
        writer.Type(Keys.Delete);
        writer.WaitForStrokes(0);
        OpenHistory(writer);
        OnBar(writer, Keys.ArrowLeft);
        writer.WaitForStrokes(3);
        writer.Press("history-part-on");
        Assert.False(writer.Find("have-back").Enabled);
        var (x, y) = PageHands.At(writer, lower.X, lower.Y);
        writer.Pen(x - 25, y - 40, [(70, 40), (80, 40)]);
        writer.Find("history-part");
        writer.Press("have-back");
        writer.WaitForStrokes(1);
        Assert.Equal("One thing is back.", writer.Text("said").Split('\n')[0]);
        Assert.Empty(writer.Errors());
    }

    [Fact]
    public void A_moment_gets_a_name_is_gone_to_and_becomes_a_page_of_its_own()
    {
        var writer = OpenPage(Group.Writer);
        writer.Wave(300, 300);
        writer.WaitForStrokes(2);
        OpenHistory(writer);
        OnBar(writer, Keys.ArrowLeft);
        writer.WaitForStrokes(1);
        writer.Press("history-more");
        writer.Press("history-name");
        writer.Fill("[role=dialog] input", "before the exam");
        writer.Type(Keys.Enter);
        writer.Until(() => writer.Text("history-last").StartsWith("“before the exam”", StringComparison.Ordinal), "the moment's name");
        writer.Type(Keys.Escape);
        writer.Until(() => writer.Count("[data-testid=history]") == 0, "the page as it is");
        writer.WaitForStrokes(2);

        writer.Press("contents");
        writer.Press("margin-history");
        writer.PressCss("[data-testid=named-moment] button");
        writer.WaitForStrokes(1);
        writer.Press("history-more");
        writer.Press("history-copy");
        writer.Until(() => writer.Text("page-number").StartsWith("page 2 of 3", StringComparison.Ordinal), "the page of its own");
        writer.WaitForStrokes(1);
        Assert.StartsWith("As on ", writer.Attribute("page-title", "value"), StringComparison.Ordinal);
        writer.WaitForSync("All saved");

        // Others see the name too, and may look; who only reads has nothing back.
        var reader = OpenPage(Group.Reader, 2);
        OpenHistory(reader);
        Assert.Equal(0, reader.Count("[data-testid=have-back]"));
        reader.Press("history-more");
        reader.Press("history-go-moment");
        reader.WaitForStrokes(1);
        Assert.Empty(reader.Errors());
        Assert.Empty(writer.Errors());
    }

    [Fact]
    public void What_happened_is_told_by_day_and_each_line_leads_there()
    {
        var writer = OpenPage(Group.Writer);
        writer.Wave(300, 300);
        writer.Wave(300, 400);
        writer.TypeWithControl("z");
        writer.WaitForStrokes(2);
        writer.WaitForSync("All saved");
        writer.Press("contents");
        writer.Press("margin-history");
        writer.Until(
            () => writer.Text("happened").Contains("wrote 2 lines, removed one thing", StringComparison.Ordinal),
            "what the writer did"
        );
        Assert.Contains($"{Group.Owner.Name}", writer.Text("happened"), StringComparison.Ordinal);
        writer.PressCss("[data-testid=happened-line] a");
        writer.Find("history");
        Assert.Empty(writer.SeriousFindings());

        var owner = Open(Group.Owner).Browser;
        owner.Go($"/group/{Group.Space}");
        owner.Until(
            () => owner.Text("happened").Contains($"{Group.Writer.Name} · Escapements", StringComparison.Ordinal),
            "what the writer did, among all that happened in the group"
        );
        owner.PressCss("[data-testid=happened-line] a");
        owner.Find("sheet");
        Assert.Empty(owner.Errors());
    }

    [Fact]
    public void Where_the_past_is_closed_who_only_reads_sees_the_page_as_it_is_as_it_changes_and_holds_nothing_else()
    {
        // On a device that held how it was before.
        var reader = OpenPage(Group.Reader);
        var writer = OpenPage(Group.Writer);
        writer.Wave(300, 300);
        reader.WaitForStrokes(2);
        var owner = Open(Group.Owner).Browser;
        owner.Go($"/group/{Group.Space}");
        owner.Press("group-menu");
        owner.Press("group-look");
        owner.Press("past-closed");
        owner.Type(Keys.Enter);
        owner.Until(() => owner.Count("[role=dialog]") == 0, "the group's new rule");

        writer.TypeWithControl("z");
        writer.WaitForStrokes(1);
        reader.WaitForStrokes(1);
        writer.Wave(300, 200);
        writer.Wave(300, 360);
        reader.WaitForStrokes(3);
        reader.Press("export");
        reader.Find("copy-page-link");
        Assert.Equal(0, reader.Count("[data-testid=open-history]"));
        reader.Type(Keys.Escape);
        reader.Go(PagePath + "?past=1");
        reader.WaitForStrokes(3);
        Assert.Equal(0, reader.Count("[data-testid=history]"));
        reader.Until(
            () => OperationsOn(reader, Group.Reader).All(operation => operation.Change is not Change.EffectSet),
            "the device to hold what stands alone"
        );
        Assert.Equal(3, OperationsOn(reader, Group.Reader).Count(operation => operation.Change is Change.StrokeAdded));
        // Opened again it is all there, also on a device that holds what stands; what was taken back comes with its past.
        owner.Press("group-menu");
        owner.Press("group-look");
        owner.Press("past-closed");
        owner.Type(Keys.Enter);
        owner.Until(() => owner.Count("[role=dialog]") == 0, "the group's rule as before");
        reader.Go(PagePath);
        reader.WaitForStrokes(3);
        reader.Until(
            () => OperationsOn(reader, Group.Reader).Exists(operation => operation.Change is Change.EffectSet),
            "the device to hold the past too"
        );
        writer.TypeWithControl("z");
        reader.WaitForStrokes(2);
        writer.Press("redo");
        reader.WaitForStrokes(3);
        OpenHistory(reader);
        OnBar(reader, Keys.Home);
        reader.WaitForStrokes(0);
        Assert.Empty(reader.Errors());
        Assert.Empty(writer.Errors());
    }

    private static void OpenHistory(Browser browser)
    {
        browser.Press("export");
        browser.Press("open-history");
        browser.Find("history-bar");
    }

    private static void OnBar(Browser browser, string keys) => browser.SendKeys("[data-testid=history-bar]", keys);
}
