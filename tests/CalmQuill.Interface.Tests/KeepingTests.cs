using System.Net.Http.Json;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Locks;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;
using static CalmQuill.Interface.Tests.LibraryHands;

namespace CalmQuill.Interface.Tests;

/// <summary>What a device keeps without its having been opened there: whole, current, and gone with the right to it.</summary>
public sealed class KeepingTests : InterfaceTest
{
    private readonly Guid second = Guid.NewGuid();
    private Replica device = null!;
    private Caller? owner;

    [Fact]
    public async Task A_notebook_kept_for_the_road_is_there_whole_and_current_without_a_connection()
    {
        await WriteOnAnother(2);
        var (browser, network) = Open(Group.Writer);
        browser.Go($"/library/{Group.Space}");
        KeepForRoad(browser);
        browser.Until(() => Said(browser).Contains("ready for the road", StringComparison.Ordinal), "the notebook on the device");
        WaitUntilKeptItself(browser);
        network.Cut();
        browser.Go(SecondPath);
        browser.WaitForStrokes(2);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        // What is written on the way is sent at home, as ever.
        browser.Wave(430, 305);
        browser.WaitForStrokes(2);

        // What others write meanwhile comes at home, without anybody's opening it.
        browser.Go("/account#device");
        await WriteOnAnother(1);
        network.Mend();
        browser.WaitForSync("All saved");
        browser.Until(() => StrokesHeld(browser, second) == 3, "what another wrote");
        network.Cut();
        browser.Go(SecondPath);
        browser.WaitForStrokes(3);
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task All_ones_notebooks_are_kept_with_their_sizes_and_stay_when_room_is_made()
    {
        await WriteOnAnother(2);
        var (browser, network) = Open(Group.Reader);
        browser.Go("/account");
        browser.Until(() => browser.Text("offline-choice").Contains("1 notebook,", StringComparison.Ordinal), "how many there are");
        browser.Press("keep-all");
        browser.Until(() => browser.Text("kept-words").StartsWith("All of it", StringComparison.Ordinal), "all of it on the device");
        browser.Press("free-up");
        browser.Until(() => browser.Text("device-said").StartsWith("Room was made", StringComparison.Ordinal), "room");
        Assert.Equal(2, StrokesHeld(browser, second));
        WaitUntilKeptItself(browser);
        network.Cut();
        browser.Driver.Navigate().Refresh();
        browser.Until(() => browser.Text("kept-words").StartsWith("All of it", StringComparison.Ordinal), "the same without a connection");
        browser.Go(SecondPath);
        browser.WaitForStrokes(2);
        Assert.Empty(browser.SeriousFindings());
    }

    [Fact]
    public async Task What_one_may_not_see_any_more_is_not_kept_and_what_is_locked_is_said()
    {
        await WriteOnAnother(2);
        var (browser, _) = Open(Group.Writer);
        browser.Go($"/library/{Group.Space}");
        KeepForRoad(browser);
        browser.Until(() => StrokesHeld(browser, second) == 2, "the page on the device");
        await Lock(Notebook);
        browser.Until(() => StrokesHeld(browser, second) == 0, "nothing of what is locked");
        browser.Go("/account");
        browser.Until(() => browser.Text("on-road").Contains("locked", StringComparison.Ordinal), "that it is locked");
        // Unlocked it comes back by itself.
        await Host.Services.GetRequiredService<LockStore>().Remove(Group.Space, Notebook, default);
        await WriteOnAnother(1);
        browser.Until(() => StrokesHeld(browser, second) == 3, "the page again");
        browser.Press("leave-road");
        browser.Until(() => browser.Count("[data-testid=on-road]") == 0, "nothing kept");
        using var gone = await owner!.Http.PutAsJsonAsync($"/api/spaces/{Group.Space}/members/{Group.Writer.Id}", new { role = "none" });
        gone.EnsureSuccessStatusCode();
        browser.Press("keep-all");
        browser.Until(() => HeldOf(browser, Group.Writer) == "outlines 0, documents 0, operations 0", "nothing of the group on the device");
    }

    private string SecondPath => $"/page/{Group.Space}/{Notebook}/{second}";

    private static void KeepForRoad(Browser browser)
    {
        Row(browser, "Escapements");
        browser.Press("row-menu");
        browser.Press("menu-road");
    }

    /// <summary>The group's owner writes on a page that the browser never showed.</summary>
    private async Task WriteOnAnother(int strokes)
    {
        owner ??= await Host.SignIn(Group.Owner);
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        if (device is null)
        {
            device = new Replica(9, Group.Owner.Id);
            await owner.Send(
                Group.Space,
                DocumentKind.Notebook,
                Notebook,
                device.Make(new Change.PageAdded(second, "X", "a4-ruled-710"), now)
            );
        }

        for (var i = 0; i < strokes; i++)
        {
            using var written = await owner.Send(
                Group.Space,
                DocumentKind.Page,
                second,
                device.Make(new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), now + i, Generate.Wave(20)), now + i)
            );
            Assert.All(await Caller.Results(written), result => Assert.Null(result.Code));
        }
    }

    /// <summary>How many operations of a page lie on the device.</summary>
    private static long StrokesHeld(Browser browser, Guid page) =>
        (long)
            browser.AsyncScript(
                """
                const [page, done] = arguments;
                indexedDB.databases().then((all) => {
                  indexedDB.open(all.find((one) => one.name.startsWith('calm-quill')).name).onsuccess = ({ target: { result: database } }) => {
                    database.transaction('documents').objectStore('documents').getAll().onsuccess = ({ target: { result: rows } }) => {
                      database.close();
                      done(rows.filter((row) => row.id.endsWith(page)).reduce((sum, row) => sum + row.sequence, 0));
                    };
                  };
                });
                """,
                page.ToString()
            )!;
}
