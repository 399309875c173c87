using System.Text.Json.Nodes;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;

namespace CalmQuill.Interface.Tests;

/// <summary>What a device could not send: saved as a file and put back, left behind and cleared away, and lost only with a word.</summary>
public sealed class RescueTests : InterfaceTest
{
    [Fact]
    public async Task Unsent_work_is_saved_as_a_file_and_put_back_on_another_device_and_counts_once_when_the_first_sends_it_too()
    {
        var (lost, network) = Open(Group.Writer);
        WaitUntilKept(lost);
        // The number that it signs with is its own already.
        lost.Wave(420, 240);
        lost.WaitForStrokes(2);
        lost.WaitForSync("All saved");
        network.Cut();
        lost.Wave(420, 300);
        lost.Wave(420, 360);
        lost.WaitForStrokes(4);
        lost.WaitForSync("waiting for a connection");
        lost.ByRail("[data-testid=account-link]");
        lost.Press("save-unsent");
        var file = lost.TakeSavedFile();

        var (other, _) = Open(Group.Writer);
        other.Go(PagePath);
        other.WaitForStrokes(2);
        Assert.Equal("2 changes are sent again.", PutBack(other, file));
        other.WaitForSync("All saved");
        other.Go(PagePath);
        other.WaitForStrokes(4);
        Assert.Equal(4, await StrokesOnServer());
        // The first device comes back, and what it held is there once.
        network.Mend();
        lost.WaitForSync("All saved");
        other.Go(PagePath);
        other.WaitForStrokes(4);
        Assert.Equal(4, await StrokesOnServer());
        // Once more puts nothing there twice.
        Assert.Equal("2 changes are sent again.", PutBack(other, file));
        other.WaitForSync("All saved");
        Assert.Equal(4, await StrokesOnServer());
    }

    [Fact]
    public async Task A_file_that_is_none_is_somebody_elses_or_is_not_whole_puts_nothing_back_and_says_why()
    {
        var (browser, network) = Open(Group.Writer);
        WaitUntilKept(browser);
        network.Cut();
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        browser.ByRail("[data-testid=account-link]");
        browser.Press("save-unsent");
        var file = browser.TakeSavedFile();
        network.Mend();
        browser.WaitForSync("All saved");
        string With(Action<JsonObject> change)
        {
            var json = JsonNode.Parse(file)!.AsObject();
            change(json);
            return json.ToJsonString();
        }

        const string none = "This is not a file that Calm Quill saved from a device.";
        Assert.Equal(none, PutBack(browser, "no json"));
        Assert.Equal(none, PutBack(browser, "{}"));
        Assert.Equal(none, PutBack(browser, With(json => json["version"] = 9)));
        Assert.Equal(none, PutBack(browser, With(json => json["changes"] = "all of them")));
        Assert.Contains(
            "another person",
            PutBack(browser, With(json => json["person"] = Group.Owner.Id.ToString())),
            StringComparison.Ordinal
        );
        // One change that is not whole keeps back the others, too.
        const string broken = "A change in this file is not whole. Nothing was put back.";
        Assert.Equal(broken, PutBack(browser, With(json => json["changes"]!.AsArray().Add(new JsonObject { ["space"] = "x" }))));
        Assert.Equal(broken, PutBack(browser, With(json => json["changes"]![0]!["operation"] = "%%%")));
        Assert.Equal(2, await StrokesOnServer());
        // What the file names of a place that one may not write to is refused by the server, and shown.
        Assert.Equal("1 change is sent again.", PutBack(browser, With(json => json["changes"]![0]!["space"] = Guid.NewGuid().ToString())));
        browser.Find("show-refused");
        Assert.Equal(2, await StrokesOnServer());
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task Who_leaves_may_lose_what_was_not_sent_or_clear_it_away_at_the_door_but_only_with_a_word()
    {
        var (browser, network) = Open(Group.Writer);
        WaitUntilKept(browser);
        network.Cut();
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        browser.WaitForSync("waiting for a connection");
        browser.ByRail("[data-testid=account-link]");
        browser.Press("sign-out");
        browser.Press("leave-keeping");
        browser.Until(() => browser.Driver.Url.EndsWith("/sign-in", StringComparison.Ordinal), "the way to the door");
        network.Mend();
        browser.Driver.Navigate().Refresh();
        Assert.Contains("One change", browser.Text("left-behind"), StringComparison.Ordinal);
        browser.Press("clear-left-behind");
        Assert.Contains("lose it for good", browser.Text("clear-left-behind"), StringComparison.Ordinal);
        // Not before the second press.
        browser.Driver.Navigate().Refresh();
        browser.Press("clear-left-behind");
        browser.Press("clear-left-behind");
        browser.Until(() => browser.Count("[data-testid=left-behind]") == 0, "nothing left behind");
        browser.SignIn(Group.Writer.Email, QuillHost.Password);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.WaitForSync("All saved");

        // Within the application: staying is one way out, losing the other.
        browser.Until(() => (bool)browser.Script("return navigator.serviceWorker.controller !== null")!, "the application on the device");
        network.Cut();
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        browser.WaitForSync("waiting for a connection");
        browser.ByRail("[data-testid=account-link]");
        browser.Press("sign-out");
        browser.Find("unsent-words");
        browser.Type(OpenQA.Selenium.Keys.Escape);
        browser.Until(() => browser.Count("[data-testid=unsent-words]") == 0, "nobody asked");
        browser.Go(PagePath);
        browser.WaitForStrokes(2);
        browser.ByRail("[data-testid=account-link]");
        browser.Press("sign-out");
        browser.Press("leave-losing");
        browser.Until(() => browser.Driver.Url.EndsWith("/sign-in", StringComparison.Ordinal), "the way to the door");
        network.Mend();
        browser.Driver.Navigate().Refresh();
        browser.Find("sign-in-form");
        Assert.Equal(0, browser.Count("[data-testid=left-behind]"));
        browser.SignIn(Group.Writer.Email, QuillHost.Password);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        Assert.Equal(1, await StrokesOnServer());
    }

    /// <summary>Puts a file back, and returns what is said about it.</summary>
    private static string PutBack(Browser browser, string text)
    {
        var file = Path.Combine(Directory.CreateTempSubdirectory("quill-rescue").FullName, "device.json");
        File.WriteAllText(file, text);
        browser.Go("/account");
        browser.Find("device-keeping");
        PageHands.ChooseFile(browser, "put-unsent-back", file);
        return browser.Until(() => browser.Text("device-said") is { Length: > 0 } said ? said : null, "what was done")!;
    }

    private async Task<int> StrokesOnServer()
    {
        using var caller = await Host.SignIn(Group.Owner);
        return (await caller.After(Group.Space, DocumentKind.Page, Page)).Count(operation => operation.Change is Change.StrokeAdded);
    }
}
