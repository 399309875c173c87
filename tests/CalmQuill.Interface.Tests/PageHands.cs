using System.Globalization;
using CalmQuill.Testing;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace CalmQuill.Interface.Tests;

/// <summary>What hands do on a page, in the page's own measures.</summary>
internal static class PageHands
{
    /// <summary>A spot of the page, 0.01 mm, in pixels from the sheet's upper left.</summary>
    public static (int X, int Y) At(Browser browser, double x, double y)
    {
        var view = View(browser);
        return ((int)Math.Round(x * view[0] + view[1]), (int)Math.Round(y * view[0] + view[2]));
    }

    /// <summary>The spot of the page, 0.01 mm, at so many pixels from the sheet's upper left.</summary>
    public static (double X, double Y) Of(Browser browser, int x, int y)
    {
        var view = View(browser);
        return ((x - view[1]) / view[0], (y - view[2]) / view[0]);
    }

    /// <summary>Pixels for 0.01 mm, and where the page's corner lies.</summary>
    public static double[] View(Browser browser) =>
        browser.Until(
            () =>
                browser
                    .AttributeAt("[data-testid=sheet]", "data-view")!
                    .Split(' ')
                    .Select(part => double.Parse(part, CultureInfo.InvariantCulture))
                    .ToArray()
                    is { } read
                && read[0] > 0
                    ? read
                    : null,
            "the sheet's view"
        )!;

    /// <summary>Two fingers, so many pixels left and right of the middle of something, or as far below that, move apart or together until they are as far off as that.</summary>
    public static void Spread(Browser browser, IWebElement middle, int from, int to, int below = 0)
    {
        browser.Driver.PerformActions([Move("left", -1), Move("right", 1)]);

        ActionSequence Move(string name, int side)
        {
            var finger = new PointerInputDevice(PointerKind.Touch, name);
            var actions = new ActionSequence(finger);
            actions.AddAction(finger.CreatePointerMove(middle, side * from, below, TimeSpan.Zero));
            actions.AddAction(finger.CreatePointerDown(MouseButton.Left));
            for (var i = 1; i <= 8; i++)
                actions.AddAction(
                    finger.CreatePointerMove(middle, side * (from + (to - from) * i / 8), below, TimeSpan.FromMilliseconds(20))
                );
            actions.AddAction(finger.CreatePointerUp(MouseButton.Left));
            return actions;
        }
    }

    /// <summary>The browser’s tab is gone without a farewell, and another is open.</summary>
    public static void LoseTab(Browser browser)
    {
        var left = browser.Driver.CurrentWindowHandle;
        browser.Driver.SwitchTo().NewWindow(WindowType.Tab);
        var next = browser.Driver.CurrentWindowHandle;
        browser.Driver.SwitchTo().Window(left);
        browser.Driver.Close();
        browser.Driver.SwitchTo().Window(next);
    }

    /// <summary>Draws with the loop round a part of the page.</summary>
    public static void Loop(Browser browser, double left, double top, double right, double bottom)
    {
        if (browser.AttributeAt("[data-testid=tool-loop]", "aria-pressed") != "true")
            browser.Press("tool-loop");
        var (x1, y1) = At(browser, left, top);
        var (x2, y2) = At(browser, right, bottom);
        int wide = (x2 - x1) / 4,
            high = (y2 - y1) / 4;
        browser.Pen(
            x1,
            y1,
            [
                (wide, 0),
                (wide, 0),
                (wide, 0),
                (wide, 0),
                (0, high),
                (0, high),
                (0, high),
                (0, high),
                (-wide, 0),
                (-wide, 0),
                (-wide, 0),
                (-wide, 0),
                (0, -high),
                (0, -high),
                (0, -high),
            ]
        );
        browser.Find("selection");
    }

    /// <summary>Moves the pen over something without touching it.</summary>
    public static void Over(Browser browser, string testId)
    {
        var pen = new PointerInputDevice(PointerKind.Pen, "over");
        var actions = new ActionSequence(pen);
        actions.AddAction(pen.CreatePointerMove(browser.Find(testId), 10, 10, TimeSpan.Zero));
        for (var i = 0; i < 12; i++)
            actions.AddAction(pen.CreatePointerMove(CoordinateOrigin.Pointer, 6, 3, TimeSpan.FromMilliseconds(10)));
        browser.Driver.PerformActions([actions]);
    }

    /// <summary>Presses a spot of the page with the pen.</summary>
    public static void Press(Browser browser, double x, double y)
    {
        var (px, py) = At(browser, x, y);
        browser.Pen(px, py, []);
    }

    /// <summary>Presses with the text tool, and waits for the caret.</summary>
    public static void PressToType(Browser browser, double x, double y)
    {
        browser.TakeTool("text");
        Press(browser, x, y);
        browser.Until(
            () => (bool)browser.Script("return document.activeElement?.dataset.testid === 'typing-field'")!,
            "the caret in the text"
        );
    }

    public static void OpenNotebook(Browser browser, string name)
    {
        browser.Go("/library");
        browser.PressCss($"[data-testid=notebook-row][data-name='{name}'] [data-testid=open-notebook]");
        browser.Find("sheet");
    }

    public static void WaitForPage(Browser browser, string number) =>
        browser.Until(() => browser.Text("page-number") == number, $"“{number}”, it is “{browser.Text("page-number")}”");

    public static void ChooseFile(Browser browser, string testId, string path) =>
        browser.Driver.FindElement(By.CssSelector($"[data-testid={testId}]")).SendKeys(path);

    /// <summary>Waits until a colour is seen at a place of the page.</summary>
    public static void Sees(Browser browser, double x, double y, int red, int green, int blue)
    {
        var seen = "";
        try
        {
            browser.Until(
                () =>
                {
                    var (px, py) = At(browser, x, y);
                    seen = (string)
                        browser.Script(
                            """
                            const [x, y] = arguments;
                            const canvas = [...document.querySelectorAll('[data-testid=sheet] canvas')].find((one) => one.style.visibility === 'visible');
                            if (!canvas || canvas.style.transform) return '';
                            const ratio = canvas.width / canvas.clientWidth;
                            return [...canvas.getContext('2d').getImageData(Math.round(x * ratio), Math.round(y * ratio), 1, 1).data].join(' ');
                            """,
                            px,
                            py
                        )!;
                    var parts = seen.Split(' ', StringSplitOptions.RemoveEmptyEntries).Select(int.Parse).ToArray();
                    return parts.Length > 2 && Math.Abs(parts[0] - red) + Math.Abs(parts[1] - green) + Math.Abs(parts[2] - blue) < 12;
                },
                "a colour"
            );
        }
        catch (Exception)
        {
            Assert.Fail($"At {x}, {y} there is {seen}, not {red} {green} {blue}.");
        }
    }
}
