using System.Globalization;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Interactions;
using OpenQA.Selenium.Support.UI;

namespace CalmQuill.Testing;

/// <summary>One headless Chromium with a profile of its own, driven as a person would.</summary>
public sealed class Browser : IDisposable
{
    // A machine that is busy with other browsers may be long in opening one.
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(60);
    private readonly string profile = Directory.CreateTempSubdirectory("quill-profile").FullName;
    private readonly ChromeDriverService service;

    public Browser(Uri address)
    {
        Address = address;
        var options = new ChromeOptions { BinaryLocation = "/usr/bin/chromium" };
        options.AddArguments(
            "--headless=new",
            "--no-sandbox",
            "--disable-gpu",
            "--disable-quic",
            "--no-first-run",
            "--disable-background-networking",
            "--disable-component-update",
            "--disable-sync",
            "--window-size=1280,900",
            $"--user-data-dir={profile}"
        );
        options.AddUserProfilePreference("download.default_directory", Downloads);
        options.SetLoggingPreference(LogType.Browser, LogLevel.Severe);
        service = ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver");
        service.SuppressInitialDiagnosticInformation = true;
        Driver = new ChromeDriver(service, options);
    }

    public ChromeDriver Driver { get; }

    /// <summary>Makes the window so large that the page has so much room, pixels.</summary>
    public void Resize(int width, int height)
    {
        var edges = (System.Collections.ObjectModel.ReadOnlyCollection<object>)
            Script("return [outerWidth - innerWidth, outerHeight - innerHeight]")!;
        Driver.Manage().Window.Size = new System.Drawing.Size(
            width + Convert.ToInt32(edges[0], CultureInfo.InvariantCulture),
            height + Convert.ToInt32(edges[1], CultureInfo.InvariantCulture)
        );
        Until(() => (long)Script("return innerWidth")! == width, $"a window {width} wide");
    }

    public Uri Address { get; }

    /// <summary>Where the browser puts what is saved as a file.</summary>
    private string Downloads => Path.Combine(profile, "saved");

    /// <summary>Waits for the one file that was saved, and takes it away.</summary>
    public string TakeSavedFile(string extension = ".json")
    {
        // The browser holds the name with an empty file while it writes beside it; none that is saved here is empty.
        var file = Until(
            () =>
                Directory.Exists(Downloads)
                    ? new DirectoryInfo(Downloads).GetFiles().FirstOrDefault(one => one.Extension == extension && one.Length > 0)?.FullName
                    : null,
            "a saved file"
        )!;
        var text = File.ReadAllText(file);
        File.Delete(file);
        return text;
    }

    /// <summary>Lets the application do what a browser asks a person about first.</summary>
    public void Allow(params string[] permissions) =>
        Driver.ExecuteCdpCommand(
            "Browser.grantPermissions",
            new Dictionary<string, object?> { ["permissions"] = permissions, ["origin"] = Address.GetLeftPart(UriPartial.Authority) }
        );

    public void Go(string path) => Driver.Navigate().GoToUrl(new Uri(Address, path));

    public void SignIn(string email, string password)
    {
        Go("/sign-in");
        Find("sign-in-form");
        Fill("input[name=email]", email);
        Fill("input[name=password]", password);
        Press("sign-in");
        Find("desk-heading");
    }

    /// <summary>Takes over what says who is signed in, as if the form had been filled here; opens nothing.</summary>
    public void SignInAs(Caller caller)
    {
        foreach (var cookie in caller.Cookies.GetAllCookies().AsEnumerable())
            Driver.ExecuteCdpCommand(
                "Network.setCookie",
                new Dictionary<string, object?>
                {
                    ["url"] = Address.ToString(),
                    ["name"] = cookie.Name,
                    ["value"] = cookie.Value,
                    ["path"] = cookie.Path,
                    ["httpOnly"] = cookie.HttpOnly,
                }
            );
    }

    /// <summary>Waits for an element by its test id.</summary>
    public IWebElement Find(string testId) => Css($"[data-testid='{testId}']");

    public IWebElement Css(string selector) =>
        Until(() => Driver.FindElements(By.CssSelector(selector)).FirstOrDefault(element => element.Displayed), selector)!;

    /// <summary>The words on an element, read again when it was drawn anew in between.</summary>
    public string Text(string testId) => Until(() => Find(testId).Text, testId)!;

