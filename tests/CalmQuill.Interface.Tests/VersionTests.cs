using System.Text.RegularExpressions;
using CalmQuill.Testing;
using OpenQA.Selenium;

namespace CalmQuill.Interface.Tests;

/// <summary>What a build of the application is served as, and how a newer one takes its place.</summary>
public sealed class VersionTests : InterfaceTest
{
    private readonly string served = CopyOfFrontEnd();

    protected override string FrontEnd => served;

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

    [Fact]
    public void A_newer_build_is_served_to_no_window_before_all_windows_have_taken_it()
    {
        var (browser, _) = Open(Group.Writer);
        WaitUntilKept(browser);
        var writing = browser.Driver.CurrentWindowHandle;
        browser.Driver.SwitchTo().NewWindow(WindowType.Window);
        var reading = browser.Driver.CurrentWindowHandle;
        browser.Go("/library");
        browser.Find("new-notebook");
        Deploy();
        // A reload gets what the other window runs, and says that there is more.
        browser.Driver.Navigate().Refresh();
        browser.Find("take-version");
        Assert.Equal(0, browser.Count(NewBuild));
        browser.Press("take-version");
        browser.Until(() => browser.Text("version-notice").Contains("another tab", StringComparison.Ordinal), "the wait for the other");
        browser.Driver.Navigate().Refresh();
        browser.Find("version-notice");
        Assert.Equal(0, browser.Count(NewBuild));
        // The window in which somebody writes hears of it, goes on as long as it likes, and loses nothing by it.
        browser.Driver.SwitchTo().Window(writing);
        browser.Find("take-version");
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        Assert.Equal(0, browser.Count(NewBuild));
        browser.Press("take-version");
        browser.Driver.SwitchTo().Window(reading);
        browser.Until(
            () =>
            {
                // It was drawn anew a moment ago, and has not agreed again.
                if (browser.Count("[data-testid=take-version]") == 1)
                    browser.Press("take-version");
                return browser.Count(NewBuild) == 1;
            },
            "the newer build in the window that reads"
        );
        browser.Driver.SwitchTo().Window(writing);
        browser.Until(() => browser.Count(NewBuild) == 1, "the newer build in the window that writes");
        browser.WaitForStrokes(2);
        browser.WaitForSync("All saved");
    }

    private const string NewBuild = "meta[name=build]";

    /// <summary>Lays the next build in the place of the one that is served: another first page, and a worker that names it.</summary>
    private void Deploy()
    {
        foreach (var packed in (string[])["index.html.br", "sw.js.br"])
            File.Delete(Path.Combine(served, packed));
        var first = Path.Combine(served, "index.html");
        File.WriteAllText(
            first,
            File.ReadAllText(first).Replace("<head>", "<head><meta name=\"build\" content=\"next\">", StringComparison.Ordinal)
        );
        var worker = Path.Combine(served, "sw.js");
        var before = File.ReadAllText(worker);
        var after = Regex.Replace(before, "(url:\"index\\.html\",revision:\")[0-9a-f]{32}", "$1abcdefabcdefabcdefabcdefabcdefab");
        Assert.NotEqual(before, after);
        File.WriteAllText(worker, after);
    }

    private static string CopyOfFrontEnd()
    {
        var folder = Directory.CreateTempSubdirectory("quill-front").FullName;
        foreach (var file in Directory.EnumerateFiles(Repository.FrontEnd, "*", SearchOption.AllDirectories))
        {
            var copy = Path.Combine(folder, Path.GetRelativePath(Repository.FrontEnd, file));
            Directory.CreateDirectory(Path.GetDirectoryName(copy)!);
            File.Copy(file, copy);
        }

        return folder;
    }
}
