using System.Net.Http.Json;
using CalmQuill.Core.Access;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace CalmQuill.Interface.Tests;

/// <summary>Sharing less than everything, as those see it who give and those who are given.</summary>
public sealed class ShareFlowTests : InterfaceTest
{
    [Fact]
    public void A_notebook_shared_with_a_person_is_written_in_together_read_offline_and_gone_when_it_is_taken_back()
    {
        var owner = Open(Group.Owner).Browser;
        var (guest, network) = Open(Group.Stranger);
        guest.Go("/library/list/given");
        guest.Until(() => guest.Css("h1").Text == "Shared with me" && guest.Count("[data-testid=shared-thing]") == 0, "nothing yet");

        owner.Go($"/library/{Group.Space}");
        owner.PressCss("[data-name=Escapements] [data-testid=row-menu]");
        owner.Press("menu-share");
        // Nobody of that name; what was typed stays to be mended.
        owner.Fill("[data-testid=share-who]", "Somebody Else");
        owner.Press("dialog-confirm");
        owner.Until(() => owner.Text("share-problem").Contains("Somebody Else", StringComparison.Ordinal), "the refusal");
        owner.Fill("[data-testid=share-who]", Group.Stranger.Name);
        owner.Press("share-writes");
        owner.Press("dialog-confirm");
        owner.Until(() => owner.Count("[data-testid=share-who]") == 0, "the dialogue closed");

        // Without being told to look: it stands there, and who gave it.
        guest.Until(() => guest.Count("[data-testid=shared-notebook]") == 1, "the notebook");
        Assert.Contains(Group.Owner.Name, guest.Text("shared-thing"), StringComparison.Ordinal);
        Assert.Contains("read and write", guest.Text("shared-thing"), StringComparison.Ordinal);
        guest.Press("open-shared");
        guest.WaitForStrokes(1);
        var writer = OpenPage(Group.Writer);
        guest.Wave(420, 300);
        writer.WaitForStrokes(2);
        writer.Wave(420, 420);
        guest.WaitForStrokes(3);
        guest.WaitForSync("All saved");
        // Whose ink it is, both see: who is in the library by name, who is not by theirs.
        writer.Until(() => writer.Count("[data-testid=present] > *") == 2, "both of them here");
        guest.Until(() => guest.Count("[data-testid=present] > *") == 2, "both of them here");

        // It is there without a connection, and what is written then arrives.
        network.Cut();
        guest.Go("/library/list/given");
        guest.Press("open-shared");
        guest.WaitForStrokes(3);
        guest.Wave(420, 540);
        guest.WaitForStrokes(4);
        network.Mend();
        writer.WaitForStrokes(4);

        // Nothing is offered that would be refused.
        guest.Press("export");
        guest.Find("copy-page-link");
        Assert.Equal(0, guest.Count("[data-testid=share-here], [data-testid=invite-here]"));
        guest.Type(OpenQA.Selenium.Keys.Escape);

        owner.Go("/library/list/given");
        Assert.Contains(Group.Stranger.Name, owner.Text("given-share"), StringComparison.Ordinal);
        owner.Press("take-share-back");
        owner.Until(() => owner.Count("[data-testid=given-share]") == 0, "it taken back");
        guest.Until(() => guest.Count("[data-testid=sheet]") == 0, "the page gone from who had it open");
        guest.Until(() => HeldOf(guest, Group.Stranger) == "outlines 0, documents 0, operations 0", "nothing of it on the device");
        Assert.Empty(writer.Errors());
        Assert.DoesNotContain(owner.Errors(), line => !line.Contains("400", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_page_that_is_moved_out_of_what_was_shared_leaves_the_guests_device()
    {
        await Host
            .Services.GetRequiredService<Store.Sharing.ShareStore>()
            .Make(
                new(Group.Space, Notebook, null, ShareWith.Person, Group.Stranger.Id, null, null, false, false, Group.Owner.Id, null),
                default
            );
        var guest = Open(Group.Stranger).Browser;
        guest.Go(PagePath);
        guest.WaitForStrokes(1);
        WaitUntilKept(guest);
        guest.Until(() => PagesHeld(guest).Length > 0, "the page on the device");
        using var owner = await Host.SignIn(Group.Owner);
        var (device, other, now) = (new Replica(8, Group.Owner.Id), Guid.NewGuid(), DateTimeOffset.UtcNow.ToUnixTimeMilliseconds());
        await owner.Send(
            Group.Space,
            DocumentKind.Library,
            Group.Space,
            device.Make(new Change.NodePlaced(other, NodeKind.Notebook, Guid.Empty, "W"), now)
        );
        await owner.Send(Group.Space, DocumentKind.Notebook, other, device.Make(new Change.PageAdded(Page, "V", "a4-ruled-710"), now));
        await owner.Send(
            Group.Space,
            DocumentKind.Notebook,
            Notebook,
            device.Make(new Change.PropertySet(Page, Property.MovedTo, other.ToString()), now)
        );
        // Where it was open there is nothing any more, and of its ink nothing is kept; the notebook stays.
        guest.Until(() => guest.Strokes() != 1, "the page gone from the screen");
        guest.Until(() => PagesHeld(guest) is [], "the page gone from the device");
        guest.Go("/library/list/given");
        guest.Press("open-shared");
        guest.WaitForStrokes(0);
    }

    [Fact]
    public async Task What_is_taken_back_while_a_device_that_was_opened_without_a_connection_is_away_goes_once_it_is_back()
    {
        var shares = Host.Services.GetRequiredService<Store.Sharing.ShareStore>();
        await shares.Make(
            new(Group.Space, Notebook, null, ShareWith.Person, Group.Stranger.Id, null, null, true, false, Group.Owner.Id, null),
            default
        );
        var (guest, network) = Open(Group.Stranger);
        WaitUntilKept(guest);
        guest.Until(() => HeldOf(guest, Group.Stranger) != "outlines 0, documents 0, operations 0", "the notebook on the device");
        network.Cut();
        guest.Driver.Navigate().Refresh();
        guest.WaitForStrokes(1);
        using var owner = await Host.SignIn(Group.Owner);
        var path = $"/api/spaces/{Group.Space}/shares";
        var share = (await owner.Http.GetFromJsonAsync<System.Text.Json.JsonElement>(path)).EnumerateArray().Single();
        (await owner.Http.DeleteAsync($"{path}/{share.GetProperty("id").GetGuid()}")).EnsureSuccessStatusCode();
        network.Mend();
        guest.Until(() => guest.Count("[data-testid=sheet]") == 0, "the page gone from the screen");
        guest.Until(() => HeldOf(guest, Group.Stranger) == "outlines 0, documents 0, operations 0", "nothing of it on the device");
    }

    /// <summary>The pages of which the device holds anything.</summary>
    private string[] PagesHeld(Browser browser) =>
        [
            .. (
                (IEnumerable<object>)
                    browser.AsyncScript(
                        """
                        const [person, page, done] = arguments;
                        indexedDB.open('calm-quill-' + person).onsuccess = ({ target: { result: database } }) =>
                          (database.transaction('operations').objectStore('operations').getAll().onsuccess = ({ target }) => {
                            database.close();
                            done(target.result.map((row) => row.document).filter((address) => address.endsWith(page)));
                          });
                        """,
                        Group.Stranger.Id.ToString(),
                        Page.ToString()
                    )!
            ).Select(address => (string)address),
        ];

    [Fact]
    public void A_page_is_shown_to_everybody_without_an_account_until_it_is_taken_back()
    {
        var owner = OpenPage(Group.Owner);
        owner.Press("export");
        owner.Press("share-here");
        owner.Find("share-only-page");
        owner.Press("share-copies");
        owner.Press("dialog-confirm");
        var address = owner.Text("made-link");

        var nobody = Visitor();
        nobody.Go(address[address.IndexOf("/open", StringComparison.Ordinal)..]);
        Assert.Equal("Escapements", nobody.Text("open-name"));
        nobody.Until(() => nobody.Count("[data-testid=open-page] img") == 1, "the page");
        nobody.Until(
            () => nobody.Script("return document.querySelector('[data-testid=open-page] img').naturalWidth > 0") is true,
            "its picture"
        );
        nobody.Press("save-copy");
        Assert.StartsWith("%PDF", nobody.TakeSavedFile(".pdf")[..4], StringComparison.Ordinal);
        Assert.Empty(nobody.Errors());

        owner.Go("/library/list/given");
        owner.Press("show-share-link");
        Assert.Equal(address, owner.Text("made-link"));
        owner.Type(OpenQA.Selenium.Keys.Escape);
        owner.Press("take-share-back");
        owner.Until(() => owner.Count("[data-testid=given-share]") == 0, "it taken back");
        nobody.Driver.Navigate().Refresh();
        nobody.Find("open-nothing");
    }

    [Fact]
    public void By_a_link_with_a_passphrase_somebody_makes_an_account_and_reads_and_lets_go_of_it()
    {
        var owner = OpenPage(Group.Owner);
        owner.Press("export");
        owner.Press("share-here");
        owner.Press("share-link");
        owner.Fill("[data-testid=share-passphrase]", "verge and foliot");
        owner.Fill("[data-testid=share-days]", "7");
        owner.Press("dialog-confirm");
        var link = owner.Text("made-link");

        var nela = Visitor();
        nela.Go(link[link.IndexOf("/join", StringComparison.Ordinal)..]);
        nela.Fill("[name=passphrase]", "verge");
        nela.Press("sign-in");
        nela.Until(() => nela.Text("sign-in-problem").Length > 0, "that it is another");
        nela.Fill("[name=passphrase]", "verge and foliot");
        nela.Press("sign-in");
        nela.Until(() => nela.Css("h1").Text.Contains("Escapements", StringComparison.Ordinal), "what it is");
        MakeAccount(nela, "Nela Harms", "nela@test.example");
        nela.Press("open-shared");
        nela.WaitForStrokes(1);
        // Only to read.
        nela.Wave(420, 300);
        Assert.Equal(1, nela.Strokes());
        nela.Go("/library/list/given");
        nela.Press("let-go");
        nela.Press("dialog-confirm");
        nela.Until(() => nela.Count("[data-testid=shared-thing]") == 0, "it let go");
        Assert.DoesNotContain(nela.Errors(), line => !line.Contains("401", StringComparison.Ordinal));
    }
}