    public string? Attribute(string testId, string name) => AttributeAt($"[data-testid='{testId}']", name);

    public string? AttributeAt(string selector, string name) => Until(() => new[] { Css(selector).GetAttribute(name) }, selector)[0];

    public int Count(string selector) => Driver.FindElements(By.CssSelector(selector)).Count;

    public void Press(string testId) => PressCss($"[data-testid='{testId}']");

    public void PressCss(string selector) =>
        Until(
            () =>
            {
                try
                {
                    Css(selector).Click();
                    return true;
                }
                catch (Exception moved) when (moved is StaleElementReferenceException or ElementClickInterceptedException)
                {
                    return false;
                }
            },
            selector
        );

    /// <summary>Presses the nth of several.</summary>
    /// <summary>Presses what stands in the rail, which is folded away on a page.</summary>
    public void ByRail(string selector)
    {
        if (Count("[data-testid=open-rail]") > 0)
        {
            if (Count("[data-testid=rail-over]") == 0)
                Press("open-rail");
            selector = $"[data-testid=rail-over] {selector}";
        }

        PressCss(selector);
    }

    /// <summary>Takes up a tool from the tray, or from the panel of all tools where the tray does not hold it.</summary>
    public void TakeTool(string name)
    {
        if (Count($"[data-testid=tool-{name}]") > 0)
            Press($"tool-{name}");
        else
        {
            Press("all-tools-button");
            Press($"all-{name}");
        }
    }

    public void PressNth(string testId, int nth) =>
        Until(
            () =>
            {
                try
                {
                    Driver.FindElements(By.CssSelector($"[data-testid='{testId}']"))[nth].Click();
                    return true;
                }
                catch (Exception moved)
                    when (moved is StaleElementReferenceException or ElementClickInterceptedException or ArgumentOutOfRangeException)
                {
                    return false;
                }
            },
            testId
        );

    public void Fill(string selector, string text) => SendKeys(selector, Keys.Control + "a", text);

    /// <summary>Types into a field or onto an element.</summary>
    public void SendKeys(string selector, params string[] keys) =>
        Until(
            () =>
            {
                var field = Css(selector);
                foreach (var some in keys)
                    field.SendKeys(some);
                return true;
            },
            selector
        );

    /// <summary>Puts a long text into a field, as pasting does, and presses Enter.</summary>
    public void Paste(string selector, string text)
    {
        SendKeys(selector, Keys.Control + "a");
        Script("document.execCommand('insertText', false, arguments[0])", text);
        SendKeys(selector, Keys.Enter);
    }

    /// <summary>Sets a field for a date, of the form 2026-10-01, whose own typing follows the browser's language.</summary>
    public void SetDay(string testId, string day) =>
        Script(
            """
            const input = document.querySelector(`[data-testid=${arguments[0]}]`);
            Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(input, arguments[1]);
            input.dispatchEvent(new Event('input', { bubbles: true }));
            """,
            testId,
            day
        );

    public T Until<T>(Func<T> condition, string what)
    {
        var wait = new DefaultWait<IWebDriver>(Driver)
        {
            Timeout = Patience,
            PollingInterval = TimeSpan.FromMilliseconds(40),
            Message = $"waited for {what}; the console says: {Console()}",
        };
        wait.IgnoreExceptionTypes(typeof(StaleElementReferenceException));
        return wait.Until(_ => condition());
    }

    /// <summary>Watches from now on for what may be over again before one looks.</summary>
    /// <param name="testId">On what, also where it comes only later.</param>
    /// <param name="name">Which attribute.</param>
    /// <param name="value">The value it is watched for.</param>
    /// <returns>Waits until it has had that value once.</returns>
    public Action Watch(string testId, string name, string value)
    {
        var key = $"{testId} {name} {value}";
        Script(
            """
            const [key, testId, name, value] = arguments;
            const seen = (window.seenByTests ??= {});
            seen[key] = false;
            const look = () => {
                if (document.querySelector(`[data-testid='${testId}']`)?.getAttribute(name) === value) seen[key] = true;
            };
            new MutationObserver(look).observe(document, { subtree: true, childList: true, attributes: true, attributeFilter: [name] });
            look();
            """,
            key,
            testId,
            name,
            value
        );
        return () => Until(() => (bool)Script("return window.seenByTests?.[arguments[0]] === true", key)!, $"“{key}”");
    }

