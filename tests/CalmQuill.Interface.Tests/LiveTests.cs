using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>Two browsers on one page: live, cut off from each other, together again.</summary>
public sealed class LiveTests : InterfaceTest
{
    [Fact]
    public async Task Two_write_together_then_apart_and_meet_again_on_the_same_page()
    {
        var (ines, _) = Open(Group.Owner);
        var (tobias, network) = Open(Group.Writer);
        foreach (var browser in new[] { ines, tobias })
        {
            browser.Go(PagePath);
            browser.WaitForStrokes(1);
        }

        ines.Until(() => ines.Count("[data-testid=present] [role=img]") == 2, "both to be shown as here");

        // Ink is seen elsewhere while it is being written, with the writer's name, and is one stroke when the pen is lifted.
        ines.Pen(420, 300, [.. Enumerable.Range(0, 20).Select(i => (4, i % 3))], lift: false);
        tobias.Until(() => tobias.Attribute("others-ink", "data-strokes") == "1", "wet ink");
        tobias.Until(() => tobias.Text("pen-sign") == "Owner", "the writer’s name at the pen");
        ines.Driver.ResetInputState();
        tobias.WaitForStrokes(2);

        // Without a network both write on.
        network.Cut();
        tobias.Wave(420, 400);
        tobias.Wave(420, 440);
        ines.Wave(420, 500);
        tobias.WaitForStrokes(4);
        ines.WaitForStrokes(3);
        tobias.WaitForSync("Saved on this device, 1 page waiting for a connection");
        ines.WaitForSync("All saved");

        // Even the application itself opens again without one.
        tobias.Until(
            () =>
                (bool)
                    tobias.AsyncScript(
                        "navigator.serviceWorker.ready.then(() => caches.keys()).then((keys) => arguments[0](keys.length > 0))"
                    )!,
            "the service worker"
        );
        tobias.Driver.Navigate().Refresh();
        tobias.WaitForStrokes(4);
        tobias.Wave(420, 560);
        tobias.WaitForStrokes(5);

        network.Mend();
        ines.WaitForStrokes(6);
        tobias.WaitForStrokes(6);
        tobias.WaitForSync("All saved");
        var state = await StateOnServer();
        tobias.Until(() => StateOn(tobias, Group.Writer).AsSpan().SequenceEqual(state), "the same bytes as on the server");
        ines.Until(() => StateOn(ines, Group.Owner).AsSpan().SequenceEqual(state), "the same bytes as on the server");
    }

    [Fact]
    public void A_sign_in_that_ends_while_writing_costs_no_ink()
    {
        var browser = OpenPage(Group.Writer);
        browser.WaitForSync("All saved");
        browser.Driver.Manage().Cookies.DeleteAllCookies();
        browser.Wave(420, 300);
        // Nothing of the person is shown any more once the device has been told; what was not sent waits for them.
        Assert.Contains("One change", browser.Find("left-behind").Text, StringComparison.Ordinal);
        Assert.Equal(0, browser.Count("[data-testid=sheet]"));
        browser.SignIn(Group.Writer.Email, Testing.QuillHost.Password);
        browser.WaitForSync("All saved");
        browser.Go(PagePath);
        browser.WaitForStrokes(2);
    }

    [Fact]
    public async Task A_clock_an_hour_ahead_costs_nothing()
    {
        var (browser, _) = Open(Group.Writer);
        browser.Driver.ExecuteCdpCommand(
            "Page.addScriptToEvaluateOnNewDocument",
            new Dictionary<string, object?> { ["source"] = "const now = Date.now; Date.now = () => now() + 3600000;" }
        );
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.Wave(420, 300);
        browser.Wave(420, 360);
        browser.WaitForStrokes(3);
        browser.WaitForSync("All saved");
        var state = await StateOnServer();
        Assert.Equal(state, StateOn(browser, Group.Writer));
    }
}
