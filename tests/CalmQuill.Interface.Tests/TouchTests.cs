using CalmQuill.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;
using static CalmQuill.Interface.Tests.LibraryHands;

namespace CalmQuill.Interface.Tests;

/// <summary>The library, the overview and the page by finger on a tablet, and what is taken to other programs.</summary>
public sealed class TouchTests : InterfaceTest
{
    [Fact]
    public void By_finger_notebooks_are_carried_into_folders_and_menus_and_lists_are_used()
    {
        var browser = Tablet();
        IWebElement Menu() => Row(browser, "Escapements").FindElement(By.CssSelector("[data-testid=row-menu]"));
        browser.Go("/library");
        Row(browser, "Escapements");
        browser.Tap("show-side");
        NewFolder(browser, "Wednesday class");
        browser.Driver.Manage().Window.Size = new System.Drawing.Size(1180, 820);
        // The notebook is held, and the drawer comes out with the folders; it is let go over one, and the drawer is shut again.
        bool IsOpen() => browser.Driver.FindElement(By.CssSelector("[data-testid=library-drawer]")).Displayed;
        void Shut()
        {
            browser.PressCss("[aria-label='Close the folders']");
            browser.Until(() => !IsOpen(), "the drawer to be shut");
        }

        void Held(bool one)
        {
            browser.Tap("show-side");
            browser.Until(
                () => Folder(browser, "Wednesday class").Text.Contains('1', StringComparison.Ordinal) == one,
                one ? "the notebook in the folder" : "the notebook where it was"
            );
            Shut();
        }

        if (!IsOpen())
            browser.Tap("show-side");
        var folder = Folder(browser, "Wednesday class");
        var middle = new System.Drawing.Point(folder.Location.X + folder.Size.Width / 2, folder.Location.Y + folder.Size.Height / 2);
        Shut();
        browser.Carry(() => Row(browser, "Escapements").FindElement(By.TagName("p")), middle);
        browser.Until(() => !IsOpen(), "the drawer to be shut again");
        Held(one: true);
        browser.Tap("take-back");
        Held(one: false);
        browser.Tap(Menu, "the menu");
        browser.Tap("menu-star");
        browser.Tap("show-side");
        browser.Tap("list-starred");
        Row(browser, "Escapements");
        browser.Tap(Menu, "the menu");
        browser.Tap("menu-bin");
        browser.Until(() => browser.Count("[data-testid=notebook-row]") == 0, "the notebook in the bin");
        browser.Tap("take-back");
        Row(browser, "Escapements");
        browser.WaitForSync("All saved");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void By_finger_pages_are_put_into_another_order_and_chosen()
    {
        var browser = Tablet();
        browser.Go($"/pages/{Group.Space}/{Notebook}");
        string[] Pages() =>
            [.. browser.Driver.FindElements(By.CssSelector("[data-testid=overview-page]")).Select(page => page.GetAttribute("data-page")!)];
        var before = browser.Until(() => Pages() is { Length: 2 } pages ? pages : null, "the pages")!;
        Assert.Equal(Page.ToString(), before[0]);
        browser.Carry(() => browser.Css($"[data-page='{before[1]}']"), () => browser.Css($"[data-page='{before[0]}']"), aside: -40);
        browser.Until(() => Pages().SequenceEqual(before.Reverse()), "the other order");
        browser.Tap("overview-choose");
        browser.PressCss($"[data-page='{before[0]}']");
        browser.Tap("bar-duplicate");
        browser.Until(() => Pages().Length == 3, "the copy");
        browser.Tap("bar-bin");
        browser.Until(() => Pages().Length == 2 && !Pages().Contains(Page.ToString()), "the page in the bin");
        browser.Tap("take-back");
        browser.Until(() => Pages().Length == 3, "the page back in its place");
        browser.WaitForSync("All saved");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void A_finger_moves_the_page_while_a_pen_writes_and_two_fingers_zoom()
    {
        var browser = Tablet();
        browser.Go(PagePath);
        browser.WaitForStrokes(1);
        browser.Wave(420, 300);
        browser.WaitForStrokes(2);
        double[] View() =>
            [
                .. browser
                    .AttributeAt("[data-testid=sheet]", "data-view")!
                    .Split(' ')
                    .Select(part => double.Parse(part, System.Globalization.CultureInfo.InvariantCulture)),
            ];
        var before = View();
        var sheet = browser.Find("sheet");
        PageHands.Spread(browser, sheet, 60, 160);
        browser.Until(() => View()[0] > before[0] * 1.5, $"the page to be larger; it was {before[0]}, it is {View()[0]}");
        Assert.Equal(2, browser.Strokes());
        var zoomed = View();
        browser.Pen(400, 500, [.. Enumerable.Repeat((0, -12), 12)], kind: PointerKind.Touch);
        browser.Until(() => View()[2] < zoomed[2] - 60, "the page to be moved up");
        Assert.Equal(2, browser.Strokes());
        // What the pen writes lands where it is put, at whatever size.
        browser.Wave(300, 400);
        browser.WaitForStrokes(3);
        browser.WaitForSync("All saved");
        Assert.Empty(browser.Errors());
    }

    [Fact]
    public void A_selection_is_taken_to_other_programs_as_a_picture()
    {
        var browser = OpenPage(Group.Writer);
        browser.Allow("clipboardReadWrite", "clipboardSanitizedWrite");
        PageHands.Loop(browser, 2_000, 4_000, 13_000, 6_500);
        browser.Press("more-taken");
        browser.Press("copy-picture");
        var pixels = (string)
            browser.Until(
                () =>
                    browser.AsyncScript(
                        """
                        const done = arguments[arguments.length - 1];
                        (async () => {
                          const [item] = await navigator.clipboard.read();
                          const picture = await createImageBitmap(await item.getType('image/png'));
                          const canvas = new OffscreenCanvas(picture.width, picture.height);
                          const context = canvas.getContext('2d');
                          context.drawImage(picture, 0, 0);
                          const { data } = context.getImageData(0, 0, picture.width, picture.height);
                          let ink = 0;
                          for (let i = 0; i < data.length; i += 4) if (data[i + 3] > 128 && data[i] + data[i + 1] + data[i + 2] < 300) ink++;
                          done(`${picture.width} ${picture.height} ${ink}`);
                        })().catch(() => done(null));
                        """
                    ),
                "a picture on the clipboard"
            )!;
        var read = pixels.Split(' ').Select(number => int.Parse(number, System.Globalization.CultureInfo.InvariantCulture)).ToArray();
        // The wave is 80 mm by 5 mm: far wider than high, and there is ink on it.
        Assert.True(read[0] > 8 * read[1], pixels);
        Assert.InRange(read[2], 300, read[0] * read[1] / 2);
    }

    private Browser Tablet()
    {
        var (browser, _) = AtDesk(Group.Writer);
        browser.Driver.Manage().Window.Size = new System.Drawing.Size(820, 1180);
        return browser;
    }
}
