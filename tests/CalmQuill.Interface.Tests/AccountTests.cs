using CalmQuill.Testing;
using Microsoft.Extensions.DependencyInjection;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>The account and the group, as people use them: address and password, roles, and dialogues by keyboard.</summary>
public sealed class AccountTests : InterfaceTest
{
    [Fact]
    public void An_address_is_changed_with_the_password_and_signed_in_with_from_then_on()
    {
        var (browser, _) = AtDesk(Group.Writer);
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
        var (laptop, _) = AtDesk(Group.Writer);
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
        var (owner, _) = AtDesk(Group.Owner);
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

    [Fact]
    public async Task An_account_is_deleted_having_said_what_becomes_of_what_and_had_back_by_signing_in()
    {
        var writer = AtDesk(Group.Writer).Browser;
        writer.Go("/jot");
        writer.WaitForStrokes(0);
        writer.Wave(420, 300);
        writer.WaitForSync("All saved");
        var jot = new Uri(writer.Driver.Url).AbsolutePath;
        writer.Go("/account");
        writer.Press("delete-account");
        writer.Until(() => writer.Text("leaving-words").Contains("“Group” stays there", StringComparison.Ordinal), "what becomes of what");
        Assert.Contains("your own library with its notebook", writer.Text("leaving-words"), StringComparison.OrdinalIgnoreCase);
        Assert.Empty(writer.SeriousFindings());
        Assert.False(writer.Find("dialog-confirm").Enabled);
        writer.Fill("[role=dialog] [name=password]", "another-password");
        writer.Press("dialog-confirm");
        writer.Until(() => writer.Text("delete-problem").Contains("not right", StringComparison.Ordinal), "the refusal");
        writer.Fill("[role=dialog] [name=password]", QuillHost.Password);
        writer.Press("dialog-confirm");
        writer.Find("sign-in-form");
        Assert.Empty(
            (System.Collections.ICollection)
                writer.AsyncScript("indexedDB.databases().then((all) => arguments[0](all.map((one) => one.name)))")!
        );

        // Whoever signs in is asked, and finds all as it was.
        writer.Fill("input[name=email]", Group.Writer.Email);
        writer.Fill("input[name=password]", QuillHost.Password);
        writer.Press("sign-in");
        writer.Until(() => writer.Text("sign-in-problem").Contains("You deleted this account", StringComparison.Ordinal), "the question");
        writer.Press("sign-in");
        writer.Find("desk-heading");
        writer.Go(jot);
        writer.WaitForStrokes(1);
        Assert.Equal(
            Core.Access.Role.None,
            await Host.Services.GetRequiredService<Store.Spaces.SpaceStore>().RoleIn(Group.Space, Group.Writer.Id, default)
        );
    }

    [Fact]
    public void The_only_owner_is_led_to_the_group_that_has_to_be_handed_over_first()
    {
        var (owner, _) = Open(Group.Owner);
        owner.Go("/account");
        owner.Press("delete-account");
        owner.Find("hand-over-first");
        Assert.False(owner.Find("dialog-confirm").Enabled);
        owner.PressCss("[data-testid=hand-over-first] a");
        owner.Find("member");
    }

    [Fact]
    public void Everything_is_taken_along_in_one_file()
    {
        var (writer, network) = Open(Group.Writer);
        writer.Go("/account");
        writer.Press("take-groups");
        writer.Press("take-everything");
        var file = writer.TakeSavedFile(".zip");
        Assert.StartsWith("PK", file, StringComparison.Ordinal);
        Assert.Contains("Group/Escapements.pdf", file, StringComparison.Ordinal);
        network.Cut();
        writer.Press("take-everything");
        writer.Until(() => writer.Text("said").Contains("cannot be reached", StringComparison.Ordinal), "why nothing is made");
    }

    [Fact]
    public void Measures_and_times_are_told_alike_on_all_devices()
    {
        var (laptop, _) = Open(Group.Writer);
        laptop.Go("/account");
        laptop.PressCss("[data-testid=own-colour] [aria-label=madder]");
        laptop.Until(() => laptop.Count("[data-testid=own-colour] [aria-label=madder][aria-pressed=true]") == 1, "the colour");
        laptop.Press("unit-in");
        laptop.Press("week-sunday");
        LibraryHands.Choose(laptop, "zone", "Pacific/Kiritimati");
        // By .NET's own knowledge of zones (IANA): the first place in which a day begins.
        var there = TimeZoneInfo.ConvertTime(DateTimeOffset.UtcNow, TimeZoneInfo.FindSystemTimeZoneById("Pacific/Kiritimati"));
        laptop.Until(() => laptop.Text("zone-now").Contains($"{there:HH}:", StringComparison.Ordinal), "the hour there");
        Assert.Contains(there.DayOfWeek.ToString(), laptop.Text("zone-now"), StringComparison.Ordinal);
        laptop.WaitForSync("All saved");

        var (tablet, _) = Open(Group.Writer);
        tablet.Go("/account");
        tablet.Find("own-colour");
        Assert.Equal(1, tablet.Count("[data-testid=own-colour] [aria-label=madder][aria-pressed=true]"));
        tablet.Until(() => (string?)tablet.Script("return localStorage.getItem('quill.zone')") == "Pacific/Kiritimati", "the zone");
        Assert.Equal("in", tablet.Script("return localStorage.getItem('quill.unit')"));
        tablet.Go($"/planner/{Group.Space}");
        Assert.Equal("true", tablet.Attribute("planner-week-sunday", "aria-pressed"));
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
