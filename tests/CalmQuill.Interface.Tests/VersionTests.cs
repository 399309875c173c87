using System.Text.RegularExpressions;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>The application is replaced by a newer build while it is open.</summary>
public sealed partial class VersionTests : InterfaceTest
{
    private readonly string folder = Directory.CreateTempSubdirectory("quill-build").FullName;

    protected override string FrontEnd
    {
        get
        {
            if (!File.Exists(Path.Combine(folder, "index.html")))
                Copy(Repository.FrontEnd, folder);
            return folder;
        }
    }

    [Fact]
    public void A_newer_version_waits_until_every_window_agrees_and_then_all_have_it()
    {
        var (browser, _) = Open(Group.Writer);
        WaitUntilKept(browser);
        var first = browser.Driver.CurrentWindowHandle;
        browser.Driver.SwitchTo().NewWindow(WindowType.Window);
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        var second = browser.Driver.CurrentWindowHandle;

        Deploy();
        browser.AsyncScript(
            "const done = arguments[arguments.length - 1]; navigator.serviceWorker.getRegistration().then((one) => one.update()).then(() => done(true))"
        );
        browser.Find("take-version");
        // Until then every window is served the old build whole, also when it is loaded anew.
        browser.Driver.Navigate().Refresh();
        browser.WaitForStrokes(1);
        Assert.Equal(0, browser.Count("meta[name=build]"));
        browser.Press("take-version");
        browser.Until(
            () => browser.Text("version-notice").Contains("another tab", StringComparison.Ordinal),
            "the other window to be waited for"
        );
        Assert.Equal(0, browser.Count("meta[name=build]"));
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        browser.WaitForSync("All saved");

        browser.Driver.SwitchTo().Window(first);
        browser.Press("take-version");
        foreach (var window in new[] { first, second })
        {
            browser.Driver.SwitchTo().Window(window);
            browser.Until(() => browser.Count("meta[name=build]") == 1, "the newer build");
            browser.WaitForStrokes(2);
            Assert.Equal(0, browser.Count("[data-testid=version-notice]"));
        }
    }

    [Fact]
    public async Task Core_lies_in_a_folder_of_its_own_build_that_may_be_kept_for_ever()
    {
        var browser = OpenPage(Group.Writer);
        var core = (string)
            browser.Script(
                "return performance.getEntriesByType('resource').map((one) => new URL(one.name).pathname).find((one) => one.endsWith('dotnet.js'))"
            )!;
        Assert.Matches("^/assets/core-[0-9a-f]{12}/dotnet.js$", core);
        using var http = new HttpClient { BaseAddress = Host.Address };
        using var answer = await http.GetAsync(core);
        Assert.Contains("immutable", answer.Headers.CacheControl!.ToString(), StringComparison.Ordinal);
    }

    /// <summary>Another index page, and a worker that knows it.</summary>
    private void Deploy()
    {
        var index = Path.Combine(folder, "index.html");
        File.WriteAllText(
            index,
            File.ReadAllText(index).Replace("<head>", "<head><meta name=\"build\" content=\"next\" />", StringComparison.Ordinal)
        );
        var worker = Path.Combine(folder, "sw.js");
        var changed = Revision().Replace(File.ReadAllText(worker), "${head}0123456789abcdef0123456789abcdef");
        Assert.NotEqual(File.ReadAllText(worker), changed);
        File.WriteAllText(worker, changed);
        foreach (var packed in new[] { index, worker }.Select(file => file + ".br").Where(File.Exists))
            File.Delete(packed);
    }

    private static void Copy(string from, string to)
    {
        foreach (var directory in Directory.GetDirectories(from, "*", SearchOption.AllDirectories))
            Directory.CreateDirectory(directory.Replace(from, to, StringComparison.Ordinal));
        foreach (var file in Directory.GetFiles(from, "*", SearchOption.AllDirectories))
            File.Copy(file, file.Replace(from, to, StringComparison.Ordinal));
    }

    [GeneratedRegex("""(?<head>"?url"?:\s*"index\.html",\s*"?revision"?:\s*")[0-9a-f]{32}""")]
    private static partial Regex Revision();
}
