using CalmQuill.Core.Items;
using CalmQuill.Testing;

namespace CalmQuill.Interface.Tests;

/// <summary>Files that are kept with a page, as people put them in and have them back.</summary>
public sealed class FileFlowTests : InterfaceTest
{
    private readonly string folder = Directory.CreateTempSubdirectory("quill-files").FullName;

    [Fact]
    public void A_file_is_put_in_without_a_connection_and_another_has_it_back_byte_by_byte()
    {
        var (browser, network) = Open(Group.Writer);
        WaitUntilKept(browser);
        network.Cut();
        var bytes = new byte[70_000];
        new Random(7).NextBytes(bytes);
        browser.Press("tool-put");
        browser.Find("put-panel");
        PageHands.ChooseFile(browser, "put-any", Made("wheel count.bin", bytes));
        browser.WaitForStrokes(2);
        var file = FileOn(browser);
        Assert.Equal(("wheel count.bin", 70_000), (file.Name, file.Size));
        Assert.Equal("1", browser.Attribute("selection", "data-items"));
        Assert.Empty(browser.SeriousFindings());
        network.Mend();
        browser.WaitForSync("All saved");

        var other = OpenPage(Group.Owner, 2);
        var (left, top, right, bottom) = FileOn(other, Group.Owner).Bounds;
        // Whoever reads presses on it; here what the browser is given to save is looked at.
        other.Script(
            """
            globalThis.saved = [];
            const make = URL.createObjectURL;
            URL.createObjectURL = (blob) => { const address = make.call(URL, blob); globalThis.saved.push(blob); return address; };
            HTMLAnchorElement.prototype.click = function () { globalThis.savedAs = this.download; };
            """
        );
        other.TakeTool("loop");
        PageHands.Press(other, (left + right) / 2.0, (top + bottom) / 2.0);
        other.Press("save-file");
        other.Until(() => (string?)other.Script("return globalThis.savedAs ?? null") == "wheel count.bin", "it is saved by its name");
        var read = (string)
            other.AsyncScript(
                """
                const done = arguments[0];
                globalThis.saved[0].arrayBuffer().then((bytes) => crypto.subtle.digest('SHA-256', bytes))
                  .then((sum) => done(Array.from(new Uint8Array(sum), (byte) => byte.toString(16).padStart(2, '0')).join('')));
                """
            )!;
        Assert.Equal(Convert.ToHexStringLower(System.Security.Cryptography.SHA256.HashData(bytes)), read);
        Assert.Equal("application/octet-stream", other.Script("return globalThis.saved[0].type"));
        // What is neither a PDF nor plain text is not opened.
        Assert.Equal(0, other.Count("[data-testid=open-file]"));
        Assert.Empty(browser.Errors());
        Assert.Empty(other.Errors());
    }

    [Fact]
    public void An_empty_file_is_refused_with_a_sentence_and_one_with_a_page_of_scripts_in_it_is_kept_and_never_run()
    {
        var browser = OpenPage(Group.Writer);
        browser.Press("tool-put");
        browser.Find("put-panel");
        PageHands.ChooseFile(browser, "put-any", Made("nothing.txt", []));
        browser.Until(() => browser.Text("said").Contains("“nothing.txt” is empty", StringComparison.Ordinal), "a sentence");
        browser.Press("tool-put");
        browser.Find("put-panel");
        PageHands.ChooseFile(browser, "put-any", Made("page.html", "<script>parent.ran = true</script>"u8.ToArray()));
        browser.WaitForStrokes(2);
        Assert.Equal(0, browser.Count("[data-testid=open-file]"));
        browser.WaitForSync("All saved");
        var answer = (string)
            browser.AsyncScript(
                """
                const [path, done] = arguments;
                fetch(path).then((answer) => done(answer.headers.get('content-type') + ' | ' + answer.headers.get('content-disposition')));
                """,
                $"/api/spaces/{FileSpace(browser)}/assets/{FileOn(browser).Asset}"
            )!;
        Assert.StartsWith("application/octet-stream | attachment", answer, StringComparison.Ordinal);
        Assert.Empty(browser.Errors());
    }

    private static string FileSpace(Browser browser) => browser.Driver.Url.Split("/page/")[1].Split('/')[0];

    private FileContent FileOn(Browser browser, Store.People.Person? person = null) =>
        (FileContent)PageOf(browser, person).Items.Single(item => item is { Shown: true, Kind: ItemKinds.File }).Content;

    private string Made(string name, byte[] bytes)
    {
        var file = Path.Combine(folder, name);
        File.WriteAllBytes(file, bytes);
        return file;
    }
}
