using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>Two browsers on one page: live, cut off from each other, together again.</summary>
public sealed class LiveTests : InterfaceTest
{
    [Fact]
    public async Task Two_write_together_then_apart_and_meet_again_on_the_same_page()
    {
        var (ines, _) = AtDesk(Group.Owner);
        var (tobias, network) = AtDesk(Group.Writer);
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
    public void The_next_page_is_made_ready_without_being_there_and_shows_what_came_since()
    {
        var (ines, _) = Open(Group.Owner);
        ines.Go(PagePath);
        ines.WaitForStrokes(1);
        ines.Press("page-after");
        ines.Until(() => ines.Text("page-number") == "page 2 of 2", "the second page");
        ines.WaitForStrokes(0);
        ines.Wave(420, 300);
        ines.WaitForSync("All saved");
        ines.Until(() => ines.Count("[data-testid=present] [role=img]") == 1, "only herself to be shown as here");
        var second = new Uri(ines.Driver.Url).Segments[^1];
        var (tobias, network) = Open(Group.Writer);
        tobias.Go(PagePath);
        tobias.WaitForStrokes(1);
        tobias.Until(
            () =>
                (bool)
                    tobias.AsyncScript(
                        """
                        const [person, page, done] = arguments;
                        indexedDB.open('calm-quill-' + person).onsuccess = ({ target: { result: database } }) =>
                          (database.transaction('operations').objectStore('operations').getAll().onsuccess = ({ target }) => {
                            database.close();
                            done(target.result.some((row) => row.document.endsWith(page)));
                          });
                        """,
                        Group.Writer.Id.ToString(),
                        second
                    )!,
            "the second page on the other device"
        );
        Assert.Equal(1, ines.Count("[data-testid=present] [role=img]"));
        ines.Wave(420, 400);
        ines.WaitForStrokes(2);
        ines.WaitForSync("All saved");
        tobias.Press("page-after");
        tobias.WaitForStrokes(2);
        ines.Until(() => ines.Count("[data-testid=present] [role=img]") == 2, "both to be shown as here");

        // What was made ready is there without a connection too, and goes back and forth.
        tobias.Press("page-before");
        tobias.WaitForStrokes(1);
        network.Cut();
        tobias.Press("page-after");
        tobias.WaitForStrokes(2);
        tobias.Wave(420, 500);
        tobias.WaitForStrokes(3);
        tobias.Press("page-before");
        tobias.WaitForStrokes(1);
        tobias.Press("page-after");
        tobias.WaitForStrokes(3);
        network.Mend();
        tobias.WaitForSync("All saved");
        ines.WaitForStrokes(3);
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
        var (browser, _) = AtDesk(Group.Writer);
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
