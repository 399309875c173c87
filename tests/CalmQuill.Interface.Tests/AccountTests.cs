using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>The account and the group, as people use them: address and password, roles, and dialogues by keyboard.</summary>
public sealed class AccountTests : InterfaceTest
{
    [Fact]
    public void An_address_is_changed_with_the_password_and_signed_in_with_from_then_on()
    {
        var (browser, _) = Open(Group.Writer);
        browser.ByRail("[data-testid=account-link]");
        Change(browser, "email-form", ("email", "new@test.example"), ("password", "not-the-password"));
        Said(browser, "email-form", "alert", "is not your password");
        Change(browser, "email-form", ("email", "no address"), ("password", QuillHost.Password));
        Change(browser, "email-form", ("email", Group.Owner.Email), ("password", QuillHost.Password));
        Said(browser, "email-form", "alert", "already");
        Change(browser, "email-form", ("email", "new@test.example"), ("password", QuillHost.Password));
        Said(browser, "email-form", "status", "changed");
        browser.Press("sign-out");
        browser.Find("sign-in-form");
        browser.SignIn("new@test.example", QuillHost.Password);
    }

    [Fact]
    public void A_new_password_ends_the_other_devices_and_they_forget_what_they_held()
    {
        var (laptop, _) = Open(Group.Writer);
        var (tablet, _) = Open(Group.Writer);
        tablet.Go(PagePath);
        tablet.WaitForStrokes(1);
        tablet.WaitForSync("All saved");
        laptop.ByRail("[data-testid=account-link]");
        Change(laptop, "password-form", ("old", "wrong-one"), ("new", "another-password"));
        Said(laptop, "password-form", "alert", "not right");
        Change(laptop, "password-form", ("old", QuillHost.Password), ("new", "short"));
        Said(laptop, "password-form", "alert", "at least 8");
        Change(laptop, "password-form", ("old", QuillHost.Password), ("new", "another-password"));
        Said(laptop, "password-form", "status", "changed");
        // The tablet is told by the live connection that ends.
        tablet.Find("sign-in-form");
        Assert.Equal(0, tablet.Count("[data-testid=sheet]"));
        Assert.Equal(0, tablet.Count("[data-testid=left-behind]"));
        tablet.SignIn(Group.Writer.Email, "another-password");
        tablet.Go(PagePath);
        tablet.WaitForStrokes(1);
    }

    [Fact]
    public void An_owner_makes_a_writer_a_reader_and_the_open_page_lets_go_of_its_pens()
    {
        var (owner, _) = Open(Group.Owner);
        var writer = OpenPage(Group.Writer);
        writer.Find("pen-tray");
        owner.Go($"/group/{Group.Space}");
        Role(owner, "Writer Person", "reader");
        writer.Until(
            () =>
            {
                writer.Driver.Navigate().Refresh();
                writer.WaitForStrokes(1);
                return writer.Count("[data-testid=pen-tray]") == 0;
            },
            "the page without pens"
        );
        // What is written all the same, by a tab that does not know yet, is refused and not lost.
        Role(owner, "Writer Person", "writer");
        writer.Until(
            () =>
            {
                writer.Driver.Navigate().Refresh();
                writer.WaitForStrokes(1);
                return writer.Count("[data-testid=pen-tray]") == 1;
            },
            "the pens to be back"
        );
        writer.Wave(420, 300);
        writer.WaitForSync("All saved");
        // The last owner stays one, and is offered nothing else.
        Assert.Equal(2, owner.Count("[data-testid=member] select"));
        Assert.Equal(0, owner.Count("select[aria-label='Role of Owner Person']"));
    }

    [Fact]
    public void A_writer_who_became_a_reader_while_cut_off_finds_what_was_refused_and_can_save_it()
    {
        var (owner, _) = Open(Group.Owner);
        var (writer, network) = Open(Group.Writer);
        writer.Go(PagePath);
        writer.WaitForStrokes(1);
        writer.WaitForSync("All saved");
        network.Cut();
        writer.Wave(420, 300);
        writer.WaitForStrokes(2);
        owner.Go($"/group/{Group.Space}");
        Role(owner, "Writer Person", "reader");
        network.Mend();
        writer.Press("show-refused");
        Assert.Contains("may read here, but not write", writer.Find("refused-list").Text, StringComparison.Ordinal);
        writer.WaitForStrokes(1);
        writer.Press("refused-copy");
        writer.Until(() => writer.Text("refused-said").Contains("Copied", StringComparison.Ordinal), "the copy");
        // It can be laid down where one may write: on a page of one's own.
        writer.Type(Keys.Escape);
        writer.Go("/jot");
        writer.WaitForStrokes(0);
        writer.TypeWithControl("v");
        writer.WaitForStrokes(1);
        writer.Until(() => writer.Count("[data-testid=refused-notice]") == 1, "the notice until it is let go");
    }

    [Fact]
    public void Dialogues_take_the_focus_keep_it_and_give_it_back()
    {
        var (browser, _) = Open(Group.Writer);
        browser.Go($"/library/{Group.Space}");
        browser.Find("new-notebook").SendKeys(Keys.Enter);
        browser.Until(
            () => (bool)browser.Script("return document.activeElement.closest('[role=dialog]') !== null")!,
            "the focus in the dialogue"
        );
        for (var i = 0; i < 40; i++)
        {
            browser.Type(Keys.Tab);
            Assert.True(
                (bool)
                    browser.Script(
                        "return document.activeElement === document.body || document.activeElement.closest('[role=dialog]') !== null"
                    )!,
                $"the focus left the dialogue after {i + 1} steps"
            );
        }

        browser.Type(Keys.Escape);
        browser.Until(() => browser.Count("[role=dialog]") == 0, "no dialogue");
        Assert.Equal("new-notebook", browser.Script("return document.activeElement.dataset.testid"));
    }

    private static void Change(Browser browser, string form, params (string Name, string Value)[] fields)
    {
        foreach (var (name, value) in fields)
            browser.Fill($"[data-testid={form}] input[name={name}]", value);
        browser.PressCss($"[data-testid={form}] button[type=submit]");
    }

    private static void Said(Browser browser, string form, string role, string words) =>
        browser.Until(
            () => browser.Css($"[data-testid={form}] [role={role}]").Text.Contains(words, StringComparison.OrdinalIgnoreCase),
            $"“{words}”, it says “{browser.Css($"[data-testid={form}]").Text}”"
        );

    private static void Role(Browser browser, string member, string role)
    {
        browser.PressCss($"select[aria-label='Role of {member}'] option[value='{role}']");
    }
}
