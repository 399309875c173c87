using CalmQuill.Store.Groups;
using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>A group of one's own: made by somebody who has just come, the others let in, left, dissolved and had back.</summary>
public sealed class GroupFlowTests : InterfaceTest
{
    [Fact]
    public void A_newcomer_makes_a_group_sends_a_link_and_whoever_opens_it_without_an_account_writes_on_the_same_page()
    {
        var nela = AtDesk(Group.Stranger).Browser;
        nela.Find("first-steps");
        nela.Press("make-group");
        nela.Fill("[data-testid=name-input]", "Bell founders");
        nela.Press("dialog-confirm");
        // Straight on to inviting the others.
        nela.Find("invite-uses");
        nela.Fill("[data-testid=invite-uses]", "2");
        nela.Press("dialog-confirm");
        var link = nela.Attribute("copy-invitation", "data-link")!;
        nela.Press("show-code");
        nela.Until(() => nela.Text("large-code").Contains(link, StringComparison.Ordinal), "the link under its code");
        nela.Type(Keys.Escape);
        nela.Go($"/library/{new Uri(nela.Driver.Url).Segments[^1]}");
        nela.Press("new-notebook");
        nela.Fill("[data-testid=name-input]", "Castings");
        nela.Press("dialog-confirm");
        nela.WaitForStrokes(0);
        nela.WaitForSync("All saved");
        var page = new Uri(nela.Driver.Url).AbsolutePath;

        var juri = Visitor();
        juri.Go(PathOf(link));
        juri.Until(() => juri.Css("h1").Text.Contains("Bell founders", StringComparison.Ordinal), "which group it is");
        MakeAccount(juri, "Juri Onken", "juri@test.example");
        // In the group's library, where the notebook stands.
        juri.Until(
            () => juri.Css("[data-testid=notebook-row]").Text.Contains("Castings", StringComparison.Ordinal),
            "the group's notebook"
        );
        juri.Go(page);
        juri.WaitForStrokes(0);
        nela.Wave(420, 300);
        juri.WaitForStrokes(1);
        juri.Wave(420, 420);
        nela.WaitForStrokes(2);

        // What came by it is seen, and who.
        nela.Go("/group");
        nela.Until(() => nela.Count("[data-testid=member]") == 2, "both members");
        Assert.Contains("one came", nela.Text("invitation-card"), StringComparison.Ordinal);
        nela.Press("take-back-invitation");
        nela.Until(() => nela.Count("[data-testid=invitation-card]") == 0, "the invitation taken back");
        var late = Visitor();
        late.Go(PathOf(link));
        late.Until(() => late.Text("join-form").Contains("not there any more", StringComparison.Ordinal), "that there is none");
        Assert.Empty(nela.Errors());
        Assert.Empty(juri.Errors());
    }

    [Fact]
    public void By_name_it_stands_on_their_desk_and_whoever_asks_is_let_in_by_an_owner()
    {
        var owner = Open(Group.Owner).Browser;
        owner.Go($"/group/{Group.Space}?invite");
        owner.Press("invite-by-name");
        // Nobody of that name; what was typed stays to be mended.
        owner.Fill("[data-testid=invite-who]", "Somebody Else");
        owner.Press("dialog-confirm");
        owner.Until(() => owner.Text("invite-problem").Contains("Somebody Else", StringComparison.Ordinal), "the refusal");
        owner.Fill("[data-testid=invite-who]", "None Person");
        owner.Press("invite-reader");
        owner.Press("dialog-confirm");
        owner.Until(() => owner.Count("[data-testid=invitation-card]") == 1, "the invitation");

        var stranger = Open(Group.Stranger).Browser;
        stranger.Go("/desk");
        Assert.Contains("Owner Person", stranger.Text("invited"), StringComparison.Ordinal);
        stranger.Press("invited-yes");
        stranger.Until(
            () => stranger.Css("[data-testid=notebook-row]").Text.Contains("Escapements", StringComparison.Ordinal),
            "the library"
        );
        stranger.Go(PagePath);
        stranger.WaitForStrokes(1);
        // A reader leaves again, and the notebook leaves the device.
        stranger.Go($"/group/{Group.Space}");
        stranger.Press("group-menu");
        stranger.Press("group-leave");
        Assert.Equal(0, stranger.Count("[data-testid=group-dissolve]"));
        stranger.Press("dialog-confirm");
        stranger.Find("no-group");
        stranger.Until(
            () => HeldOf(stranger, Group.Stranger) == "outlines 0, documents 0, operations 0",
            "nothing of the group on the device"
        );

        owner.Go($"/group/{Group.Space}?invite");
        owner.Press("invite-asks");
        owner.Press("dialog-confirm");
        var link = owner.Attribute("copy-invitation", "data-link")!;
        stranger.Go(PathOf(link));
        stranger.Press("sign-in");
        stranger.Find("join-asked");
        owner.Until(() => owner.Count("[data-testid=asking]") == 1, "who asks");
        owner.Press("asking-yes");
        stranger.Go("/group");
        stranger.Until(() => stranger.Count("[data-testid=member]") == 4, "the group again");
        Assert.DoesNotContain(owner.Errors(), line => !line.Contains("400", StringComparison.Ordinal));
    }

