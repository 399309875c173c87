using System.Collections.Concurrent;
using System.Globalization;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Assets;
using CalmQuill.Testing;
using Microsoft.AspNetCore.Hosting;
using Microsoft.Extensions.DependencyInjection;
using OpenQA.Selenium;
using static CalmQuill.Interface.Tests.LibraryHands;

namespace CalmQuill.Interface.Tests;

/// <summary>Pictures of one's own, with and without a connection, and before they are there.</summary>
public sealed class AssetFlowTests : InterfaceTest
{
    private readonly FaultInjector faults = new();

    protected override void Services(IServiceCollection services) => services.AddSingleton<IStartupFilter>(faults);

    private const string CoverPicture = "[data-testid=notebook-row][data-name=Escapements] svg[aria-label^=Cover] image";

    [Fact]
    public async Task A_cover_chosen_without_a_connection_is_shown_kept_and_sent_without_where_it_was_taken()
    {
        // Not so small that it would go through in one breath, and saying where it was taken.
        var plain = MadePictures.Png(900, 700);
        byte[] talking = [.. plain.AsSpan(0, 33), .. MadePictures.PngChunk("tEXt", [.. "GPS\0 47.37 N 8.54 E"u8]), .. plain.AsSpan(33)];
        var file = Path.Combine(Directory.CreateTempSubdirectory("quill-cover").FullName, "Window.png");
        await File.WriteAllBytesAsync(file, talking);
        var (browser, network) = Open(Group.Writer);
        WaitUntilKept(browser);
        browser.Go("/library");
        Row(browser, "Escapements");
        network.Cut();
        Choose(browser, file);
        browser.Until(() => IsShown(browser), "the cover, from the device");
        browser.WaitForSync("1 picture waiting for a connection");

        // It lives through a reload without a connection.
        browser.Driver.Navigate().Refresh();
        Row(browser, "Escapements");
        browser.Until(() => IsShown(browser), "the cover after a reload");
        network.Mend();
        browser.WaitForSync("All saved");
        var assets = Host.Services.GetRequiredService<AssetStore>();
        var kept = await assets.Find(AssetId.Of(plain), Group.Space, CancellationToken.None);
        Assert.Equal(plain, kept!.Bytes);

        // Others see it, too.
        var other = Open(Group.Owner).Browser;
        other.Go("/library");
        Row(other, "Escapements");
        other.Until(() => IsShown(other), "the cover, from the server");
        Assert.Empty(other.Errors());
    }

    [Fact]
    public async Task A_picture_larger_than_a_piece_goes_on_where_the_connection_broke()
    {
        // Noise does not pack: three pieces and a bit.
        var picture = MadePictures.PngOf(900, 900, new Random(7));
        Assert.True(picture.Length > 3 * 1024 * 1024);
        var file = Path.Combine(Directory.CreateTempSubdirectory("quill-cover").FullName, "Noise.png");
        await File.WriteAllBytesAsync(file, picture);
        var pieces = new ConcurrentQueue<string>();
        faults.Answer = http =>
        {
            if (http.Request.Method != "PUT" || !http.Request.Path.Value!.Contains("/pieces/", StringComparison.Ordinal))
                return null;
            pieces.Enqueue(http.Request.Path.Value.Split('/')[^1]);
            // The third is cut off by a proxy that has no server behind it.
            return pieces.Count == 3 ? 502 : null;
        };
        var browser = Open(Group.Writer).Browser;
        browser.Go("/library");
        Row(browser, "Escapements");
        Choose(browser, file);
        browser.WaitForSync("All saved");
        const int Piece = 1024 * 1024;
        Assert.Equal([0, Piece, 2 * Piece, 2 * Piece, 3 * Piece], pieces.Select(at => int.Parse(at, CultureInfo.InvariantCulture)));
        var assets = Host.Services.GetRequiredService<AssetStore>();
        Assert.Equal(picture, (await assets.Find(AssetId.Of(picture), Group.Space, CancellationToken.None))!.Bytes);
    }

    [Fact]
    public async Task A_picture_that_was_not_sent_waits_for_the_person_to_sign_in_again()
    {
        var picture = MadePictures.Png(60, 60);
        var file = Path.Combine(Directory.CreateTempSubdirectory("quill-cover").FullName, "Small.png");
        await File.WriteAllBytesAsync(file, picture);
        faults.Answer = http => http.Request.Path.Value!.Contains("/pieces/", StringComparison.Ordinal) ? 503 : null;
        var (browser, _) = Open(Group.Writer);
        browser.Go("/library");
        Row(browser, "Escapements");
        Choose(browser, file);
        browser.Until(() => IsShown(browser), "the cover");
        browser.Go("/account");
        browser.Press("sign-out");
        Assert.Contains("1 change", browser.Text("unsent-words"), StringComparison.Ordinal);
        browser.Press("leave-keeping");
        browser.Until(() => browser.Driver.Url.EndsWith("/sign-in", StringComparison.Ordinal), "to be signed out");
        faults.Answer = null;
        browser.SignIn(Group.Writer.Email, QuillHost.Password);
        browser.WaitForSync("All saved");
        var assets = Host.Services.GetRequiredService<AssetStore>();
        Assert.Equal(picture, (await assets.Find(AssetId.Of(picture), Group.Space, CancellationToken.None))!.Bytes);
    }

    [Fact]
    public async Task A_picture_that_is_named_before_it_has_come_is_shown_when_it_has()
    {
        var picture = MadePictures.Png(40, 50);
        var library = new Replica(77, Group.Writer.Id);
        var caller = await Host.SignIn(Group.Writer);
        var browser = Open(Group.Owner).Browser;
        browser.Go("/library");
        Row(browser, "Escapements");
        var notebook = Notebook;
        await caller.Send(
            Group.Space,
            DocumentKind.Library,
            Group.Space,
            library.Make(
                new Change.PropertySet(notebook, Property.Source, AssetId.Of(picture).ToString()),
                DateTimeOffset.UtcNow.ToUnixTimeMilliseconds()
            )
        );
        // The pattern goes at once: the picture is what counts from now on.
        browser.Until(
            () => browser.Count("[data-testid=notebook-row][data-name=Escapements] svg[aria-label^=Cover] path") == 0,
            "no pattern any more"
        );
        Assert.False(IsShown(browser));
        await caller.SendAsset(Group.Space, picture);
        browser.Until(() => IsShown(browser), "the cover once it has come");
    }

    private static void Choose(Browser browser, string file)
    {
        browser.Press("row-menu");
        browser.Press("menu-look");
        browser.Find("cover-picture");
        browser.Driver.FindElement(By.CssSelector("input[aria-label='Picture for the cover']")).SendKeys(file);
        browser.Until(() => browser.Attribute("cover-picture", "aria-pressed") == "true", "the picture to be chosen");
        browser.Press("dialog-confirm");
    }

    /// <summary>Whether the cover's picture is there, and can be read as one.</summary>
    private static bool IsShown(Browser browser) =>
        browser.AsyncScript(
            $$"""
            const done = arguments[0];
            const address = document.querySelector("{{CoverPicture}}")?.getAttribute('href');
            if (!address) done(false);
            else Object.assign(new Image(), { onload: () => done(true), onerror: () => done(false), src: address });
            """
        )
            is true;
}