    public object? Script(string script, params object[] arguments) => Driver.ExecuteScript(script, arguments);

    public object? AsyncScript(string script, params object[] arguments)
    {
        Driver.Manage().Timeouts().AsynchronousJavaScript = Patience;
        return Driver.ExecuteAsyncScript(script, arguments);
    }

    /// <summary>How many strokes the sheet shows; −1 while none is open.</summary>
    /// <param name="pane">Which of two sheets beside each other.</param>
    public int Strokes(int pane = 0) =>
        int.Parse(
            (string?)Script("return document.querySelectorAll('[data-testid=sheet]')[arguments[0]]?.dataset.strokes ?? '-1'", pane) ?? "-1",
            CultureInfo.InvariantCulture
        );

    public void WaitForStrokes(int count, int pane = 0) =>
        Until(() => Strokes(pane) == count, $"{count} strokes, there are {Strokes(pane)}");

    /// <summary>Waits for the words on saving; for those that all is saved until that is so of everything made up to now, not only of what was made a moment ago.</summary>
    public void WaitForSync(string words) =>
        Until(
            () =>
                Find("sync-state").Text.Contains(words, StringComparison.Ordinal)
                && (
                    words != "All saved"
                    || (bool)Script("const { made = '0', settled = '0' } = document.documentElement.dataset; return made === settled")!
                ),
            $"the words “{words}”, they are “{Find("sync-state").Text}”"
        );

    /// <summary>Types into whatever has the focus.</summary>
    public void Type(string keys) => new Actions(Driver).SendKeys(keys).Perform();

    /// <summary>Presses a key with ctrl.</summary>
    public void TypeWithControl(string key) => TypeWith(Keys.Control, key);

    /// <summary>Presses a key while another is held.</summary>
    public void TypeWith(string held, string key) => new Actions(Driver).KeyDown(held).SendKeys(key).KeyUp(held).Perform();

    /// <summary>Drags one thing onto another with the mouse.</summary>
    public void Drag(Func<IWebElement> from, Func<IWebElement> onto) =>
        Until(
            () =>
            {
                new Actions(Driver).ClickAndHold(from()).MoveByOffset(-20, 10).MoveToElement(onto()).MoveByOffset(2, 2).Release().Perform();
                return true;
            },
            "what is dragged"
        );

    /// <summary>Holds a thing with a finger until it can be moved, and carries it onto another.</summary>
    /// <param name="from">The thing.</param>
    /// <param name="onto">The other.</param>
    /// <param name="aside">How far to the right of the other's middle it is let go, px.</param>
    public void Carry(Func<IWebElement> from, Func<IWebElement> onto, int aside = 0) =>
        Carry(from, finger => finger.CreatePointerMove(onto(), aside, 0, TimeSpan.FromMilliseconds(200)));

    /// <summary>The same onto a place in the window, where what one lets go over comes out only then.</summary>
    public void Carry(Func<IWebElement> from, System.Drawing.Point onto) =>
        Carry(from, finger => finger.CreatePointerMove(CoordinateOrigin.Viewport, onto.X, onto.Y, TimeSpan.FromMilliseconds(400)));

    private void Carry(Func<IWebElement> from, Func<PointerInputDevice, Interaction> onto) =>
        Until(
            () =>
            {
                var finger = new PointerInputDevice(PointerKind.Touch, "finger");
                var actions = new ActionSequence(finger);
                actions.AddAction(finger.CreatePointerMove(from(), 0, 0, TimeSpan.Zero));
                actions.AddAction(finger.CreatePointerDown(MouseButton.Left));
                actions.AddAction(finger.CreatePause(TimeSpan.FromMilliseconds(400)));
                actions.AddAction(finger.CreatePointerMove(CoordinateOrigin.Pointer, -12, 6, TimeSpan.FromMilliseconds(60)));
                actions.AddAction(onto(finger));
                actions.AddAction(finger.CreatePointerMove(CoordinateOrigin.Pointer, 2, 2, TimeSpan.FromMilliseconds(60)));
                actions.AddAction(finger.CreatePointerUp(MouseButton.Left));
                Driver.PerformActions([actions]);
                return true;
            },
            "what is carried"
        );