    [Fact]
    public void A_group_that_is_dissolved_leaves_every_device_and_can_be_had_back_with_all_that_was_in_it()
    {
        var owner = OpenPage(Group.Owner);
        var writer = OpenPage(Group.Writer);
        owner.Go($"/group/{Group.Space}");
        owner.Press("group-menu");
        owner.Press("group-look");
        owner.Fill("[data-testid=name-input]", "Clock menders");
        owner.Press("dialog-confirm");
        owner.Until(() => owner.Css("h1").Text.Contains("Clock menders", StringComparison.Ordinal), "its new name");
        // The last owner is offered no other role, and others may be taken out.
        Assert.Equal(2, owner.Count("[data-testid=member] select"));
        owner.Press("group-menu");
        owner.Press("group-dissolve");
        owner.Press("dialog-confirm");
        Assert.Contains("Clock menders", owner.Text("dissolved-group"), StringComparison.Ordinal);
        writer.Until(() => writer.Count("[data-testid=sheet]") == 0, "the page gone from who had it open");
        writer.Until(() => HeldOf(writer, Group.Writer) == "outlines 0, documents 0, operations 0", "it gone from their device");

        // Whoever is in another group finds it there as well.
        owner.Press("make-group");
        owner.Fill("[data-testid=name-input]", "Bell founders");
        owner.Press("dialog-confirm");
        owner.Find("invite-uses");
        owner.Type(Keys.Escape);
        Assert.Contains("Clock menders", owner.Text("dissolved-group"), StringComparison.Ordinal);
        owner.Press("have-group-back");
        owner.Until(() => owner.Count("[data-testid=member]") == 3, "all of them back");
        writer.Go(PagePath);
        writer.WaitForStrokes(1);
        writer.Wave(420, 300);
        writer.WaitForStrokes(2);
        writer.WaitForSync("All saved");
        owner.Go(PagePath);
        owner.WaitForStrokes(2);
        Assert.Empty(owner.Errors());
    }

    [Fact]
    public async Task After_its_last_day_the_owners_are_asked_and_handing_over_makes_somebody_else_the_owner()
    {
        await Host
            .Services.GetRequiredService<InvitationStore>()
            .WriteLink(
                Group.Space,
                Group.Owner.Id,
                new Core.Access.Invitation(Core.Access.Role.Writer, 3, 14, false),
                null,
                "an-old-one",
                [1],
                "",
                false,
                DateTimeOffset.UtcNow.AddDays(-15),
                default
            );
        // Somebody signed out who has an account signs in on the way.
        var visitor = Visitor();
        visitor.Go("/join#group=an-old-one");
        visitor.Press("to-sign-in");
        visitor.Fill("[name=email]", Group.Stranger.Email);
        visitor.Fill("[name=password]", QuillHost.Password);
        visitor.Press("sign-in");
        visitor.Until(() => visitor.Text("join-form").Contains("Owner Person", StringComparison.Ordinal), "the invitation again");
        visitor.Press("sign-in");
        visitor.Until(() => visitor.Text("sign-in-problem").Contains("last day", StringComparison.Ordinal), "that it is over");
        visitor.Press("sign-in");
        visitor.Find("join-asked");

        var owner = Open(Group.Owner).Browser;
        owner.Go("/desk");
        owner.Press("asking-no");
        owner.Until(() => owner.Count("[data-testid=asking]") == 0, "the answer");
        owner.Go($"/group/{Group.Space}");
        owner.Until(() => owner.Count("[data-testid=member]") == 3, "nobody new");
        owner.Press("group-menu");
        owner.Press("group-hand-over");
        owner.PressNth("heir", 0);
        owner.Press("dialog-confirm");
        owner.Until(() => owner.Count("[data-testid=invite-people]") == 0, "no owner any more");
        Assert.Equal(0, owner.Count("[data-testid=member] select"));
        owner.Press("group-menu");
        owner.Find("group-leave");
        Assert.Equal(0, owner.Count("[data-testid=group-dissolve]"));
    }

    private static string PathOf(string link) => link[link.IndexOf("/join", StringComparison.Ordinal)..];
}
