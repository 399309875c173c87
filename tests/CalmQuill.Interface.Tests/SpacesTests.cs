using CalmQuill.Core.Access;
using CalmQuill.Store.Spaces;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;
using static CalmQuill.Interface.Tests.LibraryHands;

namespace CalmQuill.Interface.Tests;

/// <summary>Spaces that a person comes into, and leaves, while the application is open.</summary>
public sealed class SpacesTests : InterfaceTest
{
    private SpaceStore Spaces => Host.Services.GetRequiredService<SpaceStore>();

    [Fact]
    public async Task A_group_that_one_is_taken_into_is_there_without_a_reload_and_can_be_written_in()
    {
        var browser = Open(Group.Writer).Browser;
        browser.Go("/library");
        Row(browser, "Escapements");
        browser.Script("window.stayed = true");
        var founders = Guid.NewGuid();
        await Spaces.MakeGroup(founders, "Bell founders", CancellationToken.None);
        Assert.True(await Spaces.SetRole(founders, Group.Owner.Id, Role.Owner, CancellationToken.None));
        Assert.True(await Spaces.SetRole(founders, Group.Writer.Id, Role.Writer, CancellationToken.None));
        browser.PressCss($"a[href='/library/{founders}']");
        browser.Until(() => browser.Driver.Url.EndsWith($"/library/{founders}", StringComparison.Ordinal), "its library");
        browser.Press("new-notebook");
        browser.Fill("[data-testid=name-input]", "Strike notes");
        browser.Press("dialog-confirm");
        browser.WaitForStrokes(0);
        browser.WaitForSync("All saved");
        browser.Until(() => browser.Driver.Url.Contains(founders.ToString(), StringComparison.Ordinal), "its first page");
        Assert.True((bool)browser.Script("return window.stayed")!);
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public async Task A_group_that_one_is_taken_out_of_leaves_the_screen_and_the_device_but_not_what_was_never_sent()
    {
        var (browser, network) = Open(Group.Writer);
        WaitUntilKept(browser);
        network.Cut();
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        browser.WaitForSync("waiting for a connection");
        Assert.True(await Spaces.SetRole(Group.Space, Group.Writer.Id, Role.None, CancellationToken.None));
        network.Mend();
        browser.Until(
            () => browser.Css("main").Text.Contains("nothing here that you may see", StringComparison.Ordinal),
            "the page to be gone"
        );
        browser.Until(
            () => HeldOf(browser, Group.Writer) == "outlines 0, documents 0, operations 0",
            $"it to be gone from the device, where {HeldOf(browser, Group.Writer)}"
        );
        // The stroke is refused, and kept for the person to save.
        browser.Until(() => CountIn(browser, "refused") == 1, "the stroke among what was refused");
        browser.Find("show-refused");

        // Taken in again, one finds all that the group has.
        Assert.True(await Spaces.SetRole(Group.Space, Group.Writer.Id, Role.Writer, CancellationToken.None));
        browser.WaitForStrokes(1);
    }
}
