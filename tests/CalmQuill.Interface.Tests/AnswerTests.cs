using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Spots;
using CalmQuill.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace CalmQuill.Interface.Tests;

/// <summary>What was asked on a page is answered, typed or by hand, by readers too; who asked sees it, and settles it.</summary>
public sealed class AnswerTests : InterfaceTest
{
    [Fact]
    public async Task An_ask_is_answered_by_a_reader_seen_on_the_desk_and_settled()
    {
        await Ask();
        var name = Group.Writer.Name.Split(' ')[0];
        var (reader, network) = Open(Group.Reader);
        reader.Go(PagePath);
        reader.Press("mark");
        reader.SendKeys("[data-testid=answer-text]", "@" + name[..2].ToLowerInvariant());
        reader.Press("answer-mention");
        // What is typed next goes into the answer, and no key of it to the page.
        reader.Type("it pushes the wheel back");
        Assert.Equal($"@{name} it pushes the wheel back", reader.Attribute("answer-text", "value"));
        Assert.Empty(reader.SeriousFindings());
        reader.Press("answer-say");
        reader.Until(() => reader.Count("[data-testid=answer]") == 1, "the answer");
        reader.WaitForSync("All saved");

        // Without a connection it is kept, over a reload too, and sent later.
        network.Cut();
        reader.Press("answer-by-hand");
        WriteByHand(reader);
        reader.Press("answer-say");
        reader.Until(() => reader.Count("[data-testid=answer]") == 2, "the second answer");
        reader.Driver.Navigate().Refresh();
        reader.Press("mark");
        reader.Until(() => reader.Count("[data-testid=answer-ink]") == 1, "what was written by hand");
        network.Mend();
        reader.WaitForSync("All saved");

        var writer = Open(Group.Writer).Browser;
        writer.Go("/desk");
        writer.Until(() => writer.Count("[data-testid=told-line]") == 2, "both answers on the Desk");
        Assert.Contains("it pushes the wheel back", writer.Text("told"), StringComparison.Ordinal);
        Assert.Contains("an answer by hand", writer.Text("told"), StringComparison.Ordinal);
        Assert.Empty(writer.SeriousFindings());
        writer.Press("told-seen");
        writer.Until(() => writer.Count("[data-testid=told]") == 0, "nothing to be seen any more");
        writer.Driver.Navigate().Refresh();
        writer.Find("desk-heading");
        Assert.Equal(0, writer.Count("[data-testid=told]"));

        writer.Go("/follow-ups");
        writer.Until(() => writer.Attribute("follow-up", "data-answered") == "1", "that it is answered");
        Assert.Contains("2 answers", writer.Text("follow-up"), StringComparison.Ordinal);
        LibraryHands.Choose(writer, "filter-whose", "to");
        writer.Until(() => writer.Count("[data-testid=follow-up]") == 0, "nothing asked of the one who asked");
        LibraryHands.Choose(writer, "filter-whose", "by");
        writer.Until(() => writer.Count("[data-testid=follow-up]") == 1, "what one asked oneself");
        writer.PressCss("[data-testid=follow-up] a");
        writer.Until(() => writer.Count("[data-testid=answer]") == 2, "the answers on the page");
        Assert.Equal("1", writer.Attribute("mark", "data-answered"));
        writer.Press("mark-tick");
        reader.Until(() => reader.Attribute("mark", "data-done") == "1", "it settled for the reader");
        Assert.Contains("Settled by", reader.Text("mark-card"), StringComparison.Ordinal);

        // A reader takes back what they said, and has no way to take away the rest of it.
        Assert.Equal(0, reader.Count("[data-testid=mark-remove]") + reader.Count("[data-testid=mark-tick]"));
        reader.Press("answer-withdraw");
        writer.Until(() => writer.Count("[data-testid=answer]") == 1, "one answer left");
        // Undoing on the page is of the page's steps.
        writer.Type(Keys.Escape);
        Assert.Empty(reader.Errors());
        Assert.Empty(writer.Errors());
    }

    private async Task Ask()
    {
        using var caller = await Host.SignIn(Group.Writer);
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        await caller.Send(
            Group.Space,
            DocumentKind.Page,
            Page,
            new Replica(91, Group.Writer.Id).Make(
                new Change.SpotAdded(
                    Guid.NewGuid(),
                    SpotKind.Mark,
                    new Box(9_000, 5_000, 9_600, 5_600),
                    [],
                    [new SpotValue(SpotField.Mark, MarkKinds.Ask), new SpotValue(SpotField.Note, "Why does it recoil?")]
                ),
                now
            )
        );
    }

    private static void WriteByHand(Browser browser)
    {
        var pen = new PointerInputDevice(PointerKind.Pen, "hand on the slip");
        var actions = new ActionSequence(pen);
        actions.AddAction(pen.CreatePointerMove(browser.Find("answer-pad"), -60, -10, TimeSpan.Zero));
        actions.AddAction(pen.CreatePointerDown(MouseButton.Left));
        foreach (var (dx, dy) in new[] { (20, 25), (20, -25), (20, 25), (20, -25) })
            actions.AddAction(pen.CreatePointerMove(CoordinateOrigin.Pointer, dx, dy, TimeSpan.FromMilliseconds(8)));
        actions.AddAction(pen.CreatePointerUp(MouseButton.Left));
        browser.Driver.PerformActions([actions]);
        browser.Find("answer-wipe");
    }
}
