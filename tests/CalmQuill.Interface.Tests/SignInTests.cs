using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;
using CalmQuill.MailServer;
using CalmQuill.Testing;
using OtpNet;

namespace CalmQuill.Interface.Tests;

/// <summary>The ways in, and out, as a person takes them; and what a device does when its number is another's or the server is busy.</summary>
public sealed class SignInTests : InterfaceTest
{
    private readonly LetterBox letters = new(0);

    protected override CalmQuill.Server.Settings With(CalmQuill.Server.Settings settings) =>
        settings with
        {
            Mail = new Uri($"smtp://127.0.0.1:{letters.Port}"),
            OpenRegistration = true,
        };

    [Fact]
    public void A_second_factor_is_set_up_by_scanning_and_asked_for_and_a_device_is_ended()
    {
        var phone = AtDesk(Group.Writer).Browser;
        var laptop = Open(Group.Writer).Browser;
        laptop.Go("/account");
        laptop.Press("factor-begin");
        var totp = new Totp(Base32Encoding.ToBytes(laptop.Text("factor-secret")));
        laptop.Fill("[data-testid=factor-on] input[name=code]", totp.ComputeTotp());
        laptop.Fill("[data-testid=factor-on] input[name=password]", QuillHost.Password);
        laptop.PressCss("[data-testid=factor-on] button[type=submit]");
        var recovery = laptop.Until(
            () => laptop.Css("[data-testid=recovery-codes] li").Text is { Length: > 0 } code ? code : null,
            "the recovery codes"
        )!;
        laptop.PressCss("[data-testid=recovery-codes] button");
        laptop.Find("factor-off");

        // The other device is ended, notices it by itself, and asks for the code when it comes back.
        laptop.Until(() => laptop.Count("[data-testid=device]") == 2, "both devices");
        laptop.Press("end-device");
        laptop.Until(() => laptop.Count("[data-testid=device]") == 1, "one device");
        phone.Find("sign-in-form");
        // Once it has been told, nothing of the person is left on it.
        phone.Until(
            () =>
                phone.AsyncScript(
                    "const done = arguments[arguments.length - 1]; indexedDB.databases().then((all) => done(all.filter((one) => one.name.startsWith('calm-quill')).length))"
                )
                    is 0L,
            "an empty device"
        );
        phone.Fill("input[name=email]", Group.Writer.Email);
        phone.Fill("input[name=password]", QuillHost.Password);
        phone.Press("sign-in");
        phone.Fill("input[name=code]", "000000");
        phone.Press("sign-in");
        phone.Until(() => phone.Text("sign-in-problem").Contains("not right", StringComparison.Ordinal), "the refusal of a wrong code");
        phone.Fill("input[name=code]", recovery);
        phone.Press("sign-in");
        phone.Find("desk-heading");
    }

    [Fact]
    public async Task A_lock_that_somebody_puts_on_shuts_the_page_that_another_has_open()
    {
        var browser = OpenPage(Group.Writer);
        browser.WaitForSync("All saved");
        await Lock(Notebook);
        browser.Find("locked-pages");
        browser.Fill("[data-testid=secret]", Passphrase);
        browser.Press("lock-open");
        browser.WaitForStrokes(1);
    }

    [Fact]
    public void A_newcomer_registers_by_letter_and_a_forgotten_password_is_set_anew()
    {
        var browser = new Browser(Host.Address);
        using (browser)
        {
            browser.Go("/sign-in");
            browser.Press("toggle-register");
            browser.Fill("input[name=name]", "Nela Quist");
            browser.Fill("input[name=email]", "nela@test.example");
            browser.Fill("input[name=password]", "clockwork-9");
            browser.Press("sign-in");
            browser.Until(() => browser.Css("h1").Text == "We wrote to you", "what comes next");
            browser.Go(LinkTo("nela@test.example", 0));
            browser.Find("desk-heading");
            browser.Go("/account");
            browser.Press("sign-out");
            browser.Press("forgotten");
            browser.Fill("input[name=email]", "nela@test.example");
            browser.Press("sign-in");
            browser.Until(() => browser.Css("h1").Text == "We wrote to you", "what comes next");
            browser.Go(LinkTo("nela@test.example", 1));
            browser.Fill("input[name=password]", "clockwork-10");
            browser.Press("sign-in");
            browser.Press("to-sign-in");
            browser.Fill("input[name=email]", "nela@test.example");
            browser.Fill("input[name=password]", "clockwork-10");
            browser.Press("sign-in");
            browser.Find("desk-heading");
            // A link that was used says so.
            browser.Go(LinkTo("nela@test.example", 0));
            browser.Until(() => browser.Text("welcome-form").Contains("used already", StringComparison.Ordinal), "that the link was used");
        }
    }

    [Fact]
    public async Task A_device_whose_number_somebody_else_used_first_takes_another_and_loses_nothing()
    {
        var (browser, network) = Open(Group.Writer);
        WaitUntilKept(browser);
        // Opened again without a connection, it draws a number that the server has not heard of yet.
        network.Cut();
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        var number = Convert.ToUInt64(
            (string)
                browser.AsyncScript(
                    "globalThis.getDotnetRuntime(0).getAssemblyExports('CalmQuill.Core.Browser.dll').then((all) => arguments[0](all.CalmQuill.Core.Browser.DocumentBridge.Number()))"
                )!,
            16
        );
        for (var i = 0; i < 3; i++)
            browser.Wave(330, 260 + i * 60);
        browser.WaitForStrokes(4);
        browser.Press("undo");
        browser.WaitForStrokes(3);
        using (var thief = await Host.SignIn(Group.Owner))
        {
            var stolen = new Replica(number, Group.Owner.Id).Make(
                new Change.StrokeAdded(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(9)),
                DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()
            );
            Assert.Null(Assert.Single(await Caller.Results(await thief.Send(Group.Space, DocumentKind.Page, Guid.NewGuid(), stolen))).Code);
        }

        network.Mend();
        browser.WaitForSync("All saved");
        browser.WaitForStrokes(3);
        // What was undone can be redone, under the fresh number too; and what comes next is taken.
        browser.Press("redo");
        browser.WaitForStrokes(4);
        browser.Wave(330, 500);
        browser.WaitForStrokes(5);
        browser.WaitForSync("All saved");
        Assert.Equal(0, browser.Count("[data-testid=refused-notice]"));
        Assert.Equal(await StateOnServer(), StateOn(browser, Group.Writer));
        browser.Go(PagePath);
        browser.WaitForStrokes(5);
    }

    private string LinkTo(string address, int nth)
    {
        var letter = Until(() => letters.Arrived.Where(one => one.To == address).ElementAtOrDefault(nth));
        var at = letter.Text.IndexOf("http", StringComparison.Ordinal);
        var link = new Uri(new string([.. letter.Text[at..].TakeWhile(c => !char.IsWhiteSpace(c))]));
        return link.PathAndQuery + link.Fragment;
    }

    private static T Until<T>(Func<T?> find)
        where T : class
    {
        for (var clock = System.Diagnostics.Stopwatch.StartNew(); ; )
        {
            if (find() is { } found)
                return found;
            Assert.True(clock.Elapsed < TimeSpan.FromSeconds(20), "no letter came");
            Thread.Sleep(20);
        }
    }
}