    /// <summary>Taps a thing with a finger.</summary>
    public void Tap(string testId) => Tap(() => Find(testId), testId);

    public void Tap(Func<IWebElement> thing, string what) =>
        Until(
            () =>
            {
                var finger = new PointerInputDevice(PointerKind.Touch, "finger");
                var actions = new ActionSequence(finger);
                actions.AddAction(finger.CreatePointerMove(thing(), 0, 0, TimeSpan.Zero));
                actions.AddAction(finger.CreatePointerDown(MouseButton.Left));
                actions.AddAction(finger.CreatePointerUp(MouseButton.Left));
                Driver.PerformActions([actions]);
                return true;
            },
            what
        );

    /// <summary>Draws with a pen, in pixels from the sheet's upper left, with pressure and tilt.</summary>
    /// <param name="x">Where it begins.</param>
    /// <param name="y">Where it begins.</param>
    /// <param name="way">The steps.</param>
    /// <param name="lift">Whether it is lifted at the end.</param>
    /// <param name="kind">Pen, finger or mouse.</param>
    /// <param name="pane">Which of two sheets.</param>
    /// <param name="rest">How long it rests before it is lifted.</param>
    public void Pen(
        int x,
        int y,
        (int Dx, int Dy)[] way,
        bool lift = true,
        PointerKind kind = PointerKind.Pen,
        int pane = 0,
        TimeSpan rest = default
    )
    {
        var pen = new PointerInputDevice(kind, "hand " + kind);
        var sheet = Until(() => Driver.FindElements(By.CssSelector("[data-testid=sheet]")).ElementAtOrDefault(pane), "the sheet")!;
        var size = sheet.Size;
        var properties = new PointerInputDevice.PointerEventProperties
        {
            Pressure = 0.6,
            TiltX = 20,
            TiltY = -10,
        };
        var actions = new ActionSequence(pen);
        actions.AddAction(pen.CreatePointerMove(sheet, x - size.Width / 2, y - size.Height / 2, TimeSpan.Zero));
        actions.AddAction(pen.CreatePointerDown(MouseButton.Left, properties));
        foreach (var (dx, dy) in way)
            actions.AddAction(pen.CreatePointerMove(CoordinateOrigin.Pointer, dx, dy, TimeSpan.FromMilliseconds(8), properties));
        if (rest > TimeSpan.Zero)
            actions.AddAction(pen.CreatePause(rest));
        if (lift)
            actions.AddAction(pen.CreatePointerUp(MouseButton.Left));
        Driver.PerformActions([actions]);
    }

    /// <summary>A wave, as a word would be.</summary>
    public void Wave(int x, int y, PointerKind kind = PointerKind.Pen, int pane = 0) =>
        Pen(x, y, [.. Enumerable.Range(0, 16).Select(i => (6, (int)(14 * Math.Sin(i * 0.9))))], kind: kind, pane: pane);

    /// <summary>What axe-core (the outside check for accessibility) finds serious or critical in what is shown now.</summary>
    public IReadOnlyList<string> SeriousFindings()
    {
        Driver.ExecuteScript(File.ReadAllText(Path.Combine(Repository.Root, "src/web/node_modules/axe-core/axe.min.js")));
        var found =
            (IEnumerable<object>)
                AsyncScript(
                    """
                    axe.run().then((result) => arguments[0](result.violations
                      .filter((one) => ['serious', 'critical'].includes(one.impact))
                      .map((one) => one.id + ': ' + one.nodes.map((node) => node.target.join(' ')).slice(0, 3).join(', '))))
                    """
                )!;
        return [.. found.Cast<string>()];
    }

    /// <summary>What the browser's console says of errors, without the network's own complaints.</summary>
    public IEnumerable<string> Errors() =>
        Driver
            .Manage()
            .Logs.GetLog(LogType.Browser)
            .Select(entry => entry.Message)
            .Where(message =>
                !message.Contains("Failed to load resource", StringComparison.Ordinal)
                && !message.Contains("WebSocket", StringComparison.Ordinal)
                && !message.Contains("ERR_", StringComparison.Ordinal)
            );

    public void Dispose()
    {
        Driver.Quit();
        service.Dispose();
        Directory.Delete(profile, recursive: true);
    }

    private string Console() => string.Join(" | ", Errors().Take(5));
}
